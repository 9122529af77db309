import { defineCalculator } from '../calculators/calculator.ts';
import { defaulted, quantity } from '../calculators/fields.ts';
import { group } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/sodium.json' with { type: 'json' };
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';

const share = () => quantity('%', { above: 0, max: 100 });

/** What sodium asks for: gypsum to take its place, and water to carry it down. */
export const sodiumTable = readTable(
  'sodium',
  {
    /** Pure gypsum to a mol of charge, g. */
    gramsPerMol: quantity('', { above: 0, max: 1000 }),
    targetEsp: share(),
    efficiency: share(),
    /** lb of gypsum/1000 ft² at once. */
    most: group({ turf: quantity('lb/1000ft2', { above: 0, max: 500 }) }),
    /** How often in a year on turf, each followed by a leaching; the rest waits for a retest. */
    timesAYear: quantity('', { min: 1, max: 12, whole: true }),
    /** mm of water to a mm of soil, where the salt is to fall to a tenth of itself. */
    leaching: quantity('', { above: 0, max: 10 }),
  },
  data,
);

/**
 * Gypsum that brings exchangeable sodium down to a target.
 *
 * @param cec cmol(+)/kg; `esp` exchangeable sodium, %; `targetEsp` %; `depth` cm of the slice; `bulkDensity` g/cm³;
 *   `efficiency` % of the calcium that takes sodium's place; `purity` % of the product.
 * @returns `requirement` g/m² of the product in all; nothing at the target or below.
 */
export const gypsumRequirement = defineCalculator({
  name: 'gypsum.requirement',
  title: 'Gypsum against sodium',
  source: sodiumTable.source,
  inputs: {
    cec: quantity('cmol/kg', { above: 0, max: 200 }),
    esp: quantity('%', { min: 0, max: 100 }),
    targetEsp: defaulted(quantity('%', { min: 0, max: 100 }), sodiumTable.targetEsp),
    depth: quantity('cm', { above: 0, max: 100 }),
    bulkDensity: defaulted(quantity('g/cm3', { min: 0.1, max: 2.2 }), 1.33),
    efficiency: defaulted(share(), sodiumTable.efficiency),
    purity: defaulted(share(), 100),
  },
  outputs: { requirement: 'g/m2' },
  compute({ cec, esp, targetEsp, depth, bulkDensity, efficiency, purity }, book) {
    const over = Math.max(0, esp - targetEsp);
    const soil = bulkDensity * depth * 10;
    book.step({
      label: 'Soil in the slice',
      formula: 'bulk density × depth',
      numbers: `${figure(bulkDensity)} g/cm³ × ${figure(depth)} cm × 10`,
      result: soil,
      unit: 'kg/m2',
    });
    const charge = (cec * over * soil) / 10_000;
    book.step({
      label: 'Sodium to be replaced',
      formula: 'CEC × (ESP − target) × soil',
      numbers: `${figure(cec)} cmol/kg × (${figure(esp)} − ${figure(targetEsp)}) % × ${figure(soil)} kg/m²`,
      result: charge,
      unit: 'mol/m2',
    });
    const requirement = (charge * sodiumTable.gramsPerMol * 10_000) / efficiency / purity;
    book.step({
      label: 'Gypsum in all',
      formula: 'charge × 86.09 g/mol / efficiency / purity',
      numbers: `${figure(charge)} mol/m² × ${figure(sodiumTable.gramsPerMol)} / ${figure(efficiency)} % / ${figure(purity)} %`,
      result: requirement,
      unit: 'g/m2',
      source: sodiumTable.source,
    });
    const most = sodiumTable.most.turf;
    const once = convert(most, 'lb/1000ft2', 'g/m2');
    if (requirement > once * (1 + 1e-9))
      book.cap(
        `On turf at most ${most} lb/1000 ft² (${figure(once)} g/m²) at once: ${Math.ceil(requirement / once - 1e-9)} times, with a leaching after each.`,
        sodiumTable.source,
      );
    if (requirement > 0)
      book.warn(
        'The drain first: where water cannot leave, gypsum does nothing. Then leach, then test again. It does not change the pH.',
      );
    else book.warn('Not above the target: no gypsum is wanted.');
    return { requirement };
  },
});

/**
 * Water that washes salt down, by sprinkling or ponding on and off.
 *
 * @param ec, targetEc dS/m of the saturated paste; `depth` cm of the root zone.
 * @returns `water` mm that must pass through; nothing at the target or below.
 */
export const saltLeaching = defineCalculator({
  name: 'salt.leaching',
  title: 'Water to wash salt down',
  source: sodiumTable.source,
  inputs: {
    ec: quantity('dS/m', { min: 0, max: 200 }),
    targetEc: quantity('dS/m', { above: 0, max: 100 }),
    depth: quantity('cm', { above: 0, max: 200 }),
  },
  outputs: { water: 'mm' },
  compute({ ec, targetEc, depth }, book) {
    const water = ec > targetEc ? (sodiumTable.leaching * depth * 10 * ec) / targetEc : 0;
    book.step({
      label: 'Water through the root zone',
      formula: 'none at the target; else 0.1 × depth × EC / target',
      numbers: `${figure(sodiumTable.leaching)} × ${figure(depth * 10)} mm × ${figure(ec)} / ${figure(targetEc)}`,
      result: water,
      unit: 'mm',
      source: sodiumTable.source,
    });
    if (water > 0)
      book.warn(
        'After the drain works, beyond what the grass drinks, in several soakings with water poorer in salt than the target. On sodic ground gypsum goes first.',
      );
    return { water };
  },
});
