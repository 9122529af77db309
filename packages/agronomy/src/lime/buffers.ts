import { quantity } from '../calculators/fields.ts';
import { band, listOf, text } from '../calculators/structures.ts';
import { mustRise, readTable } from '../calculators/table.ts';
import data from '../data/lime-buffers.json' with { type: 'json' };
import { convert } from '../units/unit.ts';

const reading = () => quantity('pH', { min: 2.5, max: 9 });
const positive = () => quantity('', { above: 0, max: 1000 });
const common = { depthIn: quantity('in', { above: 0, max: 12 }), bufferRange: band(reading()) };
const strength = { assumedEffectiveness: quantity('%', { above: 0, max: 100 }), assumption: text() };

/** Targets of the SMP table, each a line of short tons/acre over the lime test index. */
export const smpTable = readTable(
  'lime-buffers.smp',
  {
    ...common,
    ...strength,
    lines: listOf({ target: reading(), intercept: positive(), slope: positive() }, 'lines', { min: 2, max: 10 }),
  },
  data.smp,
);
mustRise(
  'lime-buffers.smp.lines',
  smpTable.lines.map(({ target }) => target),
);

/** North Carolina's field rule on Mehlich's acidity. */
export const mehlichTable = readTable('lime-buffers.mehlich', { ...common, ...strength }, data.mehlich);

export const adamsEvansTable = readTable('lime-buffers.adamsEvans', common, data.adamsEvans);

/** cm that the requirement of a buffer method is reckoned for. */
export function limeBufferDepth(method: 'smp' | 'sikora' | 'mehlich' | 'adams-evans'): number {
  const table = { smp: smpTable, sikora: smpTable, mehlich: mehlichTable, 'adams-evans': adamsEvansTable }[method];
  return convert(table.depthIn, 'in', 'cm');
}
