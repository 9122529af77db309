import { chanceFrom } from '../geometry/chance.ts';
import { type ProgramInput, programZone } from '../program/zoneProgram.ts';
import { readTested } from '../reading/reading.ts';
import type { Treatment } from '../remedies/treatment.ts';
import { limitLabel } from '../readings/limitCures.ts';
import { defaultSettings } from '../settings/settings.ts';
import { type Sense, type UnitSystem, inLine, present } from '../units/present.ts';
import { type Numbers, numbersOnly } from '../working/numbersOnly.ts';
import { type Working, WorkingBook, figure } from '../working/working.ts';
import { drawnOf } from './draws.ts';
import { type WorthKey, worthTable } from './worthTable.ts';

/** A rate of the program over all the ways in which a measurement may turn out. */
export interface Moved {
  readonly remedy: string;
  readonly name: string;
  readonly sense: Sense;
  /** Of the year, in the unit of the sense: ends of the range that is told. */
  readonly low: number;
  readonly high: number;
}

/** What one more measurement is worth in a zone. */
export interface Worth {
  readonly key: WorthKey;
  readonly name: string;
  /** What it costs, in the practice's money, and takes. */
  readonly fee: number;
  readonly minutes: number;
  /** One sentence: what it settles, or that it settles nothing. */
  readonly words: string;
  /** Money between the ends of what the program may cost; nothing while something has no price. */
  readonly stake: number | null;
  /** What comes first in how many of a hundred, the likeliest first. */
  readonly firsts: ReadonlyArray<{ readonly limit: string | null; readonly share: number }>;
  /** Rates that move, the most money first. */
  readonly moved: readonly Moved[];
  readonly working: Working;
}

type Planned = Numbers<Treatment>;

interface Outcome {
  readonly treatments: readonly Planned[];
  readonly cost: number | null;
  readonly first: string | null;
}

const costOf = ({ supply, price, work = [] }: Planned): number =>
  (supply?.cost?.value ?? 0) + (price?.value ?? 0) + work.reduce((sum, { cost }) => sum + (cost?.value ?? 0), 0);

/** The value at a share of a sorted list. */
const at = (sorted: readonly number[], share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.max(0, Math.round((share / 100) * (sorted.length - 1))))]!;
const ends = (values: readonly number[]): readonly [number, number] => {
  const sorted = [...values].sort((one, other) => one - other);
  return [at(sorted, worthTable.low), at(sorted, worthTable.high)];
};

/** Rates of a remedy in one outcome: of the year, and what they cost. */
function sumOf({ treatments }: Outcome, remedy: string): { readonly rate: number; readonly cost: number } {
  const own = treatments.filter((one) => one.remedy === remedy && one.status === 'planned');
  return {
    rate: own.reduce((sum, { rate }) => sum + (rate?.value ?? 0), 0),
    cost: own.reduce((sum, one) => sum + costOf(one), 0),
  };
}

function movedIn(outcomes: readonly Outcome[]): Array<Moved & { readonly stake: number }> {
  const known = new Map<string, Planned>();
  for (const { treatments } of outcomes)
    for (const one of treatments) if (one.status === 'planned' && one.rate) known.set(one.remedy, one);
  return [...known.values()]
    .map(({ remedy, name, sense }) => {
      const sums = outcomes.map((outcome) => sumOf(outcome, remedy));
      const [low, high] = ends(sums.map(({ rate }) => rate));
      const [cheap, dear] = ends(sums.map(({ cost }) => cost));
      return { remedy, name, sense, low, high, stake: dear - cheap };
    })
    .filter(({ low, high }) => high > 0 && ((high - low) / high) * 100 >= worthTable.moves)
    .sort((one, other) => other.stake - one.stake || other.high - other.low - (one.high - one.low));
}

function firstsIn(outcomes: readonly Outcome[]): Array<{ limit: string | null; share: number }> {
  const counts = new Map<string | null, number>();
  for (const { first } of outcomes) counts.set(first, (counts.get(first) ?? 0) + 1);
  return [...counts]
    .map(([limit, count]) => ({ limit, share: Math.round((100 * count) / outcomes.length) }))
    .sort((one, other) => other.share - one.share);
}

/** "$8", "20 minutes", "$22 at Fennimore soil laboratory and 45 minutes". */
function priceWords(fee: number, minutes: number, currency: string, laboratory: string | null): string {
  const parts = [
    fee > 0 ? `${currency}${figure(fee)}${laboratory === null ? '' : ` at ${laboratory}`}` : '',
    minutes > 0 ? `${minutes} minutes` : '',
  ];
  return parts.filter(Boolean).join(' and ');
}

/** "35 or 100 lb/1000 ft²", "none or 0.25 in". */
function rated({ sense, low, high }: Moved, system: UnitSystem): string {
  const [from, to] = [present(sense, low, system).text, present(sense, high, system).text];
  const unit = to.slice(to.indexOf(' '));
  return low <= 0
    ? `none or ${to}`
    : from.endsWith(unit)
      ? `${from.slice(0, -unit.length)} or ${to}`
      : `${from} or ${to}`;
}

const firstWords = (limit: string | null): string => (limit === null ? 'nothing' : inLine(limitLabel(limit)));
function outcomeOf(input: ProgramInput): Outcome {
  const { reading, program } = numbersOnly(() => programZone(input));
  // What limits only a little comes first nowhere.
  const first = reading.limitations.find(({ degree }) => degree !== 'small');
  return { treatments: program.treatments, cost: program.cost?.value ?? null, first: first?.key ?? null };
}

/** What a laboratory asks for its panels, in the practice's money. */
export interface AskedFees {
  readonly laboratory: string;
  readonly fees: ReadonlyArray<{ readonly panel: string; readonly fee: number }>;
}

/** What is missing before a zone's program is sure, and how many ways are drawn of each. */
export interface WorthOptions {
  readonly draws?: number;
  /** The same seed gives the same answer. */
  readonly seed?: number;
  /** What the laboratory that the bags go to asks; usual fees where it names none. */
  readonly asked?: AskedFees;
}

/**
 * What each measurement that was not made, or may be made once more, would move: the zone's program is worked out for each
 * of many ways in which it may turn out, all else as it is known.
 *
 * @param input of the zone's program, with its test
 * @returns the most worth first; empty without a test, which comes before all of them
 */
export function worthOfMeasuring(input: ProgramInput, { draws = 200, seed = 1, asked }: WorthOptions = {}): Worth[] {
  const { zone, test, settings = defaultSettings, system } = input;
  if (!test) return [];
  const { reading, ground } = readTested(zone, test, settings, system);
  const known = worthTable.measurements.filter(({ key }) => key === 'cores' || reading.asks.includes(key));
  const worths = known.flatMap((measurement): Worth[] => {
    const drawn = drawnOf(measurement.key, input, ground.carbonate.presumed);
    if (!drawn) return [];
    const chance = chanceFrom(seed);
    // What is drawn twice comes to the same, and is worked out once.
    const seen = new Map<string, Outcome>();
    const outcomes = Array.from({ length: draws }, (): Outcome => {
      const { told: as, input: turned } = drawn(chance);
      const known = seen.get(as) ?? outcomeOf(turned);
      seen.set(as, known);
      return known;
    });
    return [told(measurement, outcomes, input, asked)];
  });
  // Water, air and whatever else comes first stands before money: it is what the money is spent on in vain.
  const turn = ({ firsts }: Worth): number => (isTurn(firsts) ? 100 - firsts[0]!.share : 0);
  return worths.sort((one, other) => turn(other) - turn(one) || gain(other) - gain(one));
}

const isTurn = (firsts: Worth['firsts']): boolean => 100 - firsts[0]!.share >= worthTable.turnsFrom;
const gain = ({ stake, fee }: Worth): number => (stake ?? 0) - fee;

function told({ key, name, fee: usual, minutes, panel }: (typeof worthTable)['measurements'][number], outcomes: readonly Outcome[], input: ProgramInput, asked: AskedFees | undefined): Worth {
  const { system } = input;
  const currency = input.settings?.currency ?? '$';
  const own = asked?.fees.find((entry) => entry.panel === panel)?.fee;
  const fee = own ?? usual;
  const moved = movedIn(outcomes);
  const firsts = firstsIn(outcomes);
  const costs = outcomes.flatMap(({ cost }) => cost ?? []);
  const [cheap, dear] = costs.length === outcomes.length ? ends(costs) : [0, 0];
  const stake = costs.length === outcomes.length ? dear - cheap : null;
  const book = new WorkingBook();
  book.step({
    label: 'Ways in which it may turn out',
    formula: `drawn with a fixed seed; ends at ${worthTable.low} and ${worthTable.high} %`,
    numbers: firsts.map(({ limit, share }) => `${firstWords(limit)} first in ${share} %`).join(', '),
    result: outcomes.length,
    unit: '',
    source: worthTable.source,
  });
  for (const one of moved)
    book.step({
      label: one.name,
      formula: 'rate of the year, from the lower to the upper end',
      numbers: `${figure(one.low)} to ${figure(one.high)}`,
      result: one.high - one.low,
      unit: one.sense === 'productRate' ? 'g/m2' : '',
    });
  if (stake !== null)
    book.step({ label: 'Money at stake', formula: 'upper end − lower end of what the program costs', numbers: `${figure(dear)} − ${figure(cheap)}`, result: stake, unit: '' });
  const price = priceWords(fee, minutes, currency, own === undefined ? null : asked!.laboratory);
  const [most] = moved;
  const settles = [
    ...(isTurn(firsts) ? [`what comes first: ${firsts.slice(0, 2).map(({ limit, share }) => `${firstWords(limit)} in ${Math.round(share / 10)} of 10 such lawns`).join(', ')}`] : []),
    ...(most ? [`whether ${inLine(most.name)} is ${rated(most, system)}`] : []),
  ];
  const called = `${name}${price === '' ? '' : ` (${price})`}`;
  return {
    ...{ key, name, fee, minutes, stake, firsts },
    words:
      key === 'cores' && most
        ? `${called}: ${inLine(most.name)} may come out at ${rated(most, system)}.`
        : settles.length > 0 ? `${called} settles ${settles.join(', and ')}.` : `${called} would change nothing that you put down.`,
    moved: moved.map(({ stake: _stake, ...one }) => one),
    working: book.entries,
  };
} // prettier-ignore
