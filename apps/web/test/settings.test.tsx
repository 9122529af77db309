import { type SettingAnswer, type SiteAnswer, withReadableDays } from '@glenfold/contract';
import { screen, waitFor, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import { Route, Routes } from 'react-router';
import { SettingsPage } from '../src/features/settings/SettingsPage.tsx';
import { AboutSite } from '../src/features/site/AboutSite.tsx';
import { type Asked, changesOf, choose, problem, serve, show } from './page.tsx';
import { productWith, site, siteState, zoneWith } from './scene.ts';

const setting = (kind: SettingAnswer['kind'], value: object, more: Partial<SettingAnswer> = {}): SettingAnswer => ({
  ...{ id: kind, version: 4, kind, siteId: null, zoneId: null, value },
  ...more,
});
const school = {
  school: 'sufficiency',
  correct: 'leave alone',
  leaveAloneFrom: 5.8,
  leaveAloneTo: 7,
  limeDepth: 'sampled slice',
};

function open(at: string, more = {}, options = {}): Asked[] {
  const asked = serve({
    '/sites': { sites: [site], count: 1, next: null },
    '/sites/s/zones': [zoneWith()],
    '/settings': [],
    ...more,
  });
  show(
    <Routes>
      <Route path="/settings/:part?" element={<SettingsPage />} />
    </Routes>,
    { at, ...options },
  );
  return asked;
}
const section = (name: string): Promise<HTMLElement> => screen.findByRole('region', { name });
const change = async (name: string): Promise<void> =>
  userEvent.click(await screen.findByRole('button', { name: `Change: ${name}` }));

describe('the settings', () => {
  it('tell what holds and whose decision it is: the zone’s before the site’s before the practice’s', async () => {
    const settings = [setting('school', school), setting('targets', { targets: [] }, { id: 't', siteId: 's' })];
    open('/settings/advice?site=s&zone=z', { '/settings': settings });
    const own = await section('School and when to correct');
    await waitFor(() => expect(own.textContent).toMatch(/Decided for the whole practice.*pH 5.8–7\./));
    expect((await section('Targets with a name')).textContent).toMatch(/Decided for the site.*None here/);
    expect((await section('Caps of one’s own')).textContent).toMatch(/General/);
  });

  it('hold the usual year: a visit takes the products that suit it, in the person’s units', async () => {
    const urea = '4f8d3c1e-6a3b-4f0e-9c76-0c5d1f1a2b3c';
    const shelf = [
      [urea, 'Urea 46-0-0', 'fertilizer', { n: 46, p2o5: 0, k2o: 0 }],
      ['4f8d3c1e-6a3b-4f0e-9c76-0c5d1f1a2b3d', 'Wetting agent', 'wetting agent', { labelRate: 1.9 }],
    ].map(([id, name, kind, analysis]) => productWith({ id, name, kind, analysis } as never));
    const asked = open('/settings/usual-year', {
      '/products': shelf,
      'PUT /settings/usualYear': setting('usualYear', {}),
    });
    await change('The usual year');
    const form = await section('The usual year');
    await choose('Month', 'June');
    await userEvent.click(within(form).getByRole('combobox', { name: 'Product' }));
    expect(screen.getAllByRole('option').map(({ textContent }) => textContent)).toEqual(['as proposed', 'Urea 46-0-0']);
    await userEvent.click(screen.getByRole('option', { name: 'Urea 46-0-0' }));
    await userEvent.type(within(form).getByRole('textbox', { name: 'Rate' }), '2');
    await userEvent.click(within(form).getByRole('button', { name: 'Decide for the whole practice' }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    const { value } = changesOf(asked)[0]!.body as { value: { name: string; visits: Array<{ rate: number }> } };
    expect(value).toMatchObject({ name: 'Four visits', visits: [{ month: 6, remedy: 'nitrogen', material: urea }] });
    expect(value.visits[0]!.rate).toBeCloseTo(9.765, 2);
  });

  it('are decided for a zone with a reason, which is asked for, on the version that was seen', async () => {
    const refused = problem(422, {
      errors: [{ field: 'value.reason', message: 'Say why this zone is to be advised in another way.' }],
    });
    const answers: Record<string, unknown> = {
      '/settings': [setting('school', school)],
      'PUT /settings/school': refused,
    };
    const asked = open('/settings/advice?site=s&zone=z', answers);
    await change('School and when to correct');
    await choose('When a pH is corrected', /0.2 or more/);
    await userEvent.click(screen.getByRole('button', { name: /^Decide for / }));
    expect(await screen.findByText(/Say why this zone/)).toBeTruthy();
    await userEvent.type(screen.getByLabelText(/^Why /), 'ferns');
    await userEvent.click(screen.getByRole('button', { name: /^Decide for / }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(2));
    expect(changesOf(asked)[1]).toMatchObject({
      version: '0',
      body: { siteId: null, zoneId: 'z', value: { correct: 'to the aim', reason: 'ferns' } },
    });
  });

  it('show both where somebody else decided first', async () => {
    const current = setting(
      'rules',
      { name: 'Theirs', source: 's', phosphorus: 'never', blackouts: [] },
      { version: 9 },
    );
    const asked = open('/settings/rules', {
      '/settings': [setting('rules', { name: 'The code', source: 's', phosphorus: 'shortage', blackouts: [] })],
      'PUT /settings/rules': problem(409, {
        conflict: { changedBy: 'Piet Vane', changedAt: '2026-10-14T09:30:00Z', current },
      }),
    });
    await change('Rules of the place');
    const form = await screen.findByRole('form', { name: 'Rules of the place' });
    await userEvent.clear(within(form).getByLabelText('Name'));
    await userEvent.type(within(form).getByLabelText('Name'), 'Ours');
    await userEvent.click(within(form).getByRole('button', { name: 'Save' }));
    const ask = await screen.findByRole('dialog');
    expect(ask.textContent).toMatch(/Ours.*Theirs/);
    expect(ask.textContent).toMatch(/Kept either way.*never/);
    await userEvent.click(within(ask).getByRole('button', { name: 'Keep mine' }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(2));
    expect(changesOf(asked)[1]).toMatchObject({ version: '9', body: { value: { name: 'Ours', phosphorus: 'never' } } });
  });

  it('take a table of one’s own, and say where its bands do not rise', async () => {
    const asked = open('/settings/tables', { 'PUT /settings/bands': setting('bands', { tables: [] }) });
    await change('Bands of one’s own');
    const form = await screen.findByRole('form', { name: 'Bands of one’s own' });
    const type = (label: string, text: string) => userEvent.type(within(form).getByLabelText(label), text);
    await type('Name', 'Tern');
    await type('Where it is written', 'sheet 3');
    await userEvent.click(within(form).getByRole('button', { name: 'Another nutrient' }));
    await type('Medium from', '60');
    await type('Medium to', '30');
    await userEvent.click(within(form).getByRole('button', { name: /^Decide for/ }));
    expect(await within(form).findByText(/bands are to rise/)).toBeTruthy();
    expect(changesOf(asked)).toEqual([]);
    await userEvent.clear(within(form).getByLabelText('Medium to'));
    await type('Medium to', '90');
    await userEvent.click(within(form).getByRole('button', { name: /^Decide for/ }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    expect(changesOf(asked)[0]!.body).toMatchObject({
      value: { tables: [{ name: 'Tern', extractant: 'mehlich-3', rows: [{ nutrient: 'p', low: 60, high: 90 }] }] },
    });
  });

  it('are read, not decided, by a technician, and tell no prices', async () => {
    open('/settings', {}, { role: 'technician' });
    await section('School and when to correct');
    expect(screen.queryByRole('button', { name: /^Change/ })).toBeNull();
    expect(screen.queryByRole('link', { name: /Prices of work/ })).toBeNull();
  });
});

describe('about a site', () => {
  const place: SiteAnswer = {
    ...site,
    ...{ climate: 'cool maritime', timeZone: 'Pacific/Kiritimati' },
    contacts: [{ name: 'Hetty Coppice', role: 'owner', phone: '+44 555-0102', email: 'hetty@gannetrow.example' }],
    access: { gate: 'Key at number 4', dog: 'Terrier, friendly' },
  };
  const show_ = (own: SiteAnswer, more = {}, who = {}): Asked[] => {
    const asked = serve({
      '/sites/s/state': siteState({}, { site: own }),
      '/sites/s/zones': [zoneWith()],
      '/settings': [],
      ...more,
    });
    show(
      <Routes>
        <Route path="/sites/:siteId/about" element={<AboutSite />} />
      </Routes>,
      { at: '/sites/s/about', ...who },
    );
    return asked;
  };

  it('stand whom to ring, how to get in, its day and its year, made up where they are', async () => {
    show_(place);
    expect((await screen.findByRole('link', { name: '+44 555-0102' })).getAttribute('href')).toBe('tel:+445550102');
    expect(screen.getByText('Terrier, friendly')).toBeTruthy();
    const own = screen.getByRole('region', { name: 'Place and climate' });
    const day = new Intl.DateTimeFormat('en-CA', { timeZone: 'Pacific/Kiritimati' }).format(new Date());
    expect(own.textContent).toContain(`It is ${withReadableDays(day)} there, by Pacific/Kiritimati`);
    expect(own.textContent).toMatch(/made-up normals, not of a station/);
    expect(within(own).getByRole('img', { name: /J 36 °F to 45 °F, rain 3.7 in/ })).toBeTruthy();
  });

  it('says what is not known instead of assuming it', async () => {
    show_({ ...place, climate: null, contacts: null, access: null, timeZone: null });
    expect(await screen.findByText(/climate is not known.*Nothing is assumed/s)).toBeTruthy();
    expect(screen.getByText(/^Nobody yet/)).toBeTruthy();
  });

  it('erases the client once the site’s name is typed, after telling what goes, stays and is not reached', async () => {
    const refused = 'This site is called “Gannet Row”. Type that to erase whose it is.';
    let tries = 0;
    const asked = show_(place, {
      'POST /sites/s/erasure': () => {
        tries += 1;
        return tries === 1
          ? problem(422, { detail: refused, errors: [{ field: 'name', message: refused }] })
          : { site: { ...place, name: 'Ground 3F2A1C' }, files: 3, accounts: 1, changes: 97 };
      },
    });
    await userEvent.click(await screen.findByRole('button', { name: 'Erase the client…' }));
    const form = await screen.findByRole('dialog');
    expect(within(form).getByRole('link', { name: 'print the logbook' }).getAttribute('href')).toBe('/sites/s/logbook');
    expect(form.textContent).toMatch(/cannot be taken back.*local rule.*moved by up to 8 km.*backups and exports/s);
    await userEvent.click(within(form).getByRole('button', { name: 'Erase for good' }));
    expect(changesOf(asked)).toEqual([]);
    const name = within(form).getByLabelText(`Type “${place.name}”`);
    await userEvent.type(name, 'Gannet');
    await userEvent.click(within(form).getByRole('button', { name: 'Erase for good' }));
    expect(await within(form).findByText(refused)).toBeTruthy();
    await userEvent.type(name, ' Row');
    await userEvent.click(within(form).getByRole('button', { name: 'Erase for good' }));
    expect((await screen.findByText(/called Ground 3F2A1C from now on/)).textContent).toContain('3 files and 1 account; 97 entries');
    expect(changesOf(asked).map(({ body }) => body)).toEqual([{ name: 'Gannet' }, { name: 'Gannet Row' }]);
  }); // prettier-ignore

  it('is erased by owners only', async () => {
    show_(place, {}, { role: 'advisor' });
    await screen.findByText('Terrier, friendly');
    expect(screen.queryByRole('button', { name: /Erase/ })).toBeNull();
  });

  it('takes people and normals without losing what else is known', async () => {
    const asked = show_(place, {
      'PUT /sites/s': ({ body }: Asked) => ({ ...place, ...(body as object), version: 3 }),
    });
    await userEvent.click(await screen.findByRole('button', { name: 'Change: People' }));
    const form = await screen.findByRole('dialog');
    await userEvent.clear(within(form).getByLabelText('Phone'));
    await userEvent.type(within(form).getByLabelText('Phone'), 'ask');
    await userEvent.click(within(form).getByRole('button', { name: 'Save' }));
    expect(await within(form).findByText(/number in digits/)).toBeTruthy();
    await userEvent.clear(within(form).getByLabelText('Phone'));
    await userEvent.type(within(form).getByLabelText('Phone'), '555 0199');
    await userEvent.click(within(form).getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(changesOf(asked)).toHaveLength(1));
    expect(changesOf(asked)[0]!.body).toMatchObject({
      name: site.name,
      climate: 'cool maritime',
      access: { dog: 'Terrier, friendly' },
      contacts: [{ phone: '555 0199' }],
    });
    await userEvent.click(await screen.findByRole('button', { name: 'Change: Place and climate' }));
    const normals = await screen.findByRole('dialog');
    await userEvent.click(within(normals).getByRole('button', { name: 'Enter normals of its own' }));
    await userEvent.type(within(normals).getByLabelText('Mean low of Jan'), '36');
    await userEvent.click(within(normals).getByRole('button', { name: 'Save' }));
    expect(await within(normals).findAllByText(/number of -60 to 50 °C in every month/)).toBeTruthy();
    expect(changesOf(asked)).toHaveLength(1);
  });
});
