import {
  type Change,
  type SoilTest,
  type Stocked,
  type ZoneFacts,
  climateOf,
  programZone,
  readChange,
  readMaterial,
} from '@glenfold/agronomy';
import type { ProductAnswer, SiteAnswer, ZoneAnswer, ZoneProgramAnswer } from '@glenfold/contract';
import { screen } from '@testing-library/react';
import { printed, productWith, resultWith } from './scene.ts';

/** An acid court with its shelf of products, of which every number comes from the core. */
const bag = { packSize: 20, packUnit: 'kg' } as const;
const none = { n: 0, p2o5: 0, k2o: 0 };
const feed = (name: string, more: object, price: number | null = 10) =>
  [name, { name, kind: 'fertilizer', analysis: { ...none, ...more }, ...bag }, price] as const;
const shelf: ReadonlyArray<readonly [string, object, number | null]> = [
  ['lime', { name: 'Calcitic lime', kind: 'lime', analysis: { cce: 95, passing8: 100, passing20: 95, passing60: 80, moisture: 0 }, ...bag }, 10], // prettier-ignore
  feed('Urea 46-0-0', { n: 46 }),
  feed('Pellets 5-4-0', { n: 5, p2o5: 4 }),
  feed('Superphosphate 0-46-0', { p2o5: 46 }),
  feed('Sulfate of potash 0-0-50', { k2o: 50 }, null),
  ['gypsum', { name: 'Gypsum', kind: 'gypsum', analysis: { ca: 22, s: 18 }, ...bag }, 10],
  ['compost', { name: 'Compost', kind: 'compost', analysis: { n: 1.5, p2o5: 0.75, k2o: 0.75, bulkDensity: 0.55, dryMatter: 55, organicMatter: 50, nitrogenFirstYear: 12, retained: 60, lasting: 35 }, packSize: 1, packUnit: 'm3' }, 30], // prettier-ignore
  ['wetting', { name: 'Wetting agent', kind: 'wetting agent', analysis: { labelRate: 1.9, labelWater: 80 }, packSize: 10, packUnit: 'L' }, 90], // prettier-ignore
];
const materials: readonly Stocked[] = shelf.map(([id, raw, price]) => ({ id, material: readMaterial(raw), price }));
const productAnswers = materials.map(({ id, material, price }) =>
  productWith({
    ...{ id, version: 1, packPrice: price, effectiveness: material.kind === 'lime' ? 87 : null },
    ...material,
  } as Partial<ProductAnswer>),
);

const facts: ZoneFacts = {
  name: 'Court',
  area: 93,
  grass: 'kentucky bluegrass',
  surface: 'turf',
  intensity: 'medium',
  shade: 'full sun',
  clippings: 'removed',
  soilGroup: 'loam',
};
export const ppm = (value: number) => ({ value, unit: 'mg/kg', basis: 'element' }) as const;
const test: SoilTest = {
  soilPh: 5.4,
  buffer: { method: 'smp', ph: 6.4 },
  extractant: 'mehlich-3',
  depth: 15.24,
  organicMatter: 2.4,
  nutrients: { p: ppm(60), k: ppm(60) },
};
const site = { id: 's', version: 1, name: 'Gannet Row', place: null } as SiteAnswer;
export const zone = {
  id: 'z',
  version: 1,
  siteId: 's',
  label: 'GR-1',
  geometry: null,
  facts: {},
  measured: {},
  ...facts,
} as unknown as ZoneAnswer;
const result = resultWith({
  label: 'GR-1',
  values: { soilPh: printed(5.4), bufferPh: printed(6.4, 'pH', { method: 'smp' }) },
  depth: 15.24,
  sampledOn: null,
});

const maritime = climateOf({ climate: 'cool maritime' });

interface Asked {
  readonly zone?: Partial<ZoneFacts>;
  readonly soil?: Partial<SoilTest> | null;
  readonly changes?: ReadonlyArray<Partial<Change>>;
  readonly climate?: typeof maritime;
}

/** The program of that zone, as the core works it out. */
export function answer({
  zone: zoneFacts = {},
  soil = {},
  changes = [],
  climate = maritime,
}: Asked = {}): ZoneProgramAnswer {
  const read = changes.map((change) => readChange({ reason: 'as agreed', key: change.remedy, ...change }));
  const worked = programZone({
    zone: { ...facts, ...zoneFacts },
    test: soil === null ? undefined : { ...test, ...soil },
    ...{ materials, changes: read, system: 'us', from: '2026-11-27', climate },
  });
  return {
    ...{
      zoneId: 'z',
      result: soil === null ? null : result,
      ...worked,
      handedOver: null,
      borrowed: null,
      yearBefore: null,
      work: [],
      priced: true,
    },
    changes: read.map((change, index) => ({ id: `c${index}`, version: 3, change })),
  };
}
export const props = { site, zones: [zone], zone, results: [result] };
export const served = (program: unknown) => ({ '/zones/z/program?units=us': program, '/products': productAnswers });
export const row = (name: string) => screen.findByRole('region', { name });
