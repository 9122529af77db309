import { nitrogenNeed } from '../rates/needs.ts';
import type { Verdict } from '../rates/verdicts.ts';
import { cationNeed } from '../schools/cationNeeds.ts';
import { type MagnesiumNeed, magnesiumNeed } from '../schools/magnesiumNeed.ts';
import { sodiumTable } from '../soil/sodium.ts';
import { present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { WorkingBook, figure } from '../working/working.ts';
import type { Asked } from './remedy.ts';

const carbonateIn = ({ ground }: Asked): boolean => ground?.carbonate.state === 'present';

/** Magnesium for the year by the school of the zone. */
export function magnesiumOf(asked: Asked): MagnesiumNeed | undefined {
  const { zone, test, sward, reading, settings, system } = asked;
  const nitrogen = nitrogenNeed(zone, sward, test?.organicMatter, settings, system).need?.value ?? 0;
  return magnesiumNeed(settings.school, reading, test, { nitrogen, carbonate: carbonateIn(asked) });
}

/** Share of calcium in CaSO₄·2H₂O, by atomic masses. */
const CALCIUM_IN_GYPSUM = 40.08 / 172.17;

/** Gypsum that a cation balance asks for its calcium, where no lime brings it; nothing by any other school. */
export function calciumGypsum(asked: Asked): Verdict | undefined {
  const { zone, test, ground, settings, system } = asked;
  if (settings.school !== 'cation balance' || !test || zone.garden || ground?.target.way === 'raise') return undefined;
  const found = cationNeed('ca', test, carbonateIn(asked));
  if ('why' in found || !found.need) return undefined;
  const book = new WorkingBook();
  book.include(found.need.working);
  const value = found.need.value / CALCIUM_IN_GYPSUM;
  book.step({
    label: 'As gypsum',
    formula: 'calcium / its share in CaSO₄·2H₂O',
    numbers: `${figure(found.need.value)} / ${figure(CALCIUM_IN_GYPSUM)}`,
    result: value,
    unit: 'g/m2',
  });
  const once = zone.surface === 'seedbed' ? Infinity : convert(sodiumTable.most.turf, 'lb/1000ft2', 'g/m2');
  const total = Math.min(value, once * (zone.surface === 'seedbed' ? 1 : sodiumTable.timesAYear));
  const times = Math.max(1, Math.ceil(total / once - 1e-9));
  return {
    ...{ remedy: 'gypsum', name: 'Gypsum', status: 'due', need: { value, working: book.entries } },
    told: present('limeRate', value, system).text,
    year: { total, each: total / times, times },
    words: `By cation balance: calcium holds ${found.share.toFixed(0)} % of the exchange, where ${found.foot} % is wanted, and the pH wants no lime. Field trials have not shown that this pays.`,
    cautions: [],
  };
}
