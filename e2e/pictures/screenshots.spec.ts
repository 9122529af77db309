import { resolve } from 'node:path';
import type { Page } from '@playwright/test';
import { anotherBrowser, openSite, test } from '../journeys/person.ts';

const folder = resolve(import.meta.dirname, '../../docs/screenshots');
const shoot = async (page: Page, name: string): Promise<void> => {
  await page.mouse.move(0, 0);
  // Long enough for the side sheet to have slid in.
  await page.waitForTimeout(500);
  await page.screenshot({ path: `${folder}/${name}.png` });
};

test('one current picture of each main view, from the demo data', async ({ page, browser, baseURL }) => {
  const stranger = await anotherBrowser(browser, baseURL);
  await stranger.goto('/');
  await stranger.getByRole('button', { name: 'Enter as Orla Tench' }).waitFor();
  await shoot(stranger, 'sign-in');
  await page.goto('/');
  await page.getByRole('heading', { name: 'What wants doing' }).waitFor();
  await shoot(page, 'rounds');
  await openSite(page, 'Gannet Row Almshouses', 'Ground');
  await page.getByRole('application').waitFor();
  await page.waitForTimeout(800);
  await shoot(page, 'ground');
  await openSite(page, 'Tollgate bowling green', 'Ground', 'The green');
  await page.getByRole('tab', { name: /Trouble/ }).click();
  await page.waitForTimeout(800);
  await shoot(page, 'trouble');
  await page.getByRole('tab', { name: 'Facts' }).click();
  await openSite(page, 'Harbour School field', 'Ground');
  await page.getByRole('button', { name: 'Sections' }).click();
  await page.waitForTimeout(800);
  await shoot(page, 'sections');
  await page.getByRole('button', { name: 'Rebuilding' }).click();
  await page.getByRole('button', { name: 'Add a layer' }).click();
  await shoot(page, 'rebuilding');
  await page.getByRole('button', { name: 'Plan', exact: true }).click();
  await openSite(page, 'Harbour School field', 'Sampling');
  await page.getByText(/on foot from the gate and back/).waitFor();
  await page.getByRole('combobox', { name: 'Laboratory' }).click();
  await page.getByRole('option', { name: 'Fennimore soil laboratory' }).click();
  await shoot(page, 'sampling');
  await page.goto('/bags');
  await page.getByRole('list', { name: 'Bags' }).waitFor();
  await shoot(page, 'bags');
  await openSite(page, 'Harbour School field', 'Lab');
  await page.getByRole('region', { name: /harbour-school-2026/ }).waitFor();
  await shoot(page, 'lab-file');
  await openSite(page, 'Gannet Row Almshouses', 'Lab');
  await page.getByRole('textbox', { name: 'Soil pH of South bank' }).fill('15');
  await page.getByRole('textbox', { name: 'P of South bank', exact: true }).fill('46 ppm P2O5');
  await page.getByRole('textbox', { name: 'K of South bank' }).fill('920');
  await page.getByRole('textbox', { name: 'Mg of South bank' }).fill('180 lb/ac');
  await page.getByRole('textbox', { name: 'Ca of South bank' }).focus();
  await shoot(page, 'lab-sheet');
  await openSite(page, 'Gannet Row Almshouses', 'Reading');
  await page.getByRole('link', { name: 'See the rates' }).waitFor();
  await shoot(page, 'reading');
  await openSite(page, 'Gannet Row Almshouses', 'Rates');
  await page.getByRole('button', { name: /Hand the plan over/ }).waitFor();
  await shoot(page, 'rates');
  await page.keyboard.press('w');
  await shoot(page, 'working');
  await page.goto('/tables');
  await page.getByLabel('A soil pH to compare').fill('6.2');
  await shoot(page, 'tables');
  const hetty = await anotherBrowser(browser, baseURL, 'Hetty');
  await hetty.goto('/');
  await hetty.getByRole('link', { name: 'Read Gannet Row Almshouses' }).click();
  await hetty.getByRole('heading', { name: 'What the lawn gets' }).waitFor();
  await shoot(hetty, 'report');

  const piet = await anotherBrowser(browser, baseURL, 'Piet');
  const roots = async (who: Page, value: string): Promise<void> => {
    await who.getByRole('textbox', { name: /Root/ }).fill(value);
    await who.getByRole('button', { name: 'Save the zone' }).click();
  };
  for (const who of [page, piet]) {
    await openSite(who, 'Gannet Row Almshouses', 'Ground');
    await who.getByRole('button', { name: 'Change the facts' }).click();
  }
  await piet.getByRole('textbox', { name: 'Thatch' }).fill('0.75 in');
  await roots(piet, '4 in');
  await piet.getByRole('dialog').waitFor({ state: 'hidden' });
  await roots(page, '5 in');
  await page.getByRole('button', { name: 'Keep mine' }).waitFor();
  await shoot(page, 'conflict');
  await page.goto('/practice/people');
  await page.getByRole('listitem', { name: 'Wynn Marram' }).waitFor();
  await shoot(page, 'people');
  await page.goto('/practice/changes');
  await page
    .getByRole('list', { name: /Changes/ })
    .getByRole('listitem')
    .first()
    .waitFor();
  await shoot(page, 'changes');
  await page.setViewportSize({ width: 390, height: 844 });
  await openSite(page, 'Gannet Row Almshouses', 'Sampling');
  await page.getByRole('link', { name: 'Walk 1 bag' }).click();
  await page.getByRole('heading', { name: 'Before the first core' }).waitFor();
  for (const check of await page.getByRole('checkbox').all()) await check.check();
  await page.getByRole('button', { name: /^Walk \d+ cores$/ }).click();
  await page.getByRole('button', { name: 'Practice walk' }).click();
  await page.waitForTimeout(2500);
  await shoot(page, 'walk-phone');
});
