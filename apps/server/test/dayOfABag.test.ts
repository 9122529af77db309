import { SamplingService } from '../src/sampling/sampling.service.ts';
import { Work } from '../src/platform/work.ts';
import { useDemoServer } from './client.ts';

const server = useDemoServer();

it.each([
  ['2026-10-15T00:30:00Z', 'America/St_Johns', '2026-10-14'],
  ['2026-10-14T20:00:00Z', 'Asia/Tokyo', '2026-10-15'],
  ['2026-10-14T12:00:00Z', 'UTC', '2026-10-14'],
])('a bag that was filled at %s in %s was filled on %s', async (at, timeZone, day) => {
  const { app, sql } = server.current();
  const [bag] = await sql<{ id: string; siteId: string; practiceId: string }>(
    `SELECT id, "siteId", "practiceId" FROM bag ORDER BY code LIMIT 1`,
  );
  await sql(`UPDATE site SET "timeZone" = $2 WHERE id = $1`, [bag!.siteId, timeZone]);
  await sql(`UPDATE core SET state = 'cored', at = $2 WHERE "bagId" = $1`, [bag!.id, at]);
  const worker = { practiceId: bag!.practiceId, person: null, role: null };
  const filled = await app.get(Work).run(worker, () => app.get(SamplingService, { strict: false }).filled(bag!.siteId));
  expect(filled.find(({ id }) => id === bag!.id)?.sampledOn).toBe(day);
});
