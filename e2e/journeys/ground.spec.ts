import type { ZoneAnswer } from '@glenfold/contract';
import { readFileSync } from 'node:fs';
import { Plane, noisyWalk } from '@glenfold/agronomy/geometry';
import type { Page } from '@playwright/test';
import { expect, openSite, test } from './person.ts';
import { factsOf, newSite, tool, zoneCount } from './sheet.ts';

const plane = new Plane([-36.004, 46.5008]);
/** A lawn of 40 m by 25 m, 10,764 ft². */
const corners = [
  [0, 0],
  [40, 0],
  [40, 25],
  [0, 25],
].map(([east = 0, north = 0]) => plane.toMap([east, north]));
const begun = Date.parse('2026-11-20T10:00:00Z');

function gpx(fixes: ReturnType<typeof noisyWalk>): string {
  const points = fixes.map(
    ({ position: [lon, lat], time }) =>
      `<trkpt lat="${lat}" lon="${lon}"><time>${new Date(begun + time * 1000).toISOString()}</time></trkpt>`,
  );
  return `<?xml version="1.0"?><gpx version="1.1" creator="a receiver" xmlns="http://www.topografix.com/GPX/1/1"><wpt lat="46.5008" lon="-36.004"><name>Yard tap</name></wpt><trk><name>Rectory lawn</name><trkseg>${points.join('')}</trkseg></trk></gpx>`;
}

async function bringIn(page: Page, name: string, content: string): Promise<void> {
  await tool(page, 'File', 'Bring in a file…');
  const file = { name, mimeType: 'text/plain', buffer: Buffer.from(content) };
  await page.getByRole('dialog').locator('input[type=file]').setInputFiles(file);
}

/** The number that stands before a unit in a text. */
const numberIn = (text: string, unit: string): number =>
  Number(new RegExp(`([\\d,]+) ${unit}`).exec(text)![1]!.replaceAll(',', ''));

test('a walk from a receiver is looked through, brought in as a zone, and taken back with one undo', async ({
  page,
}) => {
  await newSite(page, 'Rectory');
  const ask = page.getByRole('dialog');
  await bringIn(page, 'half.gpx', gpx(noisyWalk(corners, { seed: 7 })).slice(0, 900));
  await expect(ask.getByRole('alert')).toContainText('It may have been cut off on its way');
  await ask.getByRole('button', { name: 'Cancel' }).click();

  await bringIn(page, 'walk.gpx', gpx(noisyWalk(corners, { seed: 7, error: 1 })));
  const row = ask.getByRole('row', { name: /Rectory lawn/ });
  await expect(row).toContainText('smoothed and closed');
  const [area, sure] = (await row.innerText()).split('±');
  const off = numberIn(area!, 'ft²') - 10_764;
  expect(Math.abs(off)).toBeLessThan(numberIn(sure!, 'ft²'));
  expect(Math.abs(off)).toBeLessThan(1600);
  await ask.getByRole('button', { name: 'Bring in 2' }).click();
  await expect(factsOf(page, 'Rectory lawn')).toContainText('from the plan');
  await expect(page.getByRole('application')).toHaveAccessibleName(/Rectory lawn/);
  await page.getByRole('button', { name: /^Undo: Bring in walk.gpx/ }).click();
  await expect(zoneCount(page)).toContainText('0 zones');
});

test('a foreign file comes with its own words, repaired where that is safe, and nothing of it by halves', async ({
  page,
}) => {
  await newSite(page, 'Glebe');
  const ask = page.getByRole('dialog');
  const open = corners.map(([lon, lat]) => [lon, lat]);
  const bow = [open[0], open[2], open[1], open[3], open[0]];
  const feature = (name: string, ring: unknown) => ({
    type: 'Feature',
    properties: { name, survey: 'S-9' },
    geometry: { type: 'Polygon', coordinates: [ring] },
  });
  const file = { type: 'FeatureCollection', features: [feature('East lawn', open), feature('Bow', bow)] };
  await bringIn(page, 'glebe.geojson', JSON.stringify(file));
  await expect(ask.getByRole('row', { name: /East lawn/ })).toContainText('The outline was open: it was closed');
  await expect(ask.getByRole('row', { name: /Bow/ })).toContainText('crosses or touches itself');
  await ask.getByRole('button', { name: 'Bring in 1' }).click();
  await expect(factsOf(page, 'East lawn')).toContainText('10,760 ft²');

  const saved = page.waitForEvent('download');
  await tool(page, 'File', 'GeoJSON, everything');
  const written = JSON.parse(readFileSync(await (await saved).path(), 'utf8')) as typeof file;
  expect(written.features[0]!.properties).toMatchObject({ name: 'East lawn', survey: 'S-9' });
});

test('a lawn is measured with a tape, works without a plan, and its area opens to its working', async ({ page }) => {
  await newSite(page, 'Ropewalk');
  await page.getByRole('button', { name: 'Add a zone without a plan' }).click();
  const form = page.getByRole('dialog', { name: 'Add a zone' });
  await form.getByRole('textbox', { name: 'Name' }).fill('Rope lawn');
  await form.getByRole('textbox', { name: 'Bag label' }).fill('RW-1');
  await form.getByRole('button', { name: 'By taped or paced lengths' }).click();
  const ask = page.getByRole('dialog', { name: 'A simple shape by its lengths' });
  await ask.getByRole('combobox', { name: 'Shape' }).click();
  await page.getByRole('option', { name: /^Triangle/ }).click();
  for (const [side, length] of [
    ['A', '30 ft'],
    ['B', '40 ft'],
    ['C', '80 ft'],
  ] as const)
    await ask.getByRole('textbox', { name: `Side ${side}` }).fill(length);
  await ask.getByRole('button', { name: 'Take this area' }).click();
  await expect(ask).toContainText('closes no triangle');
  await ask.getByRole('textbox', { name: 'Side C' }).fill('50 ft');
  await expect(ask).toContainText('600 ft²');
  await ask.getByRole('button', { name: 'Take this area' }).click();
  await form.getByRole('button', { name: 'Add the zone' }).click();
  const facts = factsOf(page, 'Rope lawn');
  await expect(facts).toContainText('600 ft², taped');
  await facts.getByRole('button', { name: '600 ft²' }).click();
  await expect(page.getByText('√(s (s − A) (s − B) (s − C))')).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Rebuilding' }).click();
  await expect(page.getByRole('region', { name: 'Fill and topsoil' })).toContainText('For 600 ft²');
});

test('signs lead to causes in order, each with its evidence, and a better look at the ground reorders them', async ({
  page,
}) => {
  await openSite(page, 'Kelp Cottage', 'Ground', 'Front lawn');
  const facts = factsOf(page, 'Front lawn');
  await facts.getByRole('tab', { name: /Trouble/ }).click();
  const causes = facts.getByRole('list', { name: 'Likely causes' });
  await expect(causes.getByRole('listitem').first()).toContainText('Iron locked up by high pH');
  await expect(causes).toContainText('Drop vinegar on the dry soil');
  await facts.getByRole('button', { name: 'Mark what you see' }).click();
  await page.getByRole('radio', { name: /Water beads/ }).click();
  await page.getByRole('button', { name: 'It is all over' }).click();
  await facts.getByRole('button', { name: 'Mark what you see' }).click();
  await page.getByRole('radio', { name: /Patches brown first/ }).click();
  await page.getByRole('button', { name: 'Point at it on the plan' }).click();
  await expect(page.getByText('Click where you see it: patches brown first.')).toBeVisible();
  const sheet = (await page.getByRole('application').boundingBox())!;
  await page.mouse.click(sheet.x + sheet.width / 3, sheet.y + sheet.height / 2);
  await expect(facts.getByRole('list', { name: 'Signs seen' })).toContainText('marked on the plan, 4');
  await expect(causes.getByRole('listitem').first()).toContainText('Too little water held or given');
  await expect(causes).toContainText('Water-repellent soil');
  // What is shown at once is saved in its turn: a reload before that would take it back.
  const [, siteId] = /sites\/([^/]+)/.exec(page.url())!;
  const signs = async (): Promise<number | undefined> => {
    const zones = (await (await page.request.get(`/api/sites/${siteId}/zones`)).json()) as ZoneAnswer[];
    return zones.find(({ name }) => name === 'Front lawn')!.facts.signs?.length;
  };
  await expect.poll(signs).toBe(4);
  await page.reload();
  await expect(causes.getByRole('listitem').first()).toContainText('Too little water held or given');
  await facts.getByRole('button', { name: 'Take out: Patches brown first' }).click();
  await facts.getByRole('button', { name: 'Take out: Water beads and runs off' }).click();
  await expect(causes.getByRole('listitem').first()).toContainText('Iron locked up by high pH');
});

test('a boundary is walked with the stand-in receiver, and a suggestion becomes a zone', async ({ page }) => {
  await page.clock.install();
  await openSite(page, 'Saltpan Bay pavilion', 'Ground', 'Under the oaks');
  await tool(page, 'Sheet', 'Walk a boundary…');
  const ask = page.getByRole('dialog');
  await ask.getByRole('combobox', { name: 'Positions from' }).click();
  await page.getByRole('option', { name: /Practice walk/ }).click();
  // The walk stands still where the journey looks at it.
  await page.clock.pauseAt(Date.now() + 60_000);
  await ask.getByRole('button', { name: 'Begin to walk' }).click();
  await page.clock.runFor(2_600);
  await expect(ask).toContainText(/[23]\d positions/);
  await ask.getByRole('button', { name: 'I am back at the start' }).click();
  await expect(ask.getByRole('alert')).toContainText('Walk on to the start');
  await page.clock.resume();
  await ask.getByRole('button', { name: 'Cancel' }).click();

  const facts = factsOf(page, 'Under the oaks');
  await facts.getByRole('tab', { name: 'Divide' }).click();
  const canopy = facts.getByRole('region', { name: 'Under a canopy' }).first();
  await expect(canopy).toContainText('under Live oak');
  await canopy.getByRole('button', { name: 'Make it a zone of its own' }).click();
  await ask.getByRole('button', { name: 'Add the zone' }).click();
  await expect(zoneCount(page)).toContainText('6 zones');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(zoneCount(page)).toContainText('5 zones');
});

test('the plan goes out as a PDF to scale and as a picture; photos and an image under the plan stay', async ({
  page,
}) => {
  await openSite(page, 'Tollgate bowling green', 'Ground', 'The green');
  const saved = page.waitForEvent('download');
  await tool(page, 'File', 'Plan as a picture (PNG)');
  const picture = readFileSync(await (await saved).path());
  expect([picture.subarray(1, 4).toString(), picture.readUInt32BE(16)]).toEqual(['PNG', 792 * 3]);
  const opened = page.waitForEvent('popup');
  await tool(page, 'File', 'Plan on paper (PDF)');
  const paper = await opened;
  const pdf = await page.request.get(paper.url());
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');
  // A page behind another is drawn once a second.
  await paper.close();

  const facts = factsOf(page, 'The green');
  await facts.getByRole('tab', { name: 'Photos' }).click();
  const image = {
    name: 'green.png',
    mimeType: 'image/png',
    buffer: await page.getByRole('application').screenshot(),
  };
  await facts
    .getByLabel('Photos', { exact: true })
    .setInputFiles({ name: 'a.txt', mimeType: 'text/plain', buffer: Buffer.from('no') });
  await expect(facts.getByRole('alert')).toContainText('choose a JPEG, PNG or WebP');
  await facts.getByRole('textbox', { name: 'What it shows' }).fill('From the clubhouse');
  await facts.getByLabel('Photos', { exact: true }).setInputFiles(image);
  await expect(facts.getByRole('img', { name: 'From the clubhouse' })).toBeVisible();

  await page.getByLabel('Image to lay under the plan').setInputFiles(image);
  const ask = page.getByRole('dialog', { name: /Lay green.png under/ });
  const shown = ask.getByRole('img', { name: 'green.png' });
  await shown.click({ position: { x: 40, y: 40 } });
  await ask.getByRole('button', { name: 'Lay it under' }).click();
  await expect(ask.getByRole('alert')).toContainText('Two matching points are needed');
  await shown.click({ position: { x: 300, y: 200 } });
  const [first, second] = [0, 1].map((index) =>
    ask.getByRole('textbox', { name: 'or latitude, longitude' }).nth(index),
  );
  await first!.fill('46.5065, -36.0103');
  await second!.fill('46.5060, -36.0095');
  await second!.press('Tab');
  await expect(ask).toContainText('The points agree to 0 ft');
  // The same by pointing: the dialog makes room for the plan, and comes back with the place.
  await ask.getByRole('button', { name: 'Point again' }).first().click();
  await expect(ask).toBeHidden();
  await page.getByRole('application').click({ position: { x: 300, y: 220 } });
  await expect(ask).toBeVisible();
  await expect(first!).not.toHaveValue('46.506500, -36.010300');
  await expect(first!).toHaveValue(/^46\.50\d+, -36\.0\d+$/);
  await ask.getByRole('button', { name: 'Lay it under' }).click();
  await expect(ask).toBeHidden();
  await tool(page, 'Sheet', 'Take the image away');
  await expect(page.getByText('The image deleted.')).toBeVisible();
});

test('map tiles are asked for only while they are wanted, and say whose they are', async ({ page }) => {
  const asked: string[] = [];
  const tile = Buffer.from(
    'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNoAAAAggCBd81ytgAAAABJRU5ErkJggg==',
    'base64',
  );
  await page.route('**/tiles/**', (route) => {
    asked.push(new URL(route.request().url()).pathname);
    return route.fulfill({ contentType: 'image/png', body: tile });
  });
  await openSite(page, 'Harbour School field', 'Ground');
  await expect(page.getByRole('application')).toBeVisible();
  expect(asked).toEqual([]);
  await tool(page, 'Sheet', 'Map tiles under the plan');
  await expect(page.getByText('Made-up tiles')).toBeVisible();
  await expect.poll(() => asked.length).toBeGreaterThan(3);
  expect(asked.every((path) => /^\/tiles\/\d+\/\d+\/\d+\.png$/.test(path))).toBe(true);
  await tool(page, 'Sheet', 'Without map tiles');
  await expect(page.getByText('Made-up tiles')).toBeHidden();
});
