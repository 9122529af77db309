import { garden } from '../nutrients/garden.ts';
import type { Sward } from '../nutrients/sward.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import type { Bar } from './bars.ts';
import type { NamedTarget } from '../settings/settings.ts';
import { limitTable } from './limitTable.ts';
import { saltRating, saltRatings } from './salt.ts';

/** What every bar has that is told by words of its own instead of the five. */
const ofOwnWords = (at: number, words: readonly string[], wanted: number) => ({
  rating: null,
  wanted: null,
  belowDetection: false,
  scale: { words, wanted, at },
});

/** A bar whose words begin at the limits of a table. */
function bandedBar(
  { value, working }: Figure,
  {
    limits,
    names,
    wanted,
    says,
    formula,
    ...bar
  }: Pick<Bar, 'key' | 'name' | 'sense'> & {
    readonly limits: readonly [number, number];
    readonly names: readonly string[];
    readonly wanted: number;
    /** A sentence for each word. */
    readonly says: readonly string[];
    readonly formula: string;
  },
  unit: string,
): Omit<Bar, 'acts'> {
  const at = limits.filter((limit) => value >= limit - 1e-9).length;
  const book = new WorkingBook();
  book.include(working);
  book.step({
    label: bar.name.split(',')[0]!,
    formula,
    numbers: `${figure(value)} ${unit}`,
    result: names[at]!,
    unit: '',
    source: limitTable.source,
  });
  return {
    ...ofOwnWords(at, names, wanted),
    ...bar,
    figure: { value, working: book.entries },
    limits,
    words: says[at]!,
  };
}

/** How much the soil can hold. @param tested cmol(+)/kg; `target` that somebody wants here by name */
export function exchangeBar(tested: Figure, target?: NamedTarget): Bar {
  const limits = limitTable.cec;
  const bar = bandedBar(
    tested,
    {
      key: 'cec',
      name: 'Exchange capacity, CEC',
      sense: 'exchange',
      limits,
      names: ['poor', 'fair', 'comfortable'],
      wanted: 2,
      says: [
        'Holds little: feed and lime in small doses, more often.',
        'Holds some: split the doses.',
        'Holds nutrients well.',
      ],
      formula: `poor below ${limits[0]}, comfortable from ${limits[1]} cmol/kg`,
    },
    'cmol/kg',
  );
  if (!target) return { ...bar, acts: false };
  const short = tested.value < target.value - 1e-9;
  const way = short ? ': organic matter raises it over years, calcined clay in core holes at once and for good' : '';
  const notes = `${short ? 'Below' : 'At'} the ${figure(target.value)} meq/100 g that “${target.name}” wants${way}.`;
  return {
    ...bar,
    words: `${bar.words} ${notes}`,
    notes,
    acts: short,
  };
}

/** What salt does to a bed whose crops are not known. */
function gardenSalt(ec: number, [some, harmful]: readonly [number, number], word: string): Pick<Figure, 'working'> {
  const book = new WorkingBook();
  book.step({
    label: 'Salt for a garden bed',
    formula: `no harm below ${some}, harmful from ${harmful} dS/m`,
    numbers: `${figure(ec)} dS/m`,
    result: word,
    unit: '',
    source: garden.source,
  });
  return { working: book.entries };
}

/** Salt against the grass, from the saturated paste or roughly from an extract. */
export function saltBar({ main, label, salt }: Sward, ec: Figure & { readonly rough: boolean }): Bar {
  const at = salt.filter((limit) => ec.value >= limit - 1e-9).length;
  const { working } = main
    ? saltRating({ ec: ec.value, grass: main.name })
    : gardenSalt(ec.value, salt, saltRatings[at]!);
  const rough = ec.rough ? ' Roughly, from a diluted extract: a saturated paste settles it.' : '';
  return {
    ...ofOwnWords(at, saltRatings, 0),
    key: 'ecPaste',
    name: 'Salt, EC of the paste',
    figure: { value: ec.value, working: [...ec.working, ...working] },
    sense: 'conductivity',
    limits: salt,
    words: `${
      [
        `No harm to ${main?.label ?? label}.`,
        `Some harm to ${main?.label ?? 'sensitive crops'}: wash it down once water can leave, and take products low in salt.`,
        `Harmful to ${main?.label ?? 'most crops'}: wash it down once water can leave, or grow what stands it.`,
      ][at]!
    }${rough}`,
    acts: at > 0,
    ...(ec.rough ? { uncertain: true, notes: rough.trim() } : {}),
  };
}

/** What exchangeable sodium does, by where it lies among the limits. */
export const sodiumWords = ['fine', 'may shut a clay', 'sodic'] as const;

/** Exchangeable sodium. @param tested % */
export function sodiumBar(tested: Figure): Bar {
  const limits = limitTable.esp;
  const bar = bandedBar(
    tested,
    {
      key: 'esp',
      name: 'Exchangeable sodium, ESP',
      sense: 'percent',
      limits,
      names: sodiumWords,
      wanted: 0,
      says: [
        'Does not harm the structure.',
        'On sand it does little; on clay water may stop going in. Look how rain stands.',
        'Sodic: the soil shuts when it is wet. The drain first, then gypsum, then water to wash the sodium out.',
      ],
      formula: `sodic from ${limits[1]} %; from ${limits[0]} % a clay may shut`,
    },
    '%',
  );
  return { ...bar, acts: tested.value >= limits[0] - 1e-9 };
}
