import type { LabResultAnswer, WorthAnswer, ZoneProgramAnswer } from '@glenfold/contract';
import { expect, it } from '@jest/globals';
import { get, send, siteOf, useDemoServer, zoneOf } from './client.ts';
import { demoEmails, signIn } from './harness.ts';

const server = useDemoServer();

it('what one more measurement would settle is told of a zone; who sees no prices is told no money', async () => {
  const zone = await zoneOf('Gannet', 'GR-3');
  const at = `/zones/${zone.id}/worth?units=us`;
  expect(await get<WorthAnswer[]>(at)).toEqual([]);
  const result = await send<LabResultAnswer>('post', '/lab-results', {
    ...{ zoneIds: [zone.id], label: 'GR-3', depth: 10, extractant: 'mehlich-3' },
    values: { soilPh: { value: 5.2, unit: 'pH', basis: 'element' } },
  });
  const found = await get<WorthAnswer[]>(at);
  expect(found.map(({ key }) => key)).toEqual(expect.arrayContaining(['buffer', 'cores']));
  const buffer = found.find(({ key }) => key === 'buffer')!;
  expect(buffer.words).toMatch(/A buffer pH .* settles whether .*lime is \d+ or \d+ lb\/1000 ft²/i);
  expect(buffer.stake).toBeGreaterThan(0);
  const wynn = await signIn(server.current(), demoEmails.technician);
  const seen = (await wynn.ask('get', at)).body as unknown as WorthAnswer[];
  expect(seen.map(({ stake }) => stake)).toEqual(found.map(() => null));
  expect(JSON.stringify(seen)).not.toContain('Money at stake');
  await send('delete', `/lab-results/${result.id}`);
});

it('a bag that zones share is named wherever one of them is read or limed by it', async () => {
  const site = await siteOf('Gannet');
  const [one, other] = [await zoneOf('Gannet', 'GR-1'), await zoneOf('Gannet', 'GR-3')];
  await send<LabResultAnswer>('post', '/lab-results', {
    ...{ zoneIds: [one.id, other.id], label: 'GR-1+3', depth: 10, extractant: 'mehlich-3', sampledOn: '2026-11-20' },
    values: { soilPh: { value: 5.2, unit: 'pH', basis: 'element' } },
  });
  const { borrowed, reading } = await get<ZoneProgramAnswer>(`/zones/${other.id}/program?units=us`);
  expect(borrowed).toBe(`One bag with ${one.name}: a mean of all, and not of this ground by itself.`);
  expect(reading.notes).toContain(borrowed);
  expect(site.id).toBe(other.siteId);
});
