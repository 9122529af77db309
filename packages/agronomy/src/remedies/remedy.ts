import { type Fields, InputError, type Values, optional, quantity } from '../calculators/fields.ts';
import { text } from '../calculators/structures.ts';
import type { MaterialKind } from '../materials/analysis.ts';
import type { Material } from '../materials/material.ts';
import { productOf } from '../materials/product.ts';
import { contentOf } from '../materials/product.ts';
import { type Balanced, type Supplied, balanced } from '../nutrients/productBalance.ts';
import type { Sward } from '../nutrients/sward.ts';
import { deliveriesOf, isLoose, tellSupply, wholePacks } from './supply.ts';
import type { Delivery, Fact, Supply } from './treatment.ts';
import type { Ground, Reading } from '../reading/reading.ts';
import type { SoilTest, ZoneFacts } from '../reading/zoneFacts.ts';
import type { YearAhead } from './months.ts';
import type { AdviceSettings } from '../settings/settings.ts';
import { type Sense, type UnitSystem, money } from '../units/present.ts';
import { type Figure, type Working, WorkingBook, figure } from '../working/working.ts';
import type { RemedyName } from './remedyTable.ts';

/** A material of the practice’s list. */
export interface Stocked {
  readonly id: string;
  readonly material: Material;
  /** Of a pack; nothing until it is set. */
  readonly price: number | null;
  /** What bringing it costs; nothing where it is fetched with the rest. */
  readonly delivery?: Delivery | null | undefined;
}

/** What a remedy is judged by. */
export interface Asked {
  readonly zone: ZoneFacts;
  readonly test: SoilTest | undefined;
  readonly ground: Ground | undefined;
  readonly sward: Sward;
  readonly reading: Reading;
  readonly settings: AdviceSettings;
  readonly system: UnitSystem;
  readonly materials: readonly Stocked[];
  readonly year: YearAhead | undefined;
  /** First day of the program. */
  readonly from: string;
  /** m² that are cleared in this program; nothing where the sward stays. */
  readonly cleared?: number | undefined;
}

/** Whether a remedy is wanted in a zone, and why. */
export interface Proposal {
  readonly status: 'due' | 'none' | 'refused' | 'cannot say';
  /** Empty where nobody would ask. */
  readonly words: string;
  readonly cautions?: readonly string[];
  readonly need?: Fact | null;
}

/** A remedy as it is made with values: how much, of what, in which doses. */
export interface Made {
  readonly status: 'planned' | 'open' | 'refused';
  /** What is to be said beside the reason. */
  readonly words?: string;
  readonly sense: Sense;
  readonly rate: Figure | null;
  /** The rate of each dose. */
  readonly doses: readonly number[];
  readonly supply?: Supply | null;
  readonly others?: readonly Supply[];
  readonly brings?: Supplied;
  readonly acidity?: number;
  readonly surface?: number;
  readonly price?: Figure | null;
  readonly loads?: number;
  /** Whose months it keeps, where they are others than its remedy’s. */
  readonly job?: string;
  /** What of it waits for the retest, in a sentence. */
  readonly waits?: string | null;
  readonly facts?: readonly Fact[];
  readonly cautions?: readonly string[];
  readonly more?: readonly string[];
  /** What a cap did not let through. */
  readonly held?: string | null;
  /** All values, those that stand in included. */
  readonly values: Readonly<Record<string, unknown>>;
}

/**
 * A kind of cure. Every remedy is told on this one pattern: when it is wanted, what may be set of it by hand, and what
 * it comes to with its caps, doses, cautions and working.
 */
export interface Remedy<F extends Fields = Fields> {
  readonly name: RemedyName;
  /** What may be set by hand; each stands in by itself where it is left out. */
  readonly fields: F;
  /** What its `material` may be. */
  readonly kinds: readonly MaterialKind[];
  /** What further fields name a material, and of which kinds: what goes into the same tank or mix. */
  readonly beside?: Readonly<Record<string, readonly MaterialKind[]>>;
  /** Nothing where nobody would ask. */
  readonly propose: (asked: Asked) => Proposal | undefined;
  readonly make: (values: Values<F>, asked: Asked) => Made;
}

/** A remedy whose values are read before it is made. */
export const defineRemedy = <F extends Fields>(remedy: Remedy<F>): Remedy => ({
  ...remedy,
  make: (values, asked) => remedy.make(values as Values<F>, asked),
});

export const materialId = () => optional(text(60));
export const wholeTimes = (max = 12) => optional(quantity('', { min: 1, max, whole: true }));

/** The material that was chosen, else the first of the kinds. @throws {InputError} for one that is not in the list */
export function materialFor(
  chosen: string | undefined,
  kinds: readonly MaterialKind[],
  { materials }: Pick<Asked, 'materials'>,
  suits: (material: Material) => boolean = () => true,
): Stocked | undefined {
  const of = materials.filter(({ material }) => kinds.includes(material.kind) && suits(material));
  if (chosen === undefined) return of[0];
  const found = materials.find(({ id, material }) => id === chosen && kinds.includes(material.kind));
  if (!found) throw new InputError('material', `is no ${kinds.join(' or ')} of your list; wanted one of it`);
  return found;
}

/**
 * What a zone takes of a material, in packs as it is sold.
 *
 * @param amount kg, L or m³, as `in` says; turned into the unit of the pack by the material’s density.
 * @throws {InputError} where a density is wanted and the analysis has none.
 */
export function supplyOf(
  { id, material, price, delivery }: Stocked,
  amount: { readonly value: number; readonly in: Supply['unit'] },
  before: Working,
  { system, settings }: Pick<Asked, 'system' | 'settings'>,
): Supply {
  const book = new WorkingBook();
  book.include(before);
  const { name, packSize, packUnit } = material;
  const quantityIn = turned(amount, material, book);
  const snapshot = (value: number): Figure => ({ value, working: book.entries });
  const quantity_ = snapshot(quantityIn);
  const pack = { unit: packUnit, packSize };
  const bulk = isLoose(pack);
  const told = (value: number): string => tellSupply(value, packUnit, system);
  const count = wholePacks(quantityIn / packSize, pack);
  book.step({
    label: bulk ? 'To order, loose' : 'Whole packs',
    formula: bulk ? 'volume, rounded up to a tenth' : 'amount / pack, rounded up',
    numbers: bulk ? told(quantityIn) : `${told(quantityIn)} / ${told(packSize)} = ${figure(quantityIn / packSize)}`,
    result: count,
    unit: bulk ? 'm³' : count === 1 ? 'pack' : 'packs',
  });
  const packs = snapshot(count);
  let cost: Figure | null = null;
  if (price !== null) {
    book.step({
      label: 'Cost',
      formula: 'packs × price of a pack',
      numbers: `${figure(count)} × ${money(price, settings.currency)}`,
      result: count * price,
      unit: '$',
      source: 'The practice’s own price list',
    });
    const brought = delivery ? deliveriesOf(count * packSize, delivery) * delivery.price : 0;
    if (delivery)
      book.step({
        label: 'With delivery',
        formula: 'packs × price + deliveries × price of one',
        numbers: `${money(count * price, settings.currency)} + ${deliveriesOf(count * packSize, delivery)} × ${money(delivery.price, settings.currency)}`,
        result: count * price + brought,
        unit: '$',
        source: 'The practice’s own price list',
      });
    cost = snapshot(count * price + brought);
  }
  return {
    ...{ materialId: id, name, quantity: quantity_, unit: packUnit, packs, packSize, cost },
    ...(delivery ? { delivery } : {}),
  };
}

/** An amount in the unit that the material is packed in. */
function turned(
  amount: { readonly value: number; readonly in: Supply['unit'] },
  { name, analysis, packUnit }: Material,
  book: WorkingBook,
): number {
  const { value, in: unit } = amount;
  if (unit === packUnit) return value;
  const litres = unit === 'm3' ? value * 1000 : value;
  if (unit !== 'kg' && packUnit !== 'kg') return packUnit === 'm3' ? litres / 1000 : litres;
  const density = analysis.bulkDensity;
  if (density === undefined)
    throw new InputError('material', `${name} has no bulk density on record; wanted it, to turn volume into weight`);
  const result = unit === 'kg' ? value / density / (packUnit === 'm3' ? 1000 : 1) : litres * density;
  book.step({
    label: unit === 'kg' ? 'As volume' : 'As weight',
    formula: unit === 'kg' ? 'weight / bulk density' : 'volume × bulk density',
    numbers:
      unit === 'kg'
        ? `${figure(value)} kg / ${figure(density)} g/cm³`
        : `${figure(litres)} L × ${figure(density)} g/cm³`,
    result,
    unit: packUnit,
  });
  return result;
}

/** What a rate of a material brings, g/m² in the first year. @param rate g/m² as spread */
export function bringsOf(material: Material, rate: number): Supplied {
  const product = productOf('', material, null);
  const held: Readonly<Partial<Record<Balanced, number>>> = product ? contentOf(product) : material.analysis;
  return Object.fromEntries(balanced.map((key) => [key, (rate * (held[key] ?? 0)) / 100])) as Record<Balanced, number>;
}

/** A number beside a treatment, with how it came about. */
export const fact = (name: string, told: string, value: number, working: Working): Fact => ({
  name,
  told,
  figure: { value, working },
});

/** Nothing can be given, with the reason. */
export const cannot = (words: string, values: Made['values'] = {}, sense: Sense = 'productRate'): Made => ({
  status: 'open',
  words,
  sense,
  rate: null,
  doses: [],
  values,
});

/** So many equal doses of a year. */
export const equalDoses = (total: number, times: number): number[] =>
  Array.from({ length: times }, () => total / times);
