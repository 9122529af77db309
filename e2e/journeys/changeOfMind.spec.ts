import { expect, openSite, test, toStep, toZone } from './person.ts';

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

test('hydrated lime gets no rate on turf, and one on a seedbed', async ({ page }) => {
  await openSite(page, 'Gannet Row Almshouses', 'Rates', 'Walled court');
  const main = page.getByRole('main');
  await page.getByRole('combobox', { name: 'Product for lime' }).click();
  await page.getByRole('option', { name: /Hydrated lime/ }).click();
  await expect(main).toContainText('Hydrated lime burns living turf, skin and eyes: no rate is given for it here.');
  await expect(page.getByRole('button', { name: /Hydrated lime for the year/ })).toHaveCount(0);

  const toSurface = async (surface: string): Promise<void> => {
    await toStep(page, /Ground/);
    await page.getByRole('button', { name: 'Change the facts' }).click();
    const form = page.getByRole('dialog');
    await form.getByRole('combobox', { name: 'Surface' }).click();
    await page.getByRole('option', { name: surface, exact: true }).click();
    await form.getByRole('button', { name: 'Save the zone' }).click();
    await expect(form).toBeHidden();
    await page.keyboard.press('5');
  };
  await toSurface('Seedbed');
  await expect(page.getByRole('button', { name: /Hydrated lime for the year/ })).toBeVisible();
  await expect(main).toContainText('of product once');

  await toSurface('Turf');
  await page.getByRole('combobox', { name: 'Product for lime' }).click();
  await page.getByRole('option', { name: /Pelletised dolomitic lime/ }).click();
  await expect(main).toContainText('in 2 applications');
});

test('an aim that the buffer’s table does not reach is estimated, and told so', async ({ page }) => {
  await openSite(page, 'Gannet Row Almshouses', 'Ground', 'Sycamore lawn');
  const setAim = async (aim: string, reason = ''): Promise<void> => {
    await page.getByRole('button', { name: 'Change the facts' }).click();
    const form = page.getByRole('dialog');
    await form.getByRole('textbox', { name: 'Aim for pH' }).fill(aim);
    await form.getByRole('textbox', { name: 'Why this aim' }).fill(reason);
    await form.getByRole('button', { name: 'Save the zone' }).click();
    await expect(form).toBeHidden();
  };
  // Below the band of the mix, and without a reason: the band’s edge is taken, and said.
  await setAim('5.8');
  await expect(page.getByRole('main')).toContainText('aim 6.0Your aim of 5.8 lies outside');
  await page.keyboard.press('5');
  await expect(page.getByRole('main')).toContainText('Lime to 6.0');
  await expect(page.getByRole('main')).toContainText('no reason is given: 6.0 is used');
  await page.keyboard.press('1');
  await setAim('5.8', 'heathers along the edge');
  await page.keyboard.press('5');
  await expect(page.getByRole('main')).toContainText('The SMP method gives no rate to an aim of 5.8: estimated');
  await expect(page.getByRole('main')).toContainText('for the reason “heathers along the edge”');
  await page.keyboard.press('1');
  await setAim('');
  await expect(page.getByRole('main')).toContainText('aim 6.1');
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
