import { capital } from '../units/capital.ts';
import { optional, quantity } from '../calculators/fields.ts';
import type { Material } from '../materials/material.ts';
import { otherNutrients } from '../nutrients/otherNutrients.ts';
import { present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { WorkingBook, figure } from '../working/working.ts';
import { type Asked, type Proposal, cannot, defineRemedy, materialFor, materialId, wholeTimes } from './remedy.ts';
import { spread } from './spread.ts';

const grams = (perThousand: number): number => convert(perThousand, 'lb/1000ft2', 'g/m2');
const perArea = () => optional(quantity('g/m2', { above: 0, max: 1000 }));
const barOf = ({ reading }: Asked, key: string) => reading.bars.find((bar) => bar.key === key);

const { sulfur, trace, source } = otherNutrients;

/** g/m² of sulfur as feed for the year where its rating is short; 0 elsewhere. */
export function sulfateWanted(rating: string | null | undefined): number {
  return rating === 'low' || rating === 'very low' ? grams(sulfur[rating]) : 0;
}

/** Whether sulfur is short enough to be fed: on sand, where it washes out. */
export function sulfateProposal(asked: Asked): Proposal | undefined {
  const bar = barOf(asked, 's');
  const wanted = sulfateWanted(bar?.rating);
  if (!bar || wanted === 0 || asked.zone.garden) return undefined;
  const { soilGroup } = asked.zone;
  if (soilGroup === 'loam' || soilGroup === 'clay')
    return {
      status: 'none',
      words: `Sulfur is ${bar.rating}, but ${soilGroup} gives it from its organic matter and from deeper down: take a sulfate where one is bought anyway, and feed none of its own.`,
    };
  const book = new WorkingBook();
  book.include(bar.figure.working);
  book.step({
    label: 'Sulfur for the year',
    formula: 'by the rating',
    numbers: `${bar.rating}: ${figure(sulfur[bar.rating as 'low' | 'very low'])} lb S/1000 ft²`,
    result: wanted,
    unit: 'g/m2',
    source,
  });
  const told = present('nutrientRate', wanted, asked.system).text;
  return {
    status: 'due',
    words: `Sulfur is ${bar.rating}${soilGroup === undefined ? ' and the soil is not known' : ' on sand'}: ${told} of S as a sulfate, which feeds and does not acidify.`,
    need: { name: 'for the year', told: `${told} S`, figure: { value: wanted, working: book.entries } },
  };
}

/** Sulfur as a feed, from a sulfate: it leaves the pH as it is. */
export const sulfate = defineRemedy({
  name: 'sulfate',
  kinds: ['gypsum', 'fertilizer'],
  fields: { material: materialId(), rate: perArea(), times: wholeTimes(4) },
  // Whether it is due is known only when all that is fed has been reckoned.
  propose: (asked) => {
    const proposal = sulfateProposal(asked);
    return proposal?.status === 'due' ? undefined : proposal;
  },
  make: (values, asked) => {
    const plain = ({ kind, analysis }: Material): boolean =>
      (analysis.s ?? 0) > 0 && (kind === 'gypsum' || (analysis.n === 0 && analysis.p2o5 === 0 && analysis.k2o === 0));
    const found = materialFor(values.material, ['gypsum', 'fertilizer'], asked, plain);
    if (!found) return cannot('Add gypsum or another sulfate to your products first.', values);
    const share = found.material.analysis.s ?? 0;
    if (share <= 0) return cannot(`${found.material.name} tells no sulfur in its analysis: complete it.`, values);
    if ((found.material.analysis.mg ?? 0) > 0 && barOf(asked, 'mg')?.rating === 'very high')
      return cannot(`${found.material.name} brings magnesium, which is very high here: take gypsum.`, values);
    const wanted = sulfateProposal(asked)?.need?.figure;
    const most = grams(sulfur['very low']);
    return spread({
      ...{ asked, found, share, symbol: 'S', most: 2, values, pure: wanted?.value ?? most / 2 },
      ...{ once: (most * 100) / share, before: wanted?.working ?? [] },
    });
  },
});

/** A trace element: only on a deficient test, with a sign on living turf, at the label’s rate. */
function traceElement({ nutrient, name, signs, caution }: (typeof trace)[number]) {
  return defineRemedy({
    name,
    kinds: ['fertilizer', 'iron'],
    fields: { material: materialId(), rate: perArea() },
    propose: (asked) => {
      const rating = barOf(asked, nutrient)?.rating;
      if (rating !== 'low' && rating !== 'very low') return undefined;
      const { zone } = asked;
      if (zone.garden) return undefined;
      const told = `${capital(name)} is ${rating}`;
      const seen = (zone.signs ?? []).filter((sign) => signs.includes(sign));
      if (zone.surface !== 'seedbed' && seen.length === 0)
        return {
          status: 'none',
          words: `${told}, and the grass shows nothing of it: bands of trace elements are the least certain, so none is given. Look for yellow leaves with green veins, and have a leaf tested before any.`,
        };
      return {
        status: 'due',
        words: `${told}${seen.length > 0 ? ', and the leaves are yellow' : ', before anything is sown'}: at the label’s rate, once, then test again.`,
      };
    },
    make: (values, asked) => {
      const holds = ({ analysis }: Material): boolean => (analysis[nutrient] ?? 0) > 0;
      const found = materialFor(values.material, ['fertilizer', 'iron'], asked, holds);
      if (!found) return cannot(`Add a product with ${name} to your products first.`, values);
      const { analysis, name: product } = found.material;
      const share = analysis[nutrient] ?? 0;
      if (share <= 0) return cannot(`${product} tells no ${name} in its analysis: complete it.`, values);
      if (analysis.labelMass === undefined)
        return cannot(
          `${product} has no label rate by weight on record: enter it with the product, since the label rules.`,
          values,
        );
      const made = spread({
        ...{ asked, found, share, symbol: name, most: 1, values: { ...values, times: 1 } },
        ...{ pure: (analysis.labelMass * share) / 100, once: analysis.labelMass, before: [] },
      });
      return {
        ...made,
        held: made.held && `${made.held.split(';')[0]}; the label allows no more.`,
        waits: null,
        cautions: [caution ?? 'At the label’s rate and no more: trace elements harm in excess.'],
      };
    },
  });
}

export const traces = trace.map(traceElement);
