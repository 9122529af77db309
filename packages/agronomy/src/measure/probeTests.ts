import { choice, defaulted, optional, quantity } from '../calculators/fields.ts';
import { series } from '../calculators/structures.ts';
import { present } from '../units/present.ts';
import { waterCatchCups } from '../water/catchCups.ts';
import { testLimits } from '../water/testLimits.ts';
import { figure } from '../working/working.ts';
import { listOf, text } from '../calculators/structures.ts';
import { depthText, fieldTest, median, note, nothingYet, oneStep, rateText } from './fieldTest.ts';

/** Soil warmth by a thermometer, or a probe that sends it. */
export const soilTemperatureTest = fieldTest({
  kind: 'soilTemperature',
  title: 'Soil temperature',
  about: 'Whether seed comes up, and whether nitrogen works.',
  tools: ['soil thermometer, or a probe'],
  steps: [
    'Push it in 5 cm (2 in) for seed, 10 cm (4 in) otherwise; wait until it stands still.',
    'Read in the morning, in several places, sun and shade apart.',
  ],
  cautions: [],
  fields: {
    depth: defaulted(quantity('cm', { above: 0, max: 60 }), 5),
    readings: series(quantity('C', { min: -30, max: 60 }), 'readings', { min: 0, max: 200 }),
    note: note(),
  },
  judge: ({ readings, depth }, { season }, units) => {
    if (readings.length === 0) return nothingYet;
    const middle = median(readings);
    const celsius = (value: number): string => present('temperature', value, units).text;
    const told = celsius(middle);
    const { warmth } = testLimits;
    const words =
      season === 'warm'
        ? middle >= warmth.warmFrom
          ? 'Warm enough for warm-season seed, if it goes on rising.'
          : `Too cool for warm-season seed: it wants ${celsius(warmth.warmFrom)} and rising.`
        : middle < warmth.dormantBelow
          ? 'Nothing comes up: only dormant seed may be put down.'
          : middle < warmth.coolFrom
            ? `Too cool for cool-season seed: ${celsius(warmth.coolFrom)} to ${celsius(warmth.coolTo)} are wanted, falling in autumn.`
            : middle <= warmth.coolTo
              ? 'As cool-season seed wants it, if it is falling. Rising in spring it usually fails.'
              : 'Too warm for cool-season seed: wait until it falls.';
    return {
      values: [{ analyte: 'soilTemperature', value: middle, depthFrom: 0, depthTo: depth }],
      title: `${told} at ${depthText(depth, units)}`,
      words: [words],
      working: oneStep({
        label: 'Soil temperature',
        formula: 'middle of all readings',
        numbers: `${readings.map((one) => figure(Math.round(one * 10) / 10)).join(', ')} °C`,
        result: middle,
        unit: 'C',
      }),
    };
  },
});

/** Soil moisture by a probe. */
export const soilMoistureTest = fieldTest({
  kind: 'soilMoisture',
  title: 'Soil moisture',
  about: 'Whether to water now.',
  tools: ['moisture probe'],
  steps: ['Push it in where roots are, not into a crack or beside a stone.', 'Read five places, wet and dry ones.'],
  cautions: [],
  fields: {
    depth: defaulted(quantity('cm', { above: 0, max: 60 }), 10),
    readings: series(quantity('%', { min: 0, max: 100 }), 'readings', { min: 0, max: 200 }),
    note: note(),
  },
  judge: ({ readings, depth }, { soilGroup }, units) => {
    if (readings.length === 0) return nothingYet;
    const middle = median(readings);
    const { dry, full } = testLimits.moisture[soilGroup ?? 'loam'];
    const left = Math.max(0, Math.min(100, (100 * (middle - dry)) / (full - dry)));
    return {
      values: [{ analyte: 'soilMoisture', value: middle, depthFrom: 0, depthTo: depth }],
      title: `${Math.round(middle)} % by volume at ${depthText(depth, units)}`,
      words: [
        middle > full
          ? 'Wetter than it holds: wait, and see whether it drains.'
          : left < testLimits.moisture.waterBelow
            ? `About ${Math.round(left)} % of what grass can draw is left: water now.`
            : `About ${Math.round(left)} % of what grass can draw is left: it can wait.`,
        ...(soilGroup === undefined ? ['The soil is not known, and read as loam: a jar test would tell.'] : []),
      ],
      working: oneStep({
        label: 'Water left for grass',
        formula: '(moisture − wilting point) / (field capacity − wilting point)',
        numbers: `(${figure(middle)} − ${dry}) / (${full} − ${dry}) %, for ${soilGroup ?? 'loam'}`,
        result: left,
        unit: '%',
        source: testLimits.source,
      }),
    };
  },
});

/** Cups on the lawn while the sprinklers run. */
export const catchCupsTest = fieldTest({
  kind: 'catchCups',
  title: 'Catch cups',
  about: 'How much the sprinklers give, and how evenly.',
  tools: ['16 equal cups or cans', 'measuring cylinder', 'watch', 'flags'],
  steps: [
    'Set the cups out in a grid between the heads and beside them; mark which is which.',
    'Run the zone as it always runs, 10 to 20 minutes, without wind.',
    'Measure each cup in millilitres.',
  ],
  cautions: [],
  fields: {
    cups: listOf(
      { mL: quantity('mL', { min: 0, max: 5000 }), place: optional(text(40)), right: optional(quantity('', { min: 0, max: 1 })), down: optional(quantity('', { min: 0, max: 1 })) },
      'cups',
      { min: 0, max: 200 },
    ),
    throatArea: optional(quantity('cm2', { above: 0, max: 5000 })),
    minutes: optional(quantity('min', { above: 0, max: 600 })),
    note: note(),
  },
  judge: ({ cups, throatArea, minutes }, _ground, units) => {
    if (cups.length < testLimits.catchCups.least || throatArea === undefined || minutes === undefined) return nothingYet;
    const { result, working } = waterCatchCups({ cups: cups.map(({ mL }) => mL), throatArea, minutes });
    const { rate, uniformity, rating } = result;
    const dry = cups.filter(({ mL }) => mL < 0.5 * (cups.reduce((sum, one) => sum + one.mL, 0) / cups.length)).flatMap(({ place }) => place ?? []);
    const wanted = 25.4;
    return {
      values: [
        { analyte: 'sprinklerRate', value: rate },
        { analyte: 'sprinklerUniformity', value: uniformity },
      ],
      title: `${rateText(rate, units)}, ${rating} evenness`,
      words: [
        `${present('watering', wanted, units).text} takes ${Math.round((60 * wanted) / rate)} minutes in all; the week’s plan reckons with this from now on.`,
        rating === 'good'
          ? `The driest quarter gets ${Math.round(uniformity)} % of the mean: as good as sprinklers get.`
          : `The driest quarter gets ${Math.round(uniformity)} % of the mean: ${rating === 'poor' ? 'put the heads right before you run longer. Water for the dry spot drowns the rest' : 'look at the heads beside the driest cups'}.`,
        ...(dry.length > 0 ? [`Less than half of the mean at ${dry.join(', ')}.`] : []),
      ],
      working,
    };
  },
}); // prettier-ignore

/** How far a watering went down. */
export const wateringDepthTest = fieldTest({
  kind: 'wateringDepth',
  title: 'Depth of a watering',
  about: 'Whether the last run reached the roots, and how long the next should be.',
  tools: ['screwdriver or probe', 'ruler'],
  steps: [
    'The day after watering push a screwdriver in: it goes easily to where the soil is moist, and stops.',
    'Measure in five places or more, near the heads and between them.',
  ],
  cautions: [],
  fields: {
    places: listOf({ depth: quantity('cm', { min: 0, max: 120 }), place: optional(text(60)) }, 'places', { min: 0, max: 60 }),
    minutes: optional(quantity('min', { above: 0, max: 600 })),
    wanted: optional(quantity('cm', { above: 0, max: 100 })),
    note: note(),
  },
  judge: ({ places, minutes, wanted }, { rootDepth }, units) => {
    if (places.length === 0) return nothingYet;
    const depths = places.map(({ depth }) => depth);
    const mean = depths.reduce((sum, depth) => sum + depth, 0) / depths.length;
    const driest = Math.min(...depths);
    const goal = wanted ?? rootDepth ?? 15;
    const { least, most, uneven } = testLimits.watering;
    const factor = mean <= 0 ? most : Math.min(most, Math.max(least, goal / mean));
    const next = minutes === undefined ? undefined : Math.round(minutes * factor);
    const isUneven = places.length >= 3 && driest < uneven * mean;
    return {
      values: [{ analyte: 'wettedDepth', value: mean }],
      title: isUneven
        ? `Uneven, ${depthText(driest, units)} to ${depthText(Math.max(...depths), units)}: the heads first`
        : next === undefined
          ? `Went down to ${depthText(mean, units)}`
          : `Next run ${next} minutes instead of ${Math.round(minutes!)}`,
      words: [
        `It went down to ${depthText(mean, units)} on average, ${depthText(driest, units)} at the least; ${wanted === undefined && rootDepth === undefined ? `${depthText(goal, units)} are taken as wanted, since nobody measured the roots` : `${depthText(goal, units)} are wanted`}.`,
        ...(factor === most && mean < goal / most ? ['More than twice the run is never said at once: run it, and measure again.'] : []),
        ...(isUneven
          ? [`A longer run drowns the wet part. Set cups out and put the heads right; then ${next === undefined ? 'measure again' : `${next} minutes instead of ${Math.round(minutes!)}`}.`]
          : []),
        ...(minutes === undefined ? ['Say how long it ran, to know the next run.'] : []),
        ...(next !== undefined && factor > 1 && !isUneven ? ['Where it runs off before that, split it in cycles with a pause to soak.'] : []),
      ],
      working: oneStep({
        label: 'Next run time',
        formula: `last run × wanted depth / mean depth, within ${least} and ${most} times`,
        numbers: `${minutes === undefined ? 'run' : `${figure(minutes)} min`} × ${figure(goal)} / ${figure(mean)} cm`,
        result: minutes === undefined ? factor : minutes * factor,
        unit: minutes === undefined ? '' : 'min',
        source: testLimits.source,
      }),
    };
  },
}); // prettier-ignore

export const coverMethods = ['by eye', 'points counted', 'green share of a photo'] as const;

/** A share of points with what it may be. @returns %, by Wilson's interval */
export function countedShare(hits: number, points: number): { readonly share: number; readonly low: number; readonly high: number } {
  const { deviate: z } = testLimits.cover;
  const p = hits / points;
  const middle = (p + (z * z) / (2 * points)) / (1 + (z * z) / points);
  const half = (z / (1 + (z * z) / points)) * Math.sqrt((p * (1 - p)) / points + (z * z) / (4 * points * points));
  return { share: 100 * p, low: 100 * Math.max(0, middle - half), high: 100 * Math.min(1, middle + half) };
} // prettier-ignore

/**
 * Share of a picture that is living green: excess green, 2 G − R − B, above a limit.
 *
 * @param pixels RGBA, as a canvas gives them
 * @returns %
 */
export function greenShare(pixels: ArrayLike<number>): number {
  let [green, all] = [0, 0];
  for (let at = 0; at + 3 < pixels.length; at += 4) {
    all += 1;
    if (2 * pixels[at + 1]! - pixels[at]! - pixels[at + 2]! > testLimits.cover.greenAbove) green += 1;
  }
  return all === 0 ? 0 : (100 * green) / all;
}

/** How much of the ground lives, and of what. */
export const coverTest = fieldTest({
  kind: 'cover',
  title: 'Cover and weeds',
  about: 'Whether to overseed, to slit and seed, or to start again.',
  tools: ['phone camera', 'or a hoop and a string with knots'],
  steps: [
    'Stand so that the picture looks straight down on a square metre that is like the rest.',
    'Lay the grid of points over it and touch what each point hits: grass, weed, bare.',
    'Or let the green be counted: fast, and blind to weeds, which are green too.',
  ],
  cautions: [],
  fields: {
    method: choice(coverMethods),
    living: optional(quantity('%', { min: 0, max: 100 })),
    weeds: optional(quantity('%', { min: 0, max: 100 })),
    colour: optional(quantity('', { min: 1, max: 9 })),
    points: optional(quantity('', { min: 1, max: 2000, whole: true })),
    livingPoints: optional(quantity('', { min: 0, max: 2000, whole: true })),
    weedPoints: optional(quantity('', { min: 0, max: 2000, whole: true })),
    note: note(),
  },
  judge: ({ method, living, weeds, colour, points, livingPoints, weedPoints }) => {
    const { overseedAbove, slitFrom, byEye, weedsAbove } = testLimits.cover;
    const counted = method === 'points counted' && points !== undefined && livingPoints !== undefined;
    const cover = counted ? countedShare(Math.min(livingPoints, points), points) : living === undefined ? undefined : { share: living, low: Math.max(0, living - byEye), high: Math.min(100, living + byEye) };
    const weed = counted && weedPoints !== undefined ? countedShare(Math.min(weedPoints, points), points).share : weeds;
    if (!cover && weed === undefined && colour === undefined) return nothingYet;
    const told = (share: number): string => `${Math.round(share)} %`;
    const class_ = (share: number): string => share > overseedAbove ? 'overseed' : share >= slitFrom ? 'core or slit, and seed' : 'strip and start again';
    const words: string[] = [];
    if (cover) {
      const sure = class_(cover.low) === class_(cover.high);
      words.push(`Living cover ${told(cover.share)}, ${told(cover.low)} to ${told(cover.high)} (${counted ? `${points} points counted` : method}): ${class_(cover.share)}.`);
      if (!sure) words.push(`By what is counted it may be “${class_(cover.low)}” or “${class_(cover.high)}”: ${counted ? 'count more points' : 'count points on a photo'} before you choose.`);
      if (method === 'green share of a photo') words.push('Green is counted whatever it is: weeds count as living, dormant grass does not.');
    }
    if (weed !== undefined && weed > weedsAbove) words.push(`Weeds and coarse grass ${told(weed)}: kill by the label (licensed work) and wait, or lift them, before seed.`);
    return {
      values: [
        ...(cover ? [{ analyte: 'livingCover' as const, value: cover.share }] : []),
        ...(weed === undefined ? [] : [{ analyte: 'weedCover' as const, value: weed }]),
        ...(colour === undefined ? [] : [{ analyte: 'turfColour' as const, value: colour }]),
      ],
      title: cover ? `${told(cover.share)} living` : weed !== undefined ? `${told(weed)} weeds` : `Colour ${colour} of 9`,
      words,
      working: counted
        ? oneStep({ label: 'Living cover', formula: 'points on living grass / all points; interval by Wilson, 90 %', numbers: `${livingPoints} / ${points}`, result: cover!.share, unit: '%', source: testLimits.source })
        : [],
    };
  },
}); // prettier-ignore
