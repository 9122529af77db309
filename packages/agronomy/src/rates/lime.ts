import { InputError } from '../calculators/fields.ts';
import type { Outcome } from '../calculators/calculator.ts';
import { bufferNames } from '../lab/buffers.ts';
import { limeAdamsEvans } from '../lime/adamsEvans.ts';
import { limeAlreadyDown } from '../lime/alreadyDown.ts';
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
import { type UnitSystem, present } from '../units/present.ts';
import { type Figure, type Working, WorkingBook } from '../working/working.ts';
import { type ProductAmount, amountFor, spreaderStep } from './amount.ts';
import { type Product, ownLimeCap, productEffectiveness } from './product.ts';

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

/** By the buffer where it can tell; else, named, by texture and organic matter. */
function needOf(zone: ZoneFacts, test: SoilTest, aim: number, { sward }: Ground): Need | InputError {
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

/** Lime for a zone: whether, how much, of what, and in how many applications before the retest. */
export function adviseLime(
  zone: ZoneFacts,
  test: SoilTest,
  ground: Ground,
  product: Product | undefined,
  system: UnitSystem,
): LimeAdvice {
  const { sward, target } = ground;
  const { aim } = target;
  const place = placeWords(test, ground);
  const nothing = {
    aim,
    rule: [target.ruleWords, target.aimWords].filter(Boolean).join(' '),
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
  const words = `${place}${phDegree(test.soilPh, sward.ph) === 'small' ? ' Under this rule lime is still due.' : ''} Lime to ${aim.toFixed(1)}.${estimate ? ` ${estimate}` : ''}${counted}`;
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
  const cap = ownLimeCap(product);
  const limits = cap
    ? {
        ...limeLimits,
        capPerThousand: {
          turf: Math.min(limeLimits.capPerThousand.turf, cap.once),
          'fine turf': Math.min(limeLimits.capPerThousand['fine turf'], cap.once),
          seedbed: Math.min(limeLimits.capPerThousand.seedbed, cap.once),
        },
      }
    : limeLimits;
  const { result: program, working } = limeProgram({
    requirement,
    assumedEffectiveness,
    effectiveness: strength.value,
    surface: zone.surface,
    increment: spreaderStep('limeRate', system),
    ...(cap ? { table: limits } : {}),
  });
  book.include(working);
  const times = cap ? Math.floor(cap.year / cap.once + 1e-9) : (limeLimits.timesPerYear?.[zone.surface] ?? Infinity);
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
  const amount = amountFor(product, zone.area, thisYear, book, system);
  const [care = '', ...others] = zone.surface === 'seedbed' ? TILLED : ON_TURF;
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

/** One zone's lime, as the comparison needs it. */
export interface LimeCase {
  readonly zone: ZoneFacts;
  readonly test: SoilTest;
  readonly ground: Ground;
  readonly advice: LimeAdvice;
}

export interface LimeComparison {
  readonly otherZone: string;
  readonly words: string;
  readonly reasons: readonly string[];
}

/**
 * Why two zones of about the same pH get different lime. Where both are due it
 * turns the other zone's test into this one's a step at a time (buffer, aim,
 * depth, pH) and reports what each step moves.
 *
 * @param product this zone's liming product, in whose amounts the difference is told.
 * @returns nothing when the pH differs by more than 0.2, the answer does not, or one of the two is open.
 */
export function compareLime(
  here: LimeCase,
  there: LimeCase,
  product: Product | undefined,
  system: UnitSystem,
): LimeComparison | undefined {
  const open = [here, there].some(({ advice }) => advice.status === 'cannot say' || advice.status === 'too high');
  if (open || !product?.lime) return undefined;
  const effectiveness = productEffectiveness(product.lime).value;
  if (Math.abs(here.test.soilPh - there.test.soilPh) > 0.2 + 1e-9) return undefined;
  const ofProduct = (requirement: number, assumed: number): number => (requirement * assumed) / effectiveness;
  const amountOf = ({ advice }: LimeCase): number =>
    ofProduct(advice.requirement?.value ?? 0, advice.assumedEffectiveness ?? 0);
  const difference = amountOf(here) - amountOf(there);
  const say = (rate: number): string => present('limeRate', Math.abs(rate), system).text;
  if (present('limeRate', Math.abs(difference), system).value === 0) return undefined;

  const words = `${there.zone.name} has pH ${there.test.soilPh.toFixed(1)} too, and ${amountOf(there) === 0 ? 'gets no lime' : `needs ${say(difference)} ${difference > 0 ? 'less' : 'more'}, reckoned in this zone’s product`}.`;
  const band = ({ ground }: LimeCase): string => bandWords(ground.sward.ph);
  const grass = ({ ground }: LimeCase): string => ground.sward.label;
  const reasons: string[] = [];
  const explain = (text: string, delta: number): void => {
    if (present('limeRate', Math.abs(delta), system).value !== 0)
      reasons.push(`${text}: ${delta > 0 ? '+' : '−'}${say(delta)}.`);
  };
  const bothDue = here.advice.status !== 'none' && there.advice.status !== 'none';
  if (!bothDue) {
    if (grass(here) !== grass(there))
      reasons.push(`${grass(here)} here wants ${band(here)}; ${grass(there)} there wants ${band(there)}.`);
    reasons.push(there.advice.words);
    return { otherZone: there.zone.name, words, reasons };
  }
  const method = ({ advice, test }: LimeCase): string =>
    advice.status === 'estimate' ? 'estimate' : (test.buffer?.method ?? 'estimate');
  if (method(here) !== method(there) || method(here) === 'estimate') {
    reasons.push(
      method(here) === method(there)
        ? 'Both are estimates from texture and organic matter, wide ones.'
        : method(here) === 'estimate' || method(there) === 'estimate'
          ? 'One of the two is an estimate without a buffer, which does not compare number by number.'
          : 'The two were read with different buffer methods, which do not compare number by number.',
    );
    return { otherZone: there.zone.name, words, reasons };
  }
  let test = there.test;
  let aim = there.advice.aim;
  let last = amountOf(there);
  const move = (text: string, change: () => void): void => {
    change();
    try {
      const { requirement, assumedEffectiveness } = limeRequirement(test, aim).result;
      const next = ofProduct(requirement, assumedEffectiveness);
      explain(text, next - last);
      last = next;
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
    }
  };
  move(
    `Buffer pH ${here.test.buffer?.ph.toFixed(1)} here, ${there.test.buffer?.ph.toFixed(1)} there`,
    () => (test = { ...test, buffer: here.test.buffer }),
  );
  move(
    `Aim ${here.advice.aim.toFixed(1)} for ${grass(here)} here, ${aim.toFixed(1)} for ${grass(there)} there`,
    () => (aim = here.advice.aim),
  );
  move(
    `Sampled ${present('depth', here.test.depth, system).text} deep here, ${present('depth', test.depth, system).text} there`,
    () => (test = { ...test, depth: here.test.depth }),
  );
  move(`Soil pH ${here.test.soilPh.toFixed(1)} here, ${there.test.soilPh.toFixed(1)} there`, () => (test = here.test));
  if (reasons.length === 0) reasons.push('What was put down already makes the difference.');
  return { otherZone: there.zone.name, words, reasons };
}
