import type { MessagesAnswer } from '@glenfold/contract';
import { anotherBrowser, expect, test } from './person.ts';

test.use({ viewport: { width: 390, height: 844 }, as: 'Wynn' });

test('a technician’s morning without a connection: what is written waits, is told, and is sent once there is one', async ({
  page,
  context,
}) => {
  await page.goto('/');
  await expect(page).toHaveURL(/\/today$/);
  await page.getByRole('button', { name: 'Take today along' }).click();
  await expect(page.getByText(/^Today is on this device: \d sites/)).toBeVisible();
  const site = page.getByRole('region', { name: 'Harbour School field' });
  await expect(site).toContainText('Gate and key: Field gate on Strand Lane');
  await page.evaluate(() => navigator.serviceWorker.ready);
  await site.getByRole('link', { name: 'Harbour School field' }).click();
  await expect(page.getByRole('list', { name: 'Zones' })).toBeVisible();

  await context.setOffline(true);
  await page.getByRole('button', { name: 'Thatch and roots' }).click();
  await page.getByLabel('Roots to').fill('a hand');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('alert')).toContainText('“a hand” is no depth: write it like 1 in');
  await page.getByLabel('Roots to').fill('4 in');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await page.getByRole('button', { name: 'A delivery' }).click();
  await page.getByLabel('Whose, and how much').fill('compost, 3 m³, from the depot');
  await page.getByRole('button', { name: 'Keep it' }).click();
  const sending = page.getByRole('status', { name: 'Sending' });
  await expect(sending).toHaveText('2 kept here');
  await page.goto('/sent');
  await expect(page.getByRole('region', { name: 'Waits to be sent' })).toContainText('compost, 3 m³, from the depot');
  await page.getByRole('link', { name: 'Back' }).click();
  await expect(page.getByRole('region', { name: 'Today' })).toContainText('Harbour School field');

  // Back in the office: from a page that is none of the field's, with nothing pressed.
  await context.setOffline(false);
  await page.goto('/sent');
  await expect(page.getByRole('region', { name: 'Sent' })).toContainText('Thatch, roots, probe');
  await expect(sending).toHaveText('all sent');
  await page.goto('/today');
  await expect(page.getByRole('region', { name: 'Done today' })).toContainText('compost, 3 m³, from the depot');
});

test('a client asks, the advisor is told and answers, and she reads it', async ({ browser, baseURL }) => {
  const hetty = await anotherBrowser(browser, baseURL, 'Hetty');
  await hetty.goto('/');
  await hetty.getByRole('link', { name: /^Read Gannet Row/ }).click();
  await expect(hetty.getByRole('region', { name: 'New and waiting' })).toContainText('waits since');
  await hetty.getByLabel('Write to your advisor').fill('May the children go on the court on Saturday?');
  await hetty.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(hetty.getByRole('region', { name: 'Questions and answers' })).toContainText('You');

  const orla = await anotherBrowser(browser, baseURL, 'Orla');
  await orla.goto('/');
  await orla.getByRole('link', { name: /^Answer Hetty Coppice/ }).click();
  await orla.getByLabel('Write to the client').fill('Once it is dry: I shall tell you.');
  await orla.getByRole('button', { name: 'Send', exact: true }).click();
  await expect(orla.getByLabel('Write to the client')).toHaveValue('');
  await hetty.reload();
  await expect(hetty.getByRole('region', { name: 'New and waiting' })).toContainText('Orla Tench has written to you');
  await expect(hetty.getByRole('region', { name: 'Questions and answers' })).toContainText('Once it is dry');
  const siteId = new URL(hetty.url()).pathname.split('/').at(-1)!;
  const { messages } = (await (await hetty.request.get(`/api/sites/${siteId}/messages`)).json()) as MessagesAnswer;
  expect(messages.map(({ done }) => done)).toEqual([true, true]);
});
