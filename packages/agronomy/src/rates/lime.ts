import { InputError } from '../calculators/fields.ts';
import type { Outcome } from '../calculators/calculator.ts';
import { bufferNames } from '../lab/buffers.ts';
import { limeAdamsEvans } from '../lime/adamsEvans.ts';
import { limeAlreadyDown } from '../ledger/alreadyDown.ts';
import type { LimeRequirement } from '../lime/apply.ts';
import { limeEstimate } from '../lime/estimate.ts';
import { limeLimits } from '../lime/materials.ts';
import { limeMehlich } from '../lime/mehlich.ts';
import { limeProgram } from '../lime/program.ts';
import { limeSmp } from '../lime/smp.ts';
import { bandWords } from '../reading/bars.ts';
import { phDegree } from '../reading/degrees.ts';
import type { Ground } from '../reading/reading.ts';
import type { SoilTest, ZoneFacts } from '../reading/zoneFacts.ts';
import { type AdviceSettings, LIME_TOP } from '../settings/settings.ts';
import { convert } from '../units/unit.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { type Figure, type Working, WorkingBook } from '../working/working.ts';
import { type ProductAmount, amountFor, spreaderStep } from './amount.ts';
import { type Product, ownLimeCap, productEffectiveness } from '../materials/product.ts';

export interface LimeAdvice {
  /** `estimate`: due, by texture and organic matter instead of a buffer. */
  readonly status: 'due' | 'estimate' | 'none' | 'too high' | 'cannot say';
  readonly words: string;
  /** The rule that decided whether, in a sentence. */
  readonly rule: string;
  /** pH that the rate reaches for. */
  readonly aim: number;
  /** g/m² of lime at the method's assumed strength. */
  readonly requirement: Figure | null;
  /** % effective, for comparing methods. */
  readonly assumedEffectiveness: number | null;
  /** What goes down before the retest, a year at most. */
  readonly amount: ProductAmount | null;
  /** g/m² of product that only the retest may release; neither bought nor dated. */
  readonly afterRetest: number;
  readonly cautions: readonly string[];
}

const methods = { smp: limeSmp, sikora: limeSmp, mehlich: limeMehlich, 'adams-evans': limeAdamsEvans } as const;

/** The requirement by the test's own buffer method. @throws {InputError} when there is no buffer or it is outside the method. */
export function limeRequirement(test: SoilTest, targetPh: number): Outcome<LimeRequirement> {
  if (!test.buffer) throw new InputError('bufferPh', 'was not measured');
  const { method, ph, limeFactor } = test.buffer;
  const given = { soilPh: test.soilPh, bufferPh: ph, targetPh, depth: test.depth };
  return method === 'adams-evans' && limeFactor !== undefined
    ? limeAdamsEvans({ ...given, limeFactor })
    : methods[method](given);
}

/** Share of a full application below which a last one is not worth a pass. */
const REMNANT = 0.1;
/** How far below its band a soil must be before a buffer that shows nothing is not believed. */
const BLIND_BELOW = 0.3;

interface Need {
  readonly requirement: number;
  readonly assumedEffectiveness: number;
  readonly working: Working;
  /** Only where texture and organic matter stood in: its ends, pure lime, and why. */
  readonly estimate?: { readonly low: number; readonly middle: number; readonly high: number; readonly why: string };
}

/** How deep the lime is reckoned for, cm: the slice that was sampled, or on turf the top where surface lime acts first. */
export function limeDepthOf({ surface }: ZoneFacts, { depth }: SoilTest, { limeDepth }: AdviceSettings): number {
  return limeDepth === 'top 4 in' && surface !== 'seedbed' ? Math.min(depth, LIME_TOP) : depth;
}

/** By the buffer where it can tell; else, named, by texture and organic matter. */
function needOf(zone: ZoneFacts, given: SoilTest, aim: number, { sward, settings }: Ground): Need | InputError {
  const test = { ...given, depth: limeDepthOf(zone, given, settings) };
  let why: string;
  try {
    const { result, working } = limeRequirement(test, aim);
    const blind = result.requirement === 0 && test.soilPh <= sward.ph[0] - BLIND_BELOW + 1e-9;
    if (!blind) return { ...result, working };
    why = `The ${bufferNames[test.buffer!.method]} buffer shows no reserve acidity, as it often does on sand, yet the pH is ${(sward.ph[0] - test.soilPh).toFixed(1)} below the band`;
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    why = !test.buffer
      ? 'No buffer pH was measured'
      : error.field === 'targetPh'
        ? `The ${bufferNames[test.buffer.method]} method gives no rate to an aim of ${aim.toFixed(1)}`
        : `The ${bufferNames[test.buffer.method]} method cannot read this: ${error.message
            .replace(/^soilPh was given/, 'the soil pH is')
            .replace(/^bufferPh was given/, 'the buffer pH is')
            .replace(/^depth was given/, 'the depth is')}`;
  }
  try {
    const { result, working } = limeEstimate({
      soilPh: test.soilPh,
      targetPh: aim,
      depth: test.depth,
      soilGroup: zone.soilGroup ?? 'loam',
      organicMatter: test.organicMatter,
    });
    const { low, high, requirement, assumedEffectiveness } = result;
    const book = new WorkingBook();
    book.include(working);
    book.cap('The low end is given now; a buffer test or the retest settles the rest.');
    return {
      requirement: low,
      assumedEffectiveness,
      working: book.entries,
      estimate: { low, middle: requirement, high, why },
    };
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return error;
  }
}

const ON_TURF: readonly string[] = [
  'Wear a dust mask and eye protection; spread pelletised lime where dust would drift.',
  'Keep lime and ammonium fertilizer or urea weeks apart: together they lose nitrogen as gas.',
  'Not on frozen or saturated ground. Sweep it off paving; water it in; children and pets stay off until then.',
];
const IN_A_BED: readonly string[] = [
  'Wear a dust mask and eye protection; spread pelletised lime where dust would drift.',
  'Dig it in evenly to the sampled depth before planting; not on frozen or saturated ground.',
];
const TILLED: readonly string[] = [
  'Wear a dust mask and eye protection; spread pelletised lime where dust would drift.',
  'Till it in evenly to the sampled depth before seeding; not on frozen or saturated ground.',
];

/** How the status words begin: where the pH lies, by degree. */
function placeWords(test: SoilTest, { sward }: Ground): string {
  const degree = phDegree(test.soilPh, sward.ph);
  const side = test.soilPh < sward.ph[0] ? 'below' : 'above';
  const band = `${sward.possessive} ${bandWords(sward.ph)}`;
  const told = `pH ${test.soilPh.toFixed(1)}`;
  if (!degree) return `${told} is inside ${band}.`;
  return degree === 'small' ? `${told} is a small miss ${side} ${band}.` : `${told} is ${side} ${band}.`;
}

/** What a surface and the settings let down of a liming product: lb/1000 ft² at once, and how often in a year. */
function limeCaps(zone: ZoneFacts, product: Product, { caps }: AdviceSettings) {
  const ownCap = ownLimeCap(product);
  const perThousand = (cap: { readonly most: number } | undefined): number =>
    cap ? convert(cap.most, 'g/m2', 'lb/1000ft2') : Infinity;
  const once = Math.min(
    limeLimits.capPerThousand[zone.surface],
    ownCap?.once ?? Infinity,
    perThousand(caps.limeOnce),
    perThousand(caps.limeYear),
  );
  const inYear = Math.min(
    ownCap ? ownCap.year : once * (limeLimits.timesPerYear?.[zone.surface] ?? Infinity),
    perThousand(caps.limeYear),
  );
  // What the logbook has down counts against the year.
  const down = convert(zone.down?.limeProduct ?? 0, 'g/m2', 'lb/1000ft2');
  const left = Math.max(0, inYear - down);
  return { once, times: Math.floor(left / once + 1e-6), ownCap, down: zone.down?.limeProduct ?? 0 };
}

/** A liming rate set by hand, in as few applications as the caps allow. */
export interface OwnLime {
  readonly amount: ProductAmount | null;
  /** What the caps did not let through, with the remedy. */
  readonly held: string | null;
}

/**
 * Lime at a rate of one’s own: caps hold for it as for any.
 *
 * @param rate g/m² of product for the year; `atLeast` applications wanted.
 */
export function limeByHand(
  zone: ZoneFacts,
  product: Product,
  settings: AdviceSettings,
  { rate, atLeast = 1 }: { readonly rate: number; readonly atLeast?: number | undefined },
  system: UnitSystem,
): OwnLime {
  if (product.lime?.caustic && zone.surface !== 'seedbed')
    return { amount: null, held: `${product.name} burns living turf, skin and eyes: choose a carbonate lime.` };
  const { once, times, down } = limeCaps(zone, product, settings);
  const cap = convert(once, 'lb/1000ft2', 'g/m2');
  const count = Math.min(times, Math.max(atLeast, Math.ceil(rate / cap - 1e-6)));
  if (count < 1)
    return {
      amount: null,
      held:
        down > 0
          ? `${present('limeRate', down, system).text} is down this year by the logbook: the year takes no more lime.`
          : 'The caps that are set leave no lime for a year: look at “How it is decided”.',
    };
  const each = Math.min(cap, rate / count);
  const say = (amount: number): string => present('limeRate', amount, system).text;
  const held =
    each * count < rate * (1 - 1e-6)
      ? `${say(rate)} was asked for; a year takes ${count === 1 ? 'one application' : `${count} applications`} of ${say(cap)} at most. The rest waits for the retest.`
      : null;
  const book = new WorkingBook();
  book.step({
    label: 'Set by hand',
    formula: 'the advisor’s own rate for the year',
    numbers: `${say(rate)} in ${count}`,
    result: each * count,
    unit: 'g/m2',
  });
  if (held) book.cap(held, limeLimits.source);
  const applications = Array.from({ length: count }, (_, index) => ({
    rate: each,
    monthsFromStart: index * limeLimits.monthsBetween,
  }));
  return { amount: amountFor(product, zone.area, applications, book, system, settings.currency), held };
}

/** Lime for a zone: whether, how much, of what, and in how many applications before the retest. */
export function adviseLime(
  zone: ZoneFacts,
  test: SoilTest,
  ground: Ground,
  product: Product | undefined,
  system: UnitSystem,
): LimeAdvice {
  const { sward, target, settings } = ground;
  const { aim } = target;
  const place = placeWords(test, ground);
  const nothing = {
    aim,
    rule: [target.ruleWords, settings.correctBy, target.aimWords, ground.targetWords].filter(Boolean).join(' '),
    requirement: null,
    assumedEffectiveness: null,
    amount: null,
    afterRetest: 0,
    cautions: [],
  };
  if (target.way !== 'raise') {
    if (test.soilPh > sward.ph[1] + 1e-9)
      return { ...nothing, status: 'too high', words: `No lime here. ${place} Lime would raise it further.` };
    const left =
      test.soilPh >= sward.ph[0] - 1e-9
        ? ''
        : test.soilPh >= aim - 1e-9
          ? ` But it is at your aim of ${aim.toFixed(1)}.`
          : ' Left alone by the rule.';
    return { ...nothing, status: 'none', words: `No lime here. ${place}${left}` };
  }
  const need = needOf(zone, test, aim, ground);
  if (need instanceof InputError)
    return { ...nothing, status: 'cannot say', words: `${place} No rate: ${need.message}. Ask the laboratory.` };

  const down = limeAlreadyDown(zone.applied ?? [], test.sampledOn, system);
  const book = new WorkingBook();
  book.include(need.working);
  book.include(down.working);
  const { assumedEffectiveness } = need;
  const offRequirement = (down.pure * 100) / assumedEffectiveness;
  const requirement = Math.max(0, need.requirement - offRequirement);
  if (down.pure > 0)
    book.step({
      label: 'Less what is already down',
      formula: 'requirement − pure lime down / assumed effectiveness',
      numbers: `${present('limeRate', need.requirement, system).text} − ${present('limeRate', offRequirement, system).text}`,
      result: requirement,
      unit: 'g/m2',
    });
  const needed: Figure = { value: requirement, working: book.entries };
  const counted = down.words.length > 0 ? ` ${down.words.join(' ')}` : '';
  const strength = product?.lime ? productEffectiveness(product.lime) : undefined;
  const estimate = need.estimate && estimateWords(zone, test, aim, need.estimate, strength?.value, system);
  if (requirement === 0) {
    const enough = down.pure > 0 && need.requirement > 0;
    return {
      ...nothing,
      requirement: needed,
      assumedEffectiveness,
      status: 'none',
      words: enough
        ? `${place} No lime now: what is already down is enough.${counted} Retest when it has worked.`
        : `${place} But the buffer shows almost no reserve acidity, so no lime now: retest next year.${counted}`,
    };
  }
  const depth = limeDepthOf(zone, test, settings);
  const top =
    depth < test.depth - 1e-9
      ? `, reckoned for the top ${present('depth', depth, system).text} of the ${present('depth', test.depth, system).text} sampled`
      : '';
  // Inside the band it is the rule that asks for lime, not the band.
  const reason =
    phDegree(test.soilPh, sward.ph) === null
      ? `${place.replace(/\.$/, '')}, below the aim of ${aim.toFixed(1)}: the rule “${target.rule}” corrects that.`
      : place;
  const words = `${reason}${phDegree(test.soilPh, sward.ph) === 'small' ? ' Under this rule lime is still due.' : ''} Lime to ${aim.toFixed(1)}${top}.${estimate ? ` ${estimate}` : ''}${counted}`;
  const found = {
    ...nothing,
    status: estimate ? 'estimate' : 'due',
    words,
    requirement: needed,
    assumedEffectiveness,
  } as const;
  if (!product?.lime || !strength) return { ...found, cautions: ['Choose a liming product to get a rate.'] };
  if (product.lime.caustic && zone.surface !== 'seedbed') {
    return {
      ...found,
      cautions: [
        `${product.name} burns living turf, skin and eyes: no rate is given for it here. Choose a carbonate lime.`,
      ],
    };
  }
  book.include(strength.working);
  const { once, times, ownCap, down: downInYear } = limeCaps(zone, product, settings);
  if (times < 1 && downInYear > 0)
    return {
      ...found,
      cautions: [
        `${present('limeRate', downInYear, system).text} of lime is down since ${zone.down!.since}: the year takes no more. The rest waits for the retest.`,
      ],
    };
  const step = spreaderStep('limeRate', system);
  if (convert(once, 'lb/1000ft2', 'g/m2') < step - 1e-9)
    return {
      ...found,
      cautions: [
        `Held at ${present('limeRate', convert(once, 'lb/1000ft2', 'g/m2'), system).text} at a time, less than a spreader can be set to: no rate is given.`,
      ],
    };
  const held = once < limeLimits.capPerThousand[zone.surface];
  const limits = { ...limeLimits, capPerThousand: { ...limeLimits.capPerThousand, [zone.surface]: once } };
  const { result: program, working } = limeProgram({
    requirement,
    assumedEffectiveness,
    effectiveness: strength.value,
    surface: zone.surface,
    increment: step,
    ...(held ? { table: limits } : {}),
  });
  book.include(working);
  if (held && !ownCap)
    book.cap(
      `Held at ${present('limeRate', convert(once, 'lb/1000ft2', 'g/m2'), system).text} at a time by ${(settings.caps.limeOnce ?? settings.caps.limeYear)!.by}.`,
    );
  const inYear = program.applications.slice(0, times);
  // Nobody walks a lawn again for the last pound: a small remainder waits for the retest.
  const remnant = inYear.length > 1 && inYear.at(-1)!.rate < REMNANT * inYear[0]!.rate;
  const thisYear = remnant ? inYear.slice(0, -1) : inYear;
  const afterRetest = program.applications.slice(thisYear.length).reduce((sum, { rate }) => sum + rate, 0);
  if (afterRetest > 0)
    book.cap(
      `${thisYear.length === 1 ? 'One application' : `${thisYear.length} applications`} before the retest; the rest, ${present('limeRate', afterRetest, system).text}, only after it.`,
      limeLimits.source,
    );
  const amount = amountFor(product, zone.area, thisYear, book, system, settings.currency);
  const [care = '', ...others] = zone.garden ? IN_A_BED : zone.surface === 'seedbed' ? TILLED : ON_TURF;
  const cautions = [
    care,
    ...(thisYear.length > 1
      ? [
          `Lime acts over months. ${thisYear.length} applications, 3 months apart or more, 4 to 6 better; core before spreading.`,
        ]
      : []),
    ...(afterRetest > 0
      ? [
          `The rest, about ${present('limeRate', afterRetest, system).text}, only after the retest: it is neither bought nor dated now.`,
        ]
      : []),
    ...others,
  ];
  return { ...found, amount, afterRetest, cautions };
}

/** Why an estimate stands in, its range in what is spread, and what the soil group would change. */
function estimateWords(
  zone: ZoneFacts,
  test: SoilTest,
  aim: number,
  { low, middle, high, why }: NonNullable<Need['estimate']>,
  effectiveness: number | undefined,
  system: UnitSystem,
): string {
  const told = (pure: number): string => present('limeRate', (pure * 100) / (effectiveness ?? 100), system).number;
  const label = present('limeRate', 0, system).unit;
  const of = effectiveness === undefined ? 'pure lime' : 'this product';
  const range = `${told(low)} to ${told(high)} ${label} of ${of}, middle ${told(middle)}`;
  const soil =
    zone.soilGroup === undefined
      ? (() => {
          const sand = limeEstimate({
            soilPh: test.soilPh,
            targetPh: aim,
            depth: test.depth,
            soilGroup: 'sand',
            organicMatter: test.organicMatter,
          }).result;
          return ` The soil is not known and read as loam; on sand it would be ${told(sand.low)} to ${told(sand.high)}.`;
        })()
      : '';
  return `${why}: estimated from texture and organic matter, ${range}. The low end is given; ${test.buffer ? 'the retest' : 'a buffer test or the retest'} settles it.${soil}`;
}
