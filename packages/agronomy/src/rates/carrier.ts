import type { Product } from '../materials/product.ts';
import type { Balanced } from '../nutrients/productBalance.ts';
import type { Macro } from './needs.ts';

/** A rate of one’s own: g/m² of product a year, and in how many passes at least. */
export interface OwnFeed {
  readonly rate?: number | undefined;
  readonly passes?: number | undefined;
}

/** What was decided by hand of the feeding. */
export interface OwnFeeding {
  readonly own: Readonly<Partial<Record<Macro, OwnFeed>>>;
  /** What is left out. */
  readonly out: ReadonlySet<Macro>;
}

/** A product for the nutrient it is chosen for. */
export interface Carrier {
  readonly nutrient: Macro;
  readonly product: Product;
  readonly content: Readonly<Record<Balanced, number>>;
  readonly own: OwnFeed;
}
