import { wholes } from '../units/wholes.ts';
import { optional, quantity } from '../calculators/fields.ts';
import { present } from '../units/present.ts';
import { WorkingBook, figure } from '../working/working.ts';
import { limitOf } from './ground.ts';
import { physical } from './physical.ts';
import { cannot, defineRemedy, equalDoses, fact, materialFor, materialId, supplyOf, wholeTimes } from './remedy.ts';

/** A wetting agent for ground that sheds water. */
export const wetting = defineRemedy({
  name: 'wetting',
  kinds: ['wetting agent'],
  fields: {
    material: materialId(),
    /** mL of product for each m². */
    rate: optional(quantity('mL/m2', { above: 0, max: 100 })),
    /** mL of water for each m². */
    water: optional(quantity('mL/m2', { above: 0, max: 5000 })),
    tank: optional(quantity('L', { above: 0, max: 20_000 })),
    times: wholeTimes(12),
  },
  propose: (asked) => {
    const found = limitOf(asked, 'repellent');
    return found && { status: 'due', words: `${found.what} ${found.evidence}` };
  },
  make: (values, asked) => {
    const { zone, system } = asked;
    const found = materialFor(values.material, ['wetting agent'], asked);
    if (!found) return cannot('Add a wetting agent to your products first.', values, 'liquidRate');
    const { labelRate, labelWater } = found.material.analysis;
    const wanted = values.rate ?? labelRate;
    if (wanted === undefined)
      return cannot(`${found.material.name} has no label rate on record: set it from the label.`, values, 'liquidRate');
    // The label is the law: no hand goes above it.
    const rate = labelRate === undefined ? wanted : Math.min(wanted, labelRate);
    const times = values.times ?? physical.wetting.times;
    const water = values.water ?? labelWater;
    const book = new WorkingBook();
    book.step({
      label: 'In the year',
      formula: 'rate × times',
      numbers: `${figure(rate)} mL/m² × ${times}`,
      result: rate * times,
      unit: 'mL/m2',
    });
    const each = (rate * zone.area) / 1000;
    const mix = water === undefined ? undefined : (water * zone.area) / 1000 + each;
    const say = (litres: number): string =>
      system === 'us' || litres >= 1 ? present('liquid', litres, system).text : `${Math.round(litres * 1000)} mL`;
    const tell = (of: number): string => present('liquidRate', of, system).text;
    return {
      status: 'planned',
      words: `${say(each)} in ${mix === undefined ? 'the water that the label names' : `${say(mix - each)} of water`} a spraying.`,
      sense: 'liquidRate',
      rate: { value: rate * times, working: book.entries },
      doses: equalDoses(rate * times, times),
      supply: supplyOf(found, { value: each * times, in: 'L' }, book.entries, asked),
      facts:
        mix !== undefined && values.tank !== undefined
          ? [
              fact(
                'Tanks a spraying',
                `${wholes(mix / values.tank)} of ${say(values.tank)}`,
                mix / values.tank,
                book.entries,
              ),
            ]
          : [],
      cautions: [
        'Watered in at once, by the label. A tank that held weedkiller is rinsed three times first, and a living brew never follows it.',
      ],
      more: [
        'Proof: drops on a dried core before and a week after; where they still stand, ask whether it is the thatch that sheds.',
      ],
      held:
        wanted > rate * (1 + 1e-9)
          ? `${tell(wanted)} was asked for; the label allows ${tell(rate)} a spraying, and no more.`
          : null,
      values: { ...values, material: found.id, rate, ...(water === undefined ? {} : { water }), times },
    };
  },
});
