import { analytes, isNutrient, nutrients, soilAnalytes } from '../analytes/analytes.ts';
import { questionPlausibility } from '../analytes/plausible.ts';
import { inOwnUnit, unitWord } from '../analytes/reported.ts';
import { bufferNames } from '../lab/buffers.ts';
import { SALT_SOURCE, SALT_STEP, phInWater } from '../lab/saltPh.ts';
import { type Sward, swardOf } from '../nutrients/sward.ts';
import { type Target, targetOf } from '../nutrients/target.ts';
import type { UnitSystem } from '../units/present.ts';
import { type Working, WorkingBook } from '../working/working.ts';
import { type Bar, nutrientBar, nutrientName, organicBar, phBar } from './bars.ts';
import { exchangeBar, saltBar, sodiumBar } from './ownWordBars.ts';
import { pasteEc } from './salt.ts';
import { type CarbonateKnown, freeCarbonate } from './carbonate.ts';
import { type Limitation, knowsDrainage, limitsOfZone } from './limits.ts';
import { type AdviceSettings, defaultSettings, targetFor } from '../settings/settings.ts';
import type { SoilTest, ZoneFacts } from './zoneFacts.ts';

export interface Reading {
  readonly headline: string;
  readonly bars: readonly Bar[];
  /** How the band was found where it is not one grass’s own: a mix, an organic soil. */
  readonly notes: readonly string[];
  readonly buffer: string;
  /** What limits the zone, most first. */
  readonly limitations: readonly Limitation[];
  /** What the report could have held and does not. */
  readonly notMeasured: readonly string[];
  /** What was reported and is rated by no table here, in words. */
  readonly others: readonly string[];
  /** What stays open without drainage, salts or carbonate known, once and only where it matters. */
  readonly open: string | null;
  /** What is worth measuring next, the most worth first. */
  readonly asks: readonly string[];
  readonly questions: readonly string[];
}

/** The test with its pH as in water; the step is named in the working. */
export function inWater(test: SoilTest): { readonly test: SoilTest; readonly working: Working } {
  if (test.phIn === undefined || test.phIn === 'water') return { test, working: [] };
  const book = new WorkingBook();
  const soilPh = phInWater(test.soilPh);
  book.step({
    label: 'pH as in water',
    formula: `pH in ${test.phIn === 'salt' ? 'salt' : 'CaCl₂'} + ${SALT_STEP}`,
    numbers: `${test.soilPh.toFixed(1)} + ${SALT_STEP}`,
    result: soilPh,
    unit: '',
    source: SALT_SOURCE,
  });
  return { test: { ...test, soilPh }, working: book.entries };
}

/** What a zone's test is read against: the sward, where its pH should go, and what is known of carbonate. */
export interface Ground {
  readonly sward: Sward;
  readonly target: Target;
  readonly carbonate: CarbonateKnown;
  readonly settings: AdviceSettings;
  /** What is to be said of a target with a name, where one stands for this zone. */
  readonly targetWords: string | null;
}

/** @param calcium rating of the soil's calcium, where it is known. */
export function groundOf(zone: ZoneFacts, test: SoilTest, settings: AdviceSettings, calcium?: string | null): Ground {
  const sward = swardOf(zone, test.organicMatter);
  // A zone's own aim comes before a target of the practice.
  const named = zone.aimPh === undefined ? targetFor(settings.targets, 'soilPh', sward.main?.name) : undefined;
  const own = named ? { aim: named.value, reason: named.name } : { aim: zone.aimPh, reason: zone.aimReason };
  return {
    sward,
    target: targetOf(sward, test.soilPh, settings.correct, own, settings),
    settings,
    targetWords: named ? `The aim of ${named.value.toFixed(1)} is the target “${named.name}”.` : null,
    carbonate: freeCarbonate(
      test.soilPh,
      { ...zone.measured, carbonate: test.carbonate ?? zone.measured?.carbonate },
      calcium,
    ),
  };
}

const seesWet = (signs: readonly string[]): boolean =>
  signs.some((sign) => /puddl|wet|water|moss|algae|hard|compact|thin/i.test(sign));
const seesSalt = (signs: readonly string[]): boolean => signs.some((sign) => /salt|crust|scorch/i.test(sign));

/** What stays open, in one line, and what to ask for, the most worth first. */
function whatIsOpen(zone: ZoneFacts, test: SoilTest, bars: readonly Bar[], { sward, target, carbonate }: Ground) {
  const signs = zone.signs ?? [];
  const [low, high] = sward.ph;
  const out = test.soilPh < low ? low - test.soilPh : test.soilPh - high;
  const asks: string[] = [];
  const open: string[] = [];
  if (target.way === 'raise' && !test.buffer) asks.push('buffer');
  const phosphorus = bars.find(({ key }) => key === 'p');
  const carbonateMatters = (carbonate.state === 'unknown' || carbonate.presumed) && test.soilPh > high + 1e-9;
  if (carbonateMatters) asks.push('carbonate');
  if (carbonateMatters && !carbonate.presumed) {
    open.push('free carbonate (whether sulfur can work: does a drop of vinegar or acid fizz?)');
  }
  if (phosphorus?.unrated === 'unsuited') asks.push(test.soilPh > 7 ? 'olsen' : 'phosphorus');
  for (const key of ['p', 'k'] as const) {
    const bar = bars.find((entry) => entry.key === key);
    if (!zone.garden && (!bar || bar.unrated === 'detection limit' || bar.unrated === 'no table'))
      asks.push(key === 'p' ? 'phosphorus' : 'potassium');
  }
  const drainageMatters =
    !knowsDrainage(zone.measured) &&
    (zone.soilGroup === 'clay' || zone.lie === 'hollow' || seesWet(signs) || (test.organicMatter ?? 0) >= 12);
  if (drainageMatters) {
    asks.push('drainage');
    open.push('drainage (a soil that does not drain is not fixed with fertilizer: dig the test hole)');
  }
  const salted = test.ec !== undefined || test.ecDiluted !== undefined;
  if (!salted && (zone.seaside === true || seesSalt(signs) || test.soilPh > 8.4)) {
    asks.push('salts');
    open.push('salts (what looks like hunger may be salt: order the salts panel)');
  }
  if (test.organicMatter === undefined) asks.push('organic matter');
  const soilMatters =
    zone.soilGroup === undefined &&
    (bars.some(({ onSand }) => onSand !== undefined) || (target.way !== 'none' && out > 0));
  if (soilMatters) asks.push('soil group');
  return { asks, open: open.length === 0 ? null : `Not known: ${open.join('; ')}.` };
}

/** What a soil test means for the grass that grows in the zone; without a test, what the ground itself shows. */
export function readZone(
  zone: ZoneFacts,
  given: SoilTest | undefined,
  settings: AdviceSettings = defaultSettings,
  system: UnitSystem = 'us',
): Reading {
  return given ? readTested(zone, given, settings, system).reading : readUntested(zone, system);
}

/** The reading of a test, with what the rates go on from: the test as in water, and the ground it was read against. */
export function readTested(
  zone: ZoneFacts,
  given: SoilTest,
  settings: AdviceSettings,
  system: UnitSystem,
): { readonly reading: Reading; readonly test: SoilTest; readonly ground: Ground } {
  const { test, working } = inWater(given);
  const first = groundOf(zone, test, settings);
  const acid = test.soilPh < first.sward.ph[0] - 1e-9;
  const reported = nutrients.flatMap((nutrient) => {
    const value = test.nutrients[nutrient];
    return value ? [[nutrient, value] as const] : [];
  });
  const barsWith = (carbonate: boolean): Bar[] =>
    reported.map(([nutrient, value]) =>
      nutrientBar(nutrient, value, zone, test, { acid, carbonate, bands: settings.bands }),
    );
  // Whether there is carbonate may be told by the calcium, and then doubts the calcium itself.
  const calcium = barsWith(false).find(({ key }) => key === 'ca')?.rating;
  const ground = groundOf(zone, test, settings, calcium);
  const bars = [
    phBar(first.sward, test, working),
    ...(test.organicMatter === undefined
      ? []
      : [organicBar(test.organicMatter, zone, settings, test.steps?.organicMatter)]),
    ...barsWith(ground.carbonate.state === 'present'),
    ...saltsAndExchange(zone, test, ground.sward, settings),
  ];
  const found = limitsOfZone(zone, ground.sward, test, bars, system);
  const { asks, open } = whatIsOpen(zone, test, bars, ground);
  const missing = [
    ...(test.buffer || ground.target.way !== 'raise' ? [] : ['Buffer pH: it would settle the lime rate']),
    ...(test.organicMatter === undefined ? ['Organic matter'] : []),
    ...usual.filter((nutrient) => !test.nutrients[nutrient]).map(nutrientName),
  ];
  const questions = bars.flatMap((bar) =>
    bar.key === 'soilPh' || bar.uncertain === true ? [] : (questionPlausibility(bar.key, bar.figure.value) ?? []),
  );
  const reading: Reading = {
    headline: found[0] ? found[0].what : `Nothing on this report limits ${ground.sward.label}.`,
    bars,
    notes: [...ground.sward.notes, ...(ground.targetWords ? [ground.targetWords] : [])],
    buffer: bufferWords(test, ground.target),
    limitations: found,
    notMeasured: missing,
    others: othersOf(test),
    open,
    asks,
    questions,
  };
  return { reading, test, ground };
}

/** Nutrients that a lawn’s report is expected to hold. */
const usual = ['p', 'k', 'ca', 'mg'] as const;

function saltsAndExchange(zone: ZoneFacts, test: SoilTest, sward: Sward, { targets }: AdviceSettings): Bar[] {
  const ec = pasteEc(test, zone.soilGroup);
  const { cec, esp, values, steps } = test;
  const printed = (key: 'cec' | 'esp'): Working => {
    const value = values?.[key];
    return value ? inOwnUnit(key, value).working : [];
  };
  return [
    ...(cec === undefined
      ? []
      : [exchangeBar({ value: cec, working: printed('cec') }, targetFor(targets, 'cec', sward.main?.name))]),
    ...(ec ? [saltBar(sward, ec)] : []),
    ...(esp === undefined ? [] : [sodiumBar({ value: esp, working: [...printed('esp'), ...(steps?.esp ?? [])] })]),
  ];
}

/** Those that have a bar, or are told with one. */
const shownElsewhere: ReadonlySet<string> = new Set([
  ...['soilPh', 'bufferPh', 'organicMatter', 'cec', 'esp', 'ecPaste', 'ec12', 'ec15'],
]);

/** "Nitrate nitrogen 12 ppm. Nothing for the year: rain and growth change it in days." */
function othersOf({ values = {}, esp, ec }: SoilTest): string[] {
  return soilAnalytes.flatMap((key) => {
    const value = values[key];
    if (!value || isNutrient(key) || (shownElsewhere.has(key) && !(key === 'ec12' && ec !== undefined))) return [];
    if (key === 'na' && esp !== undefined) return [];
    const { name, silent } = analytes[key];
    const unit = unitWord(value.unit);
    const told = `${value.belowDetection ? 'below ' : ''}${Number(value.value.toPrecision(3))}${unit === '' ? '' : ` ${unit}`}`;
    return [`${name} ${told}. ${silent}`];
  });
}

function bufferWords({ buffer }: SoilTest, { way }: Target): string {
  if (buffer)
    return `${bufferNames[buffer.method]} buffer pH ${buffer.ph.toFixed(1)}: how hard the soil resists change. Lime is reckoned from it; soil pH alone says only whether.`;
  return way === 'raise'
    ? 'No buffer pH was measured, so the lime rate is an estimate from texture and organic matter.'
    : 'No buffer pH was measured, and none is wanted here: it would only set a lime rate.';
}

export function readUntested(zone: ZoneFacts, system: UnitSystem): Reading {
  const found = limitsOfZone(zone, swardOf(zone), undefined, [], system);
  return {
    headline: found[0] ? found[0].what : 'No soil test yet: lime, phosphate and potash cannot be said.',
    bars: [],
    notes: [],
    buffer: 'No soil test yet.',
    limitations: found,
    notMeasured: [],
    others: [],
    open: null,
    asks: ['test', ...(knowsDrainage(zone.measured) ? [] : seesWet(zone.signs ?? []) ? ['drainage'] : [])],
    questions: [],
  };
}
