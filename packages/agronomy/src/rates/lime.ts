import { InputError } from '../calculators/fields.ts';
import type { Outcome } from '../calculators/calculator.ts';
import { type BufferMethod, bufferNames } from '../lab/buffers.ts';
import { limeAdamsEvans } from '../lime/adamsEvans.ts';
import type { LimeRequirement } from '../lime/apply.ts';
import { limeMehlich } from '../lime/mehlich.ts';
import { limeProgram } from '../lime/program.ts';
import { limeSmp } from '../lime/smp.ts';
import { findGrass } from '../nutrients/grasses.ts';
import { type SoilTest, type ZoneFacts, grassPossessive } from '../reading/reading.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { type Figure, WorkingBook } from '../working/working.ts';
import { type ProductAmount, amountFor, spreaderStep } from './amount.ts';
import { type Product, productEffectiveness } from './product.ts';

export interface LimeAdvice {
  readonly status: 'due' | 'none' | 'too high' | 'cannot say';
  readonly words: string;
  /** pH that the rate reaches for. */
  readonly aim: number;
  /** g/m² of lime at the method's assumed strength. */
  readonly requirement: Figure | null;
  /** % effective, for comparing methods. */
  readonly assumedEffectiveness: number | null;
  readonly amount: ProductAmount | null;
  readonly cautions: readonly string[];
}

const methods = { smp: limeSmp, sikora: limeSmp, mehlich: limeMehlich, 'adams-evans': limeAdamsEvans } as const;

/** Where a correction in this zone aims: the advisor's own setting, else the grass's. */
export function aimOf(zone: ZoneFacts): number {
  return zone.aimPh ?? findGrass(zone.grass).aim;
}

/** The requirement by the test's own buffer method. @throws {InputError} when there is no buffer or it is outside the method. */
export function limeRequirement(test: SoilTest, targetPh: number): Outcome<LimeRequirement> {
  if (!test.buffer) {
    throw new InputError(
      'bufferPh',
      'was not measured: soil pH says that lime is due but not how much. Ask the laboratory for a buffer pH',
    );
  }
  return methods[test.buffer.method]({ soilPh: test.soilPh, bufferPh: test.buffer.ph, targetPh, depth: test.depth });
}

const CAUTIONS: readonly string[] = [
  'Wear a dust mask and eye protection; spread pelletised lime where dust would drift.',
  'Keep lime and ammonium fertilizer or urea weeks apart: together they lose nitrogen as gas.',
  'Not on frozen or saturated ground. Sweep it off paving; water it in; children and pets stay off until then.',
];

/** Why the method of the test can give no rate, for the person who holds the report. */
function outsideMethod({ field, message }: InputError, method: BufferMethod, aim: number): string {
  if (field === 'targetPh') {
    return `The ${bufferNames[method]} method gives no rate to an aim of ${aim.toFixed(1)}: ask the laboratory for another buffer, such as Mehlich or Adams–Evans.`;
  }
  return `No rate by the ${bufferNames[method]} method: ${message
    .replace(/^soilPh was given/, 'the soil pH is')
    .replace(/^bufferPh was given/, 'the buffer pH is')
    .replace(/^depth was given/, 'the depth is')}.`;
}

/** Lime for a zone: whether, how much, of what, and in how many applications. */
export function adviseLime(
  zone: ZoneFacts,
  test: SoilTest,
  product: Product | undefined,
  system: UnitSystem,
): LimeAdvice {
  const [low, high] = findGrass(zone.grass).ph;
  const aim = aimOf(zone);
  const range = `${grassPossessive(zone.grass)} ${low.toFixed(1)}–${high.toFixed(1)}`;
  const ph = test.soilPh.toFixed(1);
  const nothing = { aim, requirement: null, assumedEffectiveness: null, amount: null, cautions: [] };
  if (test.soilPh > high)
    return {
      ...nothing,
      status: 'too high',
      words: `No lime here. pH ${ph} is above ${range}: lime would lock up iron and manganese.`,
    };
  if (test.soilPh >= low) return { ...nothing, status: 'none', words: `No lime here. pH ${ph} is inside ${range}.` };

  const below = `pH ${ph} is below ${range}.`;
  if (test.soilPh >= aim)
    return { ...nothing, status: 'none', words: `${below} But it is at your aim of ${aim.toFixed(1)}, so no lime.` };
  if (!test.buffer) {
    return {
      ...nothing,
      status: 'cannot say',
      words: `${below} No buffer pH was measured: soil pH says that lime is due but not how much. Ask the laboratory for one.`,
    };
  }
  let outcome: Outcome<LimeRequirement>;
  try {
    outcome = limeRequirement(test, aim);
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return { ...nothing, status: 'cannot say', words: `${below} ${outsideMethod(error, test.buffer.method, aim)}` };
  }
  const { requirement, assumedEffectiveness } = outcome.result;
  const needed: Figure = { value: requirement, working: outcome.working };
  if (requirement === 0) {
    return {
      ...nothing,
      requirement: needed,
      assumedEffectiveness,
      status: 'none',
      words: `${below} But the buffer shows almost no reserve acidity, so no lime: retest next year.`,
    };
  }
  const words = `${below} Lime to ${aim.toFixed(1)}.`;
  const found = { status: 'due', words, aim, requirement: needed, assumedEffectiveness } as const;
  if (!product?.lime) return { ...found, amount: null, cautions: ['Choose a liming product to get a rate.'] };
  if (product.lime.caustic && zone.surface !== 'seedbed') {
    return {
      ...found,
      amount: null,
      cautions: [
        `${product.name} burns living turf, skin and eyes: no rate is given for it here. Choose a carbonate lime.`,
      ],
    };
  }
  const book = new WorkingBook();
  book.include(outcome.working);
  const strength = productEffectiveness(product.lime);
  book.include(strength.working);
  const { result: program, working } = limeProgram({
    requirement,
    assumedEffectiveness,
    effectiveness: strength.value,
    surface: zone.surface,
    increment: spreaderStep('limeRate', system),
  });
  book.include(working);
  const amount = amountFor(product, zone.area, program.applications, book, system);
  const split =
    program.applications.length > 1
      ? [
          `Lime acts over months. ${program.applications.length} applications, 3 months apart or more; retest before the ${program.applications.length > 2 ? 'third' : 'second'} if you can.`,
        ]
      : [];
  return { ...found, amount, cautions: [...split, ...CAUTIONS] };
}

/** One zone's lime, as the comparison needs it. */
export interface LimeCase {
  readonly zone: ZoneFacts;
  readonly test: SoilTest;
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
  const grass = (zone: ZoneFacts): string => findGrass(zone.grass).label;
  const reasons: string[] = [];
  const explain = (text: string, delta: number): void => {
    if (present('limeRate', Math.abs(delta), system).value !== 0)
      reasons.push(`${text}: ${delta > 0 ? '+' : '−'}${say(delta)}.`);
  };
  const bothDue = here.advice.status === 'due' && there.advice.status === 'due';
  if (!bothDue) {
    const [low, high] = findGrass(there.zone.grass).ph;
    const [lowHere, highHere] = findGrass(here.zone.grass).ph;
    if (grass(here.zone) !== grass(there.zone))
      reasons.push(
        `${grass(here.zone)} here wants ${lowHere.toFixed(1)}–${highHere.toFixed(1)}; ${grass(there.zone)} there wants ${low.toFixed(1)}–${high.toFixed(1)}.`,
      );
    reasons.push(there.advice.words);
    return { otherZone: there.zone.name, words, reasons };
  }
  if (here.test.buffer?.method !== there.test.buffer?.method) {
    reasons.push('The two were read with different buffer methods, which do not compare number by number.');
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
    `Aim ${here.advice.aim.toFixed(1)} for ${grass(here.zone)} here, ${aim.toFixed(1)} for ${grass(there.zone)} there`,
    () => (aim = here.advice.aim),
  );
  move(
    `Sampled ${present('depth', here.test.depth, system).text} deep here, ${present('depth', test.depth, system).text} there`,
    () => (test = { ...test, depth: here.test.depth }),
  );
  move(`Soil pH ${here.test.soilPh.toFixed(1)} here, ${there.test.soilPh.toFixed(1)} there`, () => (test = here.test));
  return { otherZone: there.zone.name, words, reasons };
}
