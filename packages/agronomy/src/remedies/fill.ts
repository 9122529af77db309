import { wholes } from '../units/wholes.ts';
import { capital } from '../units/capital.ts';
import { choice, optional, quantity } from '../calculators/fields.ts';
import { fillMaterials, loadOf } from '../organic/rebuild.ts';
import { present } from '../units/present.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import { type Made, cannot, defineRemedy, fact, wholeTimes } from './remedy.ts';
import type { Supply } from './treatment.ts';

/** m³ of a usual load, in even numbers of either system. */
const USUAL_LOAD = { metric: 9, us: 7.645549 } as const;
const byName = new Map(fillMaterials.materials.map((material) => [material.name, material]));
/** A layer of soil over a zone or a part of it, tipped in loads: how deep it settles, and whether that is enough. */
export const fill = defineRemedy({
  name: 'fill',
  kinds: [],
  fields: {
    soil: optional(choice(fillMaterials.materials.map(({ name }) => name))),
    /** Firmed. */
    depth: optional(quantity('cm', { above: 0, max: 200 })),
    /** A part of the zone. */
    area: optional(quantity('m2', { above: 0, max: 10_000_000 })),
    /** So many are offered. */
    loads: wholeTimes(100_000),
    load: optional(quantity('m3', { above: 0, max: 60 })),
    payload: optional(quantity('t', { above: 0, max: 60 })),
    pricePerVolume: optional(quantity('$/m3', { min: 0, max: 10_000 })),
    haul: optional(quantity('$', { min: 0, max: 100_000 })),
  },
  propose: () => undefined,
  make: (values, asked) => {
    const { system, zone } = asked;
    const soil = values.soil ?? 'topsoil';
    const { settling, bulkDensity } = byName.get(soil)!;
    const area = Math.min(values.area ?? zone.area, zone.area);
    const load = loadOf({ volume: values.load ?? USUAL_LOAD[system], payload: values.payload }, bulkDensity);
    const { depth, loads } = values;
    if (depth === undefined && loads === undefined)
      return cannot('Say how deep it is to lie, or how many loads are offered.', values, 'layer');
    const book = new WorkingBook();
    const layer = (of: number): string => present('layer', of, system).text;
    const asLoose = (firm: number): number => firm / (1 - settling / 100);
    const wanted = depth === undefined ? undefined : asLoose((depth / 100) * area);
    if (wanted !== undefined)
      book.step({
        label: 'Wanted, loose',
        formula: 'area × depth / (1 − settling)',
        numbers: `${figure(area)} m² × ${figure(depth!)} cm / (1 − ${figure(settling)} %)`,
        result: wanted,
        unit: 'm3',
        source: fillMaterials.source,
      });
    const count = loads ?? wholes(wanted! / load);
    const loose = loads === undefined ? wanted! : loads * load;
    book.step({
      label: loads === undefined ? 'Loads' : 'Offered, loose',
      formula: loads === undefined ? 'loose volume / load, rounded up' : 'loads × load',
      numbers: loads === undefined ? `${figure(loose)} m³ / ${figure(load)} m³` : `${loads} × ${figure(load)} m³`,
      result: loads === undefined ? count : loose,
      unit: loads === undefined ? 'loads' : 'm3',
    });
    const lies = (loose / area) * 100;
    const settled = lies * (1 - settling / 100);
    book.step({
      label: 'Depth, settled',
      formula: 'loose volume / area × (1 − settling)',
      numbers: `${figure(loose)} m³ / ${figure(area)} m² × (1 − ${figure(settling)} %)`,
      result: settled,
      unit: 'cm',
      source: fillMaterials.source,
    });
    return {
      status: 'planned',
      words: `${capital(soil)} on ${present('area', area, system).text}: ${count} ${count === 1 ? 'load' : 'loads'} of ${present('volume', load, system).text}, ${layer(lies)} deep as tipped, ${layer(settled)} when it has settled.${enough(loads, settled, depth, wanted, load, layer)}`,
      sense: 'layer',
      rate: { value: settled, working: book.entries },
      doses: [settled],
      supply: supplyOf({ soil, loose, count, load, values, working: book.entries }),
      loads: count,
      facts: [fact('Weight', present('tonnes', loose * bulkDensity, system).text, loose * bulkDensity, book.entries)],
      cautions: [
        'Have buried lines marked before anything is dug or tipped. Keep fill off walls, banks and tree roots; it may need a permit.',
      ],
      more: [
        'Strip or till the old sward first, and work each layer into the top of the one below: a sharp boundary holds water above it.',
        'Fill must be clean: ask for its source in writing, and have what goes on top tested. Do not drive on finished topsoil.',
        'Hours, days of a hired machine and tipping are set below, by the practice’s prices of work.',
      ],
      values: { ...values, soil, area },
    } satisfies Made;
  },
});

/** Whether what is offered reaches the depth that is wanted, in a sentence. */
function enough(
  loads: number | undefined,
  settled: number,
  depth: number | undefined,
  wanted: number | undefined,
  load: number,
  layer: (of: number) => string,
): string {
  if (loads === undefined) return '';
  if (depth === undefined || wanted === undefined) return ' Set the depth that is wanted to see whether it is enough.';
  const need = wholes(wanted / load);
  if (settled >= depth - 0.05) return ` That is enough for the ${layer(depth)} that is wanted.`;
  return ` That is not enough: ${layer(depth)} is wanted, which takes ${need} loads, ${need - loads} more.`;
}

interface Loads {
  readonly soil: string;
  readonly loose: number;
  readonly count: number;
  readonly load: number;
  readonly values: { readonly pricePerVolume?: number | undefined; readonly haul?: number | undefined };
  readonly working: Figure['working'];
}

function supplyOf({ soil, loose, count, load, values, working }: Loads): Supply {
  const { pricePerVolume, haul = 0 } = values;
  const byLoad = pricePerVolume === undefined ? null : { perUnit: pricePerVolume, perLoad: haul };
  const book = new WorkingBook();
  book.include(working);
  const packs: Figure = { value: count, working: book.entries };
  const quantityOf: Figure = { value: loose, working: book.entries };
  let cost: Figure | null = null;
  if (byLoad) {
    const paid = loose * byLoad.perUnit + count * byLoad.perLoad;
    book.step({
      label: 'Cost, delivered',
      formula: 'loose volume × price + loads × haul',
      numbers: `${figure(loose)} × ${figure(byLoad.perUnit)} + ${count} × ${figure(byLoad.perLoad)}`,
      result: paid,
      unit: '$',
    });
    cost = { value: paid, working: book.entries };
  }
  return {
    ...{ materialId: `fill ${soil} ${figure(load)}`, name: capital(soil), unit: 'm3', packSize: load },
    ...{ quantity: quantityOf, packs, cost, byLoad, unlisted: true },
  };
}
