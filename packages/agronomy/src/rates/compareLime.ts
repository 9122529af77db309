import { InputError } from '../calculators/fields.ts';
import { bandWords } from '../reading/bars.ts';
import type { Ground } from '../reading/reading.ts';
import type { SoilTest, ZoneFacts } from '../reading/zoneFacts.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { type LimeAdvice, limeDepthOf, limeRequirement } from './lime.ts';
import { type Product, productEffectiveness } from '../materials/product.ts';

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

/** Soils that differ by no more than this are of about the same pH. */
export const ALIKE_PH = 0.2 + 1e-9;

/** The case as its lime was reckoned: on turf perhaps for the top only. */
function reckoned(given: LimeCase): LimeCase {
  const { zone, test, ground } = given;
  return { ...given, test: { ...test, depth: limeDepthOf(zone, test, ground.settings) } };
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
  hereGiven: LimeCase,
  thereGiven: LimeCase,
  product: Product | undefined,
  system: UnitSystem,
): LimeComparison | undefined {
  const [here, there] = [reckoned(hereGiven), reckoned(thereGiven)];
  const open = [here, there].some(({ advice }) => advice.status === 'cannot say' || advice.status === 'too high');
  if (open || !product?.lime) return undefined;
  const effectiveness = productEffectiveness(product.lime).value;
  if (Math.abs(here.test.soilPh - there.test.soilPh) > ALIKE_PH) return undefined;
  const ofProduct = (requirement: number, assumed: number): number => (requirement * assumed) / effectiveness;
  const amountOf = ({ advice }: LimeCase): number =>
    ofProduct(advice.requirement?.value ?? 0, advice.assumedEffectiveness ?? 0);
  const difference = amountOf(here) - amountOf(there);
  const say = (rate: number): string => present('limeRate', Math.abs(rate), system).text;
  if (present('limeRate', Math.abs(difference), system).value === 0) return undefined;

  const near = there.test.soilPh.toFixed(1) === here.test.soilPh.toFixed(1) ? ' too' : ', much the same';
  const words = `${there.zone.name} has pH ${there.test.soilPh.toFixed(1)}${near}, and ${amountOf(there) === 0 ? 'gets no lime' : `needs ${say(difference)} ${difference > 0 ? 'less' : 'more'}, reckoned in this zone’s product`}.`;
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
