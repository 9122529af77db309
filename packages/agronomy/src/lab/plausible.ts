import { quantity } from '../calculators/fields.ts';
import { band } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/plausible.json' with { type: 'json' };
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';

const { depth: usual } = readTable('plausible', { depth: band(quantity('cm', { above: 0, max: 100 })) }, data);

/** Question a sampled depth, cm, that is at least twice outside what is usual; nothing when it is plausible. */
export function questionDepth(depth: number): string | undefined {
  const [low, high] = usual;
  if (depth < 2 * high && depth > low / 2) return undefined;
  return `Sampled depth ${figure(depth)} cm (${figure(convert(depth, 'cm', 'in'))} in) is far ${depth > high ? 'above' : 'below'} what lawn soils usually show (${low}–${high}). Was it given in inches instead of centimetres, or the other way round?`;
}
