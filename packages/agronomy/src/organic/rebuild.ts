import { wholes } from '../units/wholes.ts';
import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, optional, quantity } from '../calculators/fields.ts';
import { listOf, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/fill-materials.json' with { type: 'json' };
import { figure } from '../working/working.ts';

const settlingField = () => quantity('%', { min: 0, max: 60 });
const densityField = () => quantity('g/cm3', { min: 0.1, max: 2.7 });

/** What rebuilt ground is made of: loose loads, and how much of their depth is lost when they are firmed. */
export const fillMaterials = readTable(
  'fill-materials',
  {
    materials: listOf(
      {
        name: text(),
        /** From the bottom up. */
        lies: quantity('', { min: 1, max: 9, whole: true }),
        bulkDensity: densityField(),
        settling: settlingField(),
      },
      'materials',
      { min: 1, max: 30 },
    ),
  },
  data,
);

const names = fillMaterials.materials.map(({ name }) => name);
const byName = new Map(fillMaterials.materials.map((material) => [material.name, material]));

export interface RebuildLayer {
  readonly material: string;
  /** m³ in place, firmed. */
  readonly firm: number;
  /** m³ to order. */
  readonly loose: number;
  /** t */
  readonly mass: number;
  readonly loads: number;
  /** Nothing where a price is missing. */
  readonly cost: number | undefined;
}

interface Truck {
  readonly volume: number;
  readonly payload: number | undefined;
}

/** m³ of a material that one truck brings: full by volume, or by weight before that. */
export function loadOf({ volume, payload }: Truck, bulkDensity: number): number {
  return payload === undefined ? volume : Math.min(volume, payload / bulkDensity);
}

/**
 * What rebuilding takes: layers over zones, as loose loads.
 *
 * @param zones `name` and `area` m²; `layers` each a `material` with its finished `depth` cm, and its own `settling` %
 *   of the loose depth, `bulkDensity` g/cm³ loose, and `price` $/m³ loose where they are known better;
 *   `truck` m³, `payload` t it may carry, `haul` $ a load.
 * @returns `layers`, each `firm` and `loose` m³, `mass` t, whole `loads`, `cost` $; and the sums.
 */
export const rebuildVolume = defineCalculator({
  name: 'rebuild.volume',
  title: 'Fill and topsoil for rebuilding',
  source: fillMaterials.source,
  inputs: {
    zones: listOf({ name: text(), area: quantity('m2', { above: 0, max: 1e6 }) }, 'zones', { min: 1, max: 200 }),
    layers: listOf(
      {
        material: choice(names),
        depth: quantity('cm', { above: 0, max: 200 }),
        settling: optional(settlingField()),
        bulkDensity: optional(densityField()),
        price: optional(quantity('$/m3', { min: 0, max: 10_000 })),
      },
      'layers',
      { min: 1, max: 12 },
    ),
    truck: quantity('m3', { above: 0, max: 60 }),
    payload: optional(quantity('t', { above: 0, max: 60 })),
    haul: optional(quantity('$', { min: 0, max: 100_000 })),
  },
  outputs: {
    area: 'm2',
    loose: 'm3',
    mass: 't',
    loads: '',
    cost: '$ (when every price is known)',
    layers: '[{material, firm m3, loose m3, mass t, loads, cost $}]',
  },
  compute({ zones, layers, truck, payload, haul }, book) {
    const area = zones.reduce((sum, zone) => sum + zone.area, 0);
    book.step({
      label: 'Area to rebuild',
      formula: 'Σ areas of the zones',
      numbers: zones.map((zone) => `${zone.name} ${figure(zone.area)}`).join(' + '),
      result: area,
      unit: 'm2',
    });
    const told = layers.map((layer, index): RebuildLayer => {
      const usual = byName.get(layer.material)!;
      const settling = layer.settling ?? usual.settling;
      const bulkDensity = layer.bulkDensity ?? usual.bulkDensity;
      const firm = (area * layer.depth) / 100;
      const loose = firm / (1 - settling / 100);
      const mass = loose * bulkDensity;
      const perLoad = loadOf({ volume: truck, payload }, bulkDensity);
      if (loose / perLoad > 1e5)
        throw new InputError(`layers.${index}.depth`, 'makes more than 100,000 loads; check the depth and the truck');
      const loads = wholes(loose / perLoad);
      book.step({
        label: `${layer.material}: in place, firmed`,
        formula: 'area × depth',
        numbers: `${figure(area)} m² × ${figure(layer.depth)} cm / 100`,
        result: firm,
        unit: 'm3',
      });
      book.step({
        label: `${layer.material}: to order, loose`,
        formula: 'in place / (1 − settling)',
        numbers: `${figure(firm)} m³ / (1 − ${figure(settling)} %)`,
        result: loose,
        unit: 'm3',
        source: layer.settling === undefined ? fillMaterials.source : 'settling as given',
      });
      book.step({
        label: `${layer.material}: weight`,
        formula: 'loose volume × bulk density',
        numbers: `${figure(loose)} m³ × ${figure(bulkDensity)} t/m³`,
        result: mass,
        unit: 't',
      });
      book.step({
        label: `${layer.material}: loads`,
        formula: 'loose volume / load, rounded up',
        numbers: `${figure(loose)} m³ / ${figure(perLoad)} m³`,
        result: loads,
        unit: '',
      });
      if (perLoad < truck)
        book.cap(`A truck of ${figure(truck)} m³ is full by weight at ${figure(perLoad)} m³ of ${layer.material}.`);
      const cost = layer.price === undefined ? undefined : loose * layer.price + loads * (haul ?? 0);
      if (cost !== undefined)
        book.step({
          label: `${layer.material}: cost`,
          formula: 'loose volume × price + loads × haul',
          numbers: `${figure(loose)} × ${figure(layer.price!)} + ${loads} × ${figure(haul ?? 0)}`,
          result: cost,
          unit: '$',
        });
      return { material: layer.material, firm, loose, mass, loads, cost };
    });
    const sum = (of: (layer: RebuildLayer) => number): number => told.reduce((total, layer) => total + of(layer), 0);
    const priced = told.every(({ cost }) => cost !== undefined);
    if (layers.length > 1)
      book.warn('Work each layer into the top of the one below: a sharp boundary holds water above it.');
    book.warn('Do not drive on finished topsoil: a loaded truck undoes it. Tip beside the zone and carry it in.');
    return {
      area,
      loose: sum(({ loose }) => loose),
      mass: sum(({ mass }) => mass),
      loads: sum(({ loads }) => loads),
      cost: priced ? sum(({ cost }) => cost ?? 0) : undefined,
      layers: told,
    };
  },
});
