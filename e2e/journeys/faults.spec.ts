import { expect, openSite, test } from './person.ts';

test('a site of which a part does not come says so, and opens when it is tried again', async ({ page }) => {
  let broken = true;
  await page.route('**/api/sites/*/zones', (route) => (broken ? route.abort() : route.continue()));
  await page.goto('/');
  await page.getByRole('link', { name: 'Kelp Cottage', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'The site could not be opened' })).toBeVisible();
  await expect(page.getByRole('alert')).toContainText('The server does not answer');
  broken = false;
  await page.getByRole('button', { name: 'Try again' }).click();
  await expect(page.getByRole('navigation', { name: 'Zones' })).toContainText('Front lawn');
});

test.describe('after an update', () => {
  // What React tells of the part that is gone is what this journey is about.
  test.use({ faultsExpected: /dynamically imported module|The above error occurred|ERR_FAILED/ });

  test('a part whose code is gone says that a newer version is there, and the rest goes on', async ({ page }) => {
    await page.route(/\/assets\/ScanDialog[^/]*\.js/, (route) => route.abort());
    await openSite(page, 'Kelp Cottage', 'Reading', 'Front lawn');
    await page.getByRole('button', { name: 'Find' }).click();
    await page.getByRole('button', { name: 'Scan a bag’s label' }).click();
    await expect(page.getByRole('alert')).toContainText('A newer version is there');
    await expect(page.getByRole('button', { name: 'Load the new version' })).toBeVisible();
    // The page beneath is as it was.
    await expect(page.getByRole('main')).toContainText('Alkaline');
  });
});

test.describe('on a device where the day is already tomorrow', () => {
  test.use({ timezoneId: 'Pacific/Kiritimati' });

  test('what is done on the ground has the day of the site, not of the device nor of Greenwich', async ({ page }) => {
    await page.clock.setFixedTime('2026-11-10T00:30:00Z');
    await openSite(page, 'Kelp Cottage', 'Sampling');
    await page
      .getByRole('button', { name: /^Design|^Plan/ })
      .first()
      .click();
    await expect(page.getByLabel('Day')).toHaveValue('2026-11-09');
  });
});

test('products are chosen one by one, a mix reads alike everywhere, and a draft hands nothing over', async ({
  page,
  context,
}) => {
  await openSite(page, 'Gannet Row Almshouses', 'Rates', 'Sycamore lawn');
  const main = page.getByRole('main');
  const mix = '80 % fine fescue, 20 % Kentucky bluegrass';
  await expect(page.getByRole('navigation', { name: 'Zones' })).toContainText(mix);
  await expect(main).toContainText('below this mix’s 6.0–6.5');
  const pick = async (label: string, product: RegExp): Promise<void> => {
    await page.getByRole('combobox', { name: label }).click();
    await page.getByRole('option', { name: product }).click();
    await expect(page.getByRole('combobox', { name: label })).toHaveText(product);
  };
  await pick('Product for nitrogen', /Feather meal/);
  await pick('Product for lime', /Pulverised calcitic/);
  await page.reload();
  await expect(page.getByRole('combobox', { name: 'Product for nitrogen' })).toHaveText(/Feather meal/);
  await expect(page.getByRole('combobox', { name: 'Product for lime' })).toHaveText(/Pulverised calcitic/);

  const handedOver = page.getByRole('navigation', { name: 'Steps' }).getByRole('link', { name: /Rates/ });
  const before = await handedOver.getAttribute('aria-label');
  // A click while the page is still being drawn opens nothing: it is pressed again.
  await expect(async () => {
    const paper = context.waitForEvent('page', { timeout: 10_000 });
    await page.getByRole('link', { name: 'Print a draft (PDF)' }).click();
    await (await paper).close();
  }).toPass({ timeout: 120_000 });
  await page.reload();
  await expect(handedOver).toHaveAttribute('aria-label', before!);
});
