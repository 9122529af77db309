import { type CorrectionRule, correction } from './correction.ts';
import type { Sward } from './sward.ts';

/** Where a correction goes, whether it is made, and by which rule. */
export interface Target {
  readonly aim: number;
  /** `raise`: lime; `lower`: sulfur, when the soil allows it. */
  readonly way: 'raise' | 'lower' | 'none';
  readonly rule: CorrectionRule;
  /** The rule that spoke, as a sentence. */
  readonly ruleWords: string;
  /** What is to be said of an aim of one's own: held, obeyed at a risk, or not asked for by the rule. */
  readonly aimWords: string | null;
}

const EPS = 1e-9;

/** The aim for a sward: an advisor's own where it lies in the band, or where a reason is given; and what is to be said of it. */
export function aimOf(
  { ph: [low, high], aim, possessive, organicSoil }: Sward,
  own: number | undefined,
  reason: string | undefined,
): { readonly aim: number; readonly words: string | null } {
  if (own === undefined) return { aim, words: null };
  const top = organicSoil ? correction.organicSoil.highestAim : high;
  if (own >= low - EPS && own <= top + EPS) return { aim: own, words: null };
  const nearer = own < low ? low : top;
  const band = `${possessive} ${low.toFixed(1)}–${top.toFixed(1)}`;
  const risk =
    own > top
      ? organicSoil
        ? 'an organic soil takes a great deal of lime to no use'
        : 'above it iron and manganese grow short, the grass yellows, and the way back is slow'
      : 'below it the grass thins and moss gains';
  if (reason?.trim())
    return {
      aim: own,
      words: `Your aim of ${own.toFixed(1)} lies outside ${band}, for the reason “${reason.trim()}”. The risk: ${risk}.`,
    };
  return {
    aim: nearer,
    words: `Your aim of ${own.toFixed(1)} lies outside ${band}, and no reason is given: ${nearer.toFixed(1)} is used. The risk beyond: ${risk}.`,
  };
}

/** Between which pH the rule "leave alone" does nothing, and below which "toward neutral" limes. */
export interface CorrectionLimits {
  readonly leaveAlone: readonly [low: number, high: number];
  readonly neutralBelow: number;
}

const generalLimits: CorrectionLimits = {
  leaveAlone: correction.leaveAlone.between,
  neutralBelow: correction.towardNeutral.below,
};

/**
 * Whether a pH is corrected, and where to. The rule says whether; the aim only where to.
 *
 * @param own the advisor's own aim, and the reason that one outside the band wants; `limits` of the rules, the general
 *   ones unless the practice has its own.
 */
export function targetOf(
  sward: Sward,
  ph: number,
  rule: CorrectionRule,
  own?: { readonly aim?: number | undefined; readonly reason?: string | undefined },
  { leaveAlone, neutralBelow: neutral } = generalLimits,
): Target {
  const [low, high] = sward.ph;
  const { aim: wanted, words: aimWords } = aimOf(sward, own?.aim, own?.reason);
  const below = ph < low - EPS;
  const above = ph > high + EPS;
  const inside = !below && !above;
  const answer = (way: Target['way'], ruleWords: string, aim = wanted): Target => {
    // An aim on the wrong side of the soil's own pH asks for nothing.
    const possible = way === 'raise' ? aim > ph + EPS : way === 'lower' ? aim < ph - EPS : true;
    const ignored =
      own?.aim !== undefined && way === 'none' && inside && Math.abs(wanted - ph) >= correction.toTheAim.least - EPS
        ? `Your aim of ${own.aim.toFixed(1)} says where to, not whether: under the rule “${rule}” nothing is corrected here. “To the aim” would.`
        : null;
    return {
      aim,
      way: possible ? way : 'none',
      rule,
      ruleWords: possible ? ruleWords : `The pH is at the aim of ${aim.toFixed(1)} already.`,
      aimWords: [aimWords, ignored].filter(Boolean).join(' ') || null,
    };
  };
  const outside = below ? 'raise' : above ? 'lower' : 'none';
  switch (rule) {
    case 'outside the band':
      return answer(outside, `Rule: correct only outside the ${sward.main ? 'grass’s ' : ''}band.`);
    case 'to the aim': {
      const far = Math.abs(ph - wanted) >= correction.toTheAim.least - EPS;
      return answer(
        far ? (ph < wanted ? 'raise' : 'lower') : 'none',
        `Rule: to the aim, whenever the pH is ${correction.toTheAim.least} or more from it.`,
      );
    }
    case 'leave alone': {
      const [from, to] = leaveAlone;
      const left = ph >= from - EPS && ph <= to + EPS;
      return answer(left ? 'none' : outside, `Rule: leave alone what lies between ${from} and ${to} or in the band.`);
    }
    case 'toward neutral': {
      const { onlyBelowBand } = correction.towardNeutral;
      const words = `Rule: toward neutral, lime whatever lies below ${neutral}.`;
      if (sward.organicSoil || sward.parts.some(({ name }) => onlyBelowBand.includes(name)))
        return answer(
          outside,
          `${words} Not so ${sward.organicSoil ? 'on organic soil' : `for ${sward.label}`}: only outside the band.`,
        );
      if (ph < neutral - EPS) return answer('raise', words, own?.aim === undefined ? Math.min(neutral, high) : wanted);
      return answer(above ? 'lower' : 'none', words);
    }
  }
}
