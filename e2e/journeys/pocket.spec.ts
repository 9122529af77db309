import { expect, test } from './person.ts';

test.describe('a calculation by itself', () => {
  test('is found by a few letters, tried with an example, filled in with any unit, and kept in its address', async ({
    page,
  }) => {
    await page.goto('/');
    await expect(page.getByRole('heading', { name: 'What wants doing' })).toBeVisible();
    await page.keyboard.press('/');
    await page.getByPlaceholder('Name, bag label or code, or what to work out').fill('tank');
    await page
      .getByRole('option', { name: /^Tank loads|^Spray tank|tank/i })
      .first()
      .click();
    await expect(page).toHaveURL(/\/pocket\/spray\/tank/);
    await expect(page.getByText(/^Still wanted: /)).toBeVisible();
    await page.getByRole('button', { name: 'Fill in an example' }).click();
    await expect(page.getByRole('heading', { name: 'How it comes about' })).toBeVisible();

    await page.goto('/pocket');
    await page.getByLabel('Find a calculation').fill('composite');
    await page.getByRole('link', { name: 'Volume of a composite' }).click();
    await page.getByLabel('Diameter').fill('0.75');
    await page.getByLabel('Depth').fill('15 cm');
    await page.getByLabel('Cores').fill('many');
    // By the field and with what is allowed, before all is filled in.
    await expect(page.getByRole('alert')).toContainText('many');
    await page.getByLabel('Cores').fill('15');
    // π/4 · 1.905² cm² · 15 cm · 15 = 641 mL.
    await expect(page.getByText('21.7 fl oz').first()).toBeVisible();
    await page.reload();
    await expect(page.getByText('21.7 fl oz').first()).toBeVisible();
    await expect(page.getByLabel('Depth')).toHaveValue('15 cm');
    // Whoever reads metric units has the same answer from the link: what was typed in inches stays in inches.
    await page.getByRole('button', { name: 'Metric' }).click();
    await expect(page.getByLabel('Diameter')).toHaveValue('0.75 in');
    await expect(page.getByText('641 mL').first()).toBeVisible();
  });
});

test.describe('where nobody is signed in', () => {
  test.use({ as: 'nobody' });

  test('a calculation opens, and goes on without a connection', async ({ page, context }) => {
    await page.goto('/pocket');
    await expect(page.getByRole('link', { name: 'Texture by the jar test' })).toBeVisible();
    // Everything is on the device once its service worker has it.
    await page.evaluate(async () => {
      await navigator.serviceWorker.ready;
      while (!(await caches.match(new URL('/pocket', window.location.href))))
        await new Promise((next) => setTimeout(next, 100));
    });
    await context.setOffline(true);
    await page.goto('/pocket/texture/jar?sandHeight=61 mm&siltHeight=38 mm&clayHeight=22 mm');
    await expect(page.getByText('loam', { exact: true }).first()).toBeVisible();
    await page.getByRole('link', { name: 'All calculations' }).click();
    await page.getByRole('link', { name: 'Seed for an area' }).click();
    await page.getByRole('button', { name: 'Fill in an example' }).click();
    await expect(page.getByRole('heading', { name: 'How it comes about' })).toBeVisible();
    // The first page cannot say who is there, and leads to what opens all the same.
    await page.goto('/');
    await expect(page.getByRole('heading', { name: 'Glenfold does not answer' })).toBeVisible();
    const onDevice = page.getByRole('navigation', { name: 'On this device' });
    await expect(onDevice.getByRole('link')).toHaveText(['Today', 'On this device', 'Pocket']);
    await onDevice.getByRole('link', { name: 'Today' }).click();
    await expect(page.getByRole('heading', { name: /^.*Today/ })).toBeVisible();
    await context.setOffline(false);
  });
});
