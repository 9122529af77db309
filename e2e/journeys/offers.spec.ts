import { execFileSync } from 'node:child_process';
import { type Page, anotherBrowser, expect, openSite, test, toStep, toZone, zoneLink } from './person.ts';

const treatments = (page: Page) =>
  page
    .getByRole('main')
    .getByRole('heading', { level: 2 })
    .allInnerTexts()
    .then((all) => all.map((text) => text.replace(/\s+/g, '')));

test('two lawns with opposite problems get two programs, in both unit systems, printed as drafts', async ({ page }) => {
  const main = page.getByRole('main');
  const lawns: ReadonlyArray<readonly [site: string, zone: string, has: string[], not: string[], says: RegExp]> = [
    ['Gannet Row Almshouses', 'Walled court', ['Coring', 'Lime', 'P2O5'], ['Sulfur', 'Iron'], /Water stands/],
    ['Harbour School field', 'North fill', ['Coring', 'K2O'], ['Compost', 'Lime'], /Compost\s*not here/],
  ];
  for (const [site, zone, has, not, says] of lawns) {
    await openSite(page, site, 'Rates', zone);
    await expect(page.getByRole('heading', { name: zone, exact: true })).toBeVisible();
    await expect(main).toContainText(says);
    const found = (await treatments(page)).filter((name) => name !== 'Alsolookedat');
    expect(found).toEqual(expect.arrayContaining(has));
    expect(found.filter((name) => not.includes(name))).toEqual([]);
    await expect(main).toContainText('lb/1000 ft²');
    await page.getByRole('button', { name: 'Metric' }).click();
    await expect(main).toContainText('g/m²');
    await expect(main).not.toContainText(/\blb\b/);
    await page.getByRole('button', { name: 'US', exact: true }).click();
  }
  // A draft is printed without being handed over, and says so.
  const draft = await page.request.get(
    (await page.getByRole('link', { name: 'Print a draft (PDF)' }).getAttribute('href'))!,
  );
  const text = execFileSync('pdftotext', ['-', '-'], { input: await draft.body(), encoding: 'utf8' });
  expect(text).toMatch(/Draft: not handed over/);
  expect(text).toMatch(/North fill/);
  await expect(main).not.toContainText('Handed over on');
});

test('a program is offered with the price of its work, answered by link, and what was declined is left out', async ({
  page,
  browser,
  baseURL,
}) => {
  await openSite(page, 'Gannet Row Almshouses', 'Rates', 'Walled court');
  const main = page.getByRole('main');
  const form = page.getByRole('dialog');
  const coring = page.getByRole('region', { name: 'Coring' });
  // Coring costs a day's hire and four hours: until that is said it has no price, and no nought.
  await expect(coring).toContainText('No price yet: set hire and hours under Change.');
  await page.getByRole('button', { name: 'Change coring by hand' }).click();
  await form.getByRole('button', { name: 'Add work' }).click();
  await form.getByRole('combobox', { name: 'What' }).click();
  await page.getByRole('option', { name: /Walk-behind corer, hired/ }).click();
  await form.getByLabel('How much').fill('1');
  await form.getByRole('button', { name: 'Add more work' }).click();
  await form.getByLabel('How much').last().fill('many');
  await form.getByLabel(/^Why/).fill('With the hired corer');
  await form.getByRole('button', { name: 'Keep the change' }).click();
  await expect(form.getByLabel('How much').last()).toHaveAccessibleDescription(/number/i);
  await form.getByLabel('How much').last().fill('4');
  await form.getByRole('button', { name: 'Keep the change' }).click();
  await expect(form).toBeHidden();
  await expect(coring).toContainText('Walk-behind corer, hired 1 day, $95.00');
  await expect(coring).toContainText('Labour 4 hours, $168.00');

  await page.getByRole('button', { name: 'The whole site' }).click();
  await expect(page.getByRole('region', { name: 'Section by section' })).toContainText(
    'more than the $250.00 there is',
  );
  await page.getByRole('button', { name: 'Offer as a quote' }).click();
  await expect(form).toContainText('No price yet, and offered so: Loosening, Walled court');
  await form.getByLabel('Note to the owner').fill('The court first');
  await form.getByRole('button', { name: 'Offer it' }).click();
  await expect(page.getByRole('region', { name: 'The quote' })).toContainText('waits for its owner');

  await page.getByRole('button', { name: 'Share the report' }).click();
  await form.getByRole('textbox', { name: 'Who it is for' }).fill('Trustees');
  await form.getByRole('button', { name: 'Make a link' }).click();
  const link = await form.getByRole('textbox', { name: 'Link', exact: true }).inputValue();
  await form.getByRole('button', { name: 'Close' }).click();
  const trustee = await anotherBrowser(browser, baseURL);
  await trustee.goto(link);
  const offered = trustee.getByRole('region', { name: 'Offered to you' });
  await expect(offered).toContainText('The court first');
  await expect(offered.getByRole('listitem', { name: 'Coring, Walled court' })).toContainText('$263.00');
  await offered.getByRole('button', { name: /^Yes to all/ }).click();
  await offered.getByRole('listitem', { name: 'Loosening, Walled court' }).getByRole('button', { name: 'no' }).click();
  await offered.getByLabel(/Who decides/).fill('Wyn Marram');
  await offered.getByLabel('Words to the practice').fill('No loosening this year');
  await offered.getByRole('button', { name: 'Send the answer' }).click();
  await expect(offered).toContainText('Last answered by Wyn Marram');
  await trustee.context().close();

  await page.reload();
  await expect(page.getByRole('region', { name: 'The quote' })).toContainText('Wyn Marram');
  await page.getByRole('button', { name: 'Leave out what was declined (1)' }).click();
  await expect(page.getByRole('region', { name: 'The quote' })).toContainText('is in the program');
  await page.getByRole('button', { name: 'The zone' }).click();
  await expect(page.getByRole('region', { name: 'Loosening' })).toContainText(
    /left out by hand.*Wyn Marram declined it/,
  );
  await expect(main).toContainText('With the hired corer');
});

test('a sunken yard is filled, sown and fed as one program: loads, hire, the bed in its order, the spreader', async ({
  page,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: /Add a site/ }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel(/^Name/).fill('Sunken yard');
  await form.getByRole('button', { name: /Add/ }).last().click();
  await expect(form).toBeHidden();
  await expect(page.getByRole('heading', { name: 'Sunken yard' }).first()).toBeVisible();
  const siteId = /sites\/([\w-]+)/.exec(page.url())![1]!;
  const csrf = ((await (await page.request.get('/api/session')).json()) as { csrf: string }).csrf;
  const send = (path: string, data: object) =>
    page.request.post(`/api${path}`, { data, headers: { 'x-csrf-token': csrf } });
  const zone = (await (
    await send(`/sites/${siteId}/zones`, {
      ...{ name: 'Yard', label: 'Y1', area: 1350, grass: 'tall fescue', surface: 'seedbed', intensity: 'medium' },
      ...{ shade: 'full sun', clippings: 'returned', soilGroup: 'clay' },
    })
  ).json()) as { id: string };
  expect(zone.id).toBeTruthy();
  await page.getByRole('button', { name: 'Metric' }).click();
  await page.goto(`/sites/${siteId}/ground`);
  await page.getByRole('button', { name: 'Rebuilding' }).click();
  await page.getByLabel('Firmed depth').fill('7');
  await page.getByLabel('Load', { exact: true }).fill('9');
  await page.getByLabel('Price').fill('32');
  await page.getByLabel('Why').fill('Seven centimetres for the lawn');
  await page.getByRole('button', { name: 'Put it into the program' }).click();
  await page.getByRole('link', { name: 'Open it' }).click();
  const fill = page.getByRole('region', { name: 'Fill and topsoil' });
  // 1350 m² × 7 cm / 0.8 are 118 m³: 14 loads of 9, hauled at the practice's price.
  await expect(fill).toContainText('14 loads of 9 m³, 88 mm deep as tipped, 70 mm when it has settled');
  await expect(fill).toContainText('Haulage 14 loads, $1,050.00');

  await page.getByRole('button', { name: 'Add a treatment' }).click();
  await form.getByRole('combobox', { name: 'What' }).click();
  await page.getByRole('option', { name: 'Fill and topsoil' }).click();
  await form.getByRole('combobox', { name: /^Soil/ }).click();
  await page.getByRole('option', { name: 'subsoil' }).click();
  for (const [name, value] of [
    ['Depth', '10'],
    ['Area', '480'],
    ['Loads', '5'],
    ['Load', '9'],
    ['Haul', '0'],
    ['Price per volume', '0'],
  ] as const)
    // prettier-ignore
    await form.getByRole('textbox', { name, exact: true }).fill(value);
  await form.getByLabel(/^Why/).fill('Five loads are offered');
  await form.getByRole('button', { name: 'Add it' }).click();
  await expect(form).toBeHidden();
  // What lies below is put down first.
  await expect(fill.first()).toContainText('That is not enough: 100 mm is wanted, which takes 7 loads, 2 more.');
  await expect(fill.first()).not.toContainText('Haulage');

  await toStep(page, /Lab/);
  await page.getByRole('textbox', { name: 'Sampled depth' }).fill('15 cm');
  await page.getByRole('textbox', { name: 'Soil pH of Yard' }).fill('5.0');
  await page.getByRole('textbox', { name: 'P of Yard', exact: true }).fill('12');
  await page.getByRole('textbox', { name: 'K of Yard' }).fill('60');
  await page
    .getByRole('button', { name: /^Save the result/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { name: 'On record' })).toBeVisible();
  await toStep(page, /Rates/);
  await expect(zoneLink(page, /Yard/)).toBeVisible();
  for (const name of ['Lime', 'P2O5', 'Seed'])
    await expect(page.getByRole('region', { name, exact: true })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Seed' })).toContainText('the seed comes last and is rolled');
  await toZone(page, /Yard/);

  // A spreader is tried on a strip, and the trial is kept with it.
  await page.getByRole('region', { name: 'Lime' }).getByRole('button', { name: 'Set the spreader' }).click();
  await form.getByLabel('Setting it is tried at').fill('11');
  await form.getByRole('textbox', { name: 'Strip length' }).fill('20');
  await form.getByRole('textbox', { name: 'Gone from the hopper' }).fill('0');
  await expect(form.getByRole('textbox', { name: 'Gone from the hopper' })).toHaveAccessibleDescription(
    'Give a number above 0.',
  );
  await form.getByRole('textbox', { name: 'Gone from the hopper' }).fill('1.22');
  await expect(form.getByRole('status')).toContainText('100 g/m² in one pass');
  await form.getByRole('button', { name: 'Keep the trial' }).click();
  await expect(form).toBeHidden();
  await page.goto('/products/machines');
  await expect(page.getByRole('listitem', { name: 'Drop spreader, 24 in' })).toContainText(
    /100 g\/m² in one pass, tried on \d+ \w+ 20/,
  );
  // Units are the person’s, and other journeys read the other ones.
  await page.getByRole('button', { name: 'US', exact: true }).click();
  await expect(page.getByRole('main')).toContainText('lb/1000 ft²');
});
