import { expect, test } from './person.ts';
import { send, siteWith } from './ownSite.ts';

test('a drainage hole over a night, part of it without a connection, names the pan and moves the reading', async ({
  page,
  context,
}) => {
  const { site, zones } = await siteWith(page, 'Hollow House', [['Low lawn', 'L1']]);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.clock.install({ time: new Date() });
  await page.goto(`/tests/${site.id}?zone=${zones[0]!.id}`);
  await page.getByRole('button', { name: /^Drainage hole/ }).click();
  const next = page.getByRole('status', { name: 'What comes next' });
  await expect(next).toContainText('Fill the hole this evening');
  await page.getByRole('button', { name: 'Filled for the night' }).click();
  await expect(next).toContainText('The walls soak');
  await expect(page.getByRole('status', { name: 'Sending' })).toHaveText('all sent');
  await page.evaluate(() => navigator.serviceWorker.ready);
  await expect
    .poll(() => page.evaluate(async () => (await caches.match(location.origin + location.pathname)) !== undefined))
    .toBe(true);

  // The next morning, where no signal reaches.
  await page.clock.fastForward('10:00:00');
  await context.setOffline(true);
  await page.reload();
  await expect(next).toContainText('The walls are wet through');
  const read = async (depth: string): Promise<void> => {
    await page.getByRole('textbox', { name: 'From the stick down to the water' }).fill(depth);
    await page.getByRole('button', { name: 'Read now' }).click();
    await expect(page.getByRole('textbox', { name: 'From the stick down to the water' })).toHaveValue('');
  };
  await read('0 cm');
  await page.clock.fastForward('45:00');
  await read('6.9 cm');
  await page.clock.fastForward('45:00');
  await read('12.7 cm');
  await page.clock.fastForward('01:20:00');
  await expect(next).toContainText('The next reading is 20 minutes overdue.');
  await read('14.1 cm');
  await page.clock.fastForward('03:10:00');
  await read('14.9 cm');
  await page.clock.fastForward('18:00:00');
  await read('15 cm');
  await expect(page.getByRole('region', { name: 'What it says' })).toContainText(/A pan at (5\.75|6) in/);
  await expect(page.getByRole('img', { name: /^Depth of the water over time/ })).toBeVisible();
  await page.getByRole('button', { name: 'It is done' }).click();
  await context.setOffline(false);
  await expect(page.getByRole('status', { name: 'Sending' })).toHaveText('all sent');

  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`/sites/${site.id}/lab/${zones[0]!.id}?part=tests`);
  await expect(page.getByRole('article', { name: 'Drainage hole, Low lawn' })).toContainText('water stands on it');
  await page.getByRole('link', { name: 'The zone’s record' }).click();
  await page.getByRole('button', { name: /^Slowest layer/ }).click();
  await expect(page.getByRole('table', { name: 'Slowest layer of a test hole' })).toContainText('drainage');
  await expect(page.getByRole('link', { name: /Low lawn/ }).first()).toContainText('Low lawn');
});

test('cups on the lawn change the week’s water; a hot load is held to what it is good for', async ({ page }) => {
  const { site, zones } = await siteWith(page, 'Cup House', [['Wide lawn', 'W1']]);
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`/tests/${site.id}?zone=${zones[0]!.id}`);
  await page.getByRole('button', { name: /^Catch cups/ }).click();
  await page.getByRole('textbox', { name: 'The run' }).fill('15');
  await page.getByRole('textbox', { name: 'Throat of a cup' }).fill('81');
  await page.getByRole('textbox', { name: 'Or all of them in one go, mL' }).fill('28 31 25 33 30 22 27 35 29 26 24 32');
  await page.keyboard.press('Enter');
  // Mean 28.5 mL × 10 / 81 × 4 is 14.1 mm/h, 0.55 in/h; the driest three are 22, 24, 25: 83 %.
  const says = page.getByRole('region', { name: 'What it says' });
  await expect(says).toContainText('0.55 in/h, good evenness');
  await expect(says).toContainText('83 % of the mean');
  await page.getByRole('button', { name: 'It is done' }).click();
  await expect(page.getByRole('status', { name: 'Sending' })).toHaveText('all sent');

  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`/sites/${site.id}/lab?part=loads`);
  await page.getByRole('button', { name: 'Look a load over' }).click();
  const form = page.getByRole('dialog');
  await form.getByRole('textbox', { name: 'Whose, and how much' }).fill('Compost, one truck');
  const choose = async (field: string, word: string): Promise<void> => {
    await form.getByRole('combobox', { name: field }).click();
    await page.getByRole('option', { name: word, exact: true }).click();
  };
  await choose('Inside it is', 'hot');
  await choose('It smells of', 'ammonia');
  await form.getByRole('textbox', { name: 'Largest pieces' }).fill('10');
  await expect(form.getByRole('status')).toContainText('Only for some things: finishing in a heap');
  await choose('Decided', 'taken');
  await form.getByRole('button', { name: 'Keep it' }).click();
  await expect(form.getByRole('alert')).toContainText('Say why it is taken all the same.');
  await choose('Decided', 'sent back');
  await form.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('article', { name: 'Compost, one truck' })).toContainText('sent back');
});

test('a field sheet that comes back on paper is booked in one go', async ({ page }) => {
  const { site, zones } = await siteWith(page, 'Paper House', [['Front lawn', 'PH-1']]);
  const [zone] = zones;
  const cores = Array.from({ length: 20 }, (_, at) => ({
    zoneId: zone!.id,
    turn: at + 1,
    place: [-36 + at * 1e-5, 46],
  }));
  await send(page, `/sites/${site.id}/bags`, {
    bags: [
      {
        ...{
          purpose: 'routine',
          depth: 10,
          probe: 2,
          panels: ['routine'],
          design: 'random',
          edge: 1,
          clear: 1,
          seed: 7,
        },
        cores,
      },
    ],
  });
  await page.goto(`/sites/${site.id}/sampling`);
  await page.getByRole('button', { name: 'A sheet came back' }).click();
  const sheet = page.getByRole('dialog', { name: 'A field sheet came back' });
  await sheet.getByRole('combobox', { name: 'Core 7: taken or not' }).click();
  await page.getByRole('option', { name: 'left out: stone or rubble' }).click();
  await sheet.getByRole('combobox', { name: 'Core 12: taken or not' }).click();
  await page.getByRole('option', { name: 'left out: stone or rubble' }).click();
  await sheet.getByRole('textbox', { name: 'Core 3 pushed to' }).fill('deep');
  await sheet.getByRole('button', { name: 'Book 20 cores' }).click();
  await expect(sheet).toContainText('“deep” is no depth');
  await sheet.getByRole('textbox', { name: 'Core 3 pushed to' }).fill('6 cm');
  await expect(sheet.getByRole('status')).toHaveText('18 taken, 2 left out.');
  await sheet.getByRole('button', { name: 'Book 20 cores' }).click();
  await expect(sheet).toBeHidden();
  await expect(page.getByRole('main')).toContainText('18 cores');
  await expect(page.getByRole('button', { name: 'A sheet came back' })).toBeHidden();
});
