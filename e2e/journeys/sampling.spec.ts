import { readFileSync } from 'node:fs';
import { writeBagCode } from '@glenfold/agronomy';
import type { BagAnswer, BoardAnswer, PhotoAnswer, SitesAnswer } from '@glenfold/contract';
import { type Page, expect, openSite, test } from './person.ts';

async function bagsOf(page: Page, name: string): Promise<BagAnswer[]> {
  const { sites } = (await (await page.request.get('/api/sites')).json()) as SitesAnswer;
  const { id } = sites.find((site) => site.name.startsWith(name))!;
  return (await (await page.request.get(`/api/sites/${id}/bags`)).json()) as BagAnswer[];
}

/** A picture of one grey pixel. */
const grey = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNoAAAAggCBd81ytgAAAABJRU5ErkJggg==',
  'base64',
);

/** Check everything that is checked before the first core, and begin. */
async function begin(page: Page): Promise<void> {
  await expect(page.getByRole('heading', { name: 'Before the first core' })).toBeVisible();
  for (const check of await page.getByRole('checkbox').all()) await check.check();
  await page.getByRole('button', { name: /^Walk \d+ cores$/ }).click();
}

test('the school field is planned, cored, dried and sent, and a bag is found by its code', async ({ page }) => {
  await openSite(page, 'Harbour School field', 'Sampling');
  await expect(page.getByText(/111 cores in 5 bags; .* on foot from the gate and back/)).toBeVisible();
  await expect(page.getByText(/it shows hard ground, puddles, spongy/)).toBeVisible();
  // A laboratory has depths, a bag and fees of its own.
  await page.getByRole('combobox', { name: 'Laboratory' }).click();
  await page.getByRole('option', { name: 'Grey Skerry farm laboratory' }).click();
  await expect(page.getByText(/Grey Skerry farm laboratory asks \$60\.00 for 5 bags/)).toBeVisible();
  // Another depth than last time, and one no laboratory is calibrated for.
  await page.getByRole('textbox', { name: 'Depth' }).fill('5 in');
  await expect(page.getByText(/Grey Skerry farm laboratory is not calibrated for 5 in, only for/)).toBeVisible();
  await expect(page.getByText(/The last test went to 6 in/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Depth' }).fill('6 in');
  await page.getByRole('combobox', { name: 'The soil is' }).click();
  await page.getByRole('option', { name: 'wet' }).click();
  await expect(page.getByText(/Not while it is wet/)).toBeVisible();
  // Only the goals, with fewer cores than fill a bag.
  for (const zone of ['Drained half', 'Undrained half', 'North fill'])
    await page.getByRole('checkbox', { name: `Sample ${zone}` }).uncheck();
  await page.getByRole('spinbutton', { name: 'Cores of West goal' }).fill('6');
  await page.getByRole('spinbutton', { name: 'Cores of East goal' }).fill('6');
  await expect(page.getByText(/6 cores do not fill the bag: take 17, or a wider probe/)).toBeVisible();
  // No core fits an edge wider than the goals.
  await page.getByRole('textbox', { name: 'Off the edges' }).fill('30 ft');
  await expect(page.getByText(/West goal: The zone is too narrow/)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Plan 2 bags' })).toBeDisabled();
  await page.getByRole('textbox', { name: 'Off the edges' }).fill('3 ft');
  await page.getByRole('button', { name: 'Plan 2 bags' }).click();

  const rows = page.getByRole('list', { name: 'Bags' }).getByRole('listitem');
  await expect(rows.filter({ hasText: '0 of 6 cores' })).toHaveCount(2);
  const saved = page.waitForEvent('download');
  await page.getByRole('button', { name: 'GPX, for a receiver' }).click();
  const points = await saved;
  expect(points.suggestedFilename()).toBe('harbour-school-field-cores.gpx');
  expect(readFileSync(await points.path(), 'utf8').match(/<wpt /g)).toHaveLength(12);
  const sheet = await page.getByRole('link', { name: 'Field sheet' }).getAttribute('href');
  expect((await page.request.get(sheet!)).headers()['content-type']).toBe('application/pdf');
  await page.getByRole('link', { name: 'Walk 2 bags' }).click();
  await begin(page);
  await page.getByRole('button', { name: 'Skip' }).click();
  await page.getByRole('button', { name: 'stone or rubble' }).click();
  for (let core = 2; core <= 12; core += 1) {
    await expect(page.getByText(`${core - 1} of 12 done`)).toBeVisible();
    await page.getByRole('button', { name: 'Cored' }).click();
  }
  await expect(page.getByRole('heading', { name: 'All cores are in' })).toBeVisible();
  await expect(page.getByRole('status', { name: 'Sending' })).toHaveText('all sent');
  await openSite(page, 'Harbour School field', 'Sampling');

  for (let left = 2; left > 0; left -= 1) {
    await page.getByRole('button', { name: 'Laid out to dry' }).first().click();
    await expect(page.getByRole('button', { name: 'Laid out to dry' })).toHaveCount(left - 1);
  }
  // A slip of the finger goes back one step, and stays in the history.
  await rows
    .first()
    .getByRole('button', { name: /^More about bag/ })
    .click();
  await page.getByRole('menuitem', { name: 'Back to cored' }).click();
  await expect(rows.first()).toContainText('Cored');
  await rows.first().getByRole('button', { name: 'Laid out to dry' }).click();
  await expect(rows.first()).toContainText('Drying');
  for (const row of await rows.all()) await row.getByRole('checkbox').check();
  await page.getByRole('button', { name: 'Post together' }).click();
  const parcel = page.getByRole('dialog');
  await expect(parcel).toContainText('Grey Skerry farm laboratory asks $24.00 for these 2 bags');
  await parcel.getByRole('button', { name: 'Sent' }).click();
  await expect(rows.filter({ hasText: 'Sent' })).toHaveCount(2);
  await expect(page.getByRole('link', { name: /Sampling/ })).toContainText('2 of 2 bags sent');

  const [bag] = await bagsOf(page, 'Harbour');
  await page.getByRole('link', { name: 'All sites’ bags' }).click();
  const code = page.getByRole('textbox', { name: /bag’s code/ });
  await code.fill(`${bag!.code.slice(1, 2)}${bag!.code.slice(0, 1)}${bag!.code.slice(2)}X`);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('has 7 signs; a code has 6');
  await code.fill(bag!.code.toLowerCase());
  await page.keyboard.press('Enter');
  await expect(rows).toHaveCount(1);
  await expect(rows).toContainText(bag!.zoneNames[0]!);
});

test.describe('on the phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, as: 'Wynn' });

  test('the connection goes in the middle of a walk, and every core is there once', async ({ page, context }) => {
    const [planned] = await bagsOf(page, 'Gannet');
    const total = planned!.cores;
    await page.goto('/bags');
    await page.getByRole('link', { name: 'Take the walks along' }).click();
    await page.getByRole('button', { name: 'Take today along' }).click();
    await expect(page.getByRole('status').filter({ hasText: 'Today is on this device' })).toBeVisible();
    const along = page.getByRole('region', { name: 'Gannet Row Almshouses' }).getByRole('link', { name: /^Walk/ });
    await expect(along).toHaveText(`Walk: ${total} cores to take`);
    await along.click();
    await begin(page);
    await page.getByRole('button', { name: 'Cored' }).click();
    await expect(page.getByText(`1 of ${total} done`)).toBeVisible();
    await page.evaluate(() => navigator.serviceWorker.ready);
    await expect
      .poll(() => page.evaluate(async () => (await caches.match(window.location.href)) !== undefined))
      .toBe(true);
    await expect(page.getByRole('status', { name: 'Sending' })).toHaveText('all sent');

    await context.setOffline(true);
    await page
      .getByLabel('Photo of this place')
      .setInputFiles({ name: 'core.png', mimeType: 'image/png', buffer: grey });
    await expect(page.getByRole('status', { name: 'Sending' })).toHaveText('1 kept here');
    for (let core = 2; core <= 5; core += 1) {
      await page.getByRole('button', { name: 'Cored' }).click();
      await expect(page.getByText(`${core} of ${total} done`)).toBeVisible();
    }
    await expect(page.getByRole('status', { name: 'Sending' })).toHaveText('5 kept here');
    await expect(page.getByRole('note')).toContainText('every tap is kept on this device');
    await page.goto('/today');
    await along.click();
    await page.reload();
    await expect(page.getByText(`5 of ${total} done`)).toBeVisible();
    // A push that stops is told at once.
    for (let step = 0; step < 4; step += 1) await page.getByRole('button', { name: 'Pushed to: less' }).click();
    await expect(page.getByText(/The push stopped early/)).toBeVisible();
    for (let core = 6; core <= total; core += 1) {
      await page.getByRole('button', { name: 'Cored' }).click();
      if (core < total) await expect(page.getByText(`${core} of ${total} done`)).toBeVisible();
    }
    await expect(page.getByRole('heading', { name: 'All cores are in' })).toBeVisible();
    const stillThere = await bagsOf(page, 'Gannet').catch(() => null);
    expect(stillThere?.[0]?.cored ?? 1).toBe(1);

    await context.setOffline(false);
    await expect(page.getByRole('status', { name: 'Sending' })).toHaveText('all sent', { timeout: 30_000 });
    const [cored] = await bagsOf(page, 'Gannet');
    expect(cored).toMatchObject({ state: 'cored', cored: total, cores: total });
    expect(cored!.places.every(({ state, by }) => state === 'cored' && by?.startsWith('Wynn'))).toBe(true);
    expect(cored!.places.filter(({ pushed }) => pushed! < cored!.depth - 1)).toHaveLength(1);
    const photos = (await (await page.request.get(`/api/sites/${cored!.siteId}/photos`)).json()) as PhotoAnswer[];
    expect(photos.map(({ caption }) => caption)).toContain(`Core 2 of bag ${writeBagCode(cored!.code)}`);
    const { bags: board } = (await (await page.request.get('/api/bags')).json()) as BoardAnswer;
    expect(board.find(({ id }) => id === cored!.id)).toMatchObject({ state: 'cored', days: 0 });
  });
});
