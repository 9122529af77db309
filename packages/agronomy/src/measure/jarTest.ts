import { optional, quantity } from '../calculators/fields.ts';
import { textureJar } from '../soil/jar.ts';
import { groupOfTexture } from '../soil/soilGroups.ts';
import { findTextureClass } from '../soil/textureClasses.ts';
import { testLimits } from '../water/testLimits.ts';
import { fieldTest, minutesBetween, moment, note, nothingYet } from './fieldTest.ts';

const { sandAfter, siltAfter, clayAfter, readTo, clayMay } = testLimits.jar;

/** Shares of the fine earth, %. */
export interface JarShares {
  readonly sand: number;
  readonly silt: number;
  readonly clay: number;
}

/**
 * What a jar may stand for: its heights read a little too high or too low, and wet clay standing taller than it weighs.
 *
 * @param heights of the settled layers, cm.
 * @returns shares at the corners of what is possible, and the classes that they fall in, the likeliest first.
 */
export function jarSpread(heights: JarShares): { readonly points: readonly JarShares[]; readonly classes: readonly string[] } {
  const share = (sand: number, silt: number, clay: number): JarShares => {
    const total = Math.max(1e-9, sand + silt + clay);
    return { sand: (100 * sand) / total, silt: (100 * silt) / total, clay: (100 * clay) / total };
  };
  const points: JarShares[] = [];
  for (const a of [-readTo, 0, readTo])
    for (const b of [-readTo, 0, readTo])
      for (const clay of [heights.clay + readTo, heights.clay, Math.max(0, heights.clay - readTo), heights.clay / clayMay])
        points.push(share(Math.max(0, heights.sand + a), Math.max(0, heights.silt + b), clay));
  const likeliest = findTextureClass(share(heights.sand, heights.silt, heights.clay)).name;
  return { points, classes: [...new Set([likeliest, ...points.map((point) => findTextureClass(point).name)])] };
} // prettier-ignore

/** When the layers of a jar can be read that was shaken at a moment, and what is due now. */
export function jarNext(shakenAt: string, now: string): { readonly layer: 'sand' | 'silt' | 'clay'; readonly at: string; readonly words: string } {
  const passed = minutesBetween(shakenAt, now);
  const at = (minutes: number): string => new Date(Date.parse(shakenAt) + minutes * 60_000).toISOString();
  if (passed < siltAfter)
    return { layer: 'sand', at: at(sandAfter), words: passed < sandAfter ? 'Mark the sand a minute after shaking.' : 'Mark the top of the sand, if you have not: the silt settles on it until two hours are over.' };
  if (passed < clayAfter)
    return { layer: 'silt', at: at(siltAfter), words: 'Mark the top of the silt: clay settles on it for a day or more.' };
  return { layer: 'clay', at: at(clayAfter), words: 'Mark the top of the clay once the water is clear. Cloudy still? Wait another day.' };
} // prettier-ignore

const means: Readonly<Record<'sand' | 'loam' | 'clay', string>> = {
  sand: 'It drains and warms quickly and holds little: water and feed little and often, lime in small amounts.',
  loam: 'It holds water and feed and drains: what most advisors hope for.',
  clay: 'It holds much and lets go slowly: stay off it wet, core it, and lime it more for the same change of pH.',
};

const height = () => optional(quantity('cm', { min: 0, max: 60 }));

/** Soil shaken with water, read as it settles. */
export const jarTest = fieldTest({
  kind: 'jar',
  title: 'Jar test',
  about: 'Sand, silt and clay, and so the texture.',
  tools: ['straight-sided jar with a lid', 'water', 'a spoon of dish detergent', 'ruler', 'marker'],
  steps: [
    'Fill the jar a third with soil without stones and roots, top up with water, add a little detergent, and shake five minutes.',
    'Put it down where it can stand. After one minute mark the top of the sand.',
    'After two hours mark the top of the silt.',
    'After a day or two, when the water is clear, mark the top of the clay. Measure each layer by itself.',
  ],
  cautions: ['Glass: carry it in a box, and do not leave it where children play.'],
  fields: {
    shakenAt: optional(moment()),
    sandHeight: height(),
    siltHeight: height(),
    clayHeight: height(),
    depthFrom: optional(quantity('cm', { min: 0, max: 150 })),
    depthTo: optional(quantity('cm', { above: 0, max: 150 })),
    note: note(),
  },
  judge: ({ sandHeight, siltHeight, clayHeight, depthFrom, depthTo }, { soilGroup }) => {
    if (sandHeight === undefined || siltHeight === undefined || clayHeight === undefined) return nothingYet;
    const { result, working } = textureJar({ sandHeight, siltHeight, clayHeight });
    const { classes } = jarSpread({ sand: sandHeight, silt: siltHeight, clay: clayHeight });
    const others = classes.slice(1);
    const slice = { depthFrom: depthFrom ?? 0, depthTo };
    return {
      values: (['sand', 'silt', 'clay'] as const).map((analyte) => ({ analyte, value: result[analyte], ...slice })),
      title: `${result.class.charAt(0).toUpperCase()}${result.class.slice(1)}`,
      words: [
        `${Math.round(result.sand)} % sand, ${Math.round(result.silt)} % silt, ${Math.round(result.clay)} % clay by the heights.`,
        others.length > 0
          ? `Within what a jar can be read to it may be ${others.join(' or ')} too: wet clay stands taller than it weighs.`
          : 'However it is read, it stays in this class.',
        means[groupOfTexture(result.class)],
        ...(soilGroup !== undefined && soilGroup !== groupOfTexture(result.class)
          ? [`The zone is written down as ${soilGroup}, and rates go by that: change it in Ground if the jar is right.`]
          : []),
      ],
      working,
    };
  },
});
