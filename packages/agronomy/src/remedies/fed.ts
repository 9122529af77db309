import { optional, quantity } from '../calculators/fields.ts';
import { materialId, wholeTimes } from './remedy.ts';

/** What may be set by hand of lime and of the feeding: the product, g/m² of it in the year, and how often. */
export const perAreaFields = {
  material: materialId(),
  rate: optional(quantity('g/m2', { above: 0, max: 10_000 })),
  times: wholeTimes(12),
};
