import { defineCalculator } from '../calculators/calculator.ts';
import { defaulted, quantity } from '../calculators/fields.ts';
import { figure } from '../working/working.ts';
import { normalDeviate } from './normalDeviate.ts';

/** A composite of fewer cores is not one: a single bad core would rule it. */
const LEAST_CORES = 5;
const SOURCE = 'Cochran (1977), Sampling Techniques, 3rd ed., chapter 4: n = (z · CV / E)²';

/**
 * Cores that a composite needs.
 *
 * @param area m², for the area that each core speaks for; `cv` coefficient of variation of the
 *   analyte within the zone, %; `margin` error of the mean that is accepted, %; `confidence` %.
 * @returns `cores`, whole and at least 5; `margin` that this many buy, %; `areaPerCore` m².
 */
export const samplingCoreCount = defineCalculator({
  name: 'sampling.coreCount',
  title: 'Cores for a composite',
  source: SOURCE,
  inputs: {
    area: quantity('m2', { above: 0, max: 10_000_000 }),
    cv: quantity('%', { above: 0, max: 300 }),
    margin: quantity('%', { min: 0.5, max: 200 }),
    confidence: defaulted(quantity('%', { min: 50, max: 99.9 }), 90),
  },
  outputs: { cores: 'cores', margin: '%', areaPerCore: 'm2' },
  compute({ area, cv, margin, confidence }, book) {
    const z = normalDeviate(confidence);
    book.step({
      label: 'Normal deviate',
      formula: `z of ${figure(confidence)} %, two-sided`,
      numbers: figure(z),
      result: z,
      unit: '',
    });
    const exact = ((z * cv) / margin) ** 2;
    book.step({
      label: 'Cores for the margin',
      formula: '(z × CV / margin)²',
      numbers: `(${figure(z)} × ${figure(cv)} % / ${figure(margin)} %)²`,
      result: exact,
      unit: 'cores',
      source: SOURCE,
    });
    const cores = Math.max(LEAST_CORES, Math.ceil(exact - 1e-9));
    if (cores > exact) book.rounding(`${cores} whole cores${exact < LEAST_CORES ? `, at least ${LEAST_CORES}` : ''}.`);
    const bought = (z * cv) / Math.sqrt(cores);
    book.step({
      label: 'Margin that they buy',
      formula: 'z × CV / √cores',
      numbers: `${figure(z)} × ${figure(cv)} % / √${cores}`,
      result: bought,
      unit: '%',
    });
    if (cores > 60) book.warn('More cores than anybody pulls for one bag: accept a wider margin, or divide the zone.');
    return { cores, margin: bought, areaPerCore: area / cores };
  },
});

/** Soil that a composite brings. @param diameter, depth cm; `cores`. @returns `volume` mL. */
export const samplingCoreVolume = defineCalculator({
  name: 'sampling.coreVolume',
  title: 'Volume of a composite',
  source: 'Geometry of the cylinder; a ¾ in probe pushed 6 in gives about 43 mL',
  inputs: {
    diameter: quantity('cm', { above: 0, max: 30 }),
    depth: quantity('cm', { above: 0, max: 200 }),
    cores: quantity('', { min: 1, max: 1000, whole: true }),
  },
  outputs: { volume: 'mL' },
  compute({ diameter, depth, cores }, book) {
    const volume = Math.PI * (diameter / 2) ** 2 * depth * cores;
    book.step({
      label: 'Volume of the composite',
      formula: 'π r² × depth × cores',
      numbers: `π × ${figure(diameter / 2)}² × ${figure(depth)} × ${cores}`,
      result: volume,
      unit: 'mL',
    });
    return { volume };
  },
});
