import { randomUUID } from 'node:crypto';
import type { LabResultAnswer, SessionAnswer, ZoneAnswer } from '@glenfold/contract';
import { send } from './ownSite.ts';
import { type Page, anotherBrowser, expect, openSite, test, toStep, toZone } from './person.ts';

const value = (number: number, unit = 'mg/kg') => ({ value: number, unit, basis: 'element' });

interface Lawn {
  readonly name: string;
  readonly zone?: object;
  readonly facts?: object;
  readonly values: object;
}

async function put(page: Page, path: string, body: object, version: number): Promise<void> {
  const { csrf } = (await (await page.request.get('/api/session')).json()) as SessionAnswer;
  const headers = { 'x-csrf-token': csrf, 'if-match': `"${version}"` };
  const answer = await page.request.put(`/api${path}`, { data: body, headers });
  if (!answer.ok()) throw new Error(`${path}: ${await answer.text()}`);
}

/** A site of the journey's own, each lawn with its facts and a report of a bag of fifteen cores. */
async function siteOf(page: Page, name: string, lawns: readonly Lawn[]): Promise<ZoneAnswer[]> {
  const site = await send<{ id: string }>(page, '/sites', { name });
  const zones: ZoneAnswer[] = [];
  for (const [index, lawn] of lawns.entries()) {
    const zone = await send<ZoneAnswer>(page, `/sites/${site.id}/zones`, {
      ...{ name: lawn.name, label: `J-${index + 1}`, area: 400, grass: 'kentucky bluegrass', surface: 'turf' },
      ...{ intensity: 'medium', shade: 'full sun', clippings: 'returned', soilGroup: 'loam' },
      ...lawn.zone,
    });
    if (lawn.facts) await put(page, `/zones/${zone.id}/facts`, lawn.facts, zone.version);
    await send<LabResultAnswer>(page, '/lab-results', {
      ...{ zoneIds: [zone.id], label: `J-${index + 1}`, depth: 10.16, extractant: 'mehlich-3', cores: 15 },
      ...{ sampledOn: '2026-10-05', values: lawn.values },
    });
    zones.push(zone);
  }
  return zones;
}
const good = { soilPh: value(6.5, 'pH'), organicMatter: value(4, '%'), p: value(40), k: value(120), mg: value(180) };
const limits = (page: Page) => page.getByRole('list', { name: 'What limits this zone, most first' });

test('an acid shaded court: light and water before lime, each with its reason and what must come first', async ({
  page,
}) => {
  await openSite(page, 'Gannet Row Almshouses', '4 Reading', 'Walled court');
  await expect(page.getByRole('heading', { level: 2, name: /Too little sun for perennial ryegrass/ })).toBeVisible();
  const [first, second] = [limits(page).getByRole('listitem').nth(0), limits(page).getByRole('listitem').nth(1)];
  await expect(first).toContainText('Shade. It wants 6 h of direct sun; 3.5 were counted.');
  await expect(second).toContainText('Drainage, by what was seen.');
  await expect(limits(page)).toContainText(/Acidity.*First: drainage, compaction, thatch/);
  await second.getByText(/^Remedy: /).click();
  await expect(second).toContainText('Costs much: a firm, heavy machines');
  await expect(second).toContainText(/What settles it: .*Dig a hole/);

  // How sure: by hand 1.645 × √(0.1² + (5.3 × 7 % / √15)²) = 0.23.
  const acidity = page.getByRole('region', { name: 'Acidity' });
  await expect(acidity).toContainText('gives way to moss and bent here');
  await acidity.getByRole('button', { name: /Soil pH: how sure: ± 0.2/ }).click();
  await expect(page.getByRole('dialog')).toContainText('√15');
  await page.getByRole('button', { name: 'Close the working' }).click();
  await acidity.getByRole('button', { name: 'What pH does to each nutrient' }).click();
  await expect(acidity.getByRole('img', { name: /^Within reach at pH 5.3/ })).toBeVisible();
});

test('four lawns that numbers alone would get wrong: a pan, shell sand, salt and a builder’s subsoil', async ({
  page,
}) => {
  await page.goto('/');
  const [pan] = await siteOf(page, 'Hard lawns', [
    { name: 'Good on paper', values: { ...good, k: value(60) } },
    {
      name: 'Shell sand',
      zone: { grass: 'perennial ryegrass', soilGroup: 'sand' },
      values: { ...good, soilPh: value(8.3, 'pH'), organicMatter: value(2.4, '%'), p: value(14), ca: value(4100) },
    },
    {
      name: 'By the sea',
      zone: { grass: 'perennial ryegrass', soilGroup: 'clay' },
      facts: { seaside: true },
      values: {
        ...good,
        soilPh: value(7, 'pH'),
        ecPaste: value(7, 'dS/m'),
        esp: value(17, '%'),
        cec: value(20, 'cmol/kg'),
      },
    },
    {
      name: 'New house',
      zone: { surface: 'seedbed', soilGroup: 'clay' },
      facts: { layers: [{ material: 'subsoil', depth: 30 }] },
      values: { ...good, organicMatter: value(1.1, '%') },
    },
  ]);
  // A hole over a night: quick over tight, so the mean tells nothing.
  const readings = [[0, 0], [45, 6.9], [90, 12.7], [180, 14.1], [360, 14.9], [1380, 15]].map(([minutes, depth]) => ({ at: new Date(Date.UTC(2026, 10, 20, 8) + minutes! * 60_000).toISOString(), depthBelowStick: depth })); // prettier-ignore
  await send(page, '/field-tests?units=us', {
    ...{ id: randomUUID(), zoneId: pan!.id, kind: 'drainage', on: '2026-11-20', closed: true, revision: 1 },
    record: { holeDepth: 30, readings },
  });

  await openSite(page, 'Hard lawns', '4 Reading', 'Good on paper');
  await expect(page.getByRole('heading', { level: 2, name: /Water hardly leaves/ })).toBeVisible();
  await expect(limits(page)).toContainText('quick over tight, a pan');
  await expect(limits(page)).toContainText(/Potassium.*First: drainage/);

  await toZone(page, /Shell sand/);
  await expect(page.getByRole('heading', { level: 2, name: /free carbonate, iron is locked up/ })).toBeVisible();
  const nutrients = page.getByRole('region', { name: 'Nutrients' });
  await expect(nutrients).toContainText('Ask for Olsen P: no phosphate is rated on this one.');
  await expect(page.getByRole('region', { name: 'Acidity' })).toContainText('sulfur is swallowed by it');
  await expect(page.getByRole('region', { name: 'What one more measurement is worth' })).toContainText(/Olsen|fizz/);

  await toZone(page, /By the sea/);
  await expect(limits(page)).toContainText(/Salt.*First: sodium/);
  await expect(limits(page).getByRole('listitem').first()).toContainText('Sodium');
  await expect(page.getByRole('region', { name: 'Salts' })).toContainText(
    'a way out for water first, then gypsum, then washing',
  );

  await toZone(page, /New house/);
  await expect(limits(page)).toContainText('Poor fill, suspected.');
  await expect(limits(page)).toContainText(/Organic matter/);
  await limits(page)
    .getByText(/^Remedy: rebuilding/)
    .click();
  await expect(limits(page)).toContainText('Dig one hole two spades deep');
});

test('the same report by three schools, what each would spend, and one of them switched off', async ({ page }) => {
  await openSite(page, 'Tollgate bowling green', '4 Reading', 'Club lawn');
  await page.getByRole('button', { name: 'Schools' }).click();
  const own = page.getByRole('region', { name: 'Sufficiency', exact: true });
  await expect(own).toContainText('This zone is planned by it');
  // By hand: 880/200.4 = 4.39 of 8.6 cmol/kg is 51 %, and 65 is wanted.
  await expect(page.getByRole('region', { name: 'Cation balance' })).toContainText('51.1 %, low (65–75 %)');
  const cost = async (name: string) =>
    Number((await page.getByRole('region', { name, exact: true }).getByRole('button', { name: /cost of the year/ }).innerText()).replace(/[$,]/g, '')); // prettier-ignore
  expect(await cost('Sufficiency')).toBeGreaterThan(await cost('Minimum level'));
  await expect(page.getByRole('list', { name: 'Where the schools agree' })).toContainText(
    'Magnesium: sufficiency, cation balance want more; minimum level does not.',
  );

  await page.getByRole('link', { name: 'Choose or switch off schools' }).click();
  await page.getByRole('button', { name: 'Change: School and when to correct' }).click();
  const form = page.getByRole('form', { name: 'School and when to correct' });
  await form.getByRole('textbox', { name: /^Why .* is another case/ }).fill('the greenkeeper goes by the floor');
  await form.getByRole('checkbox', { name: 'Cation balance' }).uncheck();
  await form.getByRole('button', { name: /^(Save|Decide for)/ }).click();
  await expect(form).toBeHidden();
  await openSite(page, 'Tollgate bowling green', '4 Reading', 'Club lawn');
  await page.getByRole('button', { name: 'Schools' }).click();
  await expect(page.getByRole('region', { name: 'Minimum level' })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Cation balance' })).toHaveCount(0);

  await page.getByRole('button', { name: 'Over time' }).click();
  await expect(page.getByRole('region', { name: 'Soil pH' })).toContainText(
    'Over all: up from 5.2 in October 2023, after the lime of',
  );
});

test('all zones side by side: sorted, laid beside one, shaded, and printed on one page', async ({ page, request }) => {
  await openSite(page, 'Harbour School field', '4 Reading');
  await page.getByRole('button', { name: 'All zones' }).click();
  const table = page.getByRole('table', { name: /Every zone/ });
  await expect(table.getByRole('columnheader').nth(1)).toContainText('1 Drained half');
  await page.getByRole('button', { name: 'Phosphorus, P', exact: true }).click();
  await expect(table.getByRole('columnheader').nth(1)).toContainText('2 Undrained half');
  await expect(page.getByRole('group', { name: 'The ground by Phosphorus, P' })).toBeVisible();
  await page.getByRole('combobox', { name: 'Differences from' }).click();
  await page.getByRole('option', { name: 'Drained half', exact: true }).click();
  await expect(table).toContainText('−0.2, by chance');
  const address = await page.getByRole('link', { name: 'Print on one page' }).getAttribute('href');
  const answer = await page.request.get(address!);
  expect(answer.status()).toBe(200);
  const text = (await answer.body()).toString('latin1');
  expect(text.match(/\/Type\s*\/Page\b/g)).toHaveLength(1);
  expect((await request.get(address!)).status()).toBe(401);
});

test('a rule of the place that binds is written down, held to, and shown where it binds', async ({ page }) => {
  await openSite(page, 'Gannet Row Almshouses', '5 Rates', 'Walled court');
  const rules = page.getByRole('complementary', { name: 'Rules of the place that bind here' });
  await expect(rules).toContainText(/phosphorus goes down here on the test of 2 Oct 2026. Keep/);
  await expect(rules).toContainText('Check your local rule');
  await rules.getByRole('link', { name: 'What is written down' }).click();
  await page.getByRole('button', { name: 'Change: Rules of the place' }).click();
  const form = page.getByRole('form', { name: 'Rules of the place' });
  await form.getByRole('combobox', { name: 'A shortage is' }).click();
  await page.getByRole('option', { name: 'Very low only' }).click();
  const age = form.getByRole('textbox', { name: /^The test is at most/ });
  await age.fill('0');
  await form.getByRole('button', { name: /^(Save|Decide for)/ }).click();
  await expect(form).toContainText('The age of the proof');
  await age.fill('3');
  await form.getByRole('button', { name: /^(Save|Decide for)/ }).click();
  await expect(form).toBeHidden();
  await openSite(page, 'Gannet Row Almshouses', '5 Rates', 'Walled court');
  await expect(rules).toContainText('phosphorus only on a shown shortage (very low or less)');
  await expect(page.getByRole('region', { name: 'Also looked at' })).toContainText(
    'lets it be given only from very low down',
  );
});

test('a report for the owner is drafted, its letter changed, and read by link once it is handed over', async ({
  page,
  browser,
  baseURL,
}) => {
  await openSite(page, 'Gannet Row Almshouses', '4 Reading');
  await page.getByRole('link', { name: 'For the owner' }).click();
  await page.getByRole('button', { name: 'Make a draft' }).click();
  const report = page.getByRole('article', { name: 'The report in plain words' });
  await expect(report.getByRole('region', { name: 'To do first' }).getByRole('listitem')).toHaveCount(3, {
    timeout: 60_000,
  });
  const court = report.getByRole('region', { name: '1 Walled court' });
  await expect(court).toContainText('too sour for this grass');
  await expect(court).toContainText(/Pelletised.*winter 2026\/27/);
  await expect(court).toContainText('Test again from');
  await expect(report).not.toContainText('Mehlich');
  const letter = page.getByRole('textbox', { name: 'Covering letter' });
  await letter.fill('Hi.');
  await page.getByRole('button', { name: 'Save the letter' }).click();
  await expect(page.getByRole('alert')).toContainText('A letter has 20 to 6000 letters');
  await letter.fill('Dear trustees,\n\nlight before lime.');
  await page.getByRole('button', { name: 'Save the letter' }).click();
  await expect(page.getByRole('button', { name: 'Save the letter' })).toBeDisabled();

  await page.getByRole('link', { name: 'Back to the site' }).click();
  await page.getByRole('button', { name: 'Share the report' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('textbox', { name: /Who/ }).fill('Trustees');
  await dialog.getByRole('button', { name: /Make/ }).click();
  const address = await dialog.getByRole('textbox', { name: /Address|link/i }).inputValue();
  const reader = await anotherBrowser(browser, baseURL);
  await reader.goto(new URL(address).pathname);
  await expect(reader.getByRole('heading', { level: 1, name: 'Gannet Row Almshouses' })).toBeVisible();
  await expect(reader.getByText('light before lime.')).toHaveCount(0);
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: 'For the owner' }).click();
  await page.getByRole('button', { name: 'Hand it over' }).click();
  await expect(page.getByText(/^Handed over on/)).toBeVisible();
  await reader.reload();
  await expect(reader.getByText('light before lime.')).toBeVisible();
  await expect(reader.getByRole('link', { name: 'The report on paper (PDF)' })).toBeVisible();
  await toStepBack(page);
});

/** Nothing of the steps is lost on the way. */
async function toStepBack(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Back to the site' }).click();
  await toStep(page, /Reading/);
}
