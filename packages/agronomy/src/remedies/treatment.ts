import type { Supplied } from '../nutrients/productBalance.ts';
import type { RemedyName } from './remedyTable.ts';
import type { Sense } from '../units/present.ts';
import type { Figure } from '../working/working.ts';

/** Bringing a material: what one load costs, and how much it holds in the unit of the pack; all at once where that is not told. */
export interface Delivery {
  readonly price: number;
  readonly load: number | null;
}

/** What a treatment takes of a material in its zone, to buy and to weigh out. */
export interface Supply {
  readonly materialId: string;
  readonly name: string;
  /** kg, L or m³ for the zone. */
  readonly quantity: Figure;
  readonly unit: 'kg' | 'L' | 'm3';
  readonly packs: Figure;
  readonly packSize: number;
  /** Nothing until it has a price. */
  readonly cost: Figure | null;
  /** What comes by the load: price of a unit, and of bringing a load; nothing where it is not known. */
  readonly delivery?: Delivery;
  /** By the load and the cubic metre, as fill is sold; nothing where it is not known. */
  readonly byLoad?: { readonly perUnit: number; readonly perLoad: number } | null;
  /** No product of the practice’s, such as fill by the load: `materialId` only tells it from others. */
  readonly unlisted?: true;
}

/** The practice’s product that is to be bought; nothing where nothing is, or where it is none of its products. */
export const productIdOf = (supply: Supply | null | undefined): string | null =>
  !supply || supply.unlisted ? null : supply.materialId;

/** Labour, hire and haulage that a treatment takes. */
export interface WorkLine {
  readonly name: string;
  /** "hour", "day", "100 m²". */
  readonly per: string;
  readonly amount: number;
  /** Of one; nothing for those who see no prices. */
  readonly price: number | null;
  /** Hired for whole days only. */
  readonly whole: boolean;
  /** Nothing for those who see no prices. */
  readonly cost: Figure | null;
}

/** One going-over of a treatment. */
export interface Dose {
  /** In the unit of the treatment’s rate. */
  readonly rate: number;
  /** kg, L or m³ for the zone; nothing where nothing is put down. */
  readonly quantity: number | null;
  /** First and last day, `2027-03-01`; nothing where months are not known or none has room. */
  readonly from: string | null;
  readonly to: string | null;
  /** Set by hand. */
  readonly own: boolean;
}

/** A number beside the rate that helps to decide: holes a square metre, organic matter afterwards. */
export interface Fact {
  readonly name: string;
  /** Ready to read. */
  readonly told: string;
  readonly figure: Figure;
}

/** What the advisor has changed by hand, and what would stand there without. */
export interface ByHand {
  readonly reason: string;
  readonly by: string | null;
  /** In a sentence; nothing for what was added. */
  readonly instead: string | null;
  /** What of it a cap did not let through, in a sentence with the remedy. */
  readonly held: string | null;
}

/** `down`: what was set of it by hand went down since. */
export type TreatmentStatus = 'planned' | 'open' | 'refused' | 'left out' | 'next year' | 'down';

/** A remedy with its product, rate and doses in a zone. */
export interface Treatment {
  /** The remedy’s name, or an own one for what was added. */
  readonly key: string;
  readonly remedy: RemedyName;
  readonly name: string;
  readonly stage: number;
  /** `open`: wanted, and something is missing before it has a rate. */
  readonly status: TreatmentStatus;
  /** Why, in sentences. */
  readonly words: string;
  readonly sense: Sense;
  /** What one dose is called. */
  readonly dose: string;
  /** Of the year, g/m², cm, mm or mL/m², by sense. */
  readonly rate: Figure | null;
  /** What the zone wants before any product: "for 2 lb/1000 ft² of N a year". */
  readonly need: Fact | null;
  readonly doses: readonly Dose[];
  /** What is to be said of the months. */
  readonly when: string | null;
  readonly supply: Supply | null;
  readonly others: readonly Supply[];
  /** g/m² of each nutrient in the first year. */
  readonly brings: Supplied;
  /** Acidity it makes, g/m² as CaCO₃; lime counts below zero. */
  readonly acidity: number;
  /** cm laid on the surface. */
  readonly surface: number;
  /** Of work for others, or a machine. */
  readonly price: Figure | null;
  /** Labour, hire and haulage by the practice’s own prices; nothing on papers of before. */
  readonly work?: readonly WorkLine[];
  /** Work that was set by hand and has no price any more. */
  readonly workUnpriced?: readonly string[];
  /** Whose months it keeps, where they are others than its remedy’s. */
  readonly job?: string | undefined;
  /** Truck loads that it takes. */
  readonly loads?: number | undefined;
  /** What of it waits for the retest, in a sentence. */
  readonly waits?: string | null;
  readonly facts: readonly Fact[];
  readonly cautions: readonly string[];
  readonly more: readonly string[];
  /** What it is made with, by the fields of its remedy. */
  readonly values: Readonly<Record<string, unknown>>;
  readonly byHand: ByHand | null;
}

/** What was looked at and is not given, with its reason. */
export interface Judged {
  readonly remedy: string;
  readonly name: string;
  readonly status: 'none' | 'refused' | 'cannot say';
  readonly words: string;
  readonly cautions: readonly string[];
}

export const NOTHING: Supplied = { n: 0, p2o5: 0, k2o: 0, ca: 0, mg: 0, s: 0, fe: 0 };
