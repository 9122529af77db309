import { Plane } from '@glenfold/agronomy/geometry';
import type { DrawingAnswer, SessionAnswer, SiteAnswer } from '@glenfold/contract';
import type { Page } from '@playwright/test';
import { build } from 'esbuild';
import { expect, openSite, test } from '../journeys/person.ts';

const ZONES = 300;
const CORNERS = 200;
const plane = new Plane([-36, 46.5]);

/** Ragged lawns side by side, each of many corners. */
function zone(index: number): object {
  const [east, north] = [(index % 20) * 30, Math.floor(index / 20) * 30];
  const corners = Array.from({ length: CORNERS }, (_, at) => {
    const angle = (2 * Math.PI * at) / CORNERS;
    const radius = 14 + 0.5 * Math.sin(9 * angle + index);
    return [...plane.toMap([east + radius * Math.cos(angle), north + radius * Math.sin(angle)])];
  });
  const facts = { surface: 'turf', intensity: 'medium', shade: 'full sun', clippings: 'returned', area: 600 };
  const geometry = { type: 'Polygon', coordinates: [[...corners, corners[0]]] };
  return { ...facts, name: `Lawn ${index + 1}`, label: `L-${index + 1}`, grass: 'tall fescue', geometry };
}

/** A site with so many zones. */
async function siteWith(page: Page, name: string, zones: number): Promise<string> {
  const { csrf } = (await (await page.request.get('/api/session')).json()) as SessionAnswer;
  const post = async <T>(path: string, data: object): Promise<T> => {
    const answer = await page.request.post(`/api${path}`, {
      data,
      headers: { 'x-csrf-token': csrf },
      timeout: 300_000,
    });
    expect(answer.ok()).toBe(true);
    return (await answer.json()) as T;
  };
  const { id } = await post<SiteAnswer>('/sites', { name });
  const newZones = Array.from({ length: zones }, (_, index) => zone(index));
  const plan = await post<DrawingAnswer>(`/sites/${id}/drawing`, { newZones });
  expect(plan.zones).toHaveLength(zones);
  return id;
}

/** The middle of some times, and the slowest but a twentieth, ms. */
function told(times: readonly number[]): { readonly middle: number; readonly slow: number } {
  const sorted = [...times].sort((one, other) => one - other);
  return { middle: sorted[Math.floor(sorted.length / 2)]!, slow: sorted[Math.floor(sorted.length * 0.95)]! };
}

/** Times between frames while the sheet is dragged, moved anew in every frame. */
async function framesWhilePanning(page: Page): Promise<ReturnType<typeof told>> {
  const sheet = (await page.getByRole('application').boundingBox())!;
  const middle = [sheet.x + sheet.width / 2, sheet.y + sheet.height / 2] as const;
  await page.mouse.move(...middle);
  await page.mouse.down();
  const times = await page.evaluate(
    ([x, y]) =>
      new Promise<number[]>((resolve) => {
        const paper = document.elementFromPoint(x, y)!;
        const frames: number[] = [];
        let last = performance.now();
        const next = (): void => {
          const now = performance.now();
          frames.push(now - last);
          last = now;
          const at = { clientX: x + 120 * Math.sin(frames.length / 12), clientY: y + 80 * Math.cos(frames.length / 9) };
          const kind = { pointerId: 1, pointerType: 'mouse', isPrimary: true, button: -1, buttons: 1 };
          paper.dispatchEvent(new PointerEvent('pointermove', { bubbles: true, cancelable: true, ...kind, ...at }));
          if (frames.length < 300) requestAnimationFrame(next);
          else resolve(frames.slice(5));
        };
        requestAnimationFrame(next);
      }),
    middle,
  );
  await page.mouse.up();
  return told(times);
}

/** From the click on the site among the rounds to its plan drawn, ms: the application is loaded, nothing of the site is. */
async function openingTime(page: Page, siteId: string): Promise<number> {
  await page.goto('/');
  await page.waitForLoadState('networkidle');
  await page.evaluate(() => performance.clearMarks());
  const link = page.locator(`a[href='/sites/${siteId}/ground']`);
  const from = await link.evaluate((element: HTMLElement) => {
    const now = performance.now();
    element.click();
    return now;
  });
  await page.waitForFunction(() => performance.getEntriesByName('glenfold.plan-drawn').length > 0, null, {
    timeout: 30_000,
  });
  return page.evaluate((began) => performance.getEntriesByName('glenfold.plan-drawn')[0]!.startTime - began, from);
}

/** The same answer fetched, parsed and drawn by the same map library, and nothing else. */
async function rawTime(page: Page, siteId: string, script: string): Promise<number> {
  await page.goto('/api/openapi.json');
  await page.evaluate(script);
  return page.evaluate((id) => (window as unknown as { drawRaw: (id: string) => Promise<number> }).drawRaw(id), siteId);
}

// A trace would take a picture of every step, and be measured with it.
test.use({ trace: 'off' });

test('a plan of 300 zones of 200 corners, against an empty one and against its data drawn without the application', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const large = await siteWith(page, 'Large estate', ZONES);
  const empty = await siteWith(page, 'Bare estate', 0);
  const frames: Record<string, ReturnType<typeof told>> = {};
  for (const [name, id] of [
    ['empty', empty],
    ['large', large],
  ] as const) {
    await page.goto(`/sites/${id}/ground`);
    await expect(page.getByRole('application')).toBeVisible();
    // Not while overlaps are still being looked for.
    await page.waitForTimeout(12_000);
    frames[name] = await framesWhilePanning(page);
  }
  const bundle = await build({
    entryPoints: [new URL('./raw.ts', import.meta.url).pathname],
    bundle: true,
    write: false,
    format: 'iife',
    loader: { '.css': 'empty' },
  });
  const script = bundle.outputFiles[0]!.text;
  const runs = { application: [] as number[], raw: [] as number[] };
  for (let round = 0; round < 5; round += 1) {
    runs.application.push(await openingTime(page, large));
    runs.raw.push(await rawTime(page, large, script));
  }
  const [application, raw] = [told(runs.application).middle, told(runs.raw).middle];
  const ratio = (one: number, other: number): string => (one / other).toFixed(2);
  process.stdout.write(
    [
      `plan of ${ZONES} zones × ${CORNERS} corners`,
      `frame while panning: ${ratio(frames.large!.middle, frames.empty!.middle)} × the empty plan's (middle), ${ratio(frames.large!.slow, frames.empty!.slow)} × (slowest twentieth); ${frames.large!.middle.toFixed(1)} and ${frames.empty!.middle.toFixed(1)} ms`,
      `opening: ${ratio(application, raw)} × the same data parsed and drawn without the application; ${application.toFixed(0)} and ${raw.toFixed(0)} ms`,
      '',
    ].join('\n'),
  );
  expect(frames.large!.middle).toBeGreaterThan(0);
  await openSite(page, 'Large estate', 'Ground');
});
