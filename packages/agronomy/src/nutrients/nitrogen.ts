import { defineCalculator } from '../calculators/calculator.ts';
import { choice, defaulted, optional, quantity } from '../calculators/fields.ts';
import { band } from '../calculators/structures.ts';
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';
import { densityOf } from '../soil/bulkDensity.ts';
import { correction } from './correction.ts';
import { findGrass, grassField, grassSource } from './grasses.ts';
import { nitrogenCredits as credit, shades } from './nitrogenTables.ts';

const percent = (share: number): string => `${figure(share * 100)} %`;

/**
 * Nitrogen for the year, by grass and intensity, less what the site gives.
 *
 * @param grass one of the eleven; `intensity` low and high are the ends of its
 *   range (or of a `range` of one's own, g/m²), medium the middle; `shade` deep halves; `clippings` returned save 30 %;
 *   `organicMatter` % above 3 earns a credit; credits together take half of the need at most, except on organic soils.
 * @returns `annual` g/m² and `credits` in g/m² by cause, never below zero.
 */
export const nitrogenAnnual = defineCalculator({
  name: 'nitrogen.annual',
  title: 'Nitrogen for the year',
  source: grassSource,
  inputs: {
    grass: grassField(),
    intensity: choice(['low', 'medium', 'high']),
    range: optional(band(quantity('g/m2', { min: 0, max: 100 }))),
    shade: defaulted(
      choice(shades, {
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
  compute({ grass: name, intensity, range, shade, clippings, organicMatter }, book) {
    const grass = findGrass(name);
    const toThousand = (rate: number): number => convert(rate, 'g/m2', 'lb/1000ft2');
    const [low, high] = range ? ([toThousand(range[0]), toThousand(range[1])] as const) : grass.nitrogen;
    const perThousand = { low, medium: (low + high) / 2, high }[intensity];
    const base = convert(perThousand, 'lb/1000ft2', 'g/m2');
    const whose = range ? 'one’s own' : 'the grass’s';
    book.step({
      label: `${grass.name}, ${intensity} intensity`,
      formula: intensity === 'medium' ? `middle of ${whose} range` : `${intensity} end of ${whose} range`,
      numbers: `${figure(low)} to ${figure(high)} lb/1000 ft²: ${figure(perThousand)}`,
      result: base,
      unit: 'g/m2',
      source: range ? 'A range of one’s own' : grassSource,
    });
    let annual = base * credit.shade[shade];
    const shadeCredit = base - annual;
    if (shadeCredit > 0) {
      book.step({
        label: `Shade: ${shade}`,
        formula: 'need × shade factor',
        numbers: `${figure(base)} × ${credit.shade[shade]}`,
        result: annual,
        unit: 'g/m2',
        source: credit.source,
      });
    }
    const clippingsCredit = clippings === 'returned' ? annual * credit.clippings : 0;
    if (clippingsCredit > 0) {
      book.step({
        label: 'Clippings left',
        formula: `need × (1 − ${percent(credit.clippings)})`,
        numbers: `${figure(annual)} × ${figure(1 - credit.clippings)}`,
        result: annual - clippingsCredit,
        unit: 'g/m2',
        source: credit.source,
      });
      annual -= clippingsCredit;
    }
    let organicCredit = 0;
    if (organicMatter !== undefined && organicMatter > credit.ordinaryOrganicMatter && annual > 0) {
      const density = densityOf(organicMatter);
      const slice = convert(credit.rootZone * density, 'g/cm2', 'g/m2');
      const above = organicMatter - credit.ordinaryOrganicMatter;
      const released = (above / 100) * slice * credit.nitrogenInOrganicMatter * credit.yearlyRelease;
      const most =
        organicMatter >= correction.organicSoil.soilFrom
          ? annual
          : Math.max(0, (annual + clippingsCredit) * credit.mostTogether - clippingsCredit);
      organicCredit = Math.min(most, released);
      book.step({
        label: 'Credit for organic matter',
        formula: `(OM − ${credit.ordinaryOrganicMatter} %) × soil in ${credit.rootZone} cm at ${figure(density)} g/cm³ × ${percent(credit.nitrogenInOrganicMatter)} N × ${percent(credit.yearlyRelease)} released a year`,
        numbers: `${figure(above)} % × ${figure(slice)} g/m² × ${credit.nitrogenInOrganicMatter} × ${credit.yearlyRelease}`,
        result: released,
        unit: 'g/m2',
        source: credit.source,
      });
      if (released > most)
        book.cap(
          most === annual
            ? 'The credit is held to the need: no nitrogen is due this year.'
            : `Credits together take at most ${percent(credit.mostTogether)} of the need: what a soil lets go in one year is not certain.`,
          credit.source,
        );
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
