import {
  type Analyte,
  type BufferMethod,
  type Extractant,
  type LabField,
  type ReportedValue,
  analytes,
  basisName,
  bufferNames,
  extractantNames,
  isAnalyte,
  isNutrient,
  unitWord,
} from '@glenfold/agronomy';

const others = {
  label: 'Bag label',
  labNumber: 'Lab number',
  sampledOn: 'Sampled on',
  depth: 'Depth',
  cores: 'Cores',
} as const;

/** What a column of a report is called on screen. */
export function fieldName(field: LabField): string {
  if (!isAnalyte(field)) return others[field];
  return isNutrient(field) ? analytes[field].symbol : analytes[field].name;
}

/** Short, for the head of a column. */
export const headName = (analyte: Analyte): string => analytes[analyte].symbol;

/** The amount as it was reported: a pH to the hundredth where that was told. */
export function amountText(analyte: Analyte, { value, belowDetection, aboveRange, rated }: ReportedValue): string {
  if (rated) return rated;
  const told = analytes[analyte].sense === 'ph' ? value.toFixed(2).replace(/0$/, '') : String(value);
  return `${belowDetection ? '<' : aboveRange ? '>' : ''}${told}`;
}

/** What stands under the amount: "ppm", "P₂O₅ lb/acre", "Sikora". */
export function unitText(analyte: Analyte, { unit, basis, method }: ReportedValue): string {
  const oxide = basis === 'oxide' ? `${basisName(analyte, 'oxide')} ` : '';
  const by =
    method === undefined
      ? ''
      : analyte === 'bufferPh'
        ? bufferNames[method as BufferMethod]
        : `by ${extractantNames[method as Extractant]}`;
  return `${oxide}${unitWord(unit)} ${by}`.trim();
}

/** "S 14 ppm" */
export function valueText(analyte: Analyte, value: ReportedValue): string {
  return `${headName(analyte)} ${amountText(analyte, value)} ${unitText(analyte, value)}`.trim();
}
