import { band } from '../calculators/structures.ts';
import type { SoilGroup } from '../soil/soilGroups.ts';
import { quantity } from '../calculators/fields.ts';
import { group, record } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/watering.json' with { type: 'json' };
import { soilGroups } from '../soil/soilGroups.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { cropFactors, waterCycleSoak } from '../water/irrigation.ts';
import { type Working, WorkingBook, figure } from '../working/working.ts';
import { type NormalYear, dayOn, normalDay } from '../season/normalDays.ts';

const rate = () => quantity('mm/h', { above: 0, max: 500 });
const mm = () => quantity('mm', { min: 0, max: 100 });

/** How a lawn is watered where nothing was measured. */
export const wateringTable = readTable(
  'watering',
  {
    /** mm/h that a soil takes in on the flat, and m³/m³ that it holds for roots. */
    infiltration: record(soilGroups, rate()),
    availableWater: record(soilGroups, quantity('', { above: 0, max: 0.4 })),
    /** % of that for each % of slope less, and the least that is left, %. */
    lessPerSlope: quantity('%', { min: 0, max: 20 }),
    leastOfSlope: quantity('%', { above: 0, max: 100 }),
    storage: mm(),
    /** mm that a surface holds on slopes from this, %. */
    storageOnSlope: mm(),
    slopeFrom: quantity('%', { above: 0, max: 100 }),
    /** mm/h of a sprinkler that nobody measured. */
    precipitation: rate(),
    rootDepth: quantity('cm', { above: 0, max: 100 }),
    /** % of the rain of normals that counts. */
    rainCounts: quantity('%', { above: 0, max: 100 }),
    /** % in shade. */
    inShade: quantity('%', { above: 0, max: 100 }),
    /** mm a week that few lawns need more than, and a soaking at least. */
    weekMost: mm(),
    soakingLeast: mm(),
    depletion: quantity('%', { above: 0, max: 100 }),
    seed: group({
      daily: mm(),
      dailyDays: quantity('', { min: 1, max: 60, whole: true }),
      third: mm(),
      thirdDays: quantity('', { min: 1, max: 90, whole: true }),
      hotSandRuns: quantity('', { min: 1, max: 8, whole: true }),
      hotSandDepth: mm(),
      hotFrom: quantity('C', { min: 10, max: 50 }),
      coolBelow: quantity('C', { min: 0, max: 30 }),
      run: mm(),
      runs: quantity('', { min: 1, max: 8, whole: true }),
      runsInShade: quantity('', { min: 1, max: 8, whole: true }),
      /** % of the range of emergence: longer and wetter breeds damping-off. */
      upAt: quantity('%', { min: 0, max: 100 }),
    }),
    sod: group({
      atOnce: mm(),
      low: mm(),
      high: mm(),
      holdsAfter: band(quantity('', { min: 1, max: 60, whole: true })),
      weekly: mm(),
      feedAfter: band(quantity('', { min: 1, max: 120, whole: true })),
      usualEt0: mm(),
    }),
  },
  data,
);

/** A zone as it is watered. */
export interface WateredZone {
  readonly season: 'cool' | 'warm';
  readonly soilGroup?: SoilGroup | undefined;
  readonly slope?: number | undefined;
  readonly rootDepth?: number | undefined;
  readonly deepShade: boolean;
  readonly irrigation?: string | undefined;
  /** mm/h of its sprinklers; the table's where nobody measured. */
  readonly precipitation?: number | undefined;
  /** mm/h that its soil takes in by a ring; the table's where nobody measured. */
  readonly infiltration?: number | undefined;
}

export interface WaterWeek {
  /** First day. */
  readonly week: string;
  /** mm that the grass uses, that rain brings, and that is to be given. */
  readonly use: number;
  readonly rain: number;
  readonly water: number;
  /** Soakings of the week, mm each, with their cycles. */
  readonly soakings: number;
  readonly each: number;
  readonly cycles: ReadonlyArray<{ readonly run: number; readonly soak: number }>;
  readonly words: string;
  readonly working: Working;
}

/** A week of watering by normals; nothing where the latitude or the climate is not known. @param monday first day */
export function waterWeek(
  year: NormalYear,
  monday: string,
  zone: WateredZone,
  system: UnitSystem,
): WaterWeek | undefined {
  const days = Array.from({ length: 7 }, (_, index) => normalDay(year, dayOn(monday, index)));
  if (days.some(({ et0 }) => et0 === undefined)) return undefined;
  const table = wateringTable;
  const { soilGroup = 'loam', slope = 0, deepShade } = zone;
  const book = new WorkingBook();
  const factor = cropFactors.california[zone.season];
  const et0 = days.reduce((sum, day) => sum + day.et0!, 0);
  const share = deepShade ? table.inShade / 100 : 1;
  const growing = days.some(({ growth }) => growth >= 0.05);
  const use = growing ? et0 * factor * share : 0;
  book.step({
    label: 'The grass uses',
    formula: deepShade ? 'ET₀ of the week × crop factor × share in shade' : 'ET₀ of the week × crop factor',
    numbers: `${figure(et0)} mm × ${figure(factor)}${deepShade ? ` × ${figure(share)}` : ''}`,
    result: use,
    unit: 'mm',
    source: 'Hargreaves & Samani (1985); crop factors of the California trials',
  });
  const rain = (days.reduce((sum, day) => sum + day.rain, 0) * table.rainCounts) / 100;
  book.step({
    label: 'Rain that counts',
    formula: 'rain of the normals × share that counts',
    numbers: `${figure(days.reduce((sum, day) => sum + day.rain, 0))} mm × ${table.rainCounts} %`,
    result: rain,
    unit: 'mm',
    source: table.source,
  });
  const water = Math.min(table.weekMost, Math.max(0, use - rain));
  const rootDepth = zone.rootDepth ?? table.rootDepth;
  const holds = (table.availableWater[soilGroup] * rootDepth * 10 * table.depletion) / 100;
  book.step({
    label: 'Water that the roots may use before the next',
    formula: 'available water × root depth × depletion',
    numbers: `${table.availableWater[soilGroup]} × ${figure(rootDepth * 10)} mm × ${table.depletion} %`,
    result: holds,
    unit: 'mm',
  });
  const say = (of: number): string => present('watering', of, system).text;
  if (water < 1)
    return {
      ...{ week: monday, use, rain, water: 0, soakings: 0, each: 0, cycles: [], working: book.entries },
      words: growing ? 'Rain is enough in an ordinary year: look before you water.' : 'The grass rests: no water.',
    };
  // No more at once than the roots can use; where they hold little, as seldom as a soaking that reaches them allows.
  const soakings =
    holds >= table.soakingLeast
      ? Math.min(7, Math.ceil(water / holds - 1e-9))
      : Math.max(1, Math.floor(water / table.soakingLeast + 1e-9));
  const each = water / soakings;
  const left = Math.max(table.leastOfSlope, 100 - table.lessPerSlope * slope) / 100;
  const infiltration = (zone.infiltration ?? table.infiltration[soilGroup]) * left;
  const precipitation = zone.precipitation ?? table.precipitation;
  const storage = slope >= table.slopeFrom ? table.storageOnSlope : table.storage;
  const { result, working } = waterCycleSoak({ precipitationRate: precipitation, infiltration, depth: each, storage });
  book.include(working);
  const [first] = result.cycles;
  // Cycles of one length are what a timer is set to; what stands after a shorter one soaks in as much sooner.
  const run = ((each / precipitation) * 60) / result.cycles.length;
  const soak = first!.run > 0 ? (first!.soak * run) / first!.run : 0;
  const cycles = result.cycles.map(() => ({ run, soak }));
  const cycled =
    cycles.length > 1
      ? `, in ${cycles.length} cycles of ${Math.round(run)} min with ${Math.round(soak)} min to soak between`
      : `, in one run of ${Math.round(run)} min`;
  const assumed =
    zone.precipitation === undefined
      ? ` At ${present('rate', precipitation, system).text}, which nobody measured: set out cups.`
      : '';
  const none = zone.irrigation === 'none' ? ' Nobody waters here: by hose where it matters, or let it go brown.' : '';
  return {
    ...{ week: monday, use, rain, water, soakings, each, cycles, working: book.entries },
    words: `${say(water)} in ${soakings === 1 ? 'one soaking' : `${soakings} soakings of ${say(each)}`}${cycled}, early in the morning.${assumed}${none}`,
  };
}

/** The week of a year in which most is to be given; nothing where nothing is known. @param from first day of the year that is looked at */
export function thirstiestWeek(
  year: NormalYear,
  from: string,
  zone: WateredZone,
  system: UnitSystem,
): WaterWeek | undefined {
  const weeks = Array.from({ length: 52 }, (_, index) => waterWeek(year, dayOn(from, index * 7), zone, system));
  return weeks.reduce((most, one) => (one && (!most || one.water > most.water) ? one : most), undefined);
}

/** A stretch of days of a new sowing. */
export interface SeedWater {
  readonly from: string;
  readonly to: string;
  /** mm a run; runs a day; days from one to the next. */
  readonly depth: number;
  readonly runs: number;
  readonly every: number;
  readonly words: string;
}

/** Days to emerge where the grass is not known. */
export const EMERGE_UNKNOWN = [7, 21] as const;

/** Days after which what is sown counts as up. @param emerge days to emerge, first and last */
export const upAfter = ([first, last]: readonly [number, number] = EMERGE_UNKNOWN): number =>
  Math.round(first + ((last - first) * wateringTable.seed.upAt) / 100);

/**
 * Water for new seed, by day: little and often until it is up, then tapering to deep and rare.
 *
 * @param sown `2027-09-05`; `emerge` days to emerge, first and last
 */
export function seedWater(
  sown: string,
  emerge: readonly [number, number],
  year: NormalYear | undefined,
  { soilGroup, deepShade }: Pick<WateredZone, 'soilGroup' | 'deepShade'>,
  system: UnitSystem,
): SeedWater[] {
  const { seed } = wateringTable;
  const warmth = year && normalDay(year, sown);
  const cool = warmth !== undefined && warmth.high < seed.coolBelow;
  const hotSand = soilGroup === 'sand' && warmth !== undefined && warmth.high >= seed.hotFrom;
  const [depth, runs] = hotSand
    ? [seed.hotSandDepth, seed.hotSandRuns]
    : [seed.run, deepShade || cool ? seed.runsInShade : seed.runs];
  const say = (of: number): string => present('watering', of, system).text;
  const up = dayOn(sown, upAfter(emerge) - 1);
  const daily = dayOn(up, seed.dailyDays);
  const third = dayOn(daily, seed.thirdDays);
  return [
    {
      ...{ from: sown, to: up, depth, runs, every: 1 },
      words: `Until it is up (${emerge[0]} to ${emerge[1]} days): ${runs} runs a day of ${say(depth)}, never so that it runs.`,
    },
    {
      ...{ from: dayOn(up, 1), to: daily, depth: seed.daily, runs: 1, every: 1 },
      words: `Then ${say(seed.daily)} every day.`,
    },
    {
      ...{ from: dayOn(daily, 1), to: third, depth: seed.third, runs: 1, every: 3 },
      words: `Then ${say(seed.third)} every third day; after that as grown turf.`,
    },
  ];
}

/** Sod from the day it is laid: soaked at once, kept moist underneath until it holds, then deep and seldom. */
export interface SodCare {
  readonly water: readonly SeedWater[];
  /** When it may be walked on, first cut and first fed, a sentence each. */
  readonly words: readonly string[];
}

/**
 * Water and care of sod.
 *
 * @param laid `2027-05-01`; `cut` cm, its first cut, where the grass is known; `starter` whether a starter lay beneath
 */
export function sodCare(
  laid: string,
  year: NormalYear | undefined,
  { cut, starter }: { readonly cut?: number | undefined; readonly starter: boolean },
  system: UnitSystem,
): SodCare {
  const { sod } = wateringTable;
  const et0 = year && normalDay(year, laid).et0;
  // By the day's ET₀ where it is known, within what sod is given.
  const wanted = et0 === undefined ? (sod.low + sod.high) / 2 : (et0 / sod.usualEt0) * ((sod.low + sod.high) / 2);
  const daily = Math.round(Math.min(sod.high, Math.max(sod.low, wanted)) * 2) / 2;
  const [first, last] = sod.holdsAfter;
  const say = (of: number): string => present('watering', of, system).text;
  const holds = dayOn(laid, last);
  const height = cut === undefined ? '' : ` to ${present('depth', cut, system).text} and no lower`;
  return {
    water: [
      {
        ...{ from: laid, to: laid, depth: sod.atOnce, runs: 1, every: 1 },
        words: `Soak it at once with ${say(sod.atOnce)}, before the last of it is laid where it is hot.`,
      },
      {
        ...{ from: dayOn(laid, 1), to: holds, depth: daily / 2, runs: 2, every: 1 },
        words: `Keep the soil under it moist, ${say(daily)} a day in one or two runs, until a corner no longer lifts: ${first} to ${last} days.`,
      },
      {
        ...{ from: dayOn(holds, 1), to: dayOn(holds, 28), depth: sod.weekly, runs: 1, every: 7 },
        words: `Then ${say(sod.weekly)} a week with rain, deep and seldom.`,
      },
    ],
    words: [
      `Nobody walks on it until it holds, ${dayOn(laid, first)} to ${holds}: lift a corner to see.`,
      `First cut when it holds, at a third above its height${height}; dry firm ground, sharp blade.`,
      starter
        ? `A starter lies beneath it: feed it by the program, not before ${dayOn(laid, sod.feedAfter[1])}.`
        : `First feed ${dayOn(laid, sod.feedAfter[0])} to ${dayOn(laid, sod.feedAfter[1])}, four to six weeks after it was laid.`,
    ],
  };
}
