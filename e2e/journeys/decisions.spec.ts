import type { Page } from '@playwright/test';
import { anotherBrowser, expect, openSite, scrollTo, test, toZone, zoneLink } from './person.ts';

const site = 'Terrace houses';

async function newSite(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Add a site' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill(site);
  await page.getByRole('button', { name: 'Add the site' }).click();
  await page.getByRole('heading', { name: 'Divide the ground into zones' }).waitFor();
}

/** Paste into the cell that has the focus, as from a spreadsheet. */
const paste = (page: Page, text: string): Promise<void> =>
  page.evaluate((pasted) => {
    const data = new DataTransfer();
    data.setData('text/plain', pasted);
    document.activeElement!.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  }, text);

test('terraces from a list, a vegetable bed read by its own band, and a feed of one’s own', async ({ page }) => {
  await newSite(page);
  await page.getByRole('button', { name: 'Zones from a list' }).click();
  const list = page.getByRole('dialog');
  await list.getByRole('textbox', { name: 'Name of line 1' }).focus();
  const lawns = Array.from(
    { length: 22 },
    (_, at) => `${at === 0 ? 'Top terrace' : `Terrace ${at + 1}`}\t${40 + 7 * at} m2\ttall fescue`,
  );
  await paste(page, ['Name\tArea\tGrass', ...lawns, 'Kitchen garden\t60 m2\tmoss'].join('\n'));
  await expect(list).toContainText('“moss” is no grass');
  await list.getByRole('combobox', { name: 'Grass of line 23' }).fill('vegetable bed');
  await list.getByRole('button', { name: 'Add 23 zones' }).click();
  await expect(page.getByRole('navigation', { name: 'Steps' })).toContainText('23 zones');

  // The bed and one lawn have a report each; what the laboratory advises is entered in its words.
  await openSite(page, site, 'Lab');
  await page.getByRole('textbox', { name: 'Sampled depth' }).fill('15 cm');
  for (const [name, values] of [
    ['Kitchen garden', '5.4\t6.4\t20\t90\t600\t90\t2.6'],
    ['Top terrace', '5.9\t6.7\t9\t60\t700\t160\t3.4'],
  ]) {
    const cell = page.getByRole('textbox', { name: `Soil pH of ${name}`, exact: true });
    await scrollTo(page, cell);
    await cell.focus();
    await paste(page, values!);
  }
  await page
    .getByRole('button', { name: /^Save the 2 results|^Save/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'The laboratory’s advice for Kitchen garden' }).click();
  await page.getByRole('textbox', { name: 'In its words' }).fill('58 lb lime per 1000 sq ft; 10-10-10 for vegetables');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await page.getByRole('dialog').waitFor({ state: 'hidden' });

  await toZone(page, 'Kitchen garden');
  await page.keyboard.type('g4');
  const main = page.getByRole('main');
  await expect(main).toContainText('pH 5.4 is below a garden bed’s 6.0–7.0.');
  await expect(page.getByRole('complementary', { name: 'The laboratory’s own advice' })).toContainText('58 lb lime');
  await page.keyboard.type('g5');
  await expect(main).toContainText('Lime to 6.5.');
  await expect(main).toContainText('No lawn feed on a garden bed');
  // The last of many zones, and what is said of it, are both in sight.
  await expect(main.getByRole('heading', { name: 'Kitchen garden' })).toBeInViewport();
  await expect(zoneLink(page, 'Kitchen garden')).toBeInViewport();

  // A feed of one's own by its label.
  await page.goto('/products/fertilizer');
  await page.getByRole('button', { name: 'Add a product' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Name').fill('Own 16-4-8');
  for (const [label, value] of [
    ['N', '16'],
    ['P₂O₅', '4'],
    ['K₂O', '8'],
    ['Slow share of the N', '35'],
    ['One bag, can or load holds', '50'],
    ['Its price', '27.50'],
    ['In stock', '3'],
  ])
    await form.getByLabel(label!, { exact: true }).fill(value!);
  await form.getByRole('button', { name: 'Add the product' }).click();
  await expect(page.getByRole('status')).toContainText('Own 16-4-8 is in your list');
  await openSite(page, site, 'Rates', 'Top terrace');
  await page.getByRole('combobox', { name: 'Product for nitrogen' }).click();
  await page.getByRole('option', { name: 'Own 16-4-8, 3 in stock' }).click();
  await expect(main).toContainText('1 bag of 50 lb, $27.50');

  // Decided otherwise for one zone, with a reason; then taken back.
  await page.getByRole('link', { name: 'How it is decided' }).click();
  await page.getByRole('button', { name: 'Change: School and when to correct' }).click();
  await page.getByRole('combobox', { name: 'When a pH is corrected' }).click();
  await page.getByRole('option', { name: /0.2 or more/ }).click();
  await page.getByRole('button', { name: 'Decide for Top terrace' }).click();
  await expect(main).toContainText('Say why this zone is to be advised in another way.');
  await page.getByRole('textbox', { name: /^Why/ }).fill('clover in the sward');
  await page.getByRole('button', { name: 'Decide for Top terrace' }).click();
  await expect(page.getByRole('region', { name: 'School and when to correct' })).toContainText('Because: clover');
  await openSite(page, site, 'Rates', 'Top terrace');
  await expect(main).toContainText('Set for this zone: “clover in the sward”.');

  await page.goto('/products/fertilizer');
  await page.getByRole('button', { name: 'Change Own 16-4-8' }).click();
  await page.getByRole('button', { name: 'Delete the product' }).click();
  await page.goto('/');
  await openSite(page, site, 'Ground');
  await page.getByRole('button', { name: 'Change the site' }).click();
  await page.getByRole('button', { name: 'Delete the site' }).click();
});

test('whom to ring and how to get in, on a phone; the units that somebody chose go with them', async ({
  page,
  browser,
  baseURL,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openSite(page, 'Gannet Row Almshouses', 'Ground');
  await page.getByRole('button', { name: 'More of Gannet Row Almshouses' }).click();
  await page.getByRole('menuitem', { name: 'People, access, climate' }).click();
  await expect(page.getByRole('link', { name: '555 0102' })).toHaveAttribute('href', 'tel:5550102');
  await expect(page.getByRole('region', { name: 'Getting in' })).toContainText('Terrier at number 7');
  await expect(page.getByRole('region', { name: 'Place and climate' })).toContainText('made-up normals');
  const wide = await page.evaluate(() => document.documentElement.scrollWidth);
  expect(wide).toBeLessThanOrEqual(390);

  const chosen = page.waitForResponse((response) => response.url().endsWith('/api/session/personal'));
  await page.getByRole('button', { name: 'Metric' }).click();
  await chosen;
  const elsewhere = await anotherBrowser(browser, baseURL, 'Orla');
  await elsewhere.goto('/');
  await expect(elsewhere.getByRole('button', { name: 'Metric' })).toHaveAttribute('aria-pressed', 'true');
  const back = elsewhere.waitForResponse((response) => response.url().endsWith('/api/session/personal'));
  await elsewhere.getByRole('button', { name: 'US' }).click();
  await back;
});
