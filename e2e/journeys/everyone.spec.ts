import AxeBuilder from '@axe-core/playwright';
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
    ...['/practice/people', '/practice/outbox', '/pocket', '/walk', '/cards', `/tests/${id}`, `/reports/${id}`],
    ...[`/sites/${id}/about`, `/sites/${id}/owner-report`],
    ...steps.map((step) => `/sites/${id}/${step}/${zone!.id}`),
  ];
} // prettier-ignore

/** What keeps somebody from using a page, one line each. */
async function barriers(page: Page): Promise<string[]> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
    .analyze();
  return violations.flatMap(({ id, nodes }) => nodes.slice(0, 4).map(({ target, failureSummary }) => `${id}: ${target.join(' ')}: ${failureSummary?.split('\n')[1]?.trim() ?? ''}`)); // prettier-ignore
}

for (const [width, height, which] of [
  [1280, 800, 'at the desk'],
  [390, 844, 'on the phone'],
] as const)
  // prettier-ignore
  test(`every page ${which} has a title, one heading and nothing that keeps anybody out`, async ({ page }) => {
    test.setTimeout(1_200_000);
    await page.setViewportSize({ width, height });
    const found: Record<string, string[]> = {};
    for (const path of await pagesOf(page)) {
      await page.goto(path);
      await expect(page.getByRole('heading', { level: 1 }).first(), path).toBeVisible();
      await page.waitForTimeout(500);
      const name = path.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, '…');
      const told = await barriers(page);
      if (!(await page.title()).endsWith(', Glenfold')) told.push(`title: ${await page.title()}`);
      if (told.length > 0) found[name] = told;
    }
    expect(found).toEqual({});
  });

test('a page can be read at 320 pixels without going sideways', async ({ page }) => {
  const found: string[] = [];
  for (const path of await pagesOf(page)) {
    await page.setViewportSize({ width: 320, height: 700 });
    await page.goto(path);
    await page.locator('h1').first().waitFor();
    await page.waitForTimeout(250);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    if (wide > 321) found.push(`${path.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, '…')}: ${wide}`);
  }
  expect(found).toEqual([]);
});

test('what is pressed in the field is as large as a thumb', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const small: string[] = [];
  for (const path of (await pagesOf(page)).filter((each) => /^\/(walk|cards|tests)/.test(each))) {
    await page.goto(path);
    await page.getByRole('heading', { level: 1 }).first().waitFor();
    await page.waitForTimeout(250);
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
