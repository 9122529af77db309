import catalogue from '../src/data/materials.json' with { type: 'json' };
import {
  type Change,
  type ProgramInput,
  type Stocked,
  type Treatment,
  type ZoneFacts,
  climateOf,
  convert,
  programZone,
  readChange,
  readMaterial,
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
    changes: changes.map((change) => readChange({ reason: 'as agreed', key: change.remedy, ...change })),
    ...{ materials, system: 'metric', from: '2026-11-27', climate: maritime },
    ...more,
  }).program;
}
export const by = (treatments: readonly Treatment[], key: string): Treatment =>
  treatments.find((one) => one.key === key)!;
export const grams = (perThousand: number): number => convert(perThousand, 'lb/1000ft2', 'g/m2');
export const day = (text: string): number => Date.parse(text) / 86_400_000;
