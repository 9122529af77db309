import { optional, quantity } from '../calculators/fields.ts';
import { text } from '../calculators/structures.ts';
import { coringOpening } from '../spread/spread.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import { physical } from './physical.ts';
import { type Asked, type Made, defineRemedy, equalDoses, fact, wholeTimes } from './remedy.ts';

export const cm = (max: number) => optional(quantity('cm', { above: 0, max }));
export const limitOf = ({ reading }: Asked, key: string) => reading.limitations.find((limit) => limit.key === key);

/** Work that somebody else does: it stands in the order of jobs with firm and price. */
export const work = defineRemedy({
  name: 'work',
  kinds: [],
  fields: { what: optional(text(120)), firm: optional(text(80)), price: optional(quantity('$', { min: 0, max: 1e7 })) },
  propose: () => undefined,
  make: (values) => outside(values, values.what ?? 'Work for others'),
});

/** A drain or an outlet: it comes before all that water has to carry away. */
export const drain = defineRemedy({
  name: 'drain',
  kinds: [],
  fields: { firm: optional(text(80)), price: optional(quantity('$', { min: 0, max: 1e7 })) },
  propose: (asked) => {
    const found = limitOf(asked, 'drainage');
    if (found?.degree !== 'severe') return undefined;
    return {
      status: 'due',
      words: `${found.what} ${found.evidence} Work for others: have an outlet or a drain looked at and priced before money goes into the soil.`,
      cautions: ['Have buried lines marked before anybody digs.'],
    };
  },
  make: (values) => outside(values, undefined),
});

interface Outside {
  readonly firm?: string | undefined;
  readonly price?: number | undefined;
}

function outside(values: Outside, what: string | undefined): Made {
  const { firm, price } = values;
  const who = firm ? ` By ${firm}.` : ' No firm is named yet.';
  return {
    status: 'planned',
    words: `${what ? `${what}.` : ''}${who}${price === undefined ? ' Ask for a price.' : ''}`.trim(),
    sense: 'count',
    rate: null,
    doses: [1],
    price: priced(price, 'as the firm has told it'),
    values: { ...values },
  };
}

/** A price that was told, with where it is from. */
export function priced(price: number | undefined, formula: string): Figure | null {
  if (price === undefined) return null;
  const book = new WorkingBook();
  book.step({ label: 'Price', formula, numbers: figure(price), result: price, unit: '$' });
  return { value: price, working: book.entries };
}

export const holes = {
  tineDiameter: cm(10),
  depth: cm(60),
  spacingAlong: cm(100),
  spacingAcross: cm(100),
  passes: wholeTimes(6),
};
type Holes = { readonly [K in keyof typeof holes]: number | undefined };

/** The opening by tines, the usual ones where nothing is set. */
export function opening(values: Holes) {
  const usual = physical.coring;
  const made = {
    tineDiameter: values.tineDiameter ?? usual.tineDiameter,
    depth: values.depth ?? usual.depth,
    spacingAlong: values.spacingAlong ?? usual.spacingAlong,
    spacingAcross: values.spacingAcross ?? usual.spacingAcross,
    passes: values.passes ?? usual.passes,
  };
  return { made, ...coringOpening(made) };
}

export const depthWords = (depth: number, system: UnitSystem): string => present('depth', depth, system).text;

/** Holes pulled through thatch and compacted soil. */
export const core = defineRemedy({
  name: 'core',
  kinds: [],
  fields: { ...holes, times: wholeTimes(4), price: optional(quantity('$', { min: 0, max: 1e7 })) },
  propose: (asked) => {
    const found = (['compaction', 'thatch'] as const).flatMap((key) => limitOf(asked, key) ?? []);
    const [first] = found;
    if (!first || asked.zone.surface === 'seedbed' || asked.zone.garden) return undefined;
    return {
      status: 'due',
      words: `${found.map(({ what, evidence }) => `${what} ${evidence}`).join(' ')} Hollow tines, while the grass grows and the soil is moist.`,
    };
  },
  make: ({ times = 1, price, ...values }, { system }) => {
    const { made, result, working } = opening(values);
    return {
      status: 'planned',
      words: `${made.passes} ${made.passes === 1 ? 'pass' : 'passes'} of ${present('layer', made.tineDiameter, system).text} tines, ${depthWords(made.depth, system)} deep.`,
      sense: 'count',
      rate: null,
      doses: equalDoses(times, times),
      price: priced(price, 'hire of the machine and labour, as told'),
      facts: [
        fact('Area opened', present('percent', result.areaOpened, system).text, result.areaOpened, working),
        fact(
          'Holes',
          system === 'us' ? `${Math.round(result.holes / 10.7639)} a ft²` : `${Math.round(result.holes)} a m²`,
          result.holes,
          working,
        ),
        fact('Fill they take', present('layer', result.volume / 10, system).text, result.volume, working),
      ],
      cautions: [
        'Have buried lines and irrigation heads marked first. Not in drought, heat or on saturated ground.',
        'Hired by the day: eyes, ears and feet protected, nobody in front of the machine.',
      ],
      more: ['Leave the cores to dry, then drag them back in; on a sand rootzone take clay cores away.'],
      values: { ...made, times },
    };
  },
});

/** Deeper than coring reaches: solid tines or air, that lift and crack and take nothing out. */
export const loosen = defineRemedy({
  name: 'loosen',
  kinds: [],
  fields: { depth: cm(60), times: wholeTimes(4), price: optional(quantity('$', { min: 0, max: 1e7 })) },
  propose: (asked) => {
    const found = limitOf(asked, 'compaction');
    const stop = asked.zone.measured?.probeStop;
    if (!found || stop === undefined || stop <= physical.coring.depth) return undefined;
    if (asked.zone.surface === 'seedbed' || asked.zone.garden) return undefined;
    const { system } = asked;
    return {
      status: 'due',
      words: `The probe stops at ${depthWords(stop, system)}, and hollow tines reach ${depthWords(physical.coring.depth, system)}: what stops it lies below them.`,
    };
  },
  make: ({ depth = physical.loosening.depth, times = 1, price }, { system, zone }) => {
    const stop = zone.measured?.probeStop;
    return {
      status: 'planned',
      words: `Solid tines or air to ${depthWords(depth, system)}, that crack the pan and leave the surface whole.${stop !== undefined && depth <= stop ? ` That does not reach what stops the probe at ${depthWords(stop, system)}.` : ''}`,
      sense: 'count',
      rate: null,
      doses: equalDoses(times, times),
      price: priced(price, 'hire of the machine and labour, as told'),
      cautions: [
        'Buried lines, drains and irrigation marked first. Moist and not wet: wet soil smears and closes.',
        'Not within the roots of trees.',
      ],
      values: { depth, times, ...(price === undefined ? {} : { price }) },
    };
  },
});

export const kilograms = (perArea: number, area: number): number => convert(perArea * area, 'g', 'kg');
