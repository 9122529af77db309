import type { SessionAnswer, SiteAnswer, ZoneAnswer } from '@glenfold/contract';
import type { Page } from './person.ts';

/** Send something as the person of the page does. */
export async function send<T>(page: Page, path: string, body: object): Promise<T> {
  const { csrf } = (await (await page.request.get('/api/session')).json()) as SessionAnswer;
  const answer = await page.request.post(`/api${path}`, { data: body, headers: { 'x-csrf-token': csrf } });
  if (!answer.ok()) throw new Error(`${path}: ${await answer.text()}`);
  return (await answer.json()) as T;
}

/** A site of the journey's own, with lawns of these names and labels. */
export async function siteWith(page: Page, name: string, lawns: ReadonlyArray<readonly [name: string, label: string]>) {
  const site = await send<SiteAnswer>(page, '/sites', { name });
  const zones: ZoneAnswer[] = [];
  for (const [called, label] of lawns)
    zones.push(
      await send<ZoneAnswer>(page, `/sites/${site.id}/zones`, {
        ...{ name: called, label, area: 400, grass: 'tall fescue', surface: 'turf', intensity: 'medium' },
        ...{ shade: 'full sun', clippings: 'returned', soilGroup: 'loam' },
      }),
    );
  return { site, zones };
}
