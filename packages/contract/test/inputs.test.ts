import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import fc from 'fast-check';
import * as contract from '../src/index.ts';

type Input = new () => object;
const uuid = '4f8d3c1e-6a3b-4f0e-9c76-0c5d1f1a2b3c';
const ring = [
  [-36.2, 46.4],
  [-36.199, 46.4],
  [-36.199, 46.401],
  [-36.2, 46.4],
];

/** An input of each kind that is taken as it is. */
const valid: Readonly<Partial<Record<keyof typeof contract, object>>> = {
  SiteInput: {
    ...{ name: 'Gannet Row', place: 'Skerry Point', position: [-36.2, 46.4], timeZone: 'Atlantic/Azores' },
    ...{ climate: 'cool maritime', access: { gate: 'Key at number 4', dog: 'A terrier' } },
    contacts: [{ name: 'Hetty Coppice', role: 'owner', phone: '555 0102', email: 'hetty@gannetrow.example' }],
  },
  ZoneInput: {
    ...{ name: 'Court', label: 'CT', grass: 'tall fescue', surface: 'turf', intensity: 'medium', shade: 'full sun' },
    ...{ clippings: 'returned', area: 120, soilGroup: 'clay', aimPh: 6.4, aimReason: 'clover' },
  },
  ZoneFactsInput: {
    ...{ sunHours: 5, slope: 8, aspect: 'south', irrigation: 'sprinkler', drySpellOn: '2026-08', seaside: true },
    mix: [
      { grass: 'tall fescue', share: 90 },
      { grass: 'kentucky bluegrass', share: 10 },
    ],
    layers: [{ material: 'topsoil', depth: 10, on: '2024' }],
    applications: [{ kind: 'lime', on: '2025-04', words: 'a few bags', rate: 200, cce: 92 }],
    signs: [{ sign: 'moss', on: '2026-03-02' }],
  },
  MeasurementsInput: { thatch: 1.2, rootDepth: 7, probeStop: 9 },
  LabResultInput: {
    ...{ zoneIds: [uuid], of: 'soil', label: 'CT', depth: 10, extractant: 'mehlich-3' },
    values: {
      soilPh: { value: 5.6, unit: 'pH', basis: 'element' },
      bufferPh: { value: 6.4, unit: 'pH', basis: 'element', method: 'smp' },
      k: { value: 80, unit: 'mg/kg', basis: 'element' },
    },
  },
  BagInput: {
    ...{ purpose: 'routine', depth: 10, probe: 1.9, panels: ['routine'], design: 'coverage', edge: 1, clear: 1 },
    ...{ seed: 1, plannedFor: '2026-10-14', cores: [{ zoneId: uuid, place: [-36.2, 46.4], turn: 1 }] },
  },
  CoreTapInput: { id: uuid, coreId: uuid, state: 'cored', at: '2026-10-14T09:30:00Z', pushed: 10, recovered: 9 },
  CustodyInput: { bagIds: [uuid], state: 'sent', parcel: 'TW 7', note: 'by post' },
  LabNumberInput: { labNumber: 'TW-1204' },
  GroundFeatureInput: { kind: 'bed', name: 'Roses', geometry: { type: 'Polygon', coordinates: [ring] } },
  MaterialInput: {
    ...{ name: 'Blend 16-4-8', kind: 'fertilizer', analysis: { n: 16, p2o5: 4, k2o: 8, slowRelease: 35 } },
    ...{ packSize: 22.5, packUnit: 'kg', packPrice: 31, stock: 3, caution: 'Dry leaves.' },
  },
  MachineInput: {
    ...{ name: 'Drop spreader', kind: 'drop spreader', width: 0.6, holds: 20, hired: false },
    settings: [{ productId: uuid, setting: '11', rate: 122, checkedOn: '2026-04-02' }],
  },
  SchoolSetting: {
    school: 'sufficiency',
    correct: 'leave alone',
    leaveAloneFrom: 5.8,
    leaveAloneTo: 7,
    limeDepth: 'top 4 in',
  },
  TargetsSetting: { targets: [{ name: 'The school', analyte: 'organicMatter', value: 3.5 }] },
  CapsSetting: { nitrogenYear: 10, limeOnce: 150 },
  BandsSetting: {
    tables: [
      {
        ...{ name: 'State', source: 'Guide 4', date: 2024, extractant: 'mehlich-3' },
        rows: [{ nutrient: 'p', veryLowBelow: 12, low: 25, high: 50 }],
      },
    ],
  },
  YearlyRatesSetting: {
    ...{ name: 'State', source: 'Guide 4', date: 2024 },
    p: { 'very low': 12, low: 8, medium: 0, high: 0, 'very high': 0 },
    k: { 'very low': 15, low: 10, medium: 5, high: 0, 'very high': 0 },
  },
  RulesSetting: {
    ...{ name: 'Code', source: 'Part 2', phosphorus: 'shortage', waterStrip: 5 },
    blackouts: [{ from: '11-15', to: '03-01', what: 'nitrogen' }],
  },
  WorkSetting: { prices: [{ name: 'Labour', price: 42, per: 'hour' }] },
  PersonalInput: { units: 'metric' },
  PracticeInput: { name: 'Brackwater', timeZone: 'Atlantic/Azores', currency: '£' },
  FirstRunInput: {
    practice: 'Brackwater',
    name: 'Orla',
    email: 'orla@brackwater.example',
    password: 'cores then lime',
  },
  InvitationInput: { email: 'una@fulmar.example', role: 'client', siteIds: [uuid] },
  MemberInput: { role: 'advisor', siteIds: [] },
  ShareLinkInput: { purpose: 'The club', days: 30 },
  SignInInput: { email: 'orla@brackwater.example', password: 'x' },
  ResetInput: { password: 'cores then lime' },
  HurryInput: { days: 3 },
};
const kinds = Object.entries(valid).map(([name, given]) => [name, contract[name as never] as Input, given] as const);

const refusals = (kind: Input, given: object): Readonly<Record<string, string>> =>
  Object.fromEntries(
    contract
      .problemFields(validateSync(plainToInstance(kind, given), { whitelist: true }))
      .map(({ field, message }) => [field, message]),
  );

describe('what people send', () => {
  it.each(kinds)('%s is taken as it should be', (_name, kind, given) => expect(refusals(kind, given)).toEqual({}));

  it('has its own sentence for whatever is wrong, that ends, and says nothing of how it was checked', () => {
    const junk = fc.oneof(
      fc.constantFrom('', ' ', 'acid', '1e999', '<script>', '2026-13-40', 'x'.repeat(5000)),
      fc.constantFrom(-1, 0, 1.5, 1e12, NaN, Infinity),
      fc.constantFrom(null, true, {}, [], [null], [[]], [{}], { value: 'x' }),
      fc.jsonValue(),
    );
    const changed = fc.constantFrom(...kinds).chain(([name, kind, given]) =>
      fc.record({
        name: fc.constant(name),
        kind: fc.constant(kind),
        given: fc
          .tuple(fc.constantFrom(...Object.keys(given)), junk)
          .map(([field, value]): object => ({ ...given, [field]: value })),
      }),
    );
    fc.assert(
      fc.property(changed, ({ name, kind, given }) => {
        for (const [field, message] of Object.entries(refusals(kind, given))) {
          const where = `${name}.${field}: ${message}`;
          expect(where).toMatch(/[.?)]$/);
          // The words of the library are no words for people.
          expect(where).not.toMatch(/must be|should not|each value|nested property|undefined|NaN|\[object/);
          expect(message.length).toBeLessThan(900);
        }
      }),
      { numRuns: 1500 },
    );
  });

  it('stays taken when it is sent again as it was understood', () => {
    for (const [, kind, given] of kinds) {
      const once = plainToInstance(kind, given);
      expect(plainToInstance(kind, JSON.parse(JSON.stringify(once)) as object)).toEqual(once);
    }
  });
});

it('a name of nothing that can be seen is no name, and what steers other signs is not kept at its ends', () => {
  const site = (name: string) => plainToInstance(contract.SiteInput, { ...valid.SiteInput, name });
  for (const name of ['\u200b', '\u2060\u200d \ufeff', '\u202e'])
    expect(validateSync(site(name)).map(({ property }) => property)).toEqual(['name']);
  expect(site(' \u200bGannet Row\u202e ').name).toBe('Gannet Row');
});

describe('the facts of a zone', () => {
  const { ZoneFactsInput } = contract;

  it('of one grass have no mix, also where a form sends an empty list', () => {
    expect(refusals(ZoneFactsInput, { mix: [], sunHours: 5 })).toEqual({});
    expect(plainToInstance(ZoneFactsInput, { mix: [] }).mix).toBeNull();
  });

  it('with a mix make a whole, to a percent', () => {
    const mix = (...shares: readonly number[]) => ({ mix: shares.map((share) => ({ grass: 'tall fescue', share })) });
    expect(refusals(ZoneFactsInput, mix(33, 33, 33))).toEqual({});
    expect(refusals(ZoneFactsInput, mix(60, 60)).mix).toMatch(/120 % together.*100 %/);
    expect(Object.keys(refusals(ZoneFactsInput, mix(100, 0)))).toContain('mix.1.share');
  });

  it('know a day as far as it is remembered', () => {
    const on = (date: string) => refusals(ZoneFactsInput, { layers: [{ material: 'sand', depth: 2, on: date }] });
    for (const date of ['2019', '2019-05', '2019-05-20']) expect(on(date)).toEqual({});
    for (const date of ['May 2019', '19', '2019-13', '2019-05-32']) expect(on(date)['layers.0.on']).toMatch(/2026-03/);
  });
});

describe('who is asked in', () => {
  it.each(['orla', 'orla@', '@x.example', 'a b@x.example', ''])('%p is no address', (email) =>
    expect(refusals(contract.InvitationInput, { email, role: 'advisor', siteIds: [] }).email).toMatch(/e-mail/i),
  );

  it('an address is one, however it is capitalised or spaced', () =>
    expect(plainToInstance(contract.SignInInput, { email: '  Orla@Brackwater.Example ', password: 'x' }).email).toBe(
      'orla@brackwater.example',
    ));

  it.each(['short', 'x'.repeat(300)])('a password of that length is not taken', (password) =>
    expect(refusals(contract.ResetInput, { password }).password).toMatch(/\d+/),
  );
});
