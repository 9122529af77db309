import { defineCalculator } from '../calculators/calculator.ts';
import { choice, optional, quantity } from '../calculators/fields.ts';
import { group, listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/trouble.json' with { type: 'json' };
import {
  type NumberFact,
  type WordFact,
  factLabels,
  numberFacts,
  numberNames,
  wordFacts,
  wordNames,
} from '../evidence/facts.ts';
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';
import { type Piece, type Testimony, checkConditions, conditionFields, weigh } from '../rules/engine.ts';

const evidenceFields = {
  ...conditionFields([...numberNames, ...wordNames]),
  weight: quantity('', { min: -4, max: 4, whole: true }),
  words: text(),
};

/** Signs of trouble, and the rules that lead from signs and facts to causes. */
export const troubleRules = readTable(
  'trouble',
  {
    signs: listOf({ name: text(40), label: text(60), look: text(200) }, 'signs', { min: 1, max: 40 }),
    causes: listOf(
      {
        name: text(40),
        label: text(60),
        means: text(240),
        first: text(240),
        check: group({ what: text(200), effort: text(80), settles: text(200) }),
        evidence: listOf(evidenceFields, 'pieces of evidence', { min: 1, max: 20 }),
      },
      'causes',
      { min: 1, max: 40 },
    ),
  },
  data,
);
export type Sign = (typeof troubleRules)['signs'][number];

const signNames = troubleRules.signs.map(({ name }) => name);
export const signs: readonly Sign[] = troubleRules.signs;
const signLabels = new Map(signs.map(({ name, label }) => [name, label]));

// A rule that can never speak is a slip of the data file.
for (const [place, { evidence }] of troubleRules.causes.entries())
  checkConditions(evidence, { signs: signNames, words: wordFacts }, `trouble.causes.${place}.evidence`);

export interface LikelyCause {
  readonly cause: string;
  readonly label: string;
  readonly points: number;
  readonly for: readonly Testimony[];
  readonly against: readonly Testimony[];
  /** Facts that would speak, were they known. */
  readonly unknown: readonly string[];
  readonly means: string;
  readonly first: string;
  readonly check: { readonly what: string; readonly effort: string; readonly settles: string };
}

function told({ sign, fact, words, weight }: Piece, value: number | string | undefined): Testimony {
  if (sign !== undefined) return { points: weight, words: `${signLabels.get(sign)}: ${words}` };
  const unit = fact && fact in numberFacts ? numberFacts[fact as NumberFact] : '';
  const measured = fact && typeof value === 'number' && unit !== '' && unit !== 'pH' && unit !== 'h';
  const inches = unit === 'cm' && typeof value === 'number' ? `, ${convert(value, 'cm', 'in').toFixed(1)} in` : '';
  return { points: weight, words: measured ? `${words}: ${figure(value)} ${unit}${inches}` : words };
}

/** Every cause with what speaks for it and against it, whether anything points at it or not, in the order of the rules. */
export const weighedCauses = (seen: readonly string[], known: Readonly<Record<string, number | string | undefined>>) =>
  troubleRules.causes.map((cause) => ({ cause, weighed: weigh(cause.evidence, seen, known, told) }));

/**
 * Likely causes of what is seen, by a ranked rule base: points for and against each, by signs and facts. A cause that no
 * sign points at is not named, however well the facts would fit it.
 *
 * @param signs names of {@link signs}; `facts` what is known of the zone, in the units of the fields.
 * @returns `causes`, most points first, each with its evidence for and against, what is not known, and the cheapest
 *   check that would settle it.
 */
export const troubleCauses = defineCalculator({
  name: 'trouble.causes',
  title: 'Likely causes of trouble signs',
  source: troubleRules.source,
  inputs: {
    signs: series(choice(signNames), 'signs', { min: 1, max: signNames.length }),
    facts: optional(
      group({
        ...(Object.fromEntries(numberNames.map((name) => [name, optional(quantity(numberFacts[name]))])) as Record<
          NumberFact,
          ReturnType<typeof optional<number>>
        >),
        ...(Object.fromEntries(wordNames.map((name) => [name, optional(choice(wordFacts[name]))])) as Record<
          WordFact,
          ReturnType<typeof optional<string>>
        >),
      }),
    ),
  },
  outputs: { first: 'name of the likeliest cause', causes: '[{cause, label, points, for, against, unknown, check}]' },
  compute({ signs: seen, facts = {} }, book) {
    const known = facts as Readonly<Record<string, number | string | undefined>>;
    const causes = weighedCauses(seen, known).flatMap(({ cause, weighed }): LikelyCause[] => {
      const { name, label, means, first, check } = cause;
      if (!weighed.pointed) return [];
      return [
        {
          cause: name,
          label,
          points: weighed.points,
          for: weighed.for,
          against: weighed.against,
          unknown: [...new Set(weighed.unknown.map((fact) => factLabels[fact as NumberFact]))],
          means,
          first,
          check,
        },
      ];
    });
    causes.sort((one, other) => other.points - one.points);
    for (const { label, points, for: pro, against } of causes)
      book.step({
        label,
        formula: 'Σ points for − Σ points against',
        numbers: [...pro, ...against]
          .map((piece) => `${piece.points > 0 ? '+' : '−'}${Math.abs(piece.points)} ${piece.words}`)
          .join('; '),
        result: points,
        unit: 'points',
        source: troubleRules.source,
      });
    book.warn('Points order the suspicions; a check settles them. More than one cause can be at work.');
    return { first: causes[0]?.cause ?? 'none', causes };
  },
});
