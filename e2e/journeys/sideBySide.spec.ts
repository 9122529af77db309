import { spawnSync } from 'node:child_process';
import { databaseOf, root } from '../servers.ts';
import { type Page, anotherBrowser, expect, openSite, test } from './person.ts';

/** Both have the same thing open before either saves. */
async function bothAt(pages: readonly Page[], open: (page: Page) => Promise<void>): Promise<void> {
  for (const page of pages) await open(page);
}

test('a result corrected by two at once', async ({ page, browser, baseURL }) => {
  const piet = await anotherBrowser(browser, baseURL, 'Piet');
  await bothAt([page, piet], async (who) => {
    await openSite(who, 'Gannet Row Almshouses', 'Lab');
    await who.getByRole('button', { name: 'Correct the result of Sycamore lawn of 2026-10-02' }).click();
  });
  const recorded = (who: Page) =>
    who.getByRole('region', { name: 'On record' }).getByRole('row', { name: /Sycamore lawn/ });
  const save = async (who: Page, ph: string): Promise<void> => {
    await who.getByRole('textbox', { name: 'Soil pH of Sycamore lawn' }).fill(ph);
    await who.getByRole('button', { name: 'Save the correction' }).click();
  };
  await save(piet, '5.4');
  await expect(recorded(piet)).toContainText('5.4');
  await save(page, '5.5');
  const conflict = page.getByRole('dialog', { name: 'Piet Sandling saved this first' });
  await expect(conflict.getByRole('row', { name: 'Soil pH' })).toContainText('5.5');
  await expect(conflict.getByRole('row', { name: 'Soil pH' })).toContainText('5.4');

  // Back to the form first: what was typed is still there, and the choice comes again.
  await conflict.getByRole('button', { name: 'Back to the form' }).click();
  await expect(page.getByRole('textbox', { name: 'Soil pH of Sycamore lawn' })).toHaveValue('5.5');
  await page.getByRole('button', { name: 'Save the correction' }).click();
  await conflict.getByRole('button', { name: 'Keep Piet Sandling’s' }).click();
  const row = recorded(page);
  await expect(row).toContainText('5.4');
  await page.getByRole('button', { name: 'Correct the result of Sycamore lawn of 2026-10-02' }).click();
  await expect(page.getByRole('textbox', { name: 'Soil pH of Sycamore lawn' })).toHaveValue('5.4');
  await save(page, '5.3');
  await expect(row).toContainText('5.3');
});

test('a price set by two at once, and one that another deleted the ground under', async ({
  page,
  browser,
  baseURL,
}) => {
  const piet = await anotherBrowser(browser, baseURL, 'Piet');
  await bothAt([page, piet], async (who) => {
    await who.goto('/products/fertilizer');
    await expect(who.getByRole('textbox', { name: 'Price of a bag of Sulfate of potash 0-0-50' })).not.toHaveValue('');
  });
  const price = (who: Page) => who.getByRole('textbox', { name: 'Price of a bag of Sulfate of potash 0-0-50' });
  const before = await price(page).inputValue();
  await price(piet).fill('41');
  await piet.getByRole('button', { name: 'Save' }).click();
  await expect(price(piet)).toHaveValue('41.00');
  await price(page).fill('43');
  await page.getByRole('button', { name: 'Save' }).click();
  const conflict = page.getByRole('dialog', { name: 'Piet Sandling saved this first' });
  await expect(conflict.getByRole('row', { name: 'Price of a pack' })).toContainText('$41.00');
  await conflict.getByRole('button', { name: 'Keep mine' }).click();
  await expect(price(page)).toHaveValue('43.00');
  await price(page).fill(before);
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(price(page)).toHaveValue(before);

  // A site that is deleted while its form is open: told by whom, and nothing of the form is lost.
  await page.goto('/');
  await page.getByRole('button', { name: 'Add a site' }).click();
  await page.getByRole('textbox', { name: 'Name' }).fill('Short-lived');
  await page.getByRole('button', { name: 'Add the site' }).click();
  await expect(page.getByRole('heading', { name: 'Divide the ground into zones' })).toBeVisible();
  await bothAt([page, piet], async (who) => {
    await openSite(who, 'Short-lived', 'Ground');
    await who.getByRole('button', { name: 'Change the site' }).click();
  });
  await piet.getByRole('button', { name: 'Delete the site' }).click();
  await expect(piet.getByRole('heading', { name: 'What wants doing' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Place' }).fill('By the weir');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('Piet Sandling deleted this record after you opened it');
  await expect(page.getByRole('textbox', { name: 'Place' })).toHaveValue('By the weir');
});

test('a product chosen by two at once', async ({ page, browser, baseURL }) => {
  const piet = await anotherBrowser(browser, baseURL, 'Piet');
  await openSite(page, 'Gannet Row Almshouses', 'Rates', 'Walled court');
  // A decision stands already: what the later one did not touch of it is taken over.
  for (const product of [/Ground oyster shell/, /Pelletised dolomitic/]) {
    await page.getByRole('combobox', { name: 'Product for lime' }).click();
    await page.getByRole('option', { name: product }).click();
    await expect(page.getByRole('combobox', { name: 'Product for lime' })).toHaveText(product);
  }
  await expect(page.getByRole('region', { name: 'Lime' })).toContainText('By hand, Orla Tench');
  await bothAt([page, piet], (who) => openSite(who, 'Gannet Row Almshouses', 'Rates', 'Walled court'));
  const choose = async (who: Page, product: RegExp): Promise<void> => {
    await who.getByRole('combobox', { name: 'Product for lime' }).click();
    await who.getByRole('option', { name: product }).click();
  };
  const chosen = page.getByRole('combobox', { name: 'Product for lime' });
  const before = (await chosen.textContent())!;
  const [kept, keptName] = before.includes('dolomitic')
    ? [/Pelletised calcitic/, 'Pelletised calcitic']
    : [/Pelletised dolomitic/, 'Pelletised dolomitic'];
  await choose(piet, /Pulverised calcitic/);
  await expect(piet.getByRole('button', { name: /^Pulverised calcitic lime for the year/ })).toBeVisible();
  await choose(page, kept);
  const conflict = page.getByRole('dialog', { name: 'Piet Sandling saved this first' });
  await expect(conflict.getByRole('row', { name: 'Product' })).toContainText('Pulverised calcitic lime');
  await conflict.getByRole('button', { name: 'Keep mine' }).click();
  await expect(chosen).toContainText(keptName);
  // Two quick choices of one's own are no conflict.
  await choose(page, /Pulverised calcitic/);
  await choose(page, before.includes('dolomitic') ? /Pelletised dolomitic/ : /Pelletised calcitic/);
  await expect(chosen).toHaveText(before);
});

/** What `npm run reset-link` prints, for the one at the machine. */
function linkFor(email: string, address: string, worker: number): string {
  const { stdout, stderr } = spawnSync(process.execPath, ['apps/server/dist/resetLink.js'], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, DATABASE_URL: databaseOf('demo', worker), EMAIL: email, GLENFOLD_URL: address },
  });
  expect(stderr).toBe('');
  return stdout.trim();
}

test.describe('a forgotten password', () => {
  test.use({ as: 'nobody' });

  test('is chosen anew by a link that an owner hands over, or whoever runs the server makes', async ({
    page,
    browser,
    baseURL,
  }) => {
    // prettier-ignore
    await page.goto('/');
    await page.getByRole('textbox', { name: 'E-mail' }).fill('hetty@gannetrow.example');
    await page.getByRole('button', { name: 'Password forgotten' }).click();
    await page.getByRole('button', { name: 'Send the link' }).click();
    await expect(page.getByRole('status')).toContainText('If that address is known here');

    const orla = await anotherBrowser(browser, baseURL, 'Orla');
    await orla.goto('/practice/outbox');
    await expect(orla.getByRole('main')).not.toContainText('hetty@gannetrow.example');
    await orla.goto('/practice/people');
    await orla.getByRole('button', { name: 'Send a password link to Hetty Coppice' }).click();
    await expect(orla.getByText(/give this link to Hetty Coppice yourself/)).toBeVisible();
    const link = linkFor('hetty@gannetrow.example', baseURL, test.info().parallelIndex);
    await page.goto(link);
    await page.getByRole('textbox', { name: 'A new password' }).fill('hetty@gannetrow.example');
    await page.getByRole('button', { name: 'Set it and sign in' }).click();
    await expect(page.getByRole('main')).toContainText('Choose a password that is not the e-mail address.');
    await page.getByRole('textbox', { name: 'A new password' }).fill('almond and sycamore');
    await page.getByRole('button', { name: 'Set it and sign in' }).click();
    await expect(page.getByRole('heading', { name: 'Your reports' })).toBeVisible();
    await page.goto(link);
    await expect(page.getByRole('alert')).toContainText('This link was used');

    // And changed once more by herself, the wrong one first.
    await page.goto('/');
    await page.getByRole('button', { name: 'Hetty Coppice, client: account' }).click();
    await page.getByRole('menuitem', { name: 'Change the password' }).click();
    const form = page.getByRole('dialog');
    await form.getByRole('textbox', { name: 'The password you use now' }).fill('a wrong one');
    await form.getByRole('textbox', { name: 'A new password' }).fill('lime by test, not by habit');
    await form.getByRole('button', { name: 'Change it' }).click();
    await expect(form).toContainText('This is not the password you use now.');
    await form.getByRole('textbox', { name: 'The password you use now' }).fill('almond and sycamore');
    await form.getByRole('button', { name: 'Change it' }).click();
    await expect(form.getByRole('status')).toContainText('Every other browser of yours is signed out');
  });
});
