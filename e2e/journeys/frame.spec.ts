import { expect, openSite, test } from './person.ts';

test('keys move between zones and steps, find, and open the working', async ({ page }) => {
  await openSite(page, 'Gannet Row Almshouses', 'Ground');
  await page.keyboard.type('g4');
  await expect(page).toHaveURL(/reading/);
  await page.keyboard.press(']');
  await expect(page.getByRole('main')).toContainText('Sycamore lawn: bag GR-2');
  await page.keyboard.type('g5');
  await expect(page.getByRole('main').getByRole('heading', { name: 'Sycamore lawn' })).toBeVisible();
  await page.keyboard.press('w');
  await expect(page.getByRole('dialog')).toContainText('Lime test index');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toContainText('find a site, a zone or a bag by its code');
  await page.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.keyboard.press('/');
  await page.getByRole('combobox').fill('HS-2');
  await page.getByRole('option', { name: /Undrained half/ }).click();
  await expect(page.getByRole('main')).toContainText('Undrained half');
});

test('one switch turns every unit, and it is remembered', async ({ page }) => {
  await openSite(page, 'Gannet Row Almshouses', 'Rates');
  const main = page.getByRole('main');
  await expect(main).toContainText('lb/1000 ft²');
  await page.getByRole('button', { name: 'Metric' }).click();
  await expect(main).toContainText('g/m²');
  await expect(main).not.toContainText('lb');
  await page.reload();
  await expect(main).toContainText('g/m²');
  await page.getByRole('button', { name: 'US', exact: true }).click();
});

test('no address leads nowhere', async ({ page }) => {
  await page.goto('/nowhere/at/all');
  await page.getByRole('link', { name: 'Back to the rounds' }).click();
  await page.goto('/sites/00000000-0000-4000-8000-000000000000/rates');
  await expect(page.getByRole('alert')).toContainText('no such record');
});

test('on a phone nothing runs off the side', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  for (const step of ['Ground', 'Lab', 'Reading', 'Rates', 'Season', 'Logbook', 'Proof']) {
    await openSite(page, 'Gannet Row Almshouses', step);
    await expect(page.getByRole('main').getByRole('heading').first()).toBeVisible();
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  }
});

test('the tables behind the rates can be held against one’s own soil and laboratory', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'Tables' }).click();
  const grasses = page.getByRole('table', { name: 'Grasses' });
  await expect(grasses.getByRole('row', { name: /Centipedegrass/ })).toContainText('5.0–6.0, aim 5.5');
  const soil = page.getByLabel('A soil pH to compare');
  await soil.fill('7.4');
  await expect(page.getByRole('status')).toHaveText('pH 7.4 suits 2 of 11 grasses as it is.');
  await expect(grasses.getByRole('row', { name: /Tall fescue/ })).toContainText('wants it lower');
  await soil.fill('74');
  await expect(page.getByText('A pH from 3 to 10')).toBeVisible();
  await page.getByRole('link', { name: /Soil tests/ }).click();
  await expect(page.getByRole('img', { name: 'K on sand: low from 26, medium from 51' })).toBeVisible();
  await expect(page.getByRole('main')).toContainText('New England');
});
