import type { Locator, Page } from '@playwright/test';
import { expect, test } from './person.ts';
import { factsOf, newSite, tool, zoneCount } from './sheet.ts';

/** Where something stands once it has come to rest: the same place twice. */
async function atRest(what: Locator) {
  let last = await what.boundingBox();
  await expect
    .poll(async () => {
      const before = JSON.stringify(last);
      last = await what.boundingBox();
      return JSON.stringify(last) === before;
    })
    .toBe(true);
  return last!;
}

/** A pen on the sheet, in feet from the middle of what "All" shows of a lawn of 40 ft by 25 ft that runs north. */
class Pen {
  private constructor(
    private readonly page: Page,
    private readonly middle: readonly [number, number],
    private readonly perFoot: number,
  ) {}

  static async over(page: Page): Promise<Pen> {
    // The sheet moves up when the words for an empty site go.
    await expect(page.getByRole('heading', { name: 'Divide the ground into zones' })).toBeHidden();
    const sheet = await atRest(page.getByRole('application'));
    await page.getByRole('button', { name: 'All of the site' }).click();
    const [above, below] = [36, 44];
    const middle = [sheet.x + sheet.width / 2, sheet.y + above + (sheet.height - above - below) / 2] as const;
    return new Pen(page, middle, (sheet.height - above - below) / 40);
  }

  #at([east, north]: readonly [number, number]): [number, number] {
    return [this.middle[0] + east * this.perFoot, this.middle[1] - north * this.perFoot];
  }

  async click(...places: ReadonlyArray<readonly [east: number, north: number]>): Promise<void> {
    for (const place of places) {
      await this.page.mouse.move(...this.#at(place), { steps: 5 });
      await this.page.mouse.click(...this.#at(place));
    }
  }

  async drag(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
    await this.page.mouse.move(...this.#at(from), { steps: 5 });
    await this.page.mouse.down();
    await this.page.mouse.move(...this.#at(to), { steps: 8 });
    await this.page.mouse.up();
  }

  /** Click all of them, and close at the last. */
  async draw(...places: ReadonlyArray<readonly [east: number, north: number]>): Promise<void> {
    await this.click(...places.slice(0, -1));
    await this.page.mouse.move(...this.#at(places.at(-1)!), { steps: 5 });
    await this.page.mouse.dblclick(...this.#at(places.at(-1)!));
  }
}

/** A new site with one lawn of 40 ft by 25 ft, drawn without a mouse. */
async function lawnBySides(page: Page, site: string): Promise<Pen> {
  await newSite(page, site);
  await tool(page, 'Draw', 'Simple shape by its lengths');
  const ask = page.getByRole('dialog');
  await ask.getByRole('textbox', { name: 'Length', exact: true }).fill('40 lb');
  await ask.getByRole('button', { name: 'Put it on the plan' }).click();
  await expect(ask).toContainText('“40 lb” is no length: write 12 m or 40 ft.');
  await ask.getByRole('textbox', { name: 'Length', exact: true }).fill('40 ft');
  await ask.getByRole('textbox', { name: 'Width' }).fill('25 ft');
  await ask.getByRole('button', { name: 'Put it on the plan' }).click();
  await expect(ask).toContainText('1,000 ft² inside the outline');
  await ask.getByRole('button', { name: 'Add the zone' }).click();
  await expect(ask).toContainText('Give the zone a name.');
  await ask.getByRole('textbox', { name: 'Name' }).fill('Lawn');
  await ask.getByRole('button', { name: 'Add the zone' }).click();
  await expect(factsOf(page, 'Lawn')).toContainText('1,000 ft², from the plan');
  return Pen.over(page);
}

test('a lawn is drawn by its sides, a bed comes off it, a line splits it, and every stroke can be undone', async ({
  page,
}) => {
  const pen = await lawnBySides(page, 'Slipway green');

  // A corner is moved twice over, 50 ft² each time, and each move is undone by itself.
  await page.getByRole('button', { name: 'Move corners' }).click();
  await pen.drag([-12.5, 20], [-12.5, 16]);
  await expect(factsOf(page, 'Lawn')).toContainText('950 ft²');
  await pen.drag([-12.5, 16], [-12.5, 12]);
  await expect(factsOf(page, 'Lawn')).toContainText('900 ft²');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(factsOf(page, 'Lawn')).toContainText('950 ft²');
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(factsOf(page, 'Lawn')).toContainText('1,000 ft²');

  // A bed of 8 ft by 10 ft, half of it outside: 40 ft² come off.
  await tool(page, 'Draw', 'Bed');
  await pen.click([8.5, 10], [16.5, 10], [16.5, 0]);
  await expect(page.getByRole('status')).toContainText('round');
  await pen.draw([8.5, 0]);
  await expect(factsOf(page, 'Lawn')).toContainText('960 ft²');

  // A line that ends inside is no cut; one right across is.
  await page.getByRole('button', { name: 'Split' }).click();
  await pen.draw([-20, -10], [0, -10]);
  await expect(page.getByRole('alert')).toContainText('does not cut the zone in two');
  await pen.draw([-20, -10], [20, -10]);
  const ask = page.getByRole('dialog');
  await expect(ask).toContainText('250 ft² inside the outline');
  await ask.getByRole('textbox', { name: 'Name' }).fill('South end');
  await ask.getByRole('button', { name: 'Add the zone' }).click();
  await expect(factsOf(page, 'Lawn')).toContainText('710 ft²');
  await expect(zoneCount(page)).toContainText('2 zones');

  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(factsOf(page, 'Lawn')).toContainText('960 ft²');
  await expect(zoneCount(page)).toContainText('1 zone');
  await page.getByRole('button', { name: /^Redo/ }).click();
  await expect(factsOf(page, 'Lawn')).toContainText('710 ft²');

  // Joined again by clicking the other, after a save that did not reach the server.
  await page.getByRole('button', { name: 'Join' }).click();
  await pen.click([0, -15]);
  await page.route('**/api/sites/*/drawing', (route) => route.abort());
  await ask.getByRole('button', { name: 'Join them' }).click();
  await expect(page.getByRole('alert')).toContainText('Not saved: Join South end to Lawn.');
  await page.unroute('**/api/sites/*/drawing');
  await page.getByRole('button', { name: 'Try again on the plan as it is now' }).click();
  await expect(factsOf(page, 'Lawn')).toContainText('960 ft²');

  // All of it is there after a reload, and the measured area cannot be typed over.
  await page.reload();
  await expect(factsOf(page, 'Lawn')).toContainText('960 ft²');
  await page.getByRole('button', { name: 'Change the facts' }).click();
  await expect(ask.getByRole('textbox', { name: 'Area' })).toBeDisabled();
});

test('the strip beside the paving and the ground under a tree become zones of their own', async ({ page }) => {
  const pen = await lawnBySides(page, 'Chapel yard');
  const ask = page.getByRole('dialog');

  await tool(page, 'Part off', 'A strip along an edge');
  await pen.draw([-12.5, -20], [-12.5, 20]);
  await ask.getByRole('textbox', { name: 'Width of the strip' }).fill('2 ft');
  await ask.getByRole('button', { name: 'Part it off' }).click();
  await expect(ask).toContainText('80 ft² inside the outline; soil, shade and care as in Lawn');
  await ask.getByRole('textbox', { name: 'Name' }).fill('Beside the paving');
  await ask.getByRole('button', { name: 'Add the zone' }).click();
  await expect(factsOf(page, 'Lawn')).toContainText('920 ft²');

  await tool(page, 'Draw', 'Tree');
  await pen.click([2, 5]);
  await ask.getByRole('textbox', { name: 'Radius of the canopy' }).fill('8 ft');
  await ask.getByRole('button', { name: 'Put it on the plan' }).click();
  await expect(ask).toBeHidden();
  await expect(page.getByRole('button', { name: 'Undo: Draw tree' })).toBeVisible();
  await pen.click([2, 5]);
  const chosen = page.getByRole('region', { name: 'The chosen thing' });
  await expect(chosen.getByRole('textbox', { name: 'Radius of the canopy' })).toHaveValue('8');
  await tool(page, 'Part off', 'The ground under the chosen tree');
  await ask.getByRole('button', { name: 'Part it off' }).click();
  // π × 8² = 201 ft², less the polygon's corners.
  await expect(ask).toContainText('200 ft² inside the outline');
  await ask.getByRole('button', { name: 'Add the zone' }).click();
  await expect(factsOf(page, 'Lawn')).toContainText('720 ft²');
  await expect(zoneCount(page)).toContainText('3 zones');
});
