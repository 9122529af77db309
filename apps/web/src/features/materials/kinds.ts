import { type AnalysisKey, type MaterialKind, analysisEntries, analysisKeys } from '@glenfold/agronomy';
import type { ProductAnswer } from '@glenfold/contract';
import { packName } from '../../ui/treatments.ts';

/** How the list is parted. */
export interface Group {
  readonly name: string;
  readonly title: string;
  readonly about: string;
  readonly kinds: readonly MaterialKind[];
}

export const groups: readonly Group[] = [
  { name: 'lime', title: 'Lime', about: 'by CCE and mesh', kinds: ['lime'] },
  { name: 'fertilizer', title: 'Fertilizer', about: 'straights, blends, starters, natural', kinds: ['fertilizer'] },
  {
    name: 'soil-chemistry',
    title: 'Sulfur, iron, gypsum',
    about: 'for one purpose each',
    kinds: ['sulfur', 'iron', 'gypsum'],
  },
  {
    name: 'bulk',
    title: 'Compost, sand, soil',
    about: 'loads and bales',
    kinds: ['compost', 'peat', 'sand', 'topsoil', 'calcined clay'],
  },
  { name: 'wetting', title: 'Wetting agents', about: 'by the label’s rate', kinds: ['wetting agent'] },
  { name: 'seed', title: 'Seed', about: 'species and mixes', kinds: ['seed'] },
  { name: 'mulch', title: 'Mulch, binder', about: 'for spraying on banks', kinds: ['mulch', 'binder'] },
];

export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** What one pack of a kind is called. */
export const packWord = ({ packUnit, packSize }: Pick<ProductAnswer, 'packUnit' | 'packSize'>): string =>
  packName({ unit: packUnit, packSize });

const grades: ReadonlySet<AnalysisKey> = new Set(['n', 'p2o5', 'k2o']);
/** What of an analysis is told in the list; the rest is behind "Change". */
const told: ReadonlySet<AnalysisKey> = new Set([
  ...([
    'ca',
    'mg',
    's',
    'fe',
    'mn',
    'zn',
    'cu',
    'b',
    'na',
    'organicMatter',
    'cec',
    'germination',
    'labelRate',
  ] as const),
]);

/** What a product is, in a line: "16-4-8, 35 % of the N slow", "89 % effective". */
export function analysisWords({ kind, analysis, effectiveness, seeds, natural, chelate }: ProductAnswer): string {
  const value = (key: AnalysisKey): number => analysis[key] ?? 0;
  const parts: string[] = [];
  if (kind === 'lime')
    parts.push(
      `${Math.round(effectiveness ?? 0)} % effective: CCE ${value('cce')} %, ${value('passing60')} % through 60 mesh`,
    );
  if (kind === 'fertilizer') {
    parts.push(`${value('n')}-${value('p2o5')}-${value('k2o')}`);
    if (value('slowRelease') > 0) parts.push(`${value('slowRelease')} % of the N slow`);
  }
  if (kind === 'compost' && [...grades].some((key) => value(key) > 0))
    parts.push(`${value('n')}-${value('p2o5')}-${value('k2o')} of the dry`);
  if (seeds)
    parts.push(seeds.map(({ grass, share }) => (seeds.length === 1 ? grass : `${share} % ${grass}`)).join(', '));
  for (const key of analysisKeys)
    if (told.has(key) && analysis[key] != null && !(kind === 'compost' && grades.has(key)))
      parts.push(`${analysisEntries[key].label} ${analysis[key]}${unitOf(key)}`);
  if (chelate) parts.push(chelate);
  if (natural && kind === 'fertilizer') parts.push('natural');
  return parts.join(', ');
}

const units: Readonly<Record<string, string>> = {
  '%': ' %',
  'cmol/kg': ' cmol/kg',
  'mL/m2': ' mL/m²',
  'dS/m': ' dS/m',
};
/** The unit of an analysis' number as it is read. */
export const unitOf = (key: AnalysisKey): string => units[analysisEntries[key].unit] ?? '';
