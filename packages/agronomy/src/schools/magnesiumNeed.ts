import { type Rating } from '../nutrients/sufficiencyTables.ts';
import { minimumLevels, requirementMinimumLevel } from '../nutrients/minimumLevel.ts';
import { otherNutrients } from '../nutrients/otherNutrients.ts';
import type { Reading } from '../reading/reading.ts';
import type { SoilTest } from '../reading/zoneFacts.ts';
import type { School } from '../settings/settings.ts';
import { densityOf } from '../soil/bulkDensity.ts';
import { convert } from '../units/unit.ts';
import { type Figure, type Working, WorkingBook, figure } from '../working/working.ts';
import { cationNeed } from './cationNeeds.ts';

const { magnesium, source } = otherNutrients;
const grams = (perThousand: number): number => convert(perThousand, 'lb/1000ft2', 'g/m2');

/** Magnesium for the year by a school. */
export interface MagnesiumNeed extends Figure {
  /** "Magnesium is low", "Magnesium holds 6 % of the exchange, where 10 % is wanted". */
  readonly why: string;
}

/** What a school asks for is still held to what a year may bring. */
function held(asked: number, working: Working, why: string): MagnesiumNeed | undefined {
  if (asked <= 0) return undefined;
  const most = grams(magnesium['very low']);
  const book = new WorkingBook();
  book.include(working);
  if (asked > most)
    book.cap(`At most ${magnesium['very low']} lb Mg/1000 ft² a year: the rest waits for the next test.`, source);
  return { value: Math.min(asked, most), working: book.entries, why };
}

/**
 * Magnesium for the year by the practice's school: by its rating, by what keeps it above its floor, or by its share of the
 * exchange. Where a school cannot be applied, the rating decides.
 *
 * @param nitrogen g/m² of the year, which sets the use under minimum levels
 */
export function magnesiumNeed(
  school: School,
  reading: Reading,
  test: SoilTest | undefined,
  { nitrogen, carbonate }: { readonly nitrogen: number; readonly carbonate: boolean },
): MagnesiumNeed | undefined {
  const bar = reading.bars.find(({ key }) => key === 'mg');
  if (test && school === 'cation balance') {
    const found = cationNeed('mg', test, carbonate);
    if (!('why' in found))
      return found.need && held(found.need.value, found.need.working, `Magnesium holds ${found.share.toFixed(0)} % of the exchange, where ${found.foot} % is wanted`); // prettier-ignore
  }
  if (bar?.rating && test && school === 'minimum level' && test.extractant === 'mehlich-3' && test.soilPh >= 5.5) {
    const { result, working } = requirementMinimumLevel({
      ...{ nutrient: 'mg', test: bar.figure.value, nitrogen, depth: test.depth },
      ...(test.organicMatter === undefined ? {} : { bulkDensity: densityOf(test.organicMatter) }),
    });
    return held(result.requirement, working, `Magnesium would fall below the ${minimumLevels.floor.mg} ppm that this school keeps`); // prettier-ignore
  }
  return byRating(bar?.rating, bar?.figure.working ?? []);
}

function byRating(rating: Rating | null | undefined, before: Working): MagnesiumNeed | undefined {
  if (rating !== 'low' && rating !== 'very low') return undefined;
  const perThousand = magnesium[rating];
  const value = grams(perThousand);
  const book = new WorkingBook();
  book.include(before);
  book.step({
    label: 'Magnesium for the year',
    formula: 'by the rating',
    numbers: `${rating}: ${figure(perThousand)} lb Mg/1000 ft²`,
    result: value,
    unit: 'g/m2',
    source,
  });
  return { value, working: book.entries, why: `Magnesium is ${rating}` };
}
