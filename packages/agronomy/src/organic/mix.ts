import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, optional, quantity } from '../calculators/fields.ts';
import { listOf, text } from '../calculators/structures.ts';
import { figure } from '../working/working.ts';
import { amendmentField, amendments, findAmendment, valueOr } from './amendments.ts';

/**
 * What a blend of parts by volume is: its exchange capacity and organic matter go by mass.
 *
 * @param parts `name`, `volume` % (adding to 100 ± 1, scaled to 100), dry `bulkDensity` g/cm³, `cec` cmol/kg and
 *   `organicMatter` %; a `material` whose typical values stand in for what was not measured.
 * @returns `cec` cmol/kg, `organicMatter` %, `bulkDensity` g/cm³ of the blend.
 * @throws {InputError} when the volumes do not add to 100.
 */
export const mixBlend = defineCalculator({
  name: 'mix.blend',
  title: 'Blend of soil materials',
  source: 'Weighting by mass; volumes taken as additive, though fine parts settle between coarse ones',
  inputs: {
    parts: listOf(
      {
        name: text(),
        volume: quantity('%', { min: 0, max: 100 }),
        material: optional(amendmentField()),
        bulkDensity: optional(quantity('g/cm3', { min: 0.02, max: 2.7 })),
        cec: optional(quantity('cmol/kg', { min: 0, max: 400 })),
        organicMatter: optional(quantity('%', { min: 0, max: 100 })),
      },
      'parts',
      { min: 1, max: 20 },
    ),
  },
  outputs: { cec: 'cmol/kg', organicMatter: '%', bulkDensity: 'g/cm3' },
  compute({ parts: given }, book) {
    const parts = given.map(({ name, material, volume, ...measured }, index) => {
      const typical = findAmendment(material);
      const of = (field: keyof typeof measured, unit: string, value: number | undefined): number =>
        valueOr(`parts.${index}.${field}`, unit, measured[field], value);
      if (typical && Object.values(measured).includes(undefined))
        book.warn(`${name}: typical values of ${typical.name} stand in for what was not measured.`, amendments.source);
      return {
        volume,
        bulkDensity: of('bulkDensity', 'g/cm3', typical && (typical.bulkDensity * typical.dryFraction) / 100),
        cec: of('cec', 'cmol/kg', typical?.cec),
        organicMatter: of('organicMatter', '%', typical?.organicFraction),
      };
    });
    const volumes = parts.reduce((sum, { volume }) => sum + volume, 0);
    if (Math.abs(volumes - 100) > 1 + 1e-9)
      throw new InputError('parts', `have volumes that add to ${figure(volumes)} %; wanted 100 ± 1`);
    const bulkDensity = parts.reduce((sum, part) => sum + part.volume * part.bulkDensity, 0) / volumes;
    book.step({
      label: 'Bulk density of the blend',
      formula: 'Σ volume × bulk density',
      numbers: parts.map(({ volume, bulkDensity: own }) => `${figure(volume)} % × ${figure(own)}`).join(' + '),
      result: bulkDensity,
      unit: 'g/cm3',
    });
    const byMass = (what: 'cec' | 'organicMatter', label: string, unit: string): number => {
      const result =
        parts.reduce((sum, part) => sum + part.volume * part.bulkDensity * part[what], 0) / (bulkDensity * volumes);
      book.step({
        label,
        formula: 'Σ mass share × value',
        numbers: parts
          .map(
            (part) =>
              `${figure((100 * part.volume * part.bulkDensity) / (bulkDensity * volumes))} % × ${figure(part[what])}`,
          )
          .join(' + '),
        result,
        unit,
      });
      return result;
    };
    const cec = byMass('cec', 'Exchange capacity', 'cmol/kg');
    return { cec, organicMatter: byMass('organicMatter', 'Organic matter', '%'), bulkDensity };
  },
});
