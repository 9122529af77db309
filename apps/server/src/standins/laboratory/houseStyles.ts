import {
  type BufferMethod,
  type LabUnit,
  InputError,
  convert,
  limeAdamsEvans,
  limeMehlich,
  limeSmp,
  nutrientConvert,
  ratingSufficiency,
} from '@glenfold/agronomy';
import type { LaboratoryAnswer } from '@glenfold/contract';
import { type Soil, type SoilAnalyte } from './hiddenSoil.ts';
import { type PrintedReport, asCsv, asFixedWidth, asJson } from './reportFiles.ts';

/** It always measures a buffer. */
type Profile = LaboratoryAnswer & { readonly bufferMethod: BufferMethod };

/** How one made-up laboratory works: what it extracts, how it prints it, and what it advises. */
export interface HouseStyle {
  readonly profile: Profile;
  /** What its extractant finds of what Mehlich-3 finds. */
  readonly extracts: Partial<Soil>;
  readonly unit: LabUnit;
  /** P and K as oxides. */
  readonly oxides: boolean;
  readonly decimals: Partial<Soil>;
  /** Least that is told, mg/kg of the element by its own extractant. */
  readonly detects: Partial<Soil>;
  /** From exchangeable acidity, cmol(+)/kg. */
  readonly buffer: (acidity: number) => number;
  /** Its five words, worst first. */
  readonly words: readonly [string, string, string, string, string];
  /** Its lime advice in its own unit and rounding; nothing where it gives none. */
  readonly lime: (soilPh: number, bufferPh: number, depth: number) => number | null;
  readonly limeUnit: string;
  readonly write: (report: PrintedReport) => { readonly fileName: string; readonly content: string };
}

const turf = { for: 'established turf', from: 7, to: 10.5 };
const tilled = { for: 'lawns and seedbeds', from: 14.5, to: 15.5 };

const profile = (
  name: string,
  words: Pick<Profile, 'extractant' | 'bufferMethod' | 'units' | 'reports' | 'volume' | 'depths'>,
  fees: readonly [number, number, number, number],
): Profile => ({
  ...{ id: null, version: 0, address: null, scientist: null, phone: null },
  name,
  simulated: true,
  ...words,
  fees: ['routine', 'secondary and micronutrients', 'organic matter', 'salts'].map((panel, index) => ({
    panel,
    fee: fees[index]!,
  })),
  daysLeast: 7,
  daysMost: 12,
});

/** An advice, or nothing where its table has none for the reading. */
function advice(give: () => number): number | null {
  try {
    return give();
  } catch (error) {
    if (error instanceof InputError) return null;
    throw error;
  }
}

const AIM = 6.5;

export const houseStyles: readonly HouseStyle[] = [
  {
    profile: profile(
      'Fennimore soil laboratory',
      {
        extractant: 'mehlich-3',
        bufferMethod: 'sikora',
        units: 'all nutrients in mg/kg',
        reports: 'a CSV file with lines of its own above the table',
        volume: 500,
        depths: [turf, tilled],
      },
      [16, 9, 7, 6],
    ),
    extracts: {},
    unit: 'mg/kg',
    oxides: false,
    decimals: { zn: 1, cu: 1, b: 1 },
    detects: { p: 1, k: 5, b: 0.1 },
    // The acidity in lime of 65 % over 8 in, through the method's own line to pH 6.8.
    buffer: (acidity) => Math.min(7.2, (71.4 - (0.6 * acidity) / 0.65) / 10.3),
    words: ['very low', 'low', 'medium', 'high', 'very high'],
    lime: (soilPh, bufferPh, depth) =>
      advice(() => {
        const { requirement } = limeSmp({ soilPh, bufferPh, targetPh: AIM, depth }).result;
        return 5 * Math.round(convert(requirement, 'g/m2', 'lb/1000ft2') / 5);
      }),
    limeUnit: 'lb/1000 ft2',
    write: asCsv,
  },
  {
    profile: profile(
      'Tern Sound testing station',
      {
        extractant: 'mehlich-1',
        bufferMethod: 'adams-evans',
        units: 'nutrients in lb/acre',
        reports: 'a JSON file',
        volume: 450,
        depths: [{ for: 'lawns', from: 9.5, to: 10.5 }, tilled],
      },
      [9, 6, 5, 5],
    ),
    extracts: { p: 0.5, k: 0.85, ca: 0.8, mg: 0.9, zn: 0.9, mn: 0.6, cu: 0.5 },
    unit: 'lb/acre',
    oxides: false,
    decimals: { zn: 1, cu: 1, b: 1 },
    detects: { p: 1, k: 4, b: 0.1 },
    // Half a unit of pH for 4 cmol(+): what Adams and Evans made their buffer for.
    buffer: (acidity) => Math.max(7, 8 - acidity / 8),
    words: ['deficient', 'wanting', 'adequate', 'plentiful', 'excessive'],
    lime: (soilPh, bufferPh, depth) =>
      advice(() => {
        const { requirement } = limeAdamsEvans({ soilPh, bufferPh, targetPh: AIM, depth }).result;
        return Math.ceil(convert(requirement, 'g/m2', 'ton/acre') * 2) / 2;
      }),
    limeUnit: 'ton/acre',
    write: asJson,
  },
  {
    profile: profile(
      'Grey Skerry farm laboratory',
      {
        extractant: 'morgan',
        bufferMethod: 'mehlich',
        units: 'P₂O₅ and K₂O, Ca and Mg in kg/ha',
        reports: 'a text file in columns',
        volume: 700,
        depths: [{ for: 'all ground', from: 14.5, to: 20.5 }],
      },
      [12, 8, 6, 6],
    ),
    extracts: { p: 0.1, k: 0.75, ca: 0.8, mg: 0.85, s: 0.8, fe: 0.05, mn: 0.4, zn: 0.3, cu: 0.1 },
    unit: 'kg/ha',
    oxides: true,
    decimals: { p: 1, zn: 1, cu: 2, b: 1, fe: 1 },
    detects: { p: 1.5, k: 6, b: 0.1, cu: 0.05 },
    buffer: (acidity) => Math.max(3.8, 6.6 - 0.25 * acidity),
    words: ['poor', 'fair', 'good', 'rich', 'very rich'],
    lime: (soilPh, bufferPh, depth) =>
      advice(() => {
        const { requirement } = limeMehlich({ soilPh, bufferPh, targetPh: AIM, depth }).result;
        return Math.round(requirement / 10);
      }),
    limeUnit: 'kg/100 m2',
    write: asFixedWidth,
  },
];

export const panelAnalytes: Readonly<Record<string, readonly SoilAnalyte[]>> = {
  routine: ['p', 'k'],
  'secondary and micronutrients': ['ca', 'mg', 's', 'fe', 'mn', 'zn', 'cu', 'b'],
  'organic matter': ['organicMatter'],
  salts: ['salts', 'na'],
};

/** What its extractant finds, mg/kg of the element. */
export function extracted(style: HouseStyle, soil: Soil, analyte: SoilAnalyte): number {
  return soil[analyte] * (style.extracts[analyte] ?? 1);
}

/** A content of mg/kg as the laboratory prints it. */
export function inItsUnit({ unit, oxides }: HouseStyle, analyte: SoilAnalyte, content: number): number {
  const nutrient = analyte === 'p' || analyte === 'k' ? analyte : undefined;
  const value =
    oxides && nutrient
      ? nutrientConvert({ value: content, nutrient, from: 'element', to: 'oxide' }).result.value
      : content;
  // The slice of 2 000 000 lb/acre that laboratories reckon with.
  return unit === 'lb/acre' ? 2 * value : unit === 'kg/ha' ? convert(2, 'lb/acre', 'kg/ha') * value : value;
}

/** Its word for a content of mg/kg. */
export function wordFor({ profile: { extractant }, words }: HouseStyle, nutrient: string, value: number): string {
  try {
    const { rating } = ratingSufficiency({ nutrient, extractant, value }).result;
    return words[['very low', 'low', 'medium', 'high', 'very high'].indexOf(rating)] ?? '';
  } catch (error) {
    if (error instanceof InputError) return '';
    throw error;
  }
}
