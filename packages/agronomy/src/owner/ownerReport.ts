import { isOpenPrice } from '../program/sections.ts';
import { type OfferedLine, offeredYear } from '../program/offer.ts';
import { type YearPrice, priceOnly, yearSum } from '../program/yearPrice.ts';
import type { ShoppingList } from '../program/shopping.ts';
import { careOf } from './care.ts';
import { curedAs, cureOf } from '../readings/limitCures.ts';
import type { RankedLimit } from '../readings/ranked.ts';
import type { ZoneReading } from '../readings/zoneReading.ts';
import type { ZoneFacts } from '../reading/zoneFacts.ts';
import type { ZoneProgram } from '../program/zoneProgram.ts';
import { retestOfProgram } from '../program/retestOfProgram.ts';
import { planned } from '../program/balance.ts';
import type { Treatment } from '../remedies/treatment.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { capital } from '../units/capital.ts';
import { ownerTable } from './ownerTable.ts';

/** A zone as the report for its owner is written of it. */
export interface OwnerZone {
  readonly zoneId: string;
  readonly name: string;
  readonly grass: string;
  readonly zone: ZoneFacts;
  readonly read: ZoneReading;
  readonly program: ZoneProgram;
  readonly borrowed: string | null;
  /** Of its newest test. */
  readonly sampledOn: string | null;
}

/** Something that is done, as its owner reads it. */
export interface OwnerWork {
  readonly what: string;
  /** "autumn 2026 and spring 2027"; nothing where no month is known. */
  readonly when: string | null;
  readonly why: string;
  /** Nothing where it has no price. */
  readonly cost: string | null;
}

/** What is to be seen by when. */
export interface OwnerExpectation {
  readonly by: string;
  readonly words: string;
}

/** The page of one zone. */
export interface OwnerPage {
  readonly zoneId: string;
  readonly name: string;
  readonly area: string;
  readonly grass: string;
  readonly found: readonly string[];
  readonly works: readonly OwnerWork[];
  readonly expect: readonly OwnerExpectation[];
  readonly cost: string | null;
  readonly notBought: readonly string[];
  readonly saved: string | null;
  readonly part: ReadonlyArray<{ readonly does: string; readonly without: string }>;
  readonly cautions: readonly string[];
  readonly retest: { readonly on: string; readonly words: string } | null;
  readonly borrowed: string | null;
}

/** What is done first on a whole site. */
export interface OwnerFirst {
  readonly what: string;
  readonly where: readonly string[];
  readonly why: string;
}

/** The whole report for an owner, in plain words and without a working. */
export interface OwnerReport {
  /** Three at most. */
  readonly first: readonly OwnerFirst[];
  readonly pages: readonly OwnerPage[];
  readonly cost: string | null;
  /** Names of what has no price yet, where a sum would be too small. */
  readonly unpriced: readonly string[];
  /** What need not be bought, with its money. */
  readonly saved: string | null;
  /** The covering letter as it is suggested. */
  readonly letter: string;
  /** Line by line what the sum is made of; not told in reports of before, nor to those who see no prices. */
  readonly price?: YearPrice;
}

/** What the report is written with. */
export interface OwnerInput {
  readonly zones: readonly OwnerZone[];
  readonly site: string;
  readonly practice: string;
  /** The day it is written, `2026-11-27`. */
  readonly on: string;
  /** Degrees north; the northern year where nobody knows. */
  readonly latitude?: number | undefined;
  readonly system: UnitSystem;
  readonly currency: string;
  /** Whoever reads it sees prices. */
  readonly priced: boolean;
  /** What is bought and hired for the whole site: the money of every page is a share of it, and its sum is the year’s. */
  readonly list: ShoppingList;
}

const seasonNames = ['winter', 'spring', 'summer', 'autumn'] as const;

/** "spring 2027" of a day; winter is that of the year it ends in. */
export function seasonWords(day: string, latitude = 45): string {
  const month = Number(day.slice(5, 7));
  const year = Number(day.slice(0, 4)) + (month === 12 ? 1 : 0);
  const at = Math.floor((month % 12) / 3) + (latitude < 0 ? 2 : 0);
  const name = seasonNames[at % 4]!;
  return name === 'winter' ? `winter ${year - 1}/${String(year).slice(2)}` : `${name} ${day.slice(0, 4)}`;
}

const unique = <T>(list: readonly T[]): T[] => [...new Set(list)];
const listed = (names: readonly string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;

/** Seasons in which a treatment is done. */
function whenOf({ doses }: Treatment, latitude: number | undefined): string | null {
  const seasons = unique(doses.flatMap(({ from }) => (from ? [seasonWords(from, latitude)] : [])));
  return seasons.length > 0 ? listed(seasons) : null;
}

/** What a limit is, in an owner's words. */
const plainly = ({ key }: Pick<RankedLimit, 'key'>): string =>
  ownerTable.plain.find((one) => one.key === curedAs(key))!.words;

/** Why something is done: the limit that it answers, else the first sentence of its own reason. */
const answers: Readonly<Record<string, readonly string[]>> = {
  lime: ['acid'],
  sulfur: ['alkaline'],
  iron: ['alkaline'],
  compost: ['organic matter', 'fill'],
  gypsum: ['sodium'],
  leaching: ['salt', 'sodium'],
  core: ['compaction', 'thatch', 'drainage'],
  drain: ['drainage'],
  loosen: ['compaction', 'fill'],
  fill: ['fill'],
  wetting: ['repellent'],
  nitrogen: ['nitrogen'],
  phosphorus: ['phosphorus'],
  potassium: ['potassium'],
  magnesium: ['magnesium'],
};
/** Why something is done that answers no limit. */
const otherwise: Readonly<Record<string, string>> = {
  nitrogen: 'What this grass uses in a year.',
  phosphorus: 'For the roots of the new grass.',
  potassium: 'Enough is there: what the year’s growth takes is put back.',
  magnesium: 'It is short by the test, and gives the green its depth.',
  sulfate: 'Winter rain has washed it out.',
};
const isAnswered = (remedy: string, { key }: Pick<RankedLimit, 'key'>): boolean =>
  answers[remedy]?.some((one) => one === key || one === curedAs(key)) ?? false;
function reasonOf({ remedy, words }: Treatment, limits: readonly RankedLimit[]): string {
  const own = limits.find((limit) => isAnswered(remedy, limit));
  if (own && curedAs(own.key) !== 'nutrient') return plainly(own);
  if (own) return `${capital(own.key)} is short by the test.`;
  const plain = otherwise[remedy];
  if (plain) return plain;
  return words.split(/(?<=\.)\s/)[0] ?? '';
}

/** What is to be seen by when, counted from when it is first done. */
function expectations({ read, program }: OwnerZone, input: OwnerInput): OwnerExpectation[] {
  const { on, latitude } = input;
  return read.ranked.limits.slice(0, MOST_FOUND).flatMap((limit): OwnerExpectation[] => {
    const done = planned(program.treatments).find(({ remedy }) => isAnswered(remedy, limit));
    const start = done?.doses.flatMap(({ from }) => from ?? []).sort()[0];
    const { shows, label } = cureOf(limit.key);
    if (!done) return [];
    return [{ by: `from ${seasonWords(start ?? on, latitude)}`, words: `${label}: ${shows}.` }];
  });
}

/** What was found, in an owner's words; what is only likely says so. */
function foundOf({ read, sampledOn, zone }: OwnerZone): string[] {
  const { limits } = read.ranked;
  const untested =
    read.reading.bars.length > 0 || zone.garden || sampledOn !== null
      ? []
      : ['Its soil has not been tested yet, so what it needs in lime and food is not known.'];
  const words = limits
    .slice(0, MOST_FOUND)
    .map((limit) =>
      limit.standing === 'suspected' ? `Likely, and to be looked into: ${inSentence(plainly(limit))}` : plainly(limit),
    );
  if (limits.length > 0 || untested.length > 0) return unique([...untested, ...words]);
  return ['Nothing on the test or on the ground limits this lawn.'];
}

/** Limits that an owner is told of. */
const MOST_FOUND = 5;
const MOST_FIRST = 3;
const UNSURE = 0.25;

function pageOf(one: OwnerZone, lines: readonly OfferedLine[], input: OwnerInput): OwnerPage {
  const { zoneId, name, grass, zone, read, program, borrowed } = one;
  const { system, currency, priced, latitude } = input;
  const money = (value: number): string => present('money', value, system, currency).text;
  const priceOf = new Map(lines.map(({ key, price }) => [key, price]));
  const open = isOpenPrice({ zoneId, zone: name, treatments: program.treatments }, input.list);
  const cost = open ? 0 : yearSum({ lines, visits: 0 });
  const limits = read.ranked.limits;
  const given = planned(program.treatments);
  const saved = (program.besideLab ?? []).reduce((sum, line) => sum + (line.saved?.value ?? 0), 0);
  return {
    ...{ zoneId, name, grass, borrowed, area: present('area', zone.area, system).text },
    found: foundOf(one),
    works: given.map((treatment): OwnerWork => {
      const own = priceOf.get(treatment.key) ?? null;
      return {
        what: capital(treatment.supply?.name ?? treatment.name),
        when: whenOf(treatment, latitude),
        why: reasonOf(treatment, limits),
        cost: priced && own !== null && own > 0 ? money(own) : null,
      };
    }),
    expect: expectations(one, input),
    cost: priced && cost > 0 ? money(cost) : null,
    notBought: program.leftOut.map((name) => plainNames[name] ?? inSentence(name)),
    saved: priced && saved >= 1 ? money(saved) : null,
    part: [...careOf(zone, system), ...partsOf(zone, given)],
    cautions: unique([
      ...given.flatMap(({ cautions }) => cautions.filter((words) => !/^(None from|Stay )/.test(words))),
      ...(program.rules ?? []).map(({ words }) => words),
    ]).slice(0, MOST_CAUTIONS),
    retest: retestOfProgram(one.sampledOn, zone.applied ?? [], program.treatments),
  };
}
/** What is bought, by names that an owner knows. */
const plainNames: Readonly<Record<string, string>> = { 'P₂O₅': 'phosphate', 'K₂O': 'potash' };
/** As many as somebody reads. */
const MOST_CAUTIONS = 5;

/** What the owner does himself in a zone. */
function partsOf({ use }: ZoneFacts, given: readonly Treatment[]) {
  return ownerTable.parts
    .filter(({ remedies, uses }) => {
      if (remedies) return given.some(({ remedy }) => (remedies as readonly string[]).includes(remedy));
      return uses ? use !== undefined && (uses as readonly string[]).includes(use) : true;
    })
    .map(({ does, without }) => ({ does, without }));
}

/** The things to do first on a site: what limits most, where it limits the most ground, worst first. */
function firstOf({ zones }: OwnerInput): OwnerFirst[] {
  const worst = { severe: 9, clear: 3, small: 1 } as const;
  const groups = new Map<string, { limit: RankedLimit; where: string[]; weight: number }>();
  for (const { name, zone, read } of zones)
    for (const [place, limit] of read.ranked.limits.slice(0, MOST_FIRST).entries()) {
      const key = curedAs(limit.key);
      const known = groups.get(key) ?? { limit, where: [], weight: 0 };
      known.where.push(name);
      // What is only likely is looked into; it does not come before what is known.
      const sure = limit.standing === 'suspected' ? UNSURE : 1;
      known.weight += (sure * worst[limit.degree] * Math.sqrt(zone.area)) / (place + 1);
      groups.set(key, known);
    }
  return [...groups.entries()]
    .sort(([, one], [, other]) => other.weight - one.weight)
    .slice(0, MOST_FIRST)
    .map(([, { limit, where }]) => ({ what: capital(limit.remedy), where, why: plainly(limit) }));
}

function letterOf(input: OwnerInput, first: readonly OwnerFirst[], cost: string | null): string {
  const { site, practice, zones, on, latitude } = input;
  const count = zones.length === 1 ? 'one lawn' : `${zones.length} lawns`;
  return [
    `This is what we found on ${site}, ${count} in all, what to do about it, and what to expect by when.`,
    first.length > 0
      ? `${first.length === 1 ? 'One thing comes' : `${capital(['', 'one', 'two', 'three'][first.length]!)} things come`} first: ${first.map(({ what, where }) => `${inSentence(what)} (${listed(where)})`).join('; ')}.`
      : 'Nothing presses. The pages that follow say what keeps it so.',
    ...(cost
      ? [`The year’s materials and work come to ${cost}. What need not be bought stands on each page as well.`]
      : []),
    'Soil answers slowly. Water and colour change within weeks; roots, humus and acidity over seasons. The next test shows whether it worked.',
    `With kind regards, ${practice}, ${seasonWords(on, latitude)}`,
  ].join('\n\n');
}
const inSentence = (words: string): string => words.charAt(0).toLowerCase() + words.slice(1);

/** The report for an owner: what was found, what comes first, what it costs, and what to expect by when. */
export function ownerReport(input: OwnerInput): OwnerReport {
  const { zones, system, currency, priced, list } = input;
  const offered = offeredYear(
    zones.map(({ zoneId, name, program: { treatments } }) => ({ zoneId, zone: name, treatments })),
    list,
    system,
  );
  const pages = zones.map((one) =>
    pageOf(
      one,
      offered.lines.filter(({ zoneId }) => zoneId === one.zoneId),
      input,
    ),
  );
  const first = firstOf(input);
  const money = (value: number): string => present('money', value, system, currency).text;
  const unpriced = unique(zones.flatMap(({ program }) => program.unpriced));
  const year = yearSum(offered);
  const cost = priced && list.cost && year > 0 ? money(year) : null;
  const saved = zones
    .flatMap(({ program }) => program.besideLab ?? [])
    .reduce((sum, line) => sum + (line.saved?.value ?? 0), 0);
  return {
    ...{ first, pages, cost, unpriced },
    saved: priced && saved >= 1 ? money(saved) : null,
    letter: letterOf(input, first, cost),
    ...(priced ? { price: priceOnly(offered) } : {}),
  };
}
