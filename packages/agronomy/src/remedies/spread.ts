import type { Sense } from '../units/present.ts';
import { present } from '../units/present.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import { kilograms } from './ground.ts';
import { type Asked, type Made, type Stocked, bringsOf, equalDoses, supplyOf } from './remedy.ts';

export interface Spread {
  readonly asked: Asked;
  readonly found: Stocked;
  /** g/m² of what it is given for, for the year, and its share in the product, %. */
  readonly pure: number;
  readonly share: number;
  readonly symbol: string;
  /** g/m² of product at once, and times a year. */
  readonly once: number;
  readonly most: number;
  readonly values: { readonly rate?: number | undefined; readonly times?: number | undefined };
  readonly before: Figure['working'];
  readonly sense?: Sense;
  /** What of the need is left for after the retest, in a sentence. */
  readonly waits?: string | null;
}

/** A granular product in as few doses as its cap allows; a rate of one’s own is held by the same caps. */
export function spread({
  asked,
  found,
  pure,
  share,
  symbol,
  once,
  most,
  values,
  before,
  sense = 'productRate',
  waits = null,
}: Spread): Made {
  const { zone, system } = asked;
  const say = (rate: number): string => present(sense, rate, system).text;
  const book = new WorkingBook();
  book.include(before);
  const wanted = values.rate ?? (pure * 100) / share;
  if (values.rate === undefined)
    book.step({
      label: `As ${found.material.name}`,
      formula: `${symbol} / content`,
      numbers: `${figure(pure)} g/m² / ${figure(share)} %`,
      result: wanted,
      unit: 'g/m2',
    });
  else
    book.step({
      label: 'Set by hand',
      formula: 'the advisor’s own rate for the year',
      numbers: say(wanted),
      result: wanted,
      unit: 'g/m2',
    });
  const total = Math.min(wanted, once * most);
  const times = Math.min(most, Math.max(values.times ?? 1, Math.ceil(total / once - 1e-6)));
  const held =
    total < wanted * (1 - 1e-6)
      ? `${say(wanted)} was asked for; a year takes ${most === 1 ? '' : `${most} times `}${say(once)} at most. The rest waits for the retest.`
      : null;
  if (held) book.cap(held);
  else if (times > 1) book.cap(`At most ${say(once)} at a time: ${times} times.`);
  const rate: Figure = { value: total, working: book.entries };
  return {
    status: 'planned',
    sense,
    rate,
    doses: equalDoses(total, times),
    supply: supplyOf(found, { value: kilograms(total, zone.area), in: 'kg' }, book.entries, asked),
    brings: bringsOf(found.material, total),
    held,
    waits: waits ?? held,
    values: { ...values, material: found.id, rate: total, times },
  };
}
