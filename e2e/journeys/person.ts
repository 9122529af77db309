import { type Page, expect, test as base } from '@playwright/test';

/** A page that fails its test on any console error, page error or request off the machine. */
export const test = base.extend<{ page: Page }>({
  page: async ({ page }, use) => {
    const faults: string[] = [];
    page.on('pageerror', (error) => faults.push(error.message));
    page.on('console', (message) => {
      // A refused request is logged by the browser itself; refusals are what some journeys are about.
      if (message.type() === 'error' && !message.text().startsWith('Failed to load resource'))
        faults.push(message.text());
    });
    page.on('request', (request) => {
      const { hostname, protocol } = new URL(request.url());
      if (protocol.startsWith('http') && hostname !== '127.0.0.1') faults.push(`asked ${request.url()}`);
    });
    await use(page);
    expect(faults).toEqual([]);
  },
});

export { expect };

/** Open a step of a site from the rounds, as a person would. */
export async function openSite(page: Page, site: string, step: string, zone?: string): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: site, exact: true }).click();
  await page.getByRole('navigation', { name: 'Steps' }).getByRole('link', { name: step }).click();
  if (zone) await page.getByRole('navigation', { name: 'Zones' }).getByRole('link', { name: zone }).click();
  await expect(page.getByRole('main')).toBeVisible();
}
