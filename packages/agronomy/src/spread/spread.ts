import { wholes } from '../units/wholes.ts';
import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, quantity } from '../calculators/fields.ts';
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';

/** What a spreader put down on a test area. @param testArea m²; `massUsed` g; `target` g/m². @returns `actual` g/m², `correction` factor for the setting. */
export const spreadCalibrate = defineCalculator({
  name: 'spread.calibrate',
  title: 'Spreader calibration',
  source: 'Mass over area; the correction takes the outlet as proportional to the setting, so check with a second run',
  inputs: {
    testArea: quantity('m2', { above: 0, max: 100_000 }),
    massUsed: quantity('g', { above: 0, max: 1e8 }),
    target: quantity('g/m2', { above: 0, max: 10_000 }),
  },
  outputs: { actual: 'g/m2', correction: 'factor' },
  compute({ testArea, massUsed, target }, book) {
    const actual = massUsed / testArea;
    book.step({
      label: 'Put down',
      formula: 'mass used / test area',
      numbers: `${figure(massUsed)} g / ${figure(testArea)} m²`,
      result: actual,
      unit: 'g/m2',
    });
    const correction = target / actual;
    book.step({
      label: 'Correction',
      formula: 'target / put down',
      numbers: `${figure(target)} / ${figure(actual)}`,
      result: correction,
      unit: '',
    });
    if (correction > 1.5 || correction < 1 / 1.5)
      book.warn(
        'Far off: a setting is not proportional over so wide a span. Change it, and calibrate again before spreading.',
      );
    return { actual, correction };
  },
});

/**
 * Tank loads of a spray.
 *
 * @param area m²; `tank` L that it holds; `output` L/m² of mix; `productRate` mL/m².
 * @returns `loads`, full tanks of water and product first: `water` L, `product` mL, `area` m² of each.
 * @throws {InputError} when the product would fill the mix by itself.
 */
export const sprayTank = defineCalculator({
  name: 'spray.tank',
  title: 'Tank loads',
  source: 'Volume over area',
  inputs: {
    area: quantity('m2', { above: 0, max: 10_000_000 }),
    tank: quantity('L', { above: 0, max: 20_000 }),
    output: quantity('L/m2', { above: 0, max: 50 }),
    productRate: quantity('mL/m2', { min: 0, max: 50_000 }),
  },
  outputs: { loads: '[{water L, product mL, area m2}]' },
  compute({ area, tank, output, productRate }, book) {
    if (productRate >= convert(output, 'L', 'mL'))
      throw new InputError(
        'productRate',
        `was given ${figure(productRate)} mL/m²; the mix has ${figure(output * 1000)} mL/m² in all, so no water would be left`,
      );
    const mix = area * output;
    book.step({
      label: 'Mix in all',
      formula: 'area × output',
      numbers: `${figure(area)} m² × ${figure(output)} L/m²`,
      result: mix,
      unit: 'L',
    });
    const count = wholes(mix / tank);
    if (count > 500)
      throw new InputError(
        'tank',
        `was given ${figure(tank)} L; ${count} loads of it would be needed: use a larger one, or spray in parts`,
      );
    const loads = Array.from({ length: count }, (_, index) => {
      const volume = index < count - 1 ? tank : mix - tank * (count - 1);
      const covered = volume / output;
      const product = covered * productRate;
      return { water: volume - product / 1000, product, area: covered };
    });
    book.step({
      label: 'Loads',
      formula: 'mix / tank, rounded up',
      numbers: `${figure(mix)} L / ${figure(tank)} L`,
      result: count,
      unit: 'loads',
    });
    book.warn('The label sets the rate, the protective gear and where it may be used; it comes before this number.');
    return { loads };
  },
});

/**
 * What coring opens.
 *
 * @param tineDiameter, depth, spacingAlong, spacingAcross cm; `passes`.
 * @returns `holes` per m², `areaOpened` %, `volume` L/m² that fills them.
 * @throws {InputError} when the holes would run into each other.
 */
export const coringOpening = defineCalculator({
  name: 'coring.opening',
  title: 'Opening by coring',
  source: 'Geometry; passes are taken as not meeting each other’s holes',
  inputs: {
    tineDiameter: quantity('cm', { above: 0, max: 10 }),
    depth: quantity('cm', { above: 0, max: 60 }),
    spacingAlong: quantity('cm', { above: 0, max: 100 }),
    spacingAcross: quantity('cm', { above: 0, max: 100 }),
    passes: quantity('', { min: 1, max: 20, whole: true }),
  },
  outputs: { holes: '/m2', areaOpened: '%', volume: 'L/m2' },
  compute({ tineDiameter, depth, spacingAlong, spacingAcross, passes }, book) {
    for (const [name, spacing] of [
      ['spacingAlong', spacingAlong],
      ['spacingAcross', spacingAcross],
    ] as const) {
      if (spacing < tineDiameter)
        throw new InputError(
          name,
          `was given ${figure(spacing)} cm; wanted at least the tine’s own ${figure(tineDiameter)} cm, or the holes run into each other`,
        );
    }
    const holes = (passes * 10_000) / (spacingAlong * spacingAcross);
    book.step({
      label: 'Holes',
      formula: 'passes / (spacing along × spacing across)',
      numbers: `${passes} × 10000 / (${figure(spacingAlong)} × ${figure(spacingAcross)}) cm²`,
      result: holes,
      unit: '/m2',
    });
    const areaOpened = (holes * Math.PI * tineDiameter ** 2) / 4 / 100;
    book.step({
      label: 'Area opened',
      formula: 'holes × π d² / 4',
      numbers: `${figure(holes)} × π × ${figure(tineDiameter)}² / 4 cm²/m²`,
      result: areaOpened,
      unit: '%',
    });
    const volume = (areaOpened / 100) * depth * 10;
    book.step({
      label: 'Volume that fills them',
      formula: 'area opened × depth',
      numbers: `${figure(areaOpened)} % × ${figure(depth * 10)} mm`,
      result: volume,
      unit: 'L/m2',
    });
    return { holes, areaOpened, volume };
  },
});

/** Thickness of a topdressing. @param rate g/m²; `bulkDensity` g/cm³. @returns `thickness` cm. */
export const topdressThickness = defineCalculator({
  name: 'topdress.thickness',
  title: 'Thickness of a topdressing',
  source: 'Mass over bulk density; turf takes about 3 to 6 mm a pass',
  inputs: {
    rate: quantity('g/m2', { min: 0, max: 1_000_000 }),
    bulkDensity: quantity('g/cm3', { min: 0.05, max: 2.2 }),
  },
  outputs: { thickness: 'cm' },
  compute({ rate, bulkDensity }, book) {
    const thickness = rate / (bulkDensity * 10_000);
    book.step({
      label: 'Thickness',
      formula: 'mass per area / bulk density',
      numbers: `${figure(rate)} g/m² / ${figure(bulkDensity)} g/cm³`,
      result: thickness,
      unit: 'cm',
    });
    if (thickness > 0.6) book.warn('More than 6 mm (¼ in) at once smothers turf: put it on in several passes.');
    return { thickness };
  },
});
