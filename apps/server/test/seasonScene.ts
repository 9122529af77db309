import { randomUUID } from 'node:crypto';
import type { EntryWrittenAnswer, JobAnswer, LogbookAnswer, SeasonAnswer, ZoneAnswer } from '@glenfold/contract';
import { get, send, siteOf, typed } from './client.ts';
import { zoneBody } from './promisedRoutes.ts';

export const seasonOf = (siteId: string): Promise<SeasonAnswer> => get(`/sites/${siteId}/season?units=metric`);
export const bookOf = (siteId: string, year = 2026): Promise<LogbookAnswer> =>
  get(`/sites/${siteId}/logbook?units=metric&year=${year}`);
export const write = (input: object, status = 201): Promise<EntryWrittenAnswer> =>
  send('post', '/entries', { id: randomUUID(), state: 'done', ...input }, status);

/** A zone of its own on a site with a climate, tested acid, handed over: lime on its way. */
export async function limed(
  label: string,
  sampledOn = '2026-09-01',
): Promise<{ readonly zone: ZoneAnswer; readonly jobs: readonly JobAnswer[]; readonly season: SeasonAnswer }> {
  const { id: siteId } = await siteOf('Gannet');
  const zone = await send<ZoneAnswer>('post', `/sites/${siteId}/zones`, {
    ...zoneBody,
    label,
    name: label,
    area: 200,
    soilGroup: 'loam',
    grass: 'kentucky bluegrass',
  });
  await send('post', '/lab-results', typed(zone, { soilPh: 5.2, bufferPh: 5.8, sampledOn }));
  await send('post', `/sites/${siteId}/programs?units=metric`, { zoneIds: [zone.id] });
  const season = await seasonOf(siteId);
  return { zone, season, jobs: season.jobs.filter(({ zoneId }) => zoneId === zone.id) };
}

export const limeOf = (jobs: readonly JobAnswer[]): JobAnswer => jobs.find(({ key }) => key === 'lime')!;
