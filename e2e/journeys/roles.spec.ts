import { type Page, type Person, expect, test } from './person.ts';

const steps = ['ground', 'sampling', 'lab', 'reading', 'rates', 'season', 'logbook', 'proof'];

/** The pages that a role has, as its own navigation and addresses lead there. */
const pagesOf: Readonly<Partial<Record<Person, (site: string) => readonly string[]>>> = {
  Wynn: (site) => [
    ...['/', '/today', '/week', '/bags', '/products', '/settings', '/tables', '/practice', '/retests', '/sent'],
    ...[`/field/${site}`, `/sites/${site}/about`, ...steps.map((step) => `/sites/${site}/${step}`)],
  ],
  Hetty: (site) => ['/', `/reports/${site}`],
};

/** Buttons of the page by what they say; those that differ in a number or a name of a thing are one. */
async function buttonsOf(page: Page): Promise<string[]> {
  const names = await page
    .locator('main button:visible:enabled, header button:visible:enabled')
    .evaluateAll((all) => all.map((each) => (each.getAttribute('aria-label') ?? each.textContent).trim()));
  const kinds = new Map(names.map((name) => [name.replace(/\d+|:.*|“.*/g, ''), name]));
  return [...kinds.values()].filter((name) => name !== '' && !/sign out|account/i.test(name));
}

for (const [who, pages] of Object.entries(pagesOf))
  test.describe(who, () => {
    test.use({
      as: who as Person,
      viewport: who === 'Wynn' ? { width: 390, height: 844 } : { width: 1280, height: 800 },
    });

    test(`${who} presses every button of every page, and none answers “not allowed”`, async ({ page }) => {
      test.setTimeout(180_000);
      const refused: string[] = [];
      let at = '';
      let pressed = 0;
      page.on('response', (answer) => {
        if (answer.status() === 403)
          refused.push(`${at}: ${answer.request().method()} ${new URL(answer.url()).pathname}`);
      });
      page.on('dialog', (dialog) => void dialog.dismiss());
      const { sites } = (await (await page.request.get('/api/reports')).json()) as { readonly sites: ReadonlyArray<{ readonly siteId: string; readonly siteName: string }> }; // prettier-ignore
      const gannet = sites.find(({ siteName }) => siteName.startsWith('Gannet'))!.siteId;
      /** What stands on every page is pressed once. */
      const done = new Set<string>();
      for (const path of pages(gannet)) {
        const open = async (): Promise<void> => {
          await page.goto(path);
          await page.getByRole('heading', { level: 1 }).first().waitFor();
          await page.waitForTimeout(250);
        };
        at = path;
        await open();
        const here = new URL(page.url()).pathname;
        for (const name of await buttonsOf(page)) {
          if (done.has(name)) continue;
          done.add(name);
          at = `${path} “${name}”`;
          const button = page.getByRole('button', { name, exact: true }).first();
          // What an earlier press has taken away is not pressed.
          if (!(await button.isVisible()) || !(await button.isEnabled())) continue;
          await button.click({ timeout: 1000 }).catch(() => undefined);
          pressed += 1;
          await page.waitForTimeout(120);
          if ((await page.getByRole('dialog').or(page.getByRole('menu')).count()) > 0) {
            await page.keyboard.press('Escape');
            await page.waitForTimeout(120);
          }
          if (new URL(page.url()).pathname !== here || (await page.locator('.MuiModal-root').count()) > 0) await open();
        }
      }
      expect(refused).toEqual([]);
      expect(pressed).toBeGreaterThan(who === 'Wynn' ? 35 : 5);
    });
  });
