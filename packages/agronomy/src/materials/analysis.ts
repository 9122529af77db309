/** What a material is sold as. */
export const materialKinds = [
  'lime',
  'fertilizer',
  'sulfur',
  'iron',
  'gypsum',
  'compost',
  'peat',
  'sand',
  'topsoil',
  'calcined clay',
  'wetting agent',
  'seed',
  'mulch',
  'binder',
] as const;
export type MaterialKind = (typeof materialKinds)[number];

/** A number of an analysis: where it is asked for, what it can be, and its column in a file. */
export interface AnalysisEntry {
  readonly label: string;
  readonly column: string;
  readonly unit: string;
  readonly min: number;
  readonly max: number;
  readonly kinds: readonly MaterialKind[];
  /** Nothing can be reckoned without it. */
  readonly required?: true;
}

const nutritious: readonly MaterialKind[] = ['fertilizer', 'sulfur', 'iron', 'gypsum', 'compost'];
const bulky: readonly MaterialKind[] = ['compost', 'peat', 'sand', 'topsoil', 'calcined clay'];

const share = (label: string, column: string, kinds: readonly MaterialKind[], more: Partial<AnalysisEntry> = {}) => ({
  label,
  column,
  unit: '%',
  min: 0,
  max: 100,
  kinds,
  ...more,
});

/** All that a material's label or analysis may tell in numbers; the order is that of forms and files. */
const entries = {
  n: share('N', 'n', ['fertilizer', 'compost', 'peat'], { max: 82 }),
  p2o5: share('P₂O₅', 'p2o5', ['fertilizer', 'compost'], { max: 62 }),
  k2o: share('K₂O', 'k2o', ['fertilizer', 'compost'], { max: 63 }),
  ca: share('Ca', 'ca', nutritious),
  mg: share('Mg', 'mg', nutritious),
  s: share('S', 's', nutritious),
  fe: share('Fe', 'fe', nutritious),
  mn: share('Mn', 'mn', ['fertilizer', 'iron']),
  zn: share('Zn', 'zn', ['fertilizer', 'iron']),
  cu: share('Cu', 'cu', ['fertilizer', 'iron']),
  b: share('B', 'b', ['fertilizer', 'iron'], { max: 22 }),
  na: share('Na', 'na', ['fertilizer', 'compost']),
  slowRelease: share('Slow share of the N', 'slow_release_percent', ['fertilizer']),
  saltIndex: {
    label: 'Salt index',
    column: 'salt_index',
    unit: '',
    min: 0,
    max: 200,
    kinds: ['fertilizer'],
  },
  sgn: {
    label: 'Granule size, SGN',
    column: 'sgn',
    unit: '',
    min: 20,
    max: 600,
    kinds: ['fertilizer', 'lime', 'gypsum', 'sulfur'],
  },
  noSeedingWeeks: {
    label: 'No seeding for, weeks',
    column: 'no_seeding_weeks',
    unit: '',
    min: 0,
    max: 104,
    kinds: ['fertilizer'],
  },
  cce: share('Calcium carbonate equivalent', 'cce_percent', ['lime'], { min: 1, max: 180, required: true }),
  passing8: share('Through 8 mesh', 'passing_8_mesh', ['lime'], { required: true }),
  passing20: share('Through 20 mesh', 'passing_20_mesh', ['lime'], { required: true }),
  passing60: share('Through 60 mesh', 'passing_60_mesh', ['lime'], { required: true }),
  moisture: share('Moisture', 'moisture_percent', ['lime'], { max: 60 }),
  purity: share('Purity', 'purity_percent', ['gypsum', 'seed']),
  germination: share('Germination', 'germination_percent', ['seed']),
  coating: share('Coating', 'coating_percent', ['seed']),
  weedSeed: share('Weed seed', 'weed_seed_percent', ['seed']),
  bulkDensity: {
    label: 'Bulk density as delivered',
    column: 'bulk_density',
    unit: 'g/cm3',
    min: 0.05,
    max: 2.7,
    kinds: bulky,
  },
  dryMatter: share('Dry matter', 'dry_matter_percent', bulky),
  organicMatter: share('Organic matter of the dry', 'organic_matter_percent', bulky),
  retained: share('Organic matter left after a year', 'retained_percent', ['compost', 'peat']),
  lasting: share('Organic matter left over years', 'lasting_percent', ['compost', 'peat']),
  cec: { label: 'Exchange capacity', column: 'cec', unit: 'cmol/kg', min: 0, max: 400, kinds: bulky },
  nitrogenFirstYear: share('N free in the first year', 'n_first_year_percent', ['compost']),
  carbonNitrogen: { label: 'C:N', column: 'c_n', unit: '', min: 1, max: 500, kinds: ['compost', 'peat'] },
  salts: { label: 'Salts, 1:5', column: 'salts_ds_m', unit: 'dS/m', min: 0, max: 50, kinds: ['compost'] },
  labelRate: {
    label: 'Label rate',
    column: 'label_rate_ml_m2',
    unit: 'mL/m2',
    min: 0,
    max: 100,
    kinds: ['wetting agent', 'iron'],
  },
  labelMass: {
    label: 'Label rate by weight',
    column: 'label_rate_g_m2',
    unit: 'g/m2',
    min: 0,
    max: 500,
    kinds: ['fertilizer', 'iron'],
  },
  labelWater: {
    label: 'Water with it',
    column: 'label_water_ml_m2',
    unit: 'mL/m2',
    min: 0,
    max: 5000,
    kinds: ['wetting agent', 'iron'],
  },
} as const satisfies Readonly<Record<string, AnalysisEntry>>;

export type AnalysisKey = keyof typeof entries;
export const analysisEntries: Readonly<Record<AnalysisKey, AnalysisEntry>> = entries;
export const analysisKeys = Object.keys(entries) as readonly AnalysisKey[];

/** Numbers of a label or an analysis, in the units of {@link analysisEntries}. */
export type Analysis = Readonly<Partial<Record<AnalysisKey, number>>>;

/** What is asked for of a kind. */
export function analysisOf(kind: MaterialKind): readonly AnalysisKey[] {
  return analysisKeys.filter((key) => analysisEntries[key].kinds.includes(kind));
}
