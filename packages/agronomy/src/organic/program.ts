import { defineCalculator } from '../calculators/calculator.ts';
import { type Field, InputError, defaulted, optional, quantity, readFields } from '../calculators/fields.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/compost-layers.json' with { type: 'json' };
import { densityOf } from '../soil/bulkDensity.ts';
import { figure } from '../working/working.ts';
import { type Amendment, amendmentField, amendments, findAmendment } from './amendments.ts';

const layer = () => quantity('cm', { above: 0, max: 30 });

/** How much compost goes down at once, and for how long a program runs. */
export const compostLayers = readTable(
  'compost-layers',
  {
    turfPass: layer(),
    /** In a year, each pass after coring. */
    turfYearCored: layer(),
    /** Tilled in once. */
    seedbed: layer(),
    /** Of a compost poor in nutrients. */
    seedbedPoor: layer(),
    mostYears: quantity('', { min: 1, max: 50, whole: true }),
  },
  data,
);

const percent = () => quantity('%', { min: 0, max: 100 });
const numbers = {
  bulkDensity: quantity('g/cm3', { min: 0.05, max: 2.2 }),
  dryFraction: percent(),
  organicFraction: percent(),
  retained: percent(),
  lasting: optional(percent()),
  n: percent(),
  p2o5: percent(),
  k2o: percent(),
  nitrogenFirstYear: percent(),
};
type Material = Pick<Amendment, 'bulkDensity' | 'dryFraction' | 'organicFraction' | 'retained' | 'lasting'> &
  Partial<Pick<Amendment, 'n' | 'p2o5' | 'k2o' | 'nitrogenFirstYear'>> & { readonly name?: string };

const named = amendmentField();
/** One of the materials by name, or its numbers as a supplier gives them. */
const materialField: Field<Material, false> = {
  description: `${named.description}; or its numbers {${Object.keys(numbers).join(', ')}}`,
  optional: false,
  shape: named.shape,
  read: (raw, path) =>
    typeof raw === 'object' && raw !== null
      ? readFields(numbers, raw, `${path}.`)
      : findAmendment(named.read(raw, path))!,
};

/** A year of the program; nutrients in g/m², nothing where the material has none on record. */
export interface CompostYear {
  /** cm */
  readonly thickness: number;
  /** % at its end. */
  readonly organicMatter: number;
  readonly nitrogen: number;
  readonly p2o5: number;
  readonly k2o: number;
  /** Of the nitrogen, what the grass has in the first year. */
  readonly nitrogenFirstYear: number;
}

/**
 * Compost over years to a target of organic matter. Each year organic matter first loses its share, then gains what
 * lasts of the layer; the last year lays only what is missing.
 *
 * @param organicMatter, target % of the slice; `soilDepth` cm; `soilBulkDensity` g/cm³, by Adams where nothing is
 *   given, and kept; `material` by name or by its numbers; `perYear` cm; `decay` % of the organic matter a year.
 * @returns `years`, `total` cm of compost, and whether the target is `reached` within ten years.
 * @throws {InputError} for a material of which nothing lasts.
 */
export const compostProgram = defineCalculator({
  name: 'compost.program',
  title: 'Compost over years to a target',
  source: compostLayers.source,
  inputs: {
    organicMatter: percent(),
    target: percent(),
    soilDepth: quantity('cm', { above: 0, max: 100 }),
    soilBulkDensity: optional(quantity('g/cm3', { min: 0.1, max: 2.2 })),
    material: materialField,
    perYear: defaulted(layer(), compostLayers.turfPass),
    decay: defaulted(quantity('%', { min: 0, max: 50 }), 0),
  },
  outputs: {
    years: '[{thickness cm, organicMatter %, nitrogen g/m2, p2o5 g/m2, k2o g/m2, nitrogenFirstYear g/m2}]',
    total: 'cm',
    reached: 'true or false',
  },
  compute({ organicMatter: start, target, soilDepth, soilBulkDensity, material, perYear, decay }, book) {
    const soil = soilBulkDensity ?? densityOf(start);
    if (soilBulkDensity === undefined)
      book.step({
        label: 'Bulk density of the soil',
        formula: 'by its organic matter (Adams 1973)',
        numbers: `${figure(start)} %`,
        result: soil,
        unit: 'g/cm3',
      });
    const { bulkDensity, dryFraction, organicFraction } = material;
    const stays = material.lasting ?? material.retained;
    if (stays === undefined || stays * organicFraction * dryFraction === 0)
      throw new InputError('material', 'has no organic matter on record that lasts; wanted another, or its numbers');
    if (material.name !== undefined)
      book.warn(
        `Typical values of ${material.name}: batches differ by half. An analysis is better.`,
        amendments.source,
      );
    const perCm = (bulkDensity * dryFraction * organicFraction * stays) / 1e4 / (soilDepth * soil);
    book.step({
      label: 'A centimetre of it lifts the slice by',
      formula: 'bulk density × dry × organic × lasting / (soil depth × soil density)',
      numbers: `${figure(bulkDensity)} × ${figure(dryFraction)} % × ${figure(organicFraction)} % × ${figure(stays)} % / (${figure(soilDepth)} cm × ${figure(soil)})`,
      result: perCm,
      unit: '%',
      source: amendments.source,
    });
    // cm × g/cm³ × 10 000 cm²/m² × dry share.
    const dry = bulkDensity * dryFraction * 100;
    const years: CompostYear[] = [];
    let now = start;
    while (now < target - 1e-9 && years.length < compostLayers.mostYears) {
      const before = now * (1 - decay / 100);
      const thickness = Math.min(perYear, (target - before) / perCm);
      now = before + thickness * perCm;
      const brought = (percentage = 0): number => (thickness * dry * percentage) / 100;
      const nitrogen = brought(material.n);
      years.push({
        thickness,
        organicMatter: now,
        nitrogen,
        p2o5: brought(material.p2o5),
        k2o: brought(material.k2o),
        nitrogenFirstYear: (nitrogen * (material.nitrogenFirstYear ?? 0)) / 100,
      });
      book.step({
        label: `After year ${years.length}`,
        formula: 'organic matter × (1 − decay) + layer × gain a centimetre',
        numbers: `${figure(before)} % + ${figure(thickness)} cm × ${figure(perCm)}`,
        result: now,
        unit: '%',
      });
    }
    const total = years.reduce((sum, { thickness }) => sum + thickness, 0);
    const reached = now >= target - 1e-9;
    if (!reached)
      book.warn(
        `Out of reach: ${compostLayers.mostYears} years of it come to ${figure(now)} %. Lay more a year after coring, take a richer material, or aim lower.`,
      );
    const unknown = (['n', 'p2o5', 'k2o'] as const).filter((key) => material[key] === undefined);
    if (years.length > 0 && unknown.length > 0)
      book.warn(
        `What it brings of ${unknown.join(', ').toUpperCase()} is not on record and counted as nothing here: ask for it.`,
      );
    if (perYear > compostLayers.turfYearCored + 1e-9)
      book.warn(
        `On turf at most ${figure(compostLayers.turfPass)} cm a pass and ${figure(compostLayers.turfYearCored)} cm a year after coring; up to ${figure(compostLayers.seedbed)} cm tilled into a seedbed, ${figure(compostLayers.seedbedPoor)} cm only of a compost poor in nutrients.`,
        compostLayers.source,
      );
    else if (perYear > compostLayers.turfPass + 1e-9)
      book.warn(
        `More than ${figure(compostLayers.turfPass)} cm a year on turf goes down in two passes, each after coring.`,
      );
    if (years.length > 0)
      book.warn(
        'What it brings is taken off the feeding; where phosphorus is high or a rule forbids it, none of it is laid.',
      );
    return { years, total, reached };
  },
});
