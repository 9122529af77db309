import { execFileSync } from 'node:child_process';
import { expect, handOver, openSite, test, toStep } from './person.ts';

test('an advisor types a result, reads it, gets the rates and hands over the program', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'What wants doing' })).toBeVisible();
  await page.getByRole('link', { name: /Enter a result: South bank/ }).click();

  // What is wrong is said at the row, and stays as typed.
  const cell = (name: string) => page.getByRole('textbox', { name: `${name} of South bank`, exact: true });
  await cell('Soil pH').fill('15');
  await cell('Buffer pH').fill('7.9');
  await cell('P').fill('46 ppm P2O5');
  await cell('K').fill('950');
  await page.getByRole('button', { name: 'Save the result' }).click();
  const main = page.getByRole('main');
  await expect(main).toContainText('Soil pH 15 is outside 2.5 to 11');
  await expect(main).toContainText('Buffer pH 7.9 is outside the SMP method’s 4.8–7.2');
  await expect(main).toContainText('that is 20.1 mg/kg P');
  await expect(main).toContainText('Is the report in lb/acre');
  await expect(main).toContainText('Sampled depth is missing: give 2 to 60 cm');
  await expect(cell('Soil pH')).toHaveValue('15');

  await cell('Soil pH').fill('5.2');
  await cell('Buffer pH').fill('6.5');
  await cell('P').fill('48 lb/ac');
  await expect(main).toContainText('P 48 lb/ac = 24 mg/kg');
  await cell('K').fill('190');
  await cell('Organic matter').fill('3.4');
  await page.getByRole('textbox', { name: 'Sampled depth' }).fill('6 in');

  // Nothing typed is lost on the way to another step, nor when the server does not answer.
  await toStep(page, /Ground/);
  await toStep(page, /3 Lab/);
  await expect(cell('Soil pH')).toHaveValue('5.2');
  await page.route('**/api/lab-results', (route) => route.abort());
  await page.getByRole('button', { name: 'Save the result' }).click();
  await expect(page.getByRole('alert')).toContainText('What you typed is still here');
  await expect(cell('P')).toHaveValue('48 lb/ac');
  await page.unroute('**/api/lab-results');
  await page.getByRole('button', { name: 'Save the result' }).click();
  await expect(page.getByRole('table').last()).toContainText('South bank');
  await expect(cell('Soil pH')).toHaveValue('');

  // Read.
  await toStep(page, /Reading/);
  await expect(main).toContainText('pH 5.2 is a little below tall fescue’s 5.5–7.0.');
  await expect(page.getByRole('img', { name: 'Phosphorus, P 24 ppm: low' })).toBeVisible();
  await page.getByRole('button', { name: /^Potassium, K: 190 ppm/ }).click();
  await expect(page.getByRole('dialog')).toContainText('37.5 | 74.5 | 176.5 | 352 mg/kg; test 190');
  await page.getByRole('button', { name: 'Close the working' }).click();

  // The rates, by hand: SMP to 6.3 at LTI 65 is 3.57 ton/acre, × 45.914 × 6/8 × 65 / 88.35 = 90.4 lb/1000 ft², set to
  // 91: 50 and 41, within a year’s 100.
  await page.getByRole('link', { name: 'See the rates' }).click();
  await expect(main).toContainText('Lime to 6.3');
  await page.getByRole('combobox', { name: 'Product for lime' }).click();
  await page.getByRole('option', { name: /Pelletised calcitic/ }).click();
  const rate = page.getByRole('button', { name: /Pelletised calcitic lime for the year/ });
  await expect(rate).toHaveText('91 lb/1000 ft²');
  await expect(main).toContainText('in 2 applications');
  await rate.click();
  await expect(page.getByRole('dialog')).toContainText('Between the two targets, to pH 6.3');
  await expect(page.getByRole('dialog')).toContainText('At most 50 lb/1000 ft²');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await expect(main).toContainText('No K2O');

  // On paper.
  const pdf = await page.request.get(await handOver(page, 'zone'));
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  const printed = execFileSync('pdftotext', ['-', '-'], { input: await pdf.body(), encoding: 'utf8' });
  const text = printed.replace(/\s+/g, ' ');
  for (const words of [
    'South bank',
    'pH 5.2 is a small miss below tall fescue’s 5.5–7.0. Under this rule lime is still due. Lime to 6.3.',
    '91 lb/1000 ft²',
    'Pelletised calcitic lime',
    'Wear a dust mask',
    'The label and local law come first',
  ])
    expect(text).toContain(words);
  await expect(page.getByRole('navigation', { name: 'Steps' })).toContainText('2 of 3 handed over');
});

test('a laboratory’s file is looked at, corrected and imported; an unreadable row stays with its reason', async ({
  page,
}) => {
  await openSite(page, 'Gannet Row Almshouses', 'Lab');
  const content = [
    'Report 88;;;;',
    'Sample mark;pH;Sikora buffer;Phosphate;Depth (in);Potassium ppm (Mehlich-3)',
    'GR1;5.6;6.5;40;6;70',
    'bank;5.8;6.6;<9;6;88',
    'GR-2;n/r?;6.6;50;6;60',
  ].join('\n');
  await page
    .getByLabel('Laboratory’s file')
    .setInputFiles({ name: 'spring.csv', mimeType: 'text/csv', buffer: Buffer.from(content) });
  const file = page.getByRole('region', { name: 'File spring.csv' });
  await expect(file).toContainText('Nothing is imported yet');
  await expect(file.getByRole('combobox', { name: 'Column Sikora buffer' })).toHaveText('Buffer pH');
  await expect(file).toContainText('No zone here has the bag label "bank"');
  await expect(file).toContainText('"n/r?" is not a number');
  await expect(file).toContainText('has no unit: choose ppm or lb/acre');

  // "Phosphate" without a unit is P₂O₅ in lb/acre, the person knows.
  await file.getByRole('combobox', { name: 'Unit of Phosphate' }).click();
  await page.getByRole('option').filter({ hasText: 'P2O5, lb/acre' }).click();
  await file.getByRole('combobox', { name: 'Zone of line 4' }).click();
  await page.getByRole('option', { name: /South bank/ }).click();
  // As P₂O₅ it is far less P than last time: it is taken when the person says so.
  await expect(file).toContainText('Is it P, read as P2O5?');
  await file.getByRole('button', { name: 'Accept GR1' }).click();
  await expect(file.getByRole('button', { name: 'Import 2 results' })).toBeEnabled();

  // What was corrected is kept with the file, also through a reload and the next correction.
  await page.reload();
  await file.getByRole('combobox', { name: 'Extractant' }).click();
  await page.getByRole('option', { name: 'Mehlich-1' }).click();
  await expect(file.getByRole('combobox', { name: 'Zone of line 4' })).toHaveText(/South bank/);
  await file.getByRole('button', { name: 'Import 2 results' }).click();
  await expect(file).toContainText('2 imported');
  await expect(file.getByRole('region', { name: 'GR-2' })).toContainText('"n/r?" is not a number');
  await expect(page.getByRole('row').filter({ hasText: /South bank.*<9P2O5 lb\/acre/ })).toBeVisible();

  await file.getByRole('button', { name: 'Set aside' }).click();
  await expect(file).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(file).toBeVisible();

  await page
    .getByLabel('Laboratory’s file')
    .setInputFiles({ name: 'photo.csv', mimeType: 'text/csv', buffer: Buffer.from('PK\u0000\u0003') });
  await expect(page.getByRole('alert')).toContainText('workbook cannot be opened');
});
