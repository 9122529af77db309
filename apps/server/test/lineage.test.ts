import type { DrawingAnswer, LabResultAnswer, ZoneAnswer, ZoneProgramAnswer } from '@glenfold/contract';
import { zoneInput } from '@glenfold/contract';
import fc from 'fast-check';
import { LabService, testOf } from '../src/lab/lab.service.ts';
import { Work } from '../src/platform/work.ts';
import { type Descended, heirsAmong } from '../src/ground/lineage.ts';
import { get, send, siteOf, typed, useDemoServer, zoneOf, treatmentIn } from './client.ts';

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
      `/sites/${site.id}/drawing`,
      { newZones: [part(whole, { name: 'Shady part', label: 'GR-9' })] },
      200,
    );
    const shady = plan.zones.find(({ label }) => label === 'GR-9')!;
    // What was measured on the whole was measured when the whole was.
    expect(shady.thatch).toBe(whole.thatch);
    const { result, reading, program } = await get<ZoneProgramAnswer>(`/zones/${shady.id}/program?units=us`);
    expect([result!.id, treatmentIn({ program }, 'lime').status]).toEqual([own.id, 'planned']);
    expect(reading.notes[0]).toBe('This test is of Sycamore lawn, taken before this zone was parted from it.');
    expect((await get<ZoneProgramAnswer>(`/zones/${whole.id}/program?units=us`)).reading.notes.join()).not.toMatch(
      /This test is of/,
    );

    // A test that is taken of the rest afterwards does not speak for the part.
    const later = await send<LabResultAnswer>('post', '/lab-results', typed(whole, { soilPh: 6.2 }));
    expect(later.inherited).toEqual([]);
    expect((await get<ZoneProgramAnswer>(`/zones/${shady.id}/program?units=us`)).result!.id).toBe(own.id);
    const its = await send<LabResultAnswer>('post', '/lab-results', typed(shady, { soilPh: 5.9 }));
    const read = await get<ZoneProgramAnswer>(`/zones/${shady.id}/program?units=us`);
    expect([read.result!.id, read.reading.notes.join().includes('This test is of')]).toEqual([its.id, false]);
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
    await send('post', `/sites/${site.id}/drawing`, joined, 200);
    const results = await get<LabResultAnswer[]>(`/sites/${site.id}/lab-results`);
    const its = results.filter(({ inherited }) => inherited.some(({ zoneId }) => zoneId === east.id));
    expect(its.length).toBeGreaterThan(0);
    expect(its[0]!.inherited).toEqual([{ zoneId: east.id, of: west.name, how: 'joined' }]);
    // Its own test comes first.
    expect((await get<ZoneProgramAnswer>(`/zones/${east.id}/program?units=us`)).result!.zoneIds).toContain(east.id);
    await send('post', `/sites/${site.id}/drawing`, { restore: [{ what: 'zone', id: west.id }] }, 200);
    const back = await get<LabResultAnswer[]>(`/sites/${site.id}/lab-results`);
    expect(back.filter(({ zoneIds }) => zoneIds.includes(west.id)).length).toBe(its.length);
    expect(back.every(({ inherited }) => inherited.length === 0)).toBe(true);
  });

  it('a zone of another site is no whole and no goal', async () => {
    const site = await siteOf('Harbour');
    const [elsewhere, here] = [await zoneOf('Gannet', 'GR-1'), await zoneOf('Harbour', 'HS-1')];
    await send(
      'post',
      `/sites/${site.id}/drawing`,
      { newZones: [part(elsewhere, { name: 'Stray', label: 'X1' })] },
      404,
    );
    await send(
      'post',
      `/sites/${site.id}/drawing`,
      { remove: [{ what: 'zone', id: here.id, into: elsewhere.id }] },
      404,
    );
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

describe('the test of a zone, as the database finds it for many sites at once', () => {
  const day = (count: number): string => new Date(Date.UTC(2026, 0, 1 + count, 12)).toISOString();
  const plot = fc.record({
    born: fc.nat(60),
    /** The earlier plot that it was parted from, or is joined into. */
    partOf: fc.option(fc.nat(), { nil: null }),
    joinedInto: fc.option(fc.nat(), { nil: null, freq: 2 }),
    deleted: fc.boolean(),
  });
  const sample = fc.record({
    plots: fc.array(fc.nat(), { minLength: 1, maxLength: 3 }),
    written: fc.nat(60),
    sampledOn: fc.option(fc.nat(60), { nil: null }),
    of: fc.constantFrom('soil', 'soil', 'soil', 'water'),
    deleted: fc.boolean(),
    amended: fc.option(fc.record({ written: fc.nat(60), deleted: fc.boolean() }), { nil: null }),
  });

  it('is the one that the rates of each zone rest on, however the ground was divided, joined, tested and amended', async () => {
    const { app, sql } = server.current();
    const { siteId } = await zoneOf('Kelp', 'KC-1');
    const [{ practiceId } = { practiceId: '' }] = await sql<{ practiceId: string }>(
      'SELECT "practiceId" FROM site WHERE id = $1',
      [siteId],
    );
    const ids = async (text: string, values: unknown[]): Promise<string> =>
      (await sql<{ id: string }>(`${text} RETURNING id`, values))[0]!.id;
    await fc.assert(
      fc.asyncProperty(
        fc.array(plot, { minLength: 1, maxLength: 7 }),
        fc.array(sample, { maxLength: 6 }),
        async (plots, samples) => {
          const site = await ids('INSERT INTO site ("practiceId", name) VALUES ($1, $2)', [
            practiceId,
            'Made for a test',
          ]);
          const zones: string[] = [];
          for (const [at, { born, partOf, deleted, joinedInto }] of plots.entries()) {
            const into = deleted && joinedInto !== null && at > 0 ? zones[joinedInto % at] : null;
            zones.push(
              await ids(
                `INSERT INTO zone ("practiceId", "siteId", "createdAt", "deletedAt", position, name, label, area, grass, surface,
                   intensity, shade, clippings, "partOf", "joinedInto")
                 VALUES ($1, $2, $3, $4, $5, $6, $6, 100, 'tall fescue', 'lawn', 'medium', 'sun', 'left', $7, $8)`,
                [
                  ...[practiceId, site, day(born), deleted ? day(61) : null, at, `Plot ${at}`],
                  ...[partOf !== null && at > 0 ? zones[partOf % at] : null, into],
                ],
              ),
            );
          }
          for (const { plots: shared, written, sampledOn, of, deleted, amended } of samples) {
            const taken = sampledOn === null ? null : day(sampledOn).slice(0, 10);
            const id = await ids(
              'INSERT INTO sample ("practiceId", "siteId", label, "sampledOn", depth, of) VALUES ($1, $2, $3, $4, 10, $5)',
              [practiceId, site, 'bag', taken, of],
            );
            for (const zone of new Set(shared.map((index) => zones[index % zones.length])))
              await sql('INSERT INTO sample_zone ("practiceId", "sampleId", "zoneId") VALUES ($1, $2, $3)', [
                ...[practiceId, id, zone],
              ]);
            const result = (at: number, gone: boolean, before: string | null): Promise<string> =>
              ids(
                `INSERT INTO lab_result ("practiceId", "sampleId", "createdAt", "deletedAt", extractant, origin, "supersedesId")
                 VALUES ($1, $2, $3::timestamptz + random() * interval '1 hour', $4, 'mehlich-3', 'typed', $5)`,
                [practiceId, id, day(at), gone ? day(61) : null, before],
              );
            const first = await result(written, deleted, null);
            if (amended) await result(amended.written, amended.deleted, first);
          }
          const found = await sql<{ zoneId: string; resultId: string | null }>(
            'SELECT "zoneId", "resultId" FROM zone_tests($1) WHERE "siteId" = $2',
            [practiceId, site],
          );
          const results = await app
            .get(Work)
            .run({ practiceId, person: null, role: null }, () =>
              app.get(LabService, { strict: false }).resultsOf(site),
            );
          expect(new Map(found.map(({ zoneId, resultId }) => [zoneId, resultId]))).toEqual(
            new Map(
              zones.flatMap((id, at) => (plots[at]!.deleted ? [] : [[id, testOf(results, id)?.id ?? null] as const])),
            ),
          );
        },
      ),
      { numRuns: 60 },
    );
  });
});
