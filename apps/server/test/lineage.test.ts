import type { DrawingAnswer, LabResultAnswer, ZoneAnswer, ZonePlanAnswer } from '@glenfold/contract';
import { zoneInput } from '@glenfold/contract';
import fc from 'fast-check';
import { type Descended, heirsAmong } from '../src/ground/lineage.ts';
import { get, send, siteOf, typed, useDemoServer, zoneOf } from './client.ts';

const server = useDemoServer();

const part = (of: ZoneAnswer, more: object) => {
  const { name: _name, label: _label, taped: _taped, ...rest } = zoneInput(of);
  return { ...rest, area: 60, partOf: of.id, ...more };
};

describe('ground that is divided anew keeps its tests', () => {
  it('a part that was parted is read by the test of the whole, told as such, until it has its own', async () => {
    const site = await siteOf('Gannet');
    const whole = await zoneOf('Gannet', 'GR-2');
    const own = (await get<LabResultAnswer[]>(`/sites/${site.id}/lab-results`)).find(({ zoneIds }) =>
      zoneIds.includes(whole.id),
    )!;
    const plan = await send<DrawingAnswer>(
      'post',
      `/sites/${site.id}/plan`,
      { newZones: [part(whole, { name: 'Shady part', label: 'GR-9' })] },
      200,
    );
    const shady = plan.zones.find(({ label }) => label === 'GR-9')!;
    // What was measured on the whole was measured when the whole was.
    expect(shady.thatch).toBe(whole.thatch);
    const { result, reading, plan: rates } = await get<ZonePlanAnswer>(`/zones/${shady.id}/plan?units=us`);
    expect([result.id, rates.lime.status]).toEqual([own.id, 'due']);
    expect(reading.notes[0]).toBe('This test is of Sycamore lawn, taken before this zone was parted from it.');
    expect((await get<ZonePlanAnswer>(`/zones/${whole.id}/plan?units=us`)).reading.notes.join()).not.toMatch(
      /This test is of/,
    );

    // A test that is taken of the rest afterwards does not speak for the part.
    const later = await send<LabResultAnswer>('post', '/lab-results', typed(whole, { soilPh: 6.2 }));
    expect(later.inherited).toEqual([]);
    expect((await get<ZonePlanAnswer>(`/zones/${shady.id}/plan?units=us`)).result.id).toBe(own.id);
    const its = await send<LabResultAnswer>('post', '/lab-results', typed(shady, { soilPh: 5.9 }));
    const read = await get<ZonePlanAnswer>(`/zones/${shady.id}/plan?units=us`);
    expect([read.result.id, read.reading.notes.join().includes('This test is of')]).toEqual([its.id, false]);
    await send('delete', `/lab-results/${later.id}`);
    await send('delete', `/lab-results/${its.id}`);
    const dates = await server
      .current()
      .sql<{ takenOn: unknown }>(
        `SELECT DISTINCT "takenOn" FROM measurement WHERE "zoneId" = ANY($1) AND analyte = 'thatch'`,
        [[whole.id, shady.id]],
      );
    expect(dates).toHaveLength(1);
  });

  it('what is joined keeps its tests in the zone that it was joined to; undone, it has them back', async () => {
    const site = await siteOf('Harbour');
    const [east, west] = [await zoneOf('Harbour', 'HS-1'), await zoneOf('Harbour', 'HS-2')];
    const joined = { remove: [{ what: 'zone', id: west.id, into: east.id }] };
    await send('post', `/sites/${site.id}/plan`, joined, 200);
    const results = await get<LabResultAnswer[]>(`/sites/${site.id}/lab-results`);
    const its = results.filter(({ inherited }) => inherited.some(({ zoneId }) => zoneId === east.id));
    expect(its.length).toBeGreaterThan(0);
    expect(its[0]!.inherited).toEqual([{ zoneId: east.id, of: west.name, how: 'joined' }]);
    // Its own test comes first.
    expect((await get<ZonePlanAnswer>(`/zones/${east.id}/plan?units=us`)).result.zoneIds).toContain(east.id);
    await send('post', `/sites/${site.id}/plan`, { restore: [{ what: 'zone', id: west.id }] }, 200);
    const back = await get<LabResultAnswer[]>(`/sites/${site.id}/lab-results`);
    expect(back.filter(({ zoneIds }) => zoneIds.includes(west.id)).length).toBe(its.length);
    expect(back.every(({ inherited }) => inherited.length === 0)).toBe(true);
  });

  it('a zone of another site is no whole and no goal', async () => {
    const site = await siteOf('Harbour');
    const [elsewhere, here] = [await zoneOf('Gannet', 'GR-1'), await zoneOf('Harbour', 'HS-1')];
    await send('post', `/sites/${site.id}/plan`, { newZones: [part(elsewhere, { name: 'Stray', label: 'X1' })] }, 404);
    await send('post', `/sites/${site.id}/plan`, { remove: [{ what: 'zone', id: here.id, into: elsewhere.id }] }, 404);
  });
});

it('descent ends, whatever was parted and joined, and names no zone twice nor one that is gone', () => {
  const day = fc.integer({ min: 1, max: 28 }).map((number) => new Date(2026, 1, number));
  const zones = fc
    .array(
      fc.record({
        partOf: fc.option(fc.nat(7)),
        joinedInto: fc.option(fc.nat(7)),
        createdAt: day,
        deletedAt: fc.option(day),
      }),
      { minLength: 1, maxLength: 8 },
    )
    .map((list) =>
      list.map((zone, index): Descended => {
        const id = (at: number | null) => (at === null ? null : `z${at % list.length}`);
        return {
          ...zone,
          id: `z${index}`,
          name: `Zone ${index}`,
          partOf: id(zone.partOf),
          joinedInto: id(zone.joinedInto),
        };
      }),
    );
  fc.assert(
    fc.property(zones, day, (all, at) => {
      for (const { id } of all) {
        const heirs = heirsAmong(all)(id, at).map(({ zoneId }) => zoneId);
        expect(new Set(heirs).size).toBe(heirs.length);
        expect(heirs).not.toContain(id);
        for (const heir of heirs) expect(all.find((zone) => zone.id === heir)!.deletedAt).toBeNull();
      }
    }),
  );
});
