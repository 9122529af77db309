import type { LabField } from '@glenfold/agronomy';

/** What the columns of a report are called on screen. */
export const fieldNames: Readonly<Record<LabField, string>> = {
  label: 'Bag label',
  labNumber: 'Lab number',
  sampledOn: 'Sampled on',
  depth: 'Depth',
  soilPh: 'Soil pH',
  saltPh: 'pH in salt or CaCl₂',
  bufferPh: 'Buffer pH',
  p: 'P',
  k: 'K',
  ca: 'Ca',
  mg: 'Mg',
  organicMatter: 'Organic matter',
};

/** A pH or buffer pH as it was reported: to the hundredth where that was told. */
export const asRead = (value: number): string => value.toFixed(2).replace(/0$/, '');
