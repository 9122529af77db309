import { expect, openSite, scrollTo, test } from './person.ts';

test('a report with salts, sodium and trace elements is typed whole, read as what it is, and stands in the record', async ({
  page,
}) => {
  await openSite(page, 'Tollgate bowling green', 'Lab');
  await expect(page.getByRole('heading', { name: 'On record' })).toBeVisible();
  await page.getByRole('combobox', { name: 'More columns' }).click();
  for (const name of ['Zinc', 'Exchange capacity', 'EC of the saturated paste', 'Sodium', 'Nitrate nitrogen'])
    await page.getByRole('option', { name, exact: true }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('combobox', { name: 'Zn, extracted by' }).click();
  await page.getByRole('option', { name: 'by DTPA' }).click();
  await page.getByRole('textbox', { name: 'Sampled depth' }).fill('4');
  const typed = {
    ...{ 'Soil pH': '7.6', P: '42', K: '140', Ca: '1900', Mg: '190', 'Organic matter': '3.4', Zn: '0.3' },
    ...{
      'Exchange capacity': '14 meq/100g',
      'EC of the saturated paste': '7 mS/cm',
      Sodium: '560',
      'Nitrate nitrogen': '12',
    },
  };
  const cell = (name: string) => page.getByRole('textbox', { name: `${name} of Road bank`, exact: true });
  for (const [name, value] of Object.entries(typed)) {
    await scrollTo(page, cell(name));
    await cell(name).fill(value);
  }
  // A unit that it does not come in is refused at its cell; the rest stays.
  await scrollTo(page, cell('Exchange capacity'));
  await cell('Exchange capacity').fill('14 ppm');
  await page.getByRole('button', { name: 'Save the result' }).click();
  await expect(page.getByText('Exchange capacity comes in cmol/kg')).toBeVisible();
  await cell('Exchange capacity').fill('14');
  await page.getByRole('button', { name: 'Save the result' }).click();
  await expect(page.getByRole('row').filter({ hasText: 'typed, Mehlich-3' }).first()).toContainText(
    /Zn 0\.3 ppm by DTPA, CEC 14 meq\/100 g, EC paste 7 dS\/m, NO3-N 12 ppm, Na 560 ppm/,
  );

  await page.getByRole('row').filter({ hasText: 'typed, Mehlich-3' }).getByRole('link', { name: 'Road bank' }).click();
  const main = page.getByRole('main');
  // 560 / 230 / 14 is 17.4 % of the exchange.
  await expect(page.getByRole('img', { name: 'Exchangeable sodium, ESP 17.4 %: sodic' })).toBeVisible();
  await expect(page.getByRole('img', { name: /Salt, EC of the paste 7\.0 dS\/m: (some harm|harmful)/ })).toBeVisible();
  await expect(page.getByRole('img', { name: 'Zinc, Zn 0.3 ppm: low' })).toBeVisible();
  await expect(main).toContainText('Also on this report. Nitrate nitrogen 12 ppm. Nothing for the year');
  await main.getByRole('button', { name: /17\.4 %/ }).click();
  await expect(page.getByRole('dialog')).toContainText('100 × Na / 230 / exchange capacity');
});

test('a laboratory of the practice’s own is added, and chosen when bags are planned', async ({ page }) => {
  await page.goto('/bags');
  await page.getByRole('button', { name: 'Add a laboratory' }).click();
  const form = page.getByRole('dialog', { name: 'Add a laboratory' });
  await form.getByRole('textbox', { name: 'Name' }).fill('fennimore SOIL laboratory');
  await form.getByRole('textbox', { name: 'Its soil scientist' }).fill('Dr Ilse Marram');
  await form.getByRole('textbox', { name: 'Phone' }).fill('555 0114');
  await form.getByRole('textbox', { name: 'Fee, routine' }).fill('21');
  await form.getByRole('button', { name: 'Add the laboratory' }).click();
  await expect(form).toContainText('Fennimore soil laboratory is there already');
  await form.getByRole('textbox', { name: 'Name' }).fill('Skua Bay Soils');
  await form.getByRole('button', { name: 'Add the laboratory' }).click();
  await expect(form).toBeHidden();
  await expect(page.getByRole('listitem', { name: 'Skua Bay Soils' })).toContainText('ask Dr Ilse Marram, 555 0114');

  await openSite(page, 'Gannet Row Almshouses', 'Sampling');
  await page.getByRole('button', { name: 'Plan', exact: true }).click();
  await page.getByRole('combobox', { name: 'Laboratory' }).click();
  await page.getByRole('option', { name: 'Skua Bay Soils' }).click();
  await expect(page.getByRole('main')).toContainText('Dr Ilse Marram: 555 0114');
  await expect(page.getByRole('main')).toContainText('$21.00 a bag with these panels');
});
