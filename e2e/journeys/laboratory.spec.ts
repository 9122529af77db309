import { writeBagCode } from '@glenfold/agronomy';
import type { BagLineAnswer, BoardAnswer, LabResultAnswer } from '@glenfold/contract';
import { type Page, expect, openSite, test, toStep } from './person.ts';

const board = async (page: Page): Promise<BagLineAnswer[]> =>
  ((await (await page.request.get('/api/bags')).json()) as BoardAnswer).bags;
const bagOf = async (page: Page, site: string): Promise<BagLineAnswer> =>
  (await board(page)).find(({ siteName }) => siteName.startsWith(site))!;

test('a dried bag is sent, arrives, is reported in the house style of its laboratory, and read', async ({ page }) => {
  await openSite(page, 'Kelp Cottage', 'Sampling');
  const rows = page.getByRole('list', { name: 'Bags' }).getByRole('listitem');
  await rows.getByRole('button', { name: 'Send…' }).click();
  const parcel = page.getByRole('dialog');
  await expect(parcel.getByRole('combobox', { name: 'Laboratory' })).toHaveValue('Fennimore soil laboratory');
  await expect(parcel).toContainText('Fennimore soil laboratory asks $22.00 for this bag');
  await parcel.getByRole('button', { name: 'Sent' }).click();
  await expect(rows).toContainText('Sent');

  await page.getByRole('link', { name: 'All sites’ bags' }).click();
  const kelp = rows.filter({ hasText: 'Kelp Cottage' });
  await page.getByRole('button', { name: 'Ask for news' }).click();
  await expect(page.getByRole('status', { name: 'News of the laboratories' })).toContainText('No news yet.');
  await expect(kelp).toContainText('Sent');
  // One to three days by post, seven to twelve more to the report.
  const hurryAWeek = async (): Promise<void> => {
    const answered = page.waitForResponse((response) => response.url().endsWith('/laboratories/news'));
    await page.getByRole('button', { name: 'Hurry them by a week' }).click();
    await answered;
  };
  await hurryAWeek();
  await expect(kelp).toContainText('At the lab');
  await hurryAWeek();
  await hurryAWeek();
  await expect(kelp).toContainText('Reported');
  const { labNumber, code, zoneIds, siteId } = await bagOf(page, 'Kelp');
  await expect(kelp).toContainText(`no. ${labNumber}`);
  await kelp.getByRole('link', { name: 'Read the report' }).click();

  const file = page.getByRole('region', { name: /File fennimore-soil-.*\.csv/ });
  await expect(file.getByRole('combobox', { name: 'Extractant' })).toHaveText('Mehlich-3');
  await expect(file.getByRole('combobox', { name: 'Buffer method' })).toHaveText('Sikora');
  const sample = file.getByRole('region', { name: writeBagCode(code) });
  await expect(sample).toContainText('Front lawn');
  await file.getByRole('button', { name: 'Import 1 result' }).click();
  const bagNow = async () => (await (await page.request.get(`/api/bags/by-code/${code}`)).json()) as BagLineAnswer;
  await expect.poll(async () => (await bagNow()).state).toBe('read');
  const results = (await (await page.request.get(`/api/sites/${siteId}/lab-results`)).json()) as LabResultAnswer[];
  expect(results.filter(({ label }) => label === writeBagCode(code)).map((result) => result.zoneIds)).toEqual([
    zoneIds,
  ]);

  await toStep(page, 'Sampling');
  await rows.getByRole('button', { name: 'Cores and history' }).click();
  const near = page.getByRole('region', { name: 'The soil behind the numbers' });
  await expect(near).toContainText('12 cores');
  await expect(near.getByRole('row').filter({ hasText: 'pH' })).toContainText(/[+−]0\.\d/);
});

test('a report that misses a number is asked after, and read all the same', async ({ page }) => {
  await page.goto('/bags');
  const quarry = page.getByRole('listitem').filter({ hasText: 'Quarry Lane' });
  await quarry.getByRole('link', { name: 'Read the report' }).click();
  const file = page.getByRole('region', { name: /File tern-sound-.*\.json/ });
  await expect(file.getByRole('combobox', { name: 'Extractant' })).toHaveText('Mehlich-1');
  await expect(file).toContainText('K was asked for and not reported: ask the laboratory while it still has the bag.');
  await expect(file.getByRole('button', { name: 'Import 1 result' })).toBeEnabled();
});
