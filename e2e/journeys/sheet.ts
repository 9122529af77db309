import type { Locator, Page } from '@playwright/test';
import { expect } from './person.ts';

/** Choose a tool of the plan from its menu. */
export const tool = async (page: Page, menu: string, item: string): Promise<void> => {
  await page
    .getByRole('toolbar', { name: 'Plan' })
    .getByRole('button', { name: `${menu} ▾` })
    .click();
  await page.getByRole('menuitem', { name: item }).click();
  // The menu lies over the sheet until it has faded.
  await expect(page.locator('.MuiPopover-root')).toHaveCount(0);
};
export const factsOf = (page: Page, zone: string): Locator => page.getByRole('region', { name: `Facts of ${zone}` });
export const zoneCount = (page: Page): Locator => page.getByRole('link', { name: /Ground/ });

/** A site of one's own, with nothing on it yet. */
export async function newSite(page: Page, site: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('button', { name: 'Add a site' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill(site);
  await page.getByRole('button', { name: 'Add the site' }).click();
  await expect(page.getByRole('heading', { name: 'Divide the ground into zones' })).toBeVisible();
}
