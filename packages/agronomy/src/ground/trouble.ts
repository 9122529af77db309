import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, optional, quantity } from '../calculators/fields.ts';
import { group, listOf, series, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/trouble.json' with { type: 'json' };
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';

/** Facts of a zone that speak for or against a cause: numbers with their unit, and words. */
const numberFacts = {
  /** Hours by which the sun falls short of what the grass needs; negative where there is more. */
  sunShort: 'h',
  slope: '%',
  thatch: 'cm',
  rootDepth: 'cm',
  /** Depth at which a probe stops. */
  probeStop: 'cm',
  ph: 'pH',
  /** By how much the pH stands below, or above, what the grass wants. */
  phBelow: '',
  phAbove: '',
  organicMatter: '%',
  /** Share of the zone under canopies. */
  canopy: '%',
  /** Deepest standing water by the spot heights. */
  hollow: 'cm',
  /** Border along paving and walls. */
  paved: 'm',
  /** Subsoil and fill, and sand, in the soil's history. */
  fillDepth: 'cm',
  sandDepth: 'cm',
  lastFedMonths: '',
  /** dS/m above what the grass bears. */
  saltiness: '',
} as const;

export const wordFacts = {
  shade: ['full sun', 'part', 'deep'],
  irrigation: ['none', 'hose', 'sprinkler', 'in-ground'],
  use: ['ornamental', 'play', 'sport', 'walked across', 'driven on'],
  air: ['open', 'sheltered', 'still'],
  surface: ['turf', 'fine turf', 'seedbed'],
  soilGroup: ['sand', 'loam', 'clay'],
  drySpell: ['held', 'thinned', 'browned', 'died'],
  aspect: ['toward the sun', 'away from the sun', 'across'],
  clippings: ['returned', 'removed'],
  seaside: ['yes', 'no'],
} as const;

type NumberFact = keyof typeof numberFacts;
type WordFact = keyof typeof wordFacts;
export type TroubleFacts = Readonly<Partial<Record<NumberFact, number | undefined>>> & {
  readonly [K in WordFact]?: (typeof wordFacts)[K][number] | undefined;
};
const numberNames = Object.keys(numberFacts) as NumberFact[];
const wordNames = Object.keys(wordFacts) as WordFact[];

const evidenceFields = {
  sign: optional(text(40)),
  fact: optional(choice([...numberNames, ...wordNames])),
  above: optional(quantity('')),
  below: optional(quantity('')),
  is: optional(series(text(40), 'words', { min: 1, max: 6 })),
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
type Evidence = (typeof troubleRules)['causes'][number]['evidence'][number];
export type Sign = (typeof troubleRules)['signs'][number];

const signNames = troubleRules.signs.map(({ name }) => name);
export const signs: readonly Sign[] = troubleRules.signs;
const signLabels = new Map(signs.map(({ name, label }) => [name, label]));

// A rule that can never speak is a slip of the data file.
for (const [place, { evidence }] of troubleRules.causes.entries())
  for (const [index, { sign, fact, above, below, is }] of evidence.entries()) {
    const path = `trouble.causes.${place}.evidence.${index}`;
    if ((sign === undefined) === (fact === undefined))
      throw new InputError(path, 'wants a sign or a fact, one of them');
    if (sign !== undefined && !signNames.includes(sign)) throw new InputError(`${path}.sign`, `"${sign}" is no sign`);
    if (fact === undefined) continue;
    const words = (wordFacts as Readonly<Record<string, readonly string[]>>)[fact];
    if (words ? !is?.every((word) => words.includes(word)) : (above === undefined) === (below === undefined))
      throw new InputError(path, `does not say when ${fact} counts`);
  }

/** A piece of evidence as it stands for a zone. */
export interface Testimony {
  /** Positive for the cause, negative against it. */
  readonly points: number;
  readonly words: string;
}

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

const factLabels: Readonly<Record<NumberFact | WordFact, string>> = {
  sunShort: 'hours of sun',
  slope: 'slope',
  thatch: 'thatch',
  rootDepth: 'root depth',
  probeStop: 'depth at which a probe stops',
  ph: 'pH',
  phBelow: 'pH',
  phAbove: 'pH',
  organicMatter: 'organic matter',
  canopy: 'canopies on the plan',
  hollow: 'spot heights',
  paved: 'paving on the plan',
  fillDepth: 'soil history',
  sandDepth: 'soil history',
  lastFedMonths: 'last feeding',
  saltiness: 'salinity',
  shade: 'shade',
  irrigation: 'how it is watered',
  use: 'what it is used for',
  air: 'air movement',
  surface: 'surface',
  soilGroup: 'soil',
  drySpell: 'how it stood in the last dry spell',
  aspect: 'which way it faces',
  clippings: 'clippings',
  seaside: 'sea wind',
};

function holds({ above, below, is }: Evidence, value: number | string): boolean {
  if (typeof value === 'string') return is?.includes(value) ?? false;
  return (above === undefined || value > above) && (below === undefined || value < below);
}

function told({ fact, words, weight }: Evidence, value: number | string | undefined): Testimony {
  const unit = fact && fact in numberFacts ? numberFacts[fact as NumberFact] : '';
  const measured = fact && typeof value === 'number' && unit !== '' && unit !== 'pH' && unit !== 'h';
  const inches = unit === 'cm' && typeof value === 'number' ? `, ${convert(value, 'cm', 'in').toFixed(1)} in` : '';
  return { points: weight, words: measured ? `${words}: ${figure(value)} ${unit}${inches}` : words };
}

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
    const causes = troubleRules.causes.flatMap(({ name, label, means, first, check, evidence }): LikelyCause[] => {
      const pointing = evidence.some(({ sign, weight }) => sign !== undefined && weight > 0 && seen.includes(sign));
      if (!pointing) return [];
      const speaking = evidence.flatMap((piece): Testimony[] => {
        const { sign, fact, weight, words } = piece;
        if (sign !== undefined)
          return seen.includes(sign) ? [{ points: weight, words: `${signLabels.get(sign)}: ${words}` }] : [];
        const value = known[fact!];
        return value !== undefined && holds(piece, value) ? [told(piece, value)] : [];
      });
      const unknown = evidence.flatMap(({ fact }) => (fact && known[fact] === undefined ? [factLabels[fact]] : []));
      const points = speaking.reduce((sum, piece) => sum + piece.points, 0);
      return [
        {
          cause: name,
          label,
          points,
          for: speaking.filter((piece) => piece.points > 0),
          against: speaking.filter((piece) => piece.points < 0),
          unknown: [...new Set(unknown)],
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
