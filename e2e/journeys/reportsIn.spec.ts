import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from './person.ts';
import { siteWith } from './ownSite.ts';

const file = (name: string): string => join(import.meta.dirname, 'files', name);

test('a workbook and a PDF come in; the laboratory’s way is learned; what looks wrong waits for a person', async ({
  page,
}) => {
  const { site } = await siteWith(page, 'Inlet House', [
    ['Front lawn', 'GR-1'],
    ['Side lawn', 'GR-2'],
    ['Back lawn', 'GR-3'],
  ]);
  await page.goto(`/sites/${site.id}/lab`);
  await page.getByLabel('Laboratory’s file').setInputFiles(file('autumn.xlsx'));
  const autumn = page.getByRole('region', { name: 'File autumn.xlsx' });
  await expect(autumn).toContainText('the sheet “Results” of a workbook');
  await expect(autumn.getByRole('combobox', { name: /^Column Lime advised/ })).toHaveText('its advice: lime');
  await autumn.getByRole('button', { name: 'Values of GR-1' }).click();
  const first = autumn.getByRole('region', { name: 'GR-1' });
  await expect(first.getByRole('row', { name: /^P/ })).toContainText(/23.*23 ppm/);
  await expect(first).toContainText('58 lb/1000 ft²');
  await autumn.getByRole('button', { name: 'Import 2 results' }).click();
  await expect(autumn).toBeHidden();
  await expect(page.getByRole('row', { name: /Front lawn/ })).toContainText('It advises lime 58 lb/1000 ft²');

  // The same file again, whatever it is called, does nothing twice.
  await page.getByLabel('Laboratory’s file').setInputFiles({
    name: 'copy.xlsx',
    mimeType: 'application/octet-stream',
    buffer: readFileSync(file('autumn.xlsx')),
  });
  await expect(page.getByRole('status').filter({ hasText: 'This very file is here already' })).toBeVisible();

  // A PDF: its way is kept.
  await page.getByLabel('Laboratory’s file').setInputFiles(file('spring.pdf'));
  const spring = page.getByRole('region', { name: 'File spring.pdf' });
  await expect(spring).toContainText('the text of 1 page of a PDF');
  await spring.getByRole('button', { name: 'Keep this way…' }).click();
  await page.getByRole('textbox', { name: 'Laboratory' }).fill('Inlet Soil Laboratory');
  await page.getByRole('button', { name: 'Keep it', exact: true }).click();
  await expect(spring).toContainText('Read as Inlet Soil Laboratory arranges its files. Nothing in it is new.');

  // Twice the phosphorus of last time waits, with its reason; it is corrected from the paper.
  await expect(spring).toContainText('1 ready, 1 to be looked at');
  const doubted = spring.getByRole('region', { name: 'GR-1' });
  await expect(doubted).toContainText(/P 48 ppm is 2\.1 times the 23 ppm of (12 Oct 2026|2026-10-12)/);
  await doubted.getByRole('button', { name: 'Correct GR-1' }).click();
  await doubted.getByRole('textbox', { name: 'P of GR-1, corrected' }).fill('46 lb/ac');
  await doubted.getByRole('textbox', { name: 'P of GR-1, corrected' }).press('Enter');
  await expect(spring.getByRole('button', { name: 'Import 2 results' })).toBeEnabled();
  await doubted.getByRole('button', { name: 'Hold GR-1' }).click();
  await spring.getByRole('button', { name: 'Import 1 result' }).click();
  await expect(spring).toContainText('1 held, 1 imported');

  // The learned way is there, read anew, and goes out as a file.
  await page.getByRole('link', { name: 'Laboratories’ ways' }).click();
  const way = page.getByRole('region', { name: 'Inlet Soil Laboratory' });
  await expect(way).toContainText('spring.pdf is read as it was kept: 2 samples.');
  const download = page.waitForEvent('download');
  await way.getByRole('button', { name: 'Export Inlet Soil Laboratory' }).click();
  expect((await download).suggestedFilename()).toBe('Inlet Soil Laboratory.json');
});

test('text pasted from a page is read; a scan is told so', async ({ page }) => {
  const { site } = await siteWith(page, 'Pasted House', [['Lawn', 'A1']]);
  await page.goto(`/sites/${site.id}/lab`);
  await page.getByRole('button', { name: 'Paste its text…' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('textbox', { name: 'Text of the report' }).fill('Dear Sir');
  await dialog.getByRole('button', { name: 'Read it' }).click();
  await expect(dialog.getByRole('alert')).toContainText('No line of this file names columns');
  await dialog
    .getByRole('textbox', { name: 'Text of the report' })
    .fill('Mehlich 3\nSample: A1\nSoil pH: 5.8 (acid)\nPhosphorus (P): 27 ppm Medium\nPotassium (K): 95 ppm\n');
  await dialog.getByRole('button', { name: 'Read it' }).click();
  const pasted = page.getByRole('region', { name: 'File pasted text' });
  await pasted.getByRole('textbox', { name: 'Depth, if not given' }).fill('6 in');
  await pasted.getByRole('textbox', { name: 'Depth, if not given' }).press('Enter');
  await pasted.getByRole('button', { name: 'Import 1 result' }).click();
  await expect(page.getByRole('row', { name: /Lawn/ })).toContainText('5.8');
});

test('eight samples are typed by the keyboard alone', async ({ page }) => {
  const lawns = Array.from({ length: 8 }, (_, at) => [`Lawn ${at + 1}`, `K${at + 1}`] as const);
  const { site } = await siteWith(page, 'Keyboard House', lawns);
  await page.goto(`/sites/${site.id}/lab`);
  await page.getByRole('textbox', { name: 'Sampled depth' }).focus();
  await page.keyboard.type('6 in');
  // Past the day and the columns, into the sheet.
  await page.getByRole('combobox', { name: 'More columns' }).focus();
  const active = page.locator('.dsg-active-cell');
  for (let tabs = 0; tabs < 20 && (await active.count()) === 0; tabs += 1) await page.keyboard.press('Tab');
  for (let at = 0; at < 8; at += 1) {
    await page.keyboard.type(`5.${at + 1}`);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByRole('textbox', { name: 'Soil pH of Lawn 8' })).toHaveValue('5.8');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('textbox', { name: 'Soil pH of Lawn 8' })).toHaveValue('');
  await page.keyboard.press('Control+y');
  await expect(page.getByText('8 of 8 typed, kept on this device')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Save 8 results' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /Lawn 8/ }).filter({ hasText: '5.8' })).toBeVisible();
});
