import fc from 'fast-check';
import catalogue from '../src/data/materials.json' with { type: 'json' };
import {
  type Change,
  type JobDose,
  type ProgramInput,
  type Stocked,
  type Treatment,
  type ZoneFacts,
  climateOf,
  convert,
  grassNames,
  jobProductOfMix,
  planned,
  programZone,
  readChange,
  readMaterial,
  soilGroups,
  surfaces,
} from '../src/index.ts';

/** A lawn with the general materials, every one of which has a price. */
export const materials: readonly Stocked[] = (catalogue.materials as readonly unknown[]).map((raw) => {
  const material = readMaterial(raw);
  return { id: material.name, material, price: 10 };
});
export const ppm = (value: number) => ({ value, unit: 'mg/kg', basis: 'element' }) as const;
const lawn: ZoneFacts = {
  ...{ name: 'Lawn', area: 200, grass: 'kentucky bluegrass', surface: 'turf', intensity: 'medium', soilGroup: 'loam' },
  ...{ shade: 'full sun', clippings: 'removed' },
} as const;
export const maritime = climateOf({ climate: 'cool maritime' });

export type Given = Partial<Omit<ProgramInput, 'zone' | 'test' | 'changes'>> & {
  readonly zone?: Partial<ZoneFacts>;
  readonly test?: Partial<NonNullable<ProgramInput['test']>> | null;
  readonly changes?: ReadonlyArray<Partial<Change>>;
};

/** The program of that lawn, with what is other. */
export function programOf({ zone = {}, test = {}, changes = [], ...more }: Given = {}) {
  return programZone({
    zone: { ...lawn, ...zone },
    test:
      test === null
        ? undefined
        : { soilPh: 6.4, extractant: 'mehlich-3', depth: 15.24, organicMatter: 3.5, nutrients: { p: ppm(40), k: ppm(200) }, ...test }, // prettier-ignore
    changes: changes.map(({ gone, ...change }) => ({
      ...readChange({ reason: 'as agreed', key: change.remedy, ...change }),
      gone,
    })),
    ...{ materials, system: 'metric', from: '2026-11-27', climate: maritime },
    ...more,
  }).program;
}
export const materialOf = (id: string) => materials.find((one) => one.id === id)!.material;

/** Doses of a program, as jobs. */
export function dosesOf(program: ReturnType<typeof programOf>, bare = false): JobDose[] {
  return planned(program.treatments).flatMap(({ key, remedy, name, doses, supply, others }) =>
    doses.map(({ from, to, own }, position) => ({
      ...{ id: `${key} ${position}`, zoneId: 'z', key, remedy, name, position, from, to, own, bare },
      product: jobProductOfMix(
        [...(supply ? [supply] : []), ...others].map(({ materialId }) => materialOf(materialId)),
      ),
    })),
  );
}

export const by = (treatments: readonly Treatment[], key: string): Treatment =>
  treatments.find((one) => one.key === key)!;
export const grams = (perThousand: number): number => convert(perThousand, 'lb/1000ft2', 'g/m2');
export const day = (text: string): number => Date.parse(text) / 86_400_000;

/** Zones, reports and changes by hand of every kind. */
export const anyZone = fc.record({
  grass: fc.constantFrom(...grassNames),
  surface: fc.constantFrom(...surfaces),
  soilGroup: fc.constantFrom(...soilGroups),
  intensity: fc.constantFrom('low', 'medium', 'high'),
  shade: fc.constantFrom('full sun', 'part', 'deep'),
  clippings: fc.constantFrom('returned', 'removed'),
  area: fc.double({ min: 5, max: 9000, noNaN: true }),
  measured: fc.record({
    probeStop: fc.constantFrom(undefined, 6, 30),
    thatch: fc.constantFrom(undefined, 0.3, 3),
    waterDrop: fc.constantFrom(undefined, 700),
    percolationSlowest: fc.constantFrom(undefined, 1, 30),
  }),
});
export const anyReport = fc.record({
  soilPh: fc.double({ min: 4.3, max: 8.9, noNaN: true }).map((ph) => Math.round(ph * 10) / 10),
  organicMatter: fc.double({ min: 0.5, max: 25, noNaN: true }),
  cec: fc.double({ min: 2, max: 40, noNaN: true }),
  esp: fc.constantFrom(undefined, 2, 9, 22),
  ec: fc.constantFrom(undefined, 1, 7),
  buffer: fc.constantFrom(undefined, { method: 'smp', ph: 6.2 }, { method: 'mehlich', ph: 6 }),
  nutrients: fc
    .tuple(fc.integer({ min: 2, max: 200 }), fc.integer({ min: 10, max: 400 }), fc.integer({ min: 10, max: 600 }))
    .map(([p, k, mg]) => ({ p: ppm(p), k: ppm(k), mg: ppm(mg) })),
});
export const anyHand: fc.Arbitrary<ReadonlyArray<Partial<Change>>> = fc.subarray<Partial<Change>>(
  [
    { remedy: 'core', key: 'a', added: true },
    { remedy: 'sand', key: 'b', added: true, values: { layer: 0.4, peat: 15 } },
    { remedy: 'wetting', key: 'c', added: true, values: { tank: 100 } },
    { remedy: 'seed', key: 'd', added: true },
    { remedy: 'mulch', key: 'h', added: true, values: { feed: 'Starter 18-24-12', fertilizer: 90 } },
    { remedy: 'compost', key: 'e', added: true, values: { layer: 0.5 } },
    { remedy: 'sulfur', key: 'f', added: true, values: { rate: 400 } },
    { remedy: 'iron', key: 'g', added: true, values: { rate: 40 } },
    { remedy: 'potassium', out: 'left out' },
    { remedy: 'nitrogen', months: [1, 7] },
  ],
  { maxLength: 5 },
);
