import { sulfurLimits } from '../acidify/tables.ts';
import { limeLimits } from '../lime/materials.ts';
import { forecastTable } from '../forecast/forecastTable.ts';
import { nitrogenCredits } from '../nutrients/nitrogenTables.ts';
import { swardOf } from '../nutrients/sward.ts';
import { compostLayers } from '../organic/program.ts';
import type { ZoneFacts } from '../reading/zoneFacts.ts';
import type { AdviceSettings } from '../settings/settings.ts';
import { sodiumTable } from '../soil/sodium.ts';
import { type Sense, coreUnit } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import type { LedgerKey } from '../ledger/brought.ts';
import type { LedgerPart } from '../ledger/ledger.ts';

/** One line of a zone’s book for a year. */
export interface LedgerLine {
  readonly key: LedgerKey | 'limeProduct' | 'limeOpen';
  readonly label: string;
  readonly sense: Sense;
  readonly done: number;
  /** How it adds up. */
  readonly working: Figure['working'];
  /** What of the program is still to be done. */
  readonly planned: number;
  /** Most of a year, and whose number that is; nothing where no cap is known. */
  readonly most: number | null;
  readonly by: string | null;
  /** What a year still takes; below nothing where it is over. */
  readonly allowed: number | null;
}

const grams = (perThousand: number): number => convert(perThousand, 'lb/1000ft2', 'g/m2');

interface Cap {
  readonly most: number;
  readonly by: string;
}

/** The most of a year, by what it is counted as. */
export function yearCaps(zone: ZoneFacts, { caps }: AdviceSettings): Readonly<Partial<Record<LedgerLine['key'], Cap>>> {
  const sward = swardOf(zone);
  const own = (
    cap: { readonly most: number; readonly by: string } | undefined,
    general: Cap | undefined,
  ): Cap | undefined => (cap && (!general || cap.most < general.most) ? { most: cap.most, by: cap.by } : general);
  const turf = zone.surface === 'fine turf' ? 'fine turf' : 'turf';
  const tilled = zone.surface === 'seedbed' || zone.garden;
  const limeTimes = limeLimits.timesPerYear?.[zone.surface] ?? 1;
  const lime = own(caps.limeYear, {
    most: grams(limeLimits.capPerThousand[zone.surface]) * limeTimes,
    by: `${limeTimes === 1 ? 'once' : `${limeTimes} times`} a year on ${zone.surface}`,
  });
  const nitrogen = own(
    caps.nitrogenYear,
    zone.garden || !sward.main
      ? undefined
      : {
          most: grams(sward.nitrogen[1]) * nitrogenCredits.shade[zone.shade],
          by: `the upper end of ${sward.possessive} year${zone.shade === 'full sun' ? '' : `, in ${zone.shade} shade`}`,
        },
  );
  return {
    ...(nitrogen ? { n: nitrogen } : {}),
    ...(lime ? { limeProduct: lime } : {}),
    sulfur: { most: grams(sulfurLimits.perYear[turf]), by: `the yearly cap on ${turf}` },
    ...(tilled
      ? {}
      : { gypsum: { most: grams(sodiumTable.most.turf) * sodiumTable.timesAYear, by: 'the yearly cap on turf' } }),
    compost: tilled
      ? { most: compostLayers.seedbed, by: 'one layer tilled into a bed' }
      : { most: compostLayers.turfYearCored, by: 'what turf takes a year, with coring' },
  };
}

const lines: ReadonlyArray<{ readonly key: LedgerLine['key']; readonly label: string; readonly sense: Sense }> = [
  { key: 'n', label: 'N', sense: 'nutrientRate' },
  { key: 'slowN', label: 'of it slow', sense: 'nutrientRate' },
  { key: 'p2o5', label: 'P₂O₅', sense: 'nutrientRate' },
  { key: 'k2o', label: 'K₂O', sense: 'nutrientRate' },
  { key: 's', label: 'S', sense: 'nutrientRate' },
  { key: 'mg', label: 'Mg', sense: 'nutrientRate' },
  { key: 'ca', label: 'Ca', sense: 'nutrientRate' },
  { key: 'fe', label: 'Fe', sense: 'nutrientRate' },
  { key: 'limeProduct', label: 'Lime, as spread', sense: 'limeRate' },
  { key: 'lime', label: 'Lime, pure', sense: 'limeRate' },
  { key: 'limeOpen', label: 'of all lime still to react', sense: 'limeRate' },
  { key: 'acidity', label: 'Acidity of feed and sulfur, as lime', sense: 'limeRate' },
  { key: 'sulfur', label: 'Elemental sulfur', sense: 'nutrientRate' },
  { key: 'gypsum', label: 'Gypsum', sense: 'limeRate' },
  { key: 'compost', label: 'Compost laid', sense: 'layer' },
  { key: 'sand', label: 'Sand laid', sense: 'layer' },
  { key: 'salt', label: 'Salt load', sense: 'ratio' },
];

/** The lines of a zone’s year: done, still planned, and what the year takes at most. Lines of nothing are left out. */
export function ledgerLines(
  done: readonly LedgerPart[],
  planned: readonly LedgerPart[],
  limeOpen: number,
  caps: ReturnType<typeof yearCaps>,
): LedgerLine[] {
  const one = (key: LedgerLine['key'], { sums, limeProduct }: LedgerPart): number =>
    key === 'limeProduct' ? limeProduct : key === 'limeOpen' ? 0 : sums[key];
  const of = (key: LedgerLine['key'], parts: readonly LedgerPart[]): number =>
    parts.reduce((sum, part) => sum + one(key, part), 0);
  return lines.flatMap(({ key, label, sense }): LedgerLine[] => {
    const isDone = key === 'limeOpen' ? limeOpen : of(key, done);
    const toCome = of(key, planned);
    const cap = caps[key];
    if (Math.abs(isDone) < 1e-9 && Math.abs(toCome) < 1e-9 && key !== 'n') return [];
    return [
      {
        ...{ key, label, sense, done: isDone, planned: toCome },
        working: key === 'limeOpen' ? reacting(limeOpen) : addedUp(key, done, isDone, sense, (part) => one(key, part)),
        most: cap?.most ?? null,
        by: cap?.by ?? null,
        allowed: cap ? cap.most - isDone : null,
      },
    ];
  });
}

/** How a line adds up, entry by entry. */
function addedUp(
  key: LedgerLine['key'],
  parts: readonly LedgerPart[],
  sum: number,
  sense: Sense,
  of: (part: LedgerPart) => number,
): Figure['working'] {
  const book = new WorkingBook();
  const counted = parts.filter((part) => Math.abs(of(part)) > 1e-9);
  book.step({
    label: `Down in the year, over the whole zone`,
    formula: 'sum of what each entry brought',
    numbers: counted.map((part) => `${part.words} ${part.on}: ${figure(of(part))}`).join(' + ') || 'nothing',
    result: sum,
    unit: coreUnit(sense),
    ...(key === 'acidity' ? { source: 'Pierre (1933); oxidation of sulfur' } : {}),
  });
  return book.entries;
}

function reacting(limeOpen: number): Figure['working'] {
  const book = new WorkingBook();
  book.step({
    label: 'Lime that has not reacted by the end of the year',
    formula: 'each lime × strength × what is left of its mesh, half in 2, 9 and 36 months',
    numbers: 'fine, medium and coarse of all that went down',
    result: limeOpen,
    unit: 'g/m2',
    source: forecastTable.source,
  });
  return book.entries;
}
