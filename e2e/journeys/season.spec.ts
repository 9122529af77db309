import type { SeasonAnswer } from '@glenfold/contract';
import { expect, handOver, openSite, test, toStep, toZone } from './person.ts';

test('a job of today is done without a connection, stands in the book, and the next rate is smaller', async ({
  page,
  context,
}) => {
  await openSite(page, 'Tollgate bowling green', 'Rates', 'Club lawn');
  const lime = page.getByRole('region', { name: 'Lime' });
  await expect(lime.getByRole('button', { name: /for the year: [\d.]+ lb/ })).toBeVisible();

  await handOver(page, 'zone');

  // What is handed over is dated; the owner wants it today.
  await toStep(page, /Season/);
  const siteId = new URL(page.url()).pathname.split('/')[2]!;
  const { today } = (await (await page.request.get(`/api/sites/${siteId}/season?units=us`)).json()) as SeasonAnswer;
  await page.getByRole('button', { name: /^Open Lime, .*Club lawn/ }).click();
  const dialog = page.getByRole('dialog');
  const day = dialog.getByLabel('Day', { exact: true });
  if ((await day.inputValue()) !== today) {
    await day.fill(today);
    const set = dialog.getByRole('button', { name: 'Set the day' });
    await expect(dialog.getByRole('status')).toBeVisible();
    const why = dialog.getByLabel('Why all the same');
    if (await why.isVisible()) await why.fill('the owner is there today');
    await set.click();
    await expect(dialog).toBeHidden();
  } else await page.keyboard.press('Escape');
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto('/today');
  await page.getByRole('button', { name: 'The whole week' }).click();
  await expect(page.getByText(/^The week is on this device: \d sites/)).toBeVisible();
  await expect(page.getByText(/On hold: The court stands in water/)).toBeVisible();

  await page.evaluate(() => navigator.serviceWorker.ready);
  await expect
    .poll(() => page.evaluate(async () => (await caches.match(window.location.href)) !== undefined))
    .toBe(true);

  await context.setOffline(true);
  await page.reload();
  await page.getByRole('link', { name: /^Lime, Club lawn/ }).click();
  await expect(page.getByRole('status', { name: 'Verdict' })).toContainText('Look first');
  await page.getByRole('combobox', { name: 'Ground' }).click();
  await page.getByRole('option', { name: 'frozen' }).click();
  await expect(page.getByRole('status', { name: 'Verdict' })).toContainText('Never');
  await page.getByRole('combobox', { name: 'Ground' }).click();
  await page.getByRole('option', { name: 'firm' }).click();
  await page.getByRole('button', { name: 'Spread' }).first().click();
  await page.getByText('Half-way: bags against area').click();
  await page.getByLabel('Used so far').fill('12 lb');
  await page.getByLabel('Done so far').fill('1670 ft2');
  await expect(page.getByRole('status').filter({ hasText: /so far, over the .* The rest at/ })).toBeVisible();
  await page.getByRole('button', { name: 'Done…' }).click();
  await page.getByLabel('Really used').fill('20 lb');
  await page.getByRole('button', { name: 'Write it down' }).click();
  await expect(page.getByText('Kept on this device until there is a connection.')).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText('It stands in the logbook.')).toBeVisible();

  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByRole('link', { name: 'Open the logbook' }).click();
  const ledger = page.getByRole('region', { name: 'The ledger of Club lawn' });
  await expect(ledger.getByRole('row', { name: /lime/i }).first()).toContainText('6 lb/1000 ft²');
  await expect(page.getByRole('region', { name: 'Entries of the zone' })).toContainText(/20 lb.*by Orla Tench/s);
  await toStep(page, /Rates/);
  await expect(page.getByRole('main')).toContainText(/put down .*, after the sample, is taken off/);
});

test('a job waits with its reason and the client’s words, in the season and in the week, and goes on', async ({
  page,
}) => {
  await openSite(page, 'Tollgate bowling green', 'Season', 'The green');
  const main = page.getByRole('main');
  const first = main.getByRole('button', { name: /^Open Wetting agent, Spraying 2 of 3/ });
  await first.click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Why it waits').fill('a storm is coming');
  await dialog.getByLabel('What the client said').fill('not before the fair');
  await dialog.getByRole('button', { name: 'Hold' }).click();
  await expect(dialog).toBeHidden();
  await expect(main).toContainText(/on hold since .*a storm is coming/);
  await first.click();
  await expect(dialog).toContainText('“not before the fair”');
  await dialog.getByRole('button', { name: 'Go on with it' }).click();
  await expect(dialog).toBeHidden();
  await expect(main).not.toContainText('a storm is coming');
});

test('a retest stands beside what was foretold, one that disappoints as well', async ({ page }) => {
  await openSite(page, 'Tollgate bowling green', 'Proof', 'Club lawn');
  const main = page.getByRole('main');
  await expect(main).toContainText(
    /(2023-10-05|5 Oct 2023) to (2024-10-03|3 Oct 2024)\. Moved 0\.4, 0\.\d was expected: outside the band/,
  );
  await expect(main).toContainText(
    /(2024-10-03|3 Oct 2024) to (2026-10-01|1 Oct 2026)\. Moved 0\.3, 0\.\d was expected: inside the band/,
  );
  await expect(page.getByRole('img', { name: /^pH over time: 5\.2 on 2023-10-05/ })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Hits and misses' })).toContainText('1 of 2 inside the band');
  await toZone(page, 'Road bank');
  await expect(main).toContainText('No test yet');
});
