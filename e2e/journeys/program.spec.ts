import { execFileSync } from 'node:child_process';
import { expect, handOver, openSite, test, toStep, toZone } from './person.ts';

test('a program is changed by hand, keeps that through a new test, and goes to its owner as one', async ({ page }) => {
  await openSite(page, 'Tollgate bowling green', 'Rates', 'The green');
  const main = page.getByRole('main');
  const nitrogen = page.getByRole('region', { name: 'Nitrogen' });
  // The year hangs from its line in the order of work, and a mark leads to its row.
  const year = page.getByRole('group', { name: 'The year of this zone' });
  await expect(year.getByRole('button').first()).toHaveAccessibleName(/^Coring: August/);
  await year.getByRole('button', { name: /^Nitrogen/ }).press('Enter');
  await expect(nitrogen).toBeFocused();

  // What is no rate is refused at its field, and nothing that was typed is lost.
  await page.getByRole('button', { name: 'Change nitrogen by hand' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Rate').fill('plenty');
  await form.getByLabel(/^Why/).fill('The club wants it lean');
  await form.getByRole('button', { name: 'Keep the change' }).click();
  await expect(form.getByLabel('Rate')).toHaveAccessibleDescription(/plenty/);
  await form.getByLabel('Rate').fill('4.2');
  await form.getByRole('button', { name: 'Keep the change' }).click();
  await expect(form).toBeHidden();
  await expect(nitrogen).toContainText('By hand, Orla Tench: The club wants it lean');
  await expect(nitrogen.getByRole('button', { name: /for the year: 4\.2 lb/ })).toBeVisible();

  // 250 kg with 15 % peat, three times, as somebody brings them.
  await page.getByRole('button', { name: 'Add a treatment' }).click();
  await form.getByRole('combobox', { name: 'What' }).click();
  await page.getByRole('option', { name: 'Sand', exact: true }).click();
  await form.getByLabel('Mass').fill('250 kg');
  await form.getByLabel('Peat').fill('15');
  await form.getByLabel('Times').fill('3');
  await form.getByLabel(/^Why/).fill('Bumps by the ditch');
  await form.getByRole('button', { name: 'Add it' }).click();
  await expect(form).toBeHidden();
  await expect(page.getByRole('region', { name: 'Sand' })).toContainText('Exchange capacity of what is laid');

  // A later test changes what it asks for, and not what was decided.
  await toStep(page, /Lab/);
  await page.getByRole('textbox', { name: 'Sampled depth' }).fill('10 cm');
  await page.getByRole('textbox', { name: 'Soil pH of The green' }).fill('5.1');
  await page
    .getByRole('button', { name: /^Save the result/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { name: 'On record' })).toBeVisible();
  await toStep(page, /Rates/);
  await toZone(page, /The green/);
  await expect(main).toContainText('pH 5.1');
  await expect(nitrogen).toContainText('The club wants it lean');

  // Together with the other zones, on one list, and to the owner.
  await page.getByRole('button', { name: 'The whole site' }).click();
  await expect(page.getByRole('row', { name: /The green/ })).toContainText('4.2 lb/1000 ft²');
  await expect(page.getByRole('list', { name: 'To buy' })).toContainText('Sphagnum peat');
  const pdf = await page.request.get(await handOver(page, 'program'));
  const paper = execFileSync('pdftotext', ['-', '-'], { input: await pdf.body(), encoding: 'utf8' }).replace(
    /\s+/g,
    ' ',
  );
  for (const words of [
    'The green',
    'Club lawn',
    'Set by hand: The club wants it lean',
    'Set by hand: Bumps by the ditch',
  ])
    expect(paper).toContain(words);

  // Back to the rule: the owner’s paper is another than the program now, and it is told.
  await page.getByRole('button', { name: 'The zone' }).click();
  await page.getByRole('button', { name: 'Change nitrogen by hand' }).click();
  await form.getByRole('button', { name: 'Back to the rule' }).click();
  await expect(form).toBeHidden();
  await expect(main).toContainText(
    /Changed since, until a new version is handed over.*Nitrogen: [\d.]+ lb\/1000 ft² instead of 4\.2 lb/,
  );
});
