import { anotherBrowser, expect, openSite, password, test } from './person.ts';

test.use({ as: 'nobody' });

test('a wrong password says what to do, the right one leads to the page that was asked for', async ({ page }) => {
  await page.goto('/products');
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await page.getByRole('textbox', { name: 'E-mail' }).fill('orla@brackwater.example');
  await page.getByRole('textbox', { name: 'Password' }).fill('lime by habit');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('alert')).toContainText('E-mail and password do not fit together');
  await page.getByRole('textbox', { name: 'Password' }).fill(password);
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByRole('heading', { name: 'Lime' })).toBeVisible();

  await page.getByRole('button', { name: 'Orla Tench, owner: account' }).click();
  await page.getByRole('menuitem', { name: 'Sign out', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  await page.goBack();
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible();
});

test('wrong tries slow who tries from try to try, known address or not', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('textbox', { name: 'E-mail' }).fill('guessed@brackwater.example');
  for (let attempt = 0; attempt < 6; attempt += 1) {
    await page.getByRole('textbox', { name: 'Password' }).fill(`guess number ${attempt}`);
    const answered = page.waitForResponse(
      (response) => response.url().endsWith('/api/session') && response.request().method() === 'POST',
    );
    await page.getByRole('button', { name: 'Sign in' }).click();
    await answered;
  }
  await expect(page.getByRole('alert')).toContainText(
    /Too many tries for this address. Wait \d seconds? and try again/,
  );
});

test('one click enters as a demo person, who may switch between two practices', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Enter as Piet Sandling' }).click();
  const account = page.getByRole('button', { name: /Piet Sandling, .*: account/ });
  await account.click();
  const other = page.getByRole('menuitem', { name: /Switch to/ });
  const name = /Switch to (.*) \(/.exec((await other.textContent())!)![1]!;
  await other.click();
  await expect(page.getByRole('banner')).toContainText(name);
  await account.click();
  await page.getByRole('menuitem', { name: /Switch to/ }).click();
  await expect(page.getByRole('banner')).not.toContainText(name);
});

test('signed out in another window, the work goes on after signing in again: nothing typed is lost', async ({
  page,
  browser,
  baseURL,
}) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Enter as Orla Tench' }).click();
  // Entering loads the page anew: another way off it would cut that short.
  await expect(page.getByRole('heading', { name: 'What wants doing' })).toBeVisible();
  await openSite(page, 'Gannet Row Almshouses', 'Ground', 'Walled court');
  await page.getByRole('button', { name: 'Change the facts' }).click();
  const form = page.getByRole('dialog', { name: /Change Walled court/ });
  await form.getByRole('textbox', { name: 'Thatch' }).fill('1.5 in');

  const elsewhere = await anotherBrowser(browser, baseURL, 'Orla');
  await elsewhere.goto('/');
  await elsewhere.getByRole('button', { name: 'Orla Tench, owner: account' }).click();
  await elsewhere.getByRole('menuitem', { name: 'Sign out everywhere' }).click();
  await expect(elsewhere.getByRole('heading', { name: 'Sign in' })).toBeVisible();

  await form.getByRole('button', { name: 'Save' }).click();
  const again = page.getByRole('dialog', { name: 'You were signed out' });
  await again.getByRole('textbox', { name: 'Password' }).fill(password);
  await again.getByRole('button', { name: 'Sign in' }).click();
  await expect(again).toBeHidden();
  await expect(form.getByRole('textbox', { name: 'Thatch' })).toHaveValue(/1\.5/);
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('main')).toContainText('1.5 in');

  await page.getByRole('button', { name: 'Change the facts' }).click();
  await form.getByRole('textbox', { name: 'Thatch' }).fill('0.5 in');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form).toBeHidden();
});
