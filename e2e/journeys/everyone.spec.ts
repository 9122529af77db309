import axe, { type RunOptions } from 'axe-core';
import { type Page, expect, test } from './person.ts';

interface Named {
  readonly id: string;
  readonly name: string;
}

/** Every page that somebody signed in may open, and each step of a site. */
async function pagesOf(page: Page): Promise<string[]> {
  await page.goto('/');
  const { sites } = (await (await page.request.get('/api/sites?text=Gannet')).json()) as { readonly sites: readonly Named[] };
  const { id } = sites[0]!;
  const [zone] = (await (await page.request.get(`/api/sites/${id}/zones`)).json()) as readonly Named[];
  const steps = ['ground', 'sampling', 'lab', 'reading', 'rates', 'season', 'logbook', 'proof'];
  return [
    ...['/', '/bags', '/week', '/retests', '/products', '/products/machines', '/settings', '/tables', '/practice'],
    ...['/practice/people', '/practice/outbox', '/pocket', '/today', '/sent', `/field/${id}`, `/tests/${id}`, `/reports/${id}`],
    ...[`/sites/${id}/about`, `/sites/${id}/owner-report`],
    ...steps.map((step) => `/sites/${id}/${step}/${zone!.id}`),
  ];
} // prettier-ignore

/** What keeps somebody from using a page, one line each; with the colours where asked, which take most of the time. */
async function barriers(page: Page, colours: boolean): Promise<string[]> {
  const options: RunOptions = {
    runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
    rules: { 'color-contrast': { enabled: colours } },
    resultTypes: ['violations'],
    // Style sheets of other places: there are none.
    preload: false,
  };
  // In the page itself: a helper page for each look takes three times as long.
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  const { violations } = await page.evaluate(
    (how) => (window as unknown as { readonly axe: typeof axe }).axe.run(document, how),
    options,
  );
  return violations.flatMap(({ id, nodes }) => nodes.slice(0, 4).map(({ target, failureSummary }) => `${id}: ${target.join(' ')}: ${failureSummary?.split('\n')[1]?.trim() ?? ''}`)); // prettier-ignore
}

/** Until nothing on the page has changed for a tenth of a second. */
const settled = (page: Page): Promise<void> =>
  page.evaluate(
    () =>
      new Promise<void>((done) => {
        let still = setTimeout(done, 100);
        new MutationObserver(() => {
          clearTimeout(still);
          still = setTimeout(done, 100);
        }).observe(document, { subtree: true, childList: true, characterData: true, attributes: true });
      }),
  );

/** What is wrong with a page at a width: at 320 pixels, that it goes sideways; else what keeps anybody out. */
async function faultsAt(page: Page, width: number): Promise<string[]> {
  await page.setViewportSize({ width, height: 844 });
  await settled(page);
  // Colours are the same at every width.
  if (width !== 320) return (await barriers(page, width === 1280)).map((each) => `${width} px: ${each}`);
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  return wide > 321 ? [`goes sideways: ${wide} px`] : [];
}

// prettier-ignore
test('every page has a title, one heading and nothing that keeps anybody out, at the desk, on the phone and at 320 pixels', async ({ page }) => {
  test.setTimeout(1_200_000);
  const found: Record<string, string[]> = {};
  for (const path of await pagesOf(page)) {
    await page.setViewportSize({ width: 1280, height: 844 });
    await page.goto(path);
    await expect(page.getByRole('heading', { level: 1 }).first(), path).toBeVisible();
    const told: string[] = [];
    for (const width of [1280, 390, 320]) told.push(...(await faultsAt(page, width)));
    if (!(await page.title()).endsWith(', Glenfold')) told.push(`title: ${await page.title()}`);
    if (told.length > 0) found[path.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, '…')] = told;
  }
  expect(found).toEqual({});
});

test('what is pressed in the field is as large as a thumb', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const small: string[] = [];
  for (const path of (await pagesOf(page)).filter((each) => /^\/(walk|cards|tests)/.test(each))) {
    await page.goto(path);
    await page.getByRole('heading', { level: 1 }).first().waitFor();
    await settled(page);
    // A link within a sentence is as high as its line: WCAG 2.2, 2.5.8.
    const found = await page.evaluate(() =>
      [...document.querySelectorAll('button, a, [role="button"], [role="combobox"]')]
        .filter((each) => each.checkVisibility() && getComputedStyle(each).display !== 'inline' && each.id !== 'skip')
        .map((each) => [each.textContent, each.getBoundingClientRect()] as const)
        .filter(([, { width, height, bottom }]) => bottom > 0 && (height < 43.5 || width < 43.5))
        .map(([text, { width, height }]) => `${text.slice(0, 30)} ${Math.round(width)}x${Math.round(height)}`),
    );
    small.push(...found.map((each) => `${path.slice(0, 6)}: ${each}`));
  }
  expect(small).toEqual([]);
});

test('single keys act until somebody switches them off, on that device', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('heading', { level: 1 }).first().waitFor();
  await page.keyboard.press('?');
  const keys = page.getByRole('dialog', { name: 'Keys' });
  await keys.getByRole('checkbox', { name: 'Single keys act, on this device' }).uncheck();
  await keys.getByRole('button', { name: 'Close' }).click();
  await page.reload();
  await page.getByRole('heading', { level: 1 }).first().waitFor();
  await page.keyboard.press('/');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.getByRole('button', { name: /: account/ }).click();
  await page.getByRole('menuitem', { name: 'Keys' }).click();
  await keys.getByRole('checkbox').check();
  await keys.getByRole('button', { name: 'Close' }).click();
  await page.keyboard.press('?');
  await expect(keys).toBeVisible();
});

test('going to another page leads to its heading, and past the head with one key', async ({ page }) => {
  await page.goto('/');
  // Until it is drawn there is nothing to go to.
  await page.getByRole('heading', { level: 1 }).first().waitFor();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('link', { name: 'Skip to the content' })).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('main')).toBeFocused();
  await page.getByRole('link', { name: 'Bags', exact: true }).click();
  await expect(page.getByRole('heading', { level: 1 })).toBeFocused();
  await expect(page).toHaveTitle(/^Bags.*, Glenfold$/);
});
