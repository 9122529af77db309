import { expect, openSite, test, toZone } from './person.ts';

test('a recorded result is corrected on the sheet, deleted and brought back', async ({ page }) => {
  await openSite(page, 'Harbour School field', 'Lab');
  const record = page.getByRole('region', { name: 'On record' });
  await record.getByRole('button', { name: 'Correct the result of North fill of 2024-10-11' }).click();
  await expect(page.getByRole('heading', { name: 'Correct North fill' })).toBeVisible();
  const ph = page.getByRole('textbox', { name: 'Soil pH of North fill' });
  await expect(ph).toHaveValue('6.6');
  await expect(page.getByRole('textbox', { name: 'Sampled depth' })).toHaveValue('15 cm');
  await ph.fill('16');
  await page.getByRole('button', { name: 'Save the correction' }).click();
  await expect(page.getByRole('main')).toContainText('Soil pH 16 is outside 2.5 to 11');
  await ph.fill('6.4');
  await page.getByRole('button', { name: 'Save the correction' }).click();
  const row = record.getByRole('row', { name: /North fill/ });
  await expect(row).toContainText('6.4');
  await expect(row).toContainText('Sikora');

  await record.getByRole('button', { name: 'Delete the result of North fill of 2024-10-11' }).click();
  await expect(row).toHaveCount(0);
  await toZone(page, /North fill/);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row).toContainText('6.4');
});

test('a site is renamed, deleted and brought back', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Add a site' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Old slipway');
  await page.getByRole('button', { name: 'Add the site' }).click();
  await page.getByRole('button', { name: 'Change the site' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('New slipway');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('heading', { name: 'New slipway' })).toBeVisible();
  await page.getByRole('button', { name: 'Change the site' }).click();
  await page.getByRole('button', { name: 'Delete the site' }).click();
  await expect(page.getByRole('heading', { name: 'What wants doing' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'New slipway', exact: true })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('link', { name: 'New slipway', exact: true })).toBeVisible();
  await page.getByRole('link', { name: 'New slipway', exact: true }).click();
  await page.getByRole('button', { name: 'Change the site' }).click();
  await page.getByRole('button', { name: 'Delete the site' }).click();
});

test('a link from elsewhere opens the very zone and step, and reloading keeps it', async ({ page }) => {
  await openSite(page, 'Harbour School field', 'Reading', 'Undrained half');
  const address = page.url();
  await page.goto('about:blank');
  await page.goto(address);
  await page.reload();
  await expect(page.getByRole('main')).toContainText('Undrained half: bag HS-2');
  await expect(page.getByRole('navigation', { name: 'Zones' }).locator('[aria-current="true"]')).toContainText(
    'Undrained half',
  );
});
