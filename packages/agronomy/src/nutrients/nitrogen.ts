import { defineCalculator } from '../calculators/calculator.ts';
import { choice, defaulted, optional, quantity } from '../calculators/fields.ts';
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';
import { findGrass, grassField, grassSource } from './grasses.ts';

/** Midway is this application's own step between the published full sun and deep shade. */
const shadeFactor = { 'full sun': 1, part: 0.75, deep: 0.5 } as const;
const CLIPPINGS_SHARE = 0.3;

/** The ranges were made on ordinary soils, so only what stands above this earns a credit. */
const ORDINARY_ORGANIC_MATTER = 3;
const ROOT_ZONE_CM = 10;
const BULK_DENSITY = 1.33;
const NITROGEN_IN_ORGANIC_MATTER = 0.058;
const YEARLY_RELEASE = 0.02;

/**
 * Nitrogen for the year, by grass and intensity, less what the site gives.
 *
 * @param grass one of the eleven; `intensity` low and high are the ends of its
 *   range, medium the middle; `shade` deep halves; `clippings` returned save 30 %;
 *   `organicMatter` % above 3 earns a credit.
 * @returns `annual` g/m² and `credits` in g/m² by cause, never below zero.
 */
export const nitrogenAnnual = defineCalculator({
  name: 'nitrogen.annual',
  title: 'Nitrogen for the year',
  source: grassSource,
  inputs: {
    grass: grassField(),
    intensity: choice(['low', 'medium', 'high']),
    shade: defaulted(
      choice(['full sun', 'part', 'deep'], {
        sun: 'full sun',
        full: 'full sun',
        none: 'full sun',
        'part shade': 'part',
        'deep shade': 'deep',
      }),
      'full sun',
    ),
    clippings: defaulted(choice(['returned', 'removed']), 'removed'),
    organicMatter: optional(quantity('%', { min: 0, max: 100 })),
  },
  outputs: { annual: 'g/m2', credits: '{shade, clippings, organicMatter, total} g/m2' },
  compute({ grass: name, intensity, shade, clippings, organicMatter }, book) {
    const grass = findGrass(name);
    const [low, high] = grass.nitrogen;
    const perThousand = { low, medium: (low + high) / 2, high }[intensity];
    const base = convert(perThousand, 'lb/1000ft2', 'g/m2');
    book.step({
      label: `${grass.name}, ${intensity} intensity`,
      formula: intensity === 'medium' ? 'middle of the grass’s range' : `${intensity} end of the grass’s range`,
      numbers: `${low} to ${high} lb/1000 ft²: ${figure(perThousand)}`,
      result: base,
      unit: 'g/m2',
      source: grassSource,
    });
    let annual = base * shadeFactor[shade];
    const shadeCredit = base - annual;
    if (shadeCredit > 0) {
      book.step({
        label: `Shade: ${shade}`,
        formula: 'need × shade factor',
        numbers: `${figure(base)} × ${shadeFactor[shade]}`,
        result: annual,
        unit: 'g/m2',
        source:
          shade === 'deep'
            ? 'Deep shade halves the need (general extension rule)'
            : 'Midway between full sun and deep shade; this application’s own step',
      });
    }
    const clippingsCredit = clippings === 'returned' ? annual * CLIPPINGS_SHARE : 0;
    if (clippingsCredit > 0) {
      book.step({
        label: 'Clippings left',
        formula: 'need × (1 − 30 %)',
        numbers: `${figure(annual)} × 0.7`,
        result: annual - clippingsCredit,
        unit: 'g/m2',
        source: 'Clippings left save about 30 % of the nitrogen (general extension rule)',
      });
      annual -= clippingsCredit;
    }
    let organicCredit = 0;
    if (organicMatter !== undefined && organicMatter > ORDINARY_ORGANIC_MATTER && annual > 0) {
      const slice = convert(ROOT_ZONE_CM * BULK_DENSITY, 'g/cm2', 'g/m2');
      const released =
        ((organicMatter - ORDINARY_ORGANIC_MATTER) / 100) * slice * NITROGEN_IN_ORGANIC_MATTER * YEARLY_RELEASE;
      organicCredit = Math.min(annual, released);
      book.step({
        label: 'Credit for organic matter',
        formula: '(OM − 3 %) × soil in 10 cm × 5.8 % N × 2 % released a year',
        numbers: `${figure(organicMatter - ORDINARY_ORGANIC_MATTER)} % × ${figure(slice)} g/m² × 0.058 × 0.02`,
        result: released,
        unit: 'g/m2',
        source:
          'N release of 2 to 3 % of organic N a year, the lower end used; the ranges already count the release of an ordinary 3 %',
      });
      if (released > annual) book.cap('The credit is held to the need: no nitrogen is due this year.');
      annual -= organicCredit;
    }
    book.step({
      label: 'Nitrogen for the year',
      formula: 'need less credits',
      numbers: figure(annual),
      result: annual,
      unit: 'g/m2',
    });
    if (grass.caution) book.warn(grass.caution, grassSource);
    return {
      annual,
      credits: {
        shade: shadeCredit,
        clippings: clippingsCredit,
        organicMatter: organicCredit,
        total: shadeCredit + clippingsCredit + organicCredit,
      },
    };
  },
});
