import type { LabUnit, ReportedValue } from '@glenfold/agronomy';
import { Plane } from '@glenfold/agronomy/geometry';
import type {
  BagAnswer,
  CoreAnswer,
  GroundFeatureAnswer,
  LaboratoryAnswer,
  LabResultAnswer,
  ProductAnswer,
  SiteAnswer,
  SiteStateAnswer,
  StepState,
  ZoneAnswer,
} from '@glenfold/contract';

/** A made-up property that tests of the screens stand on; each names what it changes. */
export const plane = new Plane([-36.2, 46.4]);

export const site = {
  id: 's',
  version: 1,
  name: 'Gannet Row',
  place: 'Skerry Point',
  latitude: 46.4,
  longitude: -36.2,
} as unknown as SiteAnswer;

/** A rectangle in metres about the plane's origin. */
export const rectangle = (east: number, north: number, wide: number, deep: number): ZoneAnswer['geometry'] => {
  const corners = [
    [east, north],
    [east + wide, north],
    [east + wide, north + deep],
    [east, north + deep],
    [east, north],
  ] as const;
  return { type: 'Polygon', coordinates: [corners.map((corner) => [...plane.toMap(corner)])] };
};

export const zoneWith = (more: Partial<ZoneAnswer> = {}): ZoneAnswer =>
  ({
    id: 'z',
    version: 4,
    siteId: 's',
    name: 'Back lawn',
    label: 'BL',
    area: 1200,
    grass: 'tall fescue',
    mix: null,
    surface: 'turf',
    intensity: 'medium',
    shade: 'full sun',
    clippings: 'returned',
    soilGroup: 'loam',
    facts: {},
    applied: [],
    measured: {},
    geometry: rectangle(0, 0, 40, 30),
    ...more,
  }) as unknown as ZoneAnswer;

export const thing = (kind: string, east: number, north: number, more = {}): GroundFeatureAnswer =>
  ({
    id: `${kind} ${east}`,
    version: 1,
    siteId: 's',
    kind,
    name: null,
    geometry: { type: 'Point', coordinates: [...plane.toMap([east, north])] },
    ...more,
  }) as unknown as GroundFeatureAnswer;

/** A value as a report prints it; a pH unless a unit is given. */
export const printed = (value: number, unit: LabUnit = 'pH', more: Partial<ReportedValue> = {}): ReportedValue => ({
  value,
  unit,
  basis: 'element',
  ...more,
});

export const resultWith = (more: Partial<LabResultAnswer> = {}): LabResultAnswer => ({
  ...{ id: 'r', version: 1, siteId: 's', sampleId: 'a', of: 'soil', zoneIds: ['z'], inherited: [] },
  label: 'BL',
  labNumber: null,
  sampledOn: '2026-09-30',
  depth: 10.16,
  cores: null,
  extractant: 'mehlich-3',
  limeFactor: null,
  values: {
    soilPh: printed(5.6),
    bufferPh: printed(6.6, 'pH', { method: 'smp' }),
    organicMatter: printed(3.1, '%'),
  },
  beside: null,
  advice: null,
  advised: [],
  origin: 'typed',
  supersedesId: null,
  supersededById: null,
  recordedAt: '2026-10-06T08:00:00Z',
  questions: [],
  ...more,
});

const core = (number: number, more: Partial<CoreAnswer> = {}): CoreAnswer => ({
  id: `core ${number}`,
  zoneId: 'z',
  number,
  turn: number,
  place: null,
  state: 'waiting',
  pushed: null,
  recovered: null,
  moisture: null,
  reason: null,
  note: null,
  at: null,
  by: null,
  ...more,
});

/** Cores one after the other, each with what is said of it. */
export const coresWith = (...each: ReadonlyArray<Partial<CoreAnswer>>): CoreAnswer[] =>
  each.map((more, index) => core(index + 1, more));

export const bagWith = (more: Partial<BagAnswer> = {}): BagAnswer => ({
  id: 'b1',
  version: 1,
  siteId: 's',
  siteName: 'Gannet Row',
  code: 'K7F4Q2',
  zoneIds: ['z'],
  zoneNames: ['Back lawn'],
  state: 'planned',
  since: '2026-10-12T08:00:00Z',
  days: 0,
  overdue: 0,
  cored: 0,
  cores: 15,
  plannedFor: null,
  laboratory: null,
  labNumber: null,
  parcel: null,
  purpose: 'routine',
  panels: ['routine'],
  depth: 10.16,
  probe: 1.905,
  design: 'coverage',
  edge: 1,
  clear: 1,
  seed: 1,
  note: null,
  grassWanted: null,
  places: [],
  custody: [],
  insteadOf: null,
  ...more,
});

export const laboratory: LaboratoryAnswer = {
  name: 'Tidewater Soils',
  ...{ id: null, version: 0, address: null, scientist: null, phone: null },
  simulated: true,
  extractant: 'mehlich-3',
  bufferMethod: 'smp',
  units: 'P and K in ppm',
  reports: 'a table by e-mail',
  depths: [
    { for: 'lawns', from: 7, to: 11 },
    { for: 'seedbeds', from: 14, to: 17 },
  ],
  volume: 300,
  fees: [
    { panel: 'routine', fee: 18 },
    { panel: 'organic matter', fee: 6 },
  ],
  daysLeast: 4,
  daysMost: 9,
};

export const productWith = (more: Partial<ProductAnswer> = {}): ProductAnswer => ({
  id: 'lime',
  version: 3,
  name: 'Pelletised calcitic lime',
  kind: 'lime',
  analysis: { cce: 97, passing8: 100, passing20: 96, passing60: 84, moisture: 1 },
  ...{
    nitrogenSource: null,
    chelate: null,
    seeds: null,
    natural: false,
    dolomitic: false,
    caustic: false,
    caution: null,
  },
  ...{ packSize: 22.68, packUnit: 'kg', packPrice: 6.5, stock: null },
  effectiveness: 87,
  unitPrice: { of: 'effective lime', perKg: 0.33 },
  ...more,
});

/** A site with a state for the steps that are named; the rest come later. */
export const siteState = (
  steps: Partial<Record<StepState['step'], readonly [StepState['state'], string]>>,
  more: Partial<SiteStateAnswer> = {},
): SiteStateAnswer => ({
  site,
  zones: 2,
  area: 1500,
  steps: (['ground', 'sampling', 'lab', 'reading', 'rates', 'season', 'logbook', 'proof'] as const).map((step) => {
    const [state, words] = steps[step] ?? (['later', 'Not built yet'] as const);
    return { step, state, words };
  }),
  ...more,
});
