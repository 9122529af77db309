import { writeBagCode } from '@glenfold/agronomy';
import type { BoardAnswer } from '@glenfold/contract';
import { expect, test } from './person.ts';
import { film, filmed } from './scannedLabel.ts';

test.use({
  permissions: ['camera'],
  launchOptions: async ({ launchOptions }, use) =>
    use({
      ...launchOptions,
      args: [
        ...(launchOptions.args ?? []),
        '--use-fake-device-for-media-stream',
        '--use-fake-ui-for-media-stream',
        `--use-file-for-fake-video-capture=${filmed}`,
      ],
    }),
});

test('a label is scanned from anywhere; scanned twice it is told; a mistyped code is caught', async ({ page }) => {
  const { bags } = (await (await page.request.get('/api/bags?limit=100')).json()) as BoardAnswer;
  const bag = bags.find(({ siteName }) => siteName.startsWith('Saltpan'))!;
  const code = writeBagCode(bag.code);
  film(bag.code);
  await page.goto('/tables');
  await expect(page.getByRole('main')).toBeVisible();
  await page.keyboard.press('/');
  await page.getByRole('button', { name: 'Scan a bag’s label' }).click();
  const rows = page.getByRole('list', { name: 'Bags' }).getByRole('listitem');
  await expect(rows).toHaveCount(1);
  await expect(rows).toContainText(code);
  await expect(rows.getByRole('checkbox')).toBeChecked();
  await page.getByRole('button', { name: 'Use the camera' }).click();
  await expect(page.getByRole('dialog').getByRole('status')).toHaveText(`Bag ${code} is here already: it was scanned twice.`); // prettier-ignore
  await page.getByRole('button', { name: 'Done' }).click();
  await expect(rows).toHaveCount(1);

  // A scanner that types, or a hand.
  await page.keyboard.press('/');
  const field = page.getByPlaceholder('Name, bag label or code, or what to work out');
  await field.fill(`${bag.code.slice(0, 5)}${bag.code.endsWith('2') ? '3' : '2'}`);
  await expect(page.getByText(/is mistyped: its last sign does not fit the others/)).toBeVisible();
  await field.fill(bag.code.toLowerCase());
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(new RegExp(`/bags\\?code=${bag.code}$`));
});
