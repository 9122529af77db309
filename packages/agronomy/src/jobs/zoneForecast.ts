import { limeRequirement } from '../rates/lime.ts';
import { freeCarbonate } from '../reading/carbonate.ts';
import { phBuffering } from '../lime/estimate.ts';
import { type Entry, lastDayOf, wentDown } from '../ledger/entries.ts';
import type { Applied } from '../ground/applied.ts';
import { appliedOf } from '../ledger/ledger.ts';
import { retestDue } from '../readings/retestDue.ts';
import { broughtBy, limeOf } from '../ledger/brought.ts';
import type { SoilTest, ZoneFacts } from '../reading/zoneFacts.ts';
import { daysBetween, type NormalYear } from '../season/normalDays.ts';
import { InputError } from '../calculators/fields.ts';
import { densityOf } from '../soil/bulkDensity.ts';
import { cropFactors } from '../water/irrigation.ts';
import { type Working, WorkingBook, figure } from '../working/working.ts';
import { capacityOf, type ForecastDay, phBand } from '../forecast/forecastPh.ts';
import { forecastTable } from '../forecast/forecastTable.ts';
import { type Course, LIME_PER_MOL, SULFUR_PER_MOL, phCourse } from '../forecast/phCourse.ts';

/** How much a soil resists a change of pH. */
export interface Resistance {
  /** mol of charge/m² for each unit of pH. */
  readonly capacity: number;
  /** cmol/kg for each unit of pH. */
  readonly buffering: number;
  readonly spread: number;
  readonly words: string;
  readonly working: Working;
}

/** mm of the primary particles of a sulfur that nobody measured. */
const SULFUR_DIAMETER = 0.1;
/** Aims that buffer methods give rates for. */
const AIMS = [6.0, 6.5, 6.8] as const;

/** How much a soil resists: by its buffer test, else by texture and organic matter. */
export function resistanceOf(zone: Pick<ZoneFacts, 'soilGroup'>, test: SoilTest): Resistance {
  const density = test.organicMatter === undefined ? phBuffering.bulkDensity : densityOf(test.organicMatter);
  const book = new WorkingBook();
  const mass = (density * test.depth * 10) / 100;
  const guessed = guessedOf(zone, test, density);
  const aim = AIMS.find((one) => one > test.soilPh + 0.3);
  if (test.buffer && aim !== undefined) {
    try {
      const { result } = limeRequirement(test, aim);
      const pure = (result.requirement * result.assumedEffectiveness) / 100;
      const capacity = pure / LIME_PER_MOL / (aim - test.soilPh);
      // Near its end a buffer shows almost no reserve: it is no measure of how the soil resists.
      if (capacity >= guessed.capacity * phBuffering.low) {
        book.step({
          label: 'Capacity by the buffer test',
          formula: `pure lime to pH ${aim} / ${LIME_PER_MOL} / the change`,
          numbers: `${figure(pure)} g/m² / ${LIME_PER_MOL} / ${figure(aim - test.soilPh)}`,
          result: capacity,
          unit: 'mol/m²',
        });
        return {
          ...{ capacity, buffering: capacity / mass, spread: forecastTable.spreadByBuffer, working: book.entries },
          words: 'How much the soil resists is told by its buffer test.',
        };
      }
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
    }
  }
  const blind = test.buffer !== undefined && aim !== undefined;
  return {
    ...guessed,
    words: `${blind ? 'The buffer test shows almost no reserve, so how much the soil resists' : 'How much the soil resists'} is guessed from ${zone.soilGroup ? guessed.group : 'a loam, since the soil is not known,'}${test.organicMatter === undefined ? ' of ordinary organic matter' : ' and its organic matter'}: a wide band.`,
  };
}

/** How much a soil resists by its texture and organic matter. */
function guessedOf({ soilGroup }: Pick<ZoneFacts, 'soilGroup'>, { organicMatter, depth }: SoilTest, density: number) {
  const book = new WorkingBook();
  const group = soilGroup ?? 'loam';
  const organic = organicMatter ?? phBuffering.ordinaryOrganicMatter[group];
  const buffering = phBuffering.mineral[group] + phBuffering.perOrganicMatter * organic;
  const capacity = capacityOf(buffering, density, depth);
  book.step({
    label: 'Capacity by texture and organic matter',
    formula: `(${phBuffering.mineral[group]} of ${group} + ${phBuffering.perOrganicMatter} × organic matter) × mass of the slice`,
    numbers: `${figure(buffering)} cmol/kg × ${figure((density * depth * 10) / 100)}`,
    result: capacity,
    unit: 'mol/m²',
    source: phBuffering.source,
  });
  return { group, capacity, buffering, spread: forecastTable.spreadByTexture, working: book.entries };
}

/** What is put down on a day: by the book, or by a plan. */
export interface ToCome {
  readonly day: string;
  /** Last day that the program gives it; the day itself where it was moved by hand. */
  readonly until?: string;
  /** Over the whole zone where no area is told. */
  readonly entry: Pick<Entry, 'kind' | 'rate' | 'unit' | 'material' | 'cce'> & Partial<Pick<Entry, 'area'>>;
}

export interface ZoneForecast {
  /** Day of the test. */
  readonly from: string;
  readonly under: readonly ForecastDay[];
  /** Without what is still to come. */
  readonly nothing: readonly ForecastDay[];
  readonly resistance: Resistance;
  /** When to test again, by the rule of the reading, and why. */
  readonly retest: { readonly on: string; readonly words: string };
  readonly words: readonly string[];
  /** How the last day under the program comes about. */
  readonly working: Working;
}

const NO_DRAINAGE: readonly number[] = Array.from({ length: 12 }, () => 0);
/** pH from which free lime is taken to be there where nobody looked. */
const LIMED_FROM = 7.8;

const YEAR = 365;
/** Share of the whole change at which a retest tells it. */
const TELLS = 0.8;

/** Entries as they were, all of the zone's, and what is planned. */
interface Given {
  readonly zone: ZoneFacts;
  readonly test: SoilTest;
  readonly entries: readonly Entry[];
  readonly planned: readonly ToCome[];
  readonly year: NormalYear | undefined;
  readonly until: string;
  /** sd of the starting pH. */
  readonly error?: number | undefined;
}

/** What lies down on a day and works, as the course takes it. */
function events(
  rows: ReadonlyArray<{ readonly on: string; readonly entry: ToCome['entry']; readonly share: number }>,
  from: string,
) {
  const lime: Array<Course['lime'][number]> = [];
  const sulfur: Array<Course['sulfur'][number]> = [];
  const nitrogen: Array<Course['nitrogen'][number]> = [];
  for (const { on, entry, share } of rows) {
    const day = daysBetween(from, on);
    const { kind, rate, unit, material, cce } = entry;
    if (rate === null || unit !== 'g/m2') continue;
    if (kind === 'lime') {
      const { strength, mesh } = limeOf(material, cce);
      lime.push({ day, rate: (rate * share * strength) / 100, mesh });
      continue;
    }
    const { sums } = broughtBy(
      { ...entry, id: '', zoneId: '', on, state: 'done', words: '', area: null, correctsId: null, recordedAt: '' },
      1,
    );
    if (kind === 'sulfur') sulfur.push({ day, rate: sums.sulfur * share, diameter: SULFUR_DIAMETER });
    else if (sums.acidity !== 0) nitrogen.push({ day, acidity: sums.acidity * share });
  }
  return { lime, sulfur, nitrogen };
}

/**
 * The pH of a zone from its test on: under what was put down and what is planned, and under nothing more.
 *
 * @returns nothing where the day of the test is not known
 */
export function zoneForecast({ zone, test, entries, planned, year, until, error }: Given): ZoneForecast | undefined {
  const from = test.sampledOn;
  if (from === undefined || from.length < 10) return undefined;
  const resistance = resistanceOf(zone, test);
  const factor = year ? cropFactors.california[year.season] : 0;
  const months = Array.from({ length: 12 }, (_, month) =>
    (year?.days ?? []).filter(({ monthDay }) => Number(monthDay.slice(0, 2)) === month + 1),
  );
  const mean = (values: readonly number[]): number =>
    values.reduce((sum, one) => sum + one, 0) / Math.max(1, values.length);
  const done = wentDown(entries);
  const share = ({ area = null }: Partial<Pick<Entry, 'area'>>): number =>
    area === null ? 1 : Math.min(1, area / zone.area);
  const down = events(
    done.flatMap((entry) => {
      const on = lastDayOf(entry.on);
      // Lime of before still works; what else lay there has shown in the test.
      const counts = on > from || (entry.kind === 'lime' && daysBetween(on, from) < 2 * YEAR);
      return counts ? [{ on, entry, share: share(entry) }] : [];
    }),
    from,
  );
  const before = down.lime.map((one) =>
    one.day >= 0
      ? one
      : {
          ...one,
          day: 0,
          // What has reacted by the day of the test is in its pH.
          mesh: left(one.mesh, -one.day),
        },
  );
  const plan = events(
    planned.filter(({ day }) => day >= from).map(({ day, entry }) => ({ on: day, entry, share: share(entry) })),
    from,
  );
  const drains = year?.days.every(({ et0 }) => et0 !== undefined) ?? false;
  const course: Course = {
    soilPh: test.soilPh,
    capacity: resistance.capacity,
    days: Math.max(30, daysBetween(from, until)),
    startsOn: daysBetween(`${from.slice(0, 4)}-01-01`, from),
    lime: before,
    sulfur: down.sulfur,
    nitrogen: down.nitrogen,
    temperature: year ? months.map((days) => mean(days.map(({ soil }) => soil))) : Array.from({ length: 12 }, () => 15),
    drainage: drains
      ? months.map((days) =>
          Math.max(
            0,
            days.reduce((sum, { rain, et0 }) => sum + rain - factor * et0!, 0),
          ),
        )
      : NO_DRAINAGE,
  };
  const applied: Applied[] = [
    ...appliedOf(entries, zone.area),
    ...planned.map(({ day, until: last = day, entry }) => ({ kind: entry.kind, on: last })),
  ];
  const { state, evidence } = freeCarbonate(
    test.soilPh,
    { ...zone.measured, carbonate: test.carbonate ?? zone.measured?.carbonate },
    undefined,
  );
  // Free lime gives way before the pH does; from where it begins by the table, an unknown soil is taken to hold it.
  const held = state === 'present' || (state !== 'absent' && test.soilPh >= LIMED_FROM);
  if (held) {
    const still = phBand({ ...course, lime: [], sulfur: [], nitrogen: [], drainage: NO_DRAINAGE }, 0, error);
    return {
      ...{ from, under: still, nothing: still, resistance },
      retest: retestUnder(from, applied, still, still),
      working: resistance.working,
      words: [
        `Free lime holds the pH (${evidence}): feed and sulfur use up lime before they move it, so no change is foretold.`,
      ],
    };
  }
  const nothing = phBand(course, resistance.spread, error);
  const whole = {
    ...course,
    lime: [...course.lime, ...plan.lime],
    sulfur: [...course.sulfur, ...plan.sulfur],
    nitrogen: [...course.nitrogen, ...plan.nitrogen],
  };
  const under = phBand(whole, resistance.spread, error);
  // What the corrections do is told from what rain and feed do without them.
  const without = phBand({ ...course, lime: [], sulfur: [] }, 0, error);
  return {
    ...{ from, under, nothing, resistance },
    retest: retestUnder(from, applied, under, without),
    working: workingOf(whole, resistance),
    words: [
      resistance.words,
      ...(year ? [] : ['The place has no climate: soil of 15 °C (59 °F) all year and no drainage are taken.']),
      ...(year && !drains ? ['The place has no position: what rain washes out of the soil is not counted.'] : []),
    ],
  };
}

/** What goes in and out by the last day, over how much the soil resists. */
function workingOf(course: Course, { capacity, working }: Resistance): Working {
  const { ph, turnover } = phCourse(course);
  const { lime, sulfur, nitrogen, lost } = turnover;
  const book = new WorkingBook();
  book.include(working);
  const each = [
    ['Lime that has dissolved', lime],
    ['Acidity of sulfur, as CaCO₃', (sulfur * LIME_PER_MOL) / SULFUR_PER_MOL],
    ['Acidity of nitrogen, as CaCO₃', nitrogen],
    ['Washed out by rain, as CaCO₃', lost],
  ] as const;
  for (const [label, result] of each)
    book.step({
      label,
      formula: 'sum of the days, by the warmth and the drainage of an ordinary year',
      numbers: `${figure(course.days)} days`,
      result,
      unit: 'g/m²',
    });
  book.step({
    label: 'pH on the last day',
    formula: 'pH of the test + (lime − sulfur − nitrogen − washed out) / 50.04 / capacity',
    numbers: `${figure(course.soilPh)} + (${each.map(([, one]) => figure(one)).join(' − ')}) / ${LIME_PER_MOL} / ${figure(capacity)}`,
    result: ph.at(-1)!,
    unit: 'pH',
    source: forecastTable.source,
  });
  return book.entries;
}

const left = (mesh: Course['lime'][number]['mesh'], days: number): Course['lime'][number]['mesh'] => {
  const still = (name: 'fine' | 'medium' | 'coarse'): number =>
    mesh[name] * 2 ** (-days / forecastTable.monthDays / forecastTable.halfMonths[name]);
  return { fine: still('fine'), medium: still('medium'), coarse: still('coarse') };
};

/**
 * When to test again: by the one rule of the reading and the paper, and how much of the change shows by then.
 *
 * @param applied what was put down and what is to come, each by the last day it may be put down; `without` the course
 *   without lime and sulfur
 */
function retestUnder(
  from: string,
  applied: readonly Applied[],
  under: readonly ForecastDay[],
  without: readonly ForecastDay[],
): ZoneForecast['retest'] {
  const { on, words } = retestDue(from, applied)!;
  const moved = under.map(({ ph }, index) => Math.abs(ph - without[index]!.ph));
  const most = Math.max(...moved);
  const index = under.findIndex(({ day }) => day >= daysBetween(from, on));
  const share = most > 0 ? moved[index < 0 ? moved.length - 1 : index]! / most : 1;
  return share < TELLS
    ? { on, words: `${words} By then about ${Math.round(share * 10) * 10} % of the change to come shows.` }
    : { on, words };
}

/** The forecast of a day that lies between two that are told. */
export function forecastOn(days: readonly ForecastDay[], day: number): ForecastDay | undefined {
  const at = days.findIndex((one) => one.day >= day);
  if (at < 0 || day < days[0]!.day) return undefined;
  if (at === 0) return days[0];
  const [low, high] = [days[at - 1]!, days[at]!];
  const share = (day - low.day) / (high.day - low.day);
  const mix = (key: 'ph' | 'low' | 'high'): number => low[key] + share * (high[key] - low[key]);
  return { day, ph: mix('ph'), low: mix('low'), high: mix('high') };
}

/** A retest laid beside what was foretold. */
export interface Proved {
  readonly moved: number;
  readonly expected: number;
  readonly low: number;
  readonly high: number;
  readonly inside: boolean;
  readonly words: string;
}

/** What a retest says of a prediction. @param day of the retest, in days after the first test */
export function proved(days: readonly ForecastDay[], start: number, day: number, ph: number): Proved | undefined {
  const foretold = forecastOn(days, day);
  if (!foretold) return undefined;
  const moved = ph - start;
  const expected = foretold.ph - start;
  const inside = ph >= foretold.low - 1e-9 && ph <= foretold.high + 1e-9;
  const told = (of: number): string => `${of < 0 ? '−' : ''}${Math.abs(of).toFixed(1)}`;
  const span = `${foretold.low.toFixed(1)} to ${foretold.high.toFixed(1)}`;
  const less = Math.abs(moved) < Math.abs(expected) ? 'less' : 'more';
  return {
    ...{ moved, expected, low: foretold.low, high: foretold.high, inside },
    words: inside
      ? `Moved ${told(moved)}, ${told(expected)} was expected: inside the band of ${span}.`
      : `Moved ${told(moved)}, ${told(expected)} was expected: outside the band of ${span}. ${
          less === 'less'
            ? 'Less than foretold: more reserve acidity than was reckoned, a lime that works slowly, or less put down than the book has. Look at the mesh and the logbook before the next rate.'
            : 'More than foretold: the soil resists less than was reckoned, or the sample came from another spot or season.'
        }`,
  };
}
