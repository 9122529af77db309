import { anotherBrowser, expect, openSite, test } from './person.ts';

test('an invitation brings somebody in, as what the owner offered and later changes', async ({
  page,
  browser,
  baseURL,
}) => {
  await page.goto('/practice');
  const form = page.getByRole('form', { name: 'Invite' });
  await form.getByRole('textbox', { name: 'E-mail' }).fill('nora at fen');
  await form.getByRole('button', { name: 'Invite' }).click();
  await expect(form).toContainText('Give an e-mail address');
  await form.getByRole('textbox', { name: 'E-mail' }).fill('nora@fen.example');
  await form.getByRole('combobox', { name: 'Role' }).click();
  await page.getByRole('option', { name: 'technician' }).click();
  await form.getByRole('button', { name: 'Invite' }).click();
  await form.getByRole('link', { name: 'outbox' }).click();
  const link = await page.getByRole('textbox', { name: 'Link for nora@fen.example' }).inputValue();

  const nora = await anotherBrowser(browser, baseURL);
  await nora.goto(link.slice(0, -3));
  await expect(nora.getByRole('alert')).toContainText('This link is not complete');
  await nora.goto(link);
  await expect(nora.getByRole('main')).toContainText('Orla Tench invites nora@fen.example as technician');
  await nora.getByRole('textbox', { name: 'A password' }).fill('fen water and peat');
  await nora.getByRole('button', { name: 'Join' }).click();
  await expect(nora.getByRole('main')).toContainText('Give a name of 1 to 120 letters.');
  await nora.getByRole('textbox', { name: 'Your name' }).fill('Nora Fen');
  await nora.getByRole('button', { name: 'Join' }).click();
  await expect(nora.getByRole('heading', { name: 'What wants doing' })).toBeVisible();
  await expect(nora.getByRole('link', { name: 'Products' })).toHaveCount(0);

  const late = await anotherBrowser(browser, baseURL);
  await late.goto(link);
  await expect(late.getByRole('alert')).toContainText('taken up already');

  // The owner makes her an advisor; her open window learns it with her next step.
  await page.goto('/practice/people');
  await page.getByRole('combobox', { name: 'Role of Nora Fen' }).click();
  await page.getByRole('option', { name: 'advisor' }).click();
  await expect(page.getByRole('combobox', { name: 'Role of Nora Fen' })).toHaveText('advisor');
  await nora.reload();
  await expect(nora.getByRole('link', { name: 'Products' })).toBeVisible();

  // Taken out, she sees nothing any more; the record of changes names who did what.
  await page.getByRole('button', { name: 'Remove Nora Fen' }).click();
  const asked = page.getByRole('dialog', { name: 'Remove Nora Fen?' });
  await expect(asked).toContainText('What waits on their phone and is not sent stays there');
  await asked.getByRole('button', { name: 'Remove', exact: true }).click();
  await expect(page.getByRole('listitem', { name: 'Nora Fen' })).toHaveCount(0);
  await nora.getByRole('link', { name: 'Products' }).click();
  await expect(nora.getByRole('main')).toContainText('you do not belong to any practice any more');
  await page.getByRole('link', { name: /Changes/ }).click();
  const changes = page.getByRole('list', { name: 'Changes, newest first' });
  await expect(changes.getByRole('listitem').first()).toContainText('Orla Tench deleted member Nora Fen');
  await expect(changes).toContainText('technician → advisor');
});

test('the last owner stays, and is told why', async ({ page }) => {
  await page.goto('/practice');
  await page.getByRole('combobox', { name: 'Role of Orla Tench' }).click();
  await page.getByRole('option', { name: 'technician' }).click();
  await expect(page.getByRole('alert')).toContainText('A practice needs an owner');
  await expect(page.getByRole('combobox', { name: 'Role of Orla Tench' })).toHaveText('owner');
});

test.describe('a technician', () => {
  test.use({ as: 'Wynn', viewport: { width: 390, height: 844 } });

  test('measures in the field, and meets no price and no delete', async ({ page }) => {
    await page.goto('/');
    await expect(page.getByRole('button', { name: 'Add a site' })).toHaveCount(0);
    await openSite(page, 'Gannet Row Almshouses', 'Ground', 'South bank');
    await expect(page.getByRole('button', { name: /Delete|Change the facts|Add a zone|Share/ })).toHaveCount(0);
    await page.getByRole('button', { name: 'Measure thatch and roots' }).click();
    const form = page.getByRole('dialog');
    await form.getByRole('textbox', { name: 'Thatch' }).fill('40 cm');
    await form.getByRole('button', { name: 'Save' }).click();
    await expect(form).toContainText('outside 0 to');
    await form.getByRole('textbox', { name: 'Thatch' }).fill('2 cm');
    await form.getByRole('textbox', { name: 'Roots to' }).fill('8 cm');
    await form.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByRole('main')).toContainText('0.8 in');

    await openSite(page, 'Gannet Row Almshouses', 'Rates', 'Walled court');
    await expect(page.getByRole('main')).toContainText('lb/1000 ft²');
    await expect(page.getByRole('main')).not.toContainText('$');
    await expect(page.getByRole('button', { name: /Hand (this zone|the program) over/ })).toHaveCount(0);
    // Of what is spread they see the machines, and of those no hire.
    await page.goto('/products');
    await expect(page.getByRole('heading', { name: 'Machines' })).toBeVisible();
    await expect(page.getByRole('main')).toContainText('hired from Port Fennimore plant hire');
    await expect(page.getByRole('main')).not.toContainText('$');
    await page.goto('/practice');
    await expect(page.getByRole('heading', { name: 'For the owner' })).toBeVisible();
  });
});

test('a client reads the reports shared with them, and a share link shows one of them to whoever holds it', async ({
  page,
  browser,
  baseURL,
}) => {
  const hetty = await anotherBrowser(browser, baseURL, 'Hetty');
  await hetty.goto('/');
  await expect(hetty.getByRole('main').getByRole('listitem')).toHaveCount(1);
  await hetty.getByRole('link', { name: 'Read Gannet Row Almshouses' }).click();
  const report = hetty.getByRole('region', { name: 'Walled court', exact: true });
  await expect(report).toContainText('Lime to 6.5');
  await expect(hetty.getByRole('region', { name: 'Sycamore lawn', exact: true })).toContainText(
    'Nothing is handed over for it yet.',
  );

  await openSite(page, 'Gannet Row Almshouses', 'Rates');
  await page.getByRole('button', { name: 'Share the report' }).click();
  const form = page.getByRole('dialog');
  await form.getByRole('button', { name: 'Make a link' }).click();
  await expect(form).toContainText('Say who the link is for');
  await form.getByRole('textbox', { name: 'Who it is for' }).fill('The trustees');
  await form.getByRole('button', { name: 'Make a link' }).click();
  const address = await form.getByRole('textbox', { name: 'Link', exact: true }).inputValue();

  const anybody = await anotherBrowser(browser, baseURL);
  await anybody.goto(address);
  await expect(anybody.getByRole('heading', { name: 'Gannet Row Almshouses' })).toBeVisible();
  await expect(anybody.getByRole('navigation')).toHaveCount(0);
  const pdf = await anybody.request.get(
    (await anybody.getByRole('link', { name: /PDF/ }).first().getAttribute('href'))!,
  );
  expect([pdf.status(), pdf.headers()['content-type']]).toEqual([200, 'application/pdf']);
  await anybody.goto('/');
  await expect(anybody.getByRole('heading', { name: 'Sign in' })).toBeVisible();

  await form.getByRole('button', { name: 'Revoke The trustees' }).click();
  await expect(form.getByRole('list', { name: 'Links' })).toContainText('revoked');
  await anybody.goto(address);
  await expect(anybody.getByRole('alert')).toContainText('The practice took this link back.');
});

test('two people change the same zone: the later is shown both versions, and either can be kept', async ({
  page,
  browser,
  baseURL,
}) => {
  const piet = await anotherBrowser(browser, baseURL, 'Piet');
  const open = async (who: typeof page) => {
    await openSite(who, 'Gannet Row Almshouses', 'Ground', 'Sycamore lawn');
    await who.getByRole('button', { name: 'Change the facts' }).click();
    return who.getByRole('dialog', { name: /Change Sycamore lawn/ });
  };
  const roots = (form: Awaited<ReturnType<typeof open>>) => form.getByRole('textbox', { name: /Roots?/ });
  const [hers, his] = [await open(page), await open(piet)];
  const before = await roots(hers).inputValue();

  await roots(his).fill('5 in');
  await his.getByRole('button', { name: 'Save' }).click();
  await expect(his).toBeHidden();
  await roots(hers).fill('6 in');
  await hers.getByRole('button', { name: 'Save' }).click();
  const conflict = page.getByRole('dialog', { name: 'Piet Sandling saved this first' });
  await expect(conflict.getByRole('row', { name: /Roots/ })).toContainText('6 in');
  await expect(conflict.getByRole('row', { name: /Roots/ })).toContainText('5 in');
  await conflict.getByRole('button', { name: 'Keep mine' }).click();
  await expect(hers).toBeHidden();
  await expect(page.getByRole('main')).toContainText('to 6 in');

  // And the other way: his window still holds the older version.
  const [again, late] = [await open(page), await open(piet)];
  await roots(again).fill(before === '' ? '4 in' : before);
  await again.getByRole('button', { name: 'Save' }).click();
  await expect(again).toBeHidden();
  await roots(late).fill('9 in');
  await late.getByRole('button', { name: 'Save' }).click();
  await piet.getByRole('button', { name: 'Keep Orla Tench’s' }).click();
  await expect(late).toBeHidden();
  await expect(piet.getByRole('main')).not.toContainText('9 in');
});
