import type { SoilGroup } from '@glenfold/agronomy';
import { chanceFrom } from '@glenfold/agronomy/geometry';
import { type Soil, type SoilAnalyte, acidityOf, normal } from './hiddenSoil.ts';
import { type HouseStyle, extracted, inItsUnit, panelAnalytes, wordFor } from './houseStyles.ts';
import type { PrintedSample } from './reportFiles.ts';
import type { SubmittedSample } from '../../ports/laboratory.ts';
import { dayIn } from '@glenfold/contract';

const names: Readonly<Partial<Record<SoilAnalyte, string>>> = {
  ...{ p: 'P', k: 'K', ca: 'Ca', mg: 'Mg', s: 'S', fe: 'Fe', mn: 'Mn', zn: 'Zn', cu: 'Cu', b: 'B', na: 'Na' },
  organicMatter: 'Organic matter',
  salts: 'EC of the saturated paste',
};
/** Where the simulated laboratories keep their calendar. */
export const LABORATORY_TIME = 'UTC';
/** Of one run against another of the same bag, as a share. */
const RUN = 0.04;
/** The same for pH, in units. */
const PH_RUN = 0.04;

/** What a laboratory prints of a bag: its own extractant, unit, words and rounding, with the error of one run. */
export function assay(
  style: HouseStyle,
  bag: Soil,
  soilGroup: SoilGroup | null,
  { code, sampledOn, depth, panels, sentAt }: SubmittedSample,
  labNumber: string,
  seed: number,
): PrintedSample {
  const chance = chanceFrom(seed);
  const soilPh = Math.round((bag.ph + PH_RUN * normal(chance)) * 10) / 10;
  const bufferPh = Math.round((style.buffer(acidityOf(bag, soilGroup)) + 0.5 * PH_RUN * normal(chance)) * 100) / 100;
  const cell = (analyte: SoilAnalyte): PrintedSample['cells'][number] => {
    const found = extracted(style, bag, analyte) * (1 + RUN * normal(chance));
    const plain = analyte === 'organicMatter' || analyte === 'salts';
    const nutrient = analyte === 'p' || analyte === 'k' || analyte === 'ca' || analyte === 'mg';
    const name =
      style.oxides && (analyte === 'p' || analyte === 'k') ? { p: 'P2O5', k: 'K2O' }[analyte] : names[analyte]!;
    const decimals = plain ? 1 : (style.decimals[analyte] ?? 0);
    const least = style.detects[analyte] ?? 0;
    const print = (value: number): string => (plain ? value : inItsUnit(style, analyte, value)).toFixed(decimals);
    return {
      name,
      unit: analyte === 'organicMatter' ? '%' : analyte === 'salts' ? 'dS/m' : style.unit,
      text: found < least ? `<${print(least)}` : print(found),
      ...(nutrient ? { word: wordFor(style, analyte, found) } : {}),
    };
  };
  const lime = style.lime(soilPh, bufferPh, depth);
  return {
    code,
    labNumber,
    sampledOn: sampledOn ?? dayIn(sentAt, LABORATORY_TIME),
    depth,
    cells: [
      { name: 'pH', unit: '', text: soilPh.toFixed(1) },
      { name: 'Buffer pH', unit: '', text: bufferPh.toFixed(2) },
      ...panels.flatMap((panel) => panelAnalytes[panel] ?? []).map(cell),
      { name: 'Lime advised', unit: style.limeUnit, text: lime === null ? '' : String(lime) },
    ],
  };
}
