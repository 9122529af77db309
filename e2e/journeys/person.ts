import type { SessionAnswer } from '@glenfold/contract';
import { type Browser, type Locator, type Page, expect, test as base } from '@playwright/test';
import { makeAnew } from '../anew.ts';
import { type Served, addressOf } from '../servers.ts';

/** First names of the demo people: owner, advisor, technician, client. */
export type Person = 'Orla' | 'Piet' | 'Wynn' | 'Hetty';
export const password = 'lime by test, not by habit';

/** Enter as a demo person, as the button on the sign-in page does. */
export async function enter(page: Page, as: Person): Promise<void> {
  const { demoPeople } = (await (await page.request.get('/api/session')).json()) as SessionAnswer;
  const person = demoPeople.find(({ name }) => name.startsWith(as));
  const entered = await page.request.post('/api/demo/session', { data: { personId: person?.personId } });
  expect(entered.status()).toBe(204);
}

/** Fail on any console error, page error or request off the machine. */
function watch(page: Page): string[] {
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
  return faults;
}

interface Fixtures {
  /** Which of the worker's servers the journey is on. */
  readonly on: Served;
  readonly baseURL: string;
  /** What the console may say where a fault is what the journey is about. */
  readonly faultsExpected: RegExp | null;
  /** Who is signed in when the journey begins; nobody where it is about getting in. */
  readonly as: Person | 'nobody';
  readonly page: Page;
  readonly demoAnew: undefined;
}

/** The file whose journeys this worker is at. */
let atFile: string | undefined;

export const test = base.extend<Fixtures>({
  as: ['Orla', { option: true }],
  on: ['demo', { option: true }],
  faultsExpected: [null, { option: true }],
  baseURL: async ({ on }, use, { parallelIndex }) => use(addressOf(on, parallelIndex)),
  demoAnew: [
    async ({ on }, use, { file, parallelIndex }) => {
      if (on === 'demo' && file !== atFile) await makeAnew('demo', parallelIndex);
      if (on === 'demo') atFile = file;
      await use(undefined);
    },
    { auto: true },
  ],
  page: async ({ page, as, faultsExpected }, use) => {
    const faults = watch(page);
    // As one who pays by the byte: what is fetched ahead for pages that no journey opens costs more than the journey.
    await page.addInitScript(() =>
      Object.defineProperty(navigator, 'connection', { value: { saveData: true }, configurable: true }),
    );
    if (as !== 'nobody') await enter(page, as);
    await use(page);
    expect(faults.filter((fault) => !faultsExpected?.test(fault))).toEqual([]);
  },
});

export { addressOf, expect };
export type { Page } from '@playwright/test';

/** Another person's browser, beside the first. */
export async function anotherBrowser(browser: Browser, baseURL: string | undefined, as?: Person): Promise<Page> {
  const context = await browser.newContext({ ...(baseURL ? { baseURL } : {}), viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  if (as) await enter(page, as);
  return page;
}

/** A step's link in the line of steps. */
const stepLink = (page: Page, name: string | RegExp) =>
  page.getByRole('navigation', { name: 'Steps' }).getByRole('link', { name });

/** A zone's link in the column of zones. */
export const zoneLink = (page: Page, name: string | RegExp) =>
  page.getByRole('navigation', { name: 'Zones' }).getByRole('link', { name });

/** Go to a step of the open site. On a slow machine what stood before stands a moment longer, and takes clicks. */
export async function toStep(page: Page, name: string | RegExp): Promise<void> {
  await stepLink(page, name).click();
  await expect(stepLink(page, name)).toHaveAttribute('aria-current', 'step');
}

/** Choose a zone of the open site, and wait until it is the one that stands. */
export async function toZone(page: Page, name: string | RegExp): Promise<void> {
  await zoneLink(page, name).click();
  await expect(zoneLink(page, name)).toHaveAttribute('aria-current', 'true');
}

/** Open a step of a site from the rounds, as a person would. */
export async function openSite(page: Page, site: string, step: string, zone?: string): Promise<void> {
  await page.goto('/');
  const link = page.getByRole('link', { name: site, exact: true });
  // A technician's phone begins with the day: the rounds are one step back.
  const back = page.getByRole('link', { name: 'Back', exact: true });
  await link.or(back).first().waitFor();
  if (await back.isVisible()) await back.click();
  await link.click();
  await toStep(page, step);
  if (zone) await toZone(page, zone);
  await expect(page.getByRole('main')).toBeVisible();
}

/** Hand over what the Rates step shows, having seen what that changes; the address of its paper. */
export async function handOver(page: Page, what: 'zone' | 'program'): Promise<string> {
  await page.getByRole('button', { name: what === 'zone' ? 'Hand this zone over…' : 'Hand the program over…' }).click();
  await page.getByRole('button', { name: 'Hand over', exact: true }).click();
  const paper = await page.getByRole('link', { name: 'Open the PDF' }).getAttribute('href');
  await page.getByRole('button', { name: 'Done', exact: true }).click();
  return paper!;
}

/** Scroll the sheet until a cell of it is drawn: rows and columns out of sight are not. */
export async function scrollTo(page: Page, cell: Locator): Promise<void> {
  const sheet = page.locator('.dsg-container');
  for (const way of ['left', 'top'] as const)
    for (let at = 0; at < 4000 && (await cell.count()) === 0; at += 300)
      await sheet.evaluate(
        (shown, to) =>
          new Promise((drawn) => {
            shown.scrollTo(to);
            requestAnimationFrame(() => requestAnimationFrame(drawn));
          }),
        { left: 0, top: 0, [way]: at },
      );
}
