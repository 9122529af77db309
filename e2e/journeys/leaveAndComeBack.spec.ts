import { readFileSync } from 'node:fs';
import { addressOf, anotherBrowser, expect, test } from './person.ts';

test('an owner leaves with everything, and goes on with it in an empty Glenfold', async ({ page, browser }, info) => {
  await page.goto('/practice/data');
  const waiting = page.waitForEvent('download');
  await page.getByRole('link', { name: /Download the practice/ }).click();
  const download = await waiting;
  expect(download.suggestedFilename()).toMatch(/^Brackwater Soil Advisory \d{4}-\d\d-\d\d\.zip$/);
  const file = info.outputPath('practice.zip');
  await download.saveAs(file);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'What wants doing' })).toBeVisible();
  const rounds = await page.getByRole('main').innerText();

  const elsewhere = await anotherBrowser(browser, addressOf('second', info.parallelIndex));
  await elsewhere.goto('/');
  await elsewhere.getByRole('button', { name: 'One from an export' }).click();
  const choose = async (bytes: Buffer, email: string): Promise<void> => {
    await elsewhere
      .getByLabel('ZIP of the export')
      .setInputFiles({ name: 'practice.zip', mimeType: 'application/zip', buffer: bytes });
    await elsewhere.getByRole('textbox', { name: /Your e-mail/ }).fill(email);
    await elsewhere.getByRole('textbox', { name: 'A new password' }).fill('words for the new place');
    await elsewhere.getByRole('button', { name: 'Load it and sign in' }).click();
  };
  const whole = readFileSync(file);
  await choose(whole.subarray(0, whole.length / 2), 'orla@brackwater.example');
  await expect(elsewhere.getByRole('alert')).toContainText('a part of it is missing');
  await choose(whole, 'stranger@brackwater.example');
  await expect(elsewhere.getByRole('main')).toContainText('The owners in this export are orla@brackwater.example');
  await choose(whole, 'orla@brackwater.example');
  await expect(elsewhere.getByRole('heading', { name: 'What wants doing' })).toBeVisible();
  expect(await elsewhere.getByRole('main').innerText()).toBe(rounds);
  await expect(elsewhere.getByRole('banner')).not.toContainText('made-up');
  await elsewhere.goto('/practice');
  await expect(elsewhere.getByRole('listitem', { name: 'Wynn Marram' })).toContainText('Has no password here yet');
});
