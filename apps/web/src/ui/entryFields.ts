import type { RateUnit, Sense } from '@glenfold/agronomy';

/** How a rate of the book is told and typed, by the unit it is kept in. */
export const senseOfRate: Readonly<Record<RateUnit, Sense>> = {
  ...{ 'g/m2': 'productRate', cm: 'layer', 'mL/m2': 'liquidRate', mm: 'rainfall' },
};

/** What a knife or a spade shows on the spot: field, label, and how it is read. */
export const measuredDepths = [
  ['thatch', 'Thatch', 'The spongy layer between grass and soil, on a cut slice'],
  ['rootDepth', 'Roots to', 'How far down the slice the roots still hold the soil'],
  ['probeStop', 'A probe stops at', 'Pushed with both hands, a day after rain; empty when it does not stop'],
] as const;
