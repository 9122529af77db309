import { correction } from './correction.ts';
import { garden } from './garden.ts';
import { type Grass, findGrass, saltLimits } from './grasses.ts';

/** What a sward wants, of one grass or of a mix read by its parts, on the soil it stands on. */
export interface Sward {
  /** As written inside a sentence: "tall fescue", "this mix". */
  readonly label: string;
  readonly possessive: string;
  /** Its largest part; nothing on a garden bed. */
  readonly main: Grass | undefined;
  readonly parts: readonly Grass[];
  /** Soil pH that needs no correction. */
  readonly ph: readonly [low: number, high: number];
  readonly aim: number;
  /** lb N/1000 ft² a year. */
  readonly nitrogen: readonly [low: number, high: number];
  readonly organicSoil: boolean;
  /** dS/m of the saturated paste at which salt begins to harm, and is harmful. */
  readonly salt: readonly [some: number, harmful: number];
  /** How band and aim came about where they are not one grass's own, one sentence each. */
  readonly notes: readonly string[];
}

export interface Part {
  readonly grass: string;
  readonly share: number;
}

/** What grows there, in words: "tall fescue", "garden bed", or "60 % fine fescue, 40 % perennial ryegrass". */
export function grassWords(grass: string | null | undefined, mix?: readonly Part[] | null): string {
  if (!grass) return 'garden bed';
  return mix && mix.length > 0
    ? mix.map((part) => `${part.share} % ${findGrass(part.grass).label}`).join(', ')
    : findGrass(grass).label;
}

const told = ([low, high]: readonly [number, number]): string => `${low.toFixed(1)}–${high.toFixed(1)}`;
const tenth = (value: number): number => Math.round(value * 10) / 10;

/**
 * Band, aim and nitrogen of a sward. A mix takes the band that suits all of its parts of 20 % and more, else that of
 * the largest; nitrogen and aim are weighted by share. From 10 % organic matter band and aim lie lower.
 *
 * @param organicMatter % of the soil, where it is known.
 */
export function swardOf(
  { grass, mix }: { readonly grass?: string | null | undefined; readonly mix?: readonly Part[] | undefined },
  organicMatter?: number,
): Sward {
  if (!grass) return onOrganicSoil(gardenBed, organicMatter);
  const parts = (mix && mix.length > 0 ? mix : [{ grass, share: 100 }]).map((part) => ({
    ...part,
    grass: findGrass(part.grass),
  }));
  const all = parts.reduce((sum, { share }) => sum + share, 0);
  const main = parts.reduce((most, part) => (part.share > most.share ? part : most)).grass;
  const weighted = (of: (grass: Grass) => number): number =>
    parts.reduce((sum, { grass: own, share }) => sum + (of(own) * share) / all, 0);
  const notes: string[] = [];

  const voices = parts.filter(({ share }) => (100 * share) / all >= correction.mixPartFrom - 1e-9);
  let low = Math.max(...voices.map((part) => part.grass.ph[0]));
  let high = Math.min(...voices.map((part) => part.grass.ph[1]));
  const shared = voices.length > 0 && low < high;
  if (!shared) [low, high] = main.ph;
  const aim = Math.min(high, Math.max(low, tenth(weighted((own) => own.aim))));
  if (parts.length > 1)
    notes.push(
      shared
        ? `A mix is read by its parts of ${correction.mixPartFrom} % and more: pH ${told([low, high])} suits ${voices.map(({ grass: own }) => own.label).join(' and ')}.`
        : `The parts of this mix share no pH: read by the largest, ${main.label}.`,
    );

  const label = parts.length > 1 ? 'this mix' : main.label;
  const sward = {
    label,
    possessive: `${label}’s`,
    main,
    parts: parts.map((part) => part.grass),
    ph: [low, high],
    aim,
    nitrogen: [weighted((own) => own.nitrogen[0]), weighted((own) => own.nitrogen[1])],
    organicSoil: false,
    salt: saltLimits(main),
    notes,
  } as const;
  return onOrganicSoil(sward, organicMatter);
}

const gardenBed: Sward = {
  label: garden.label,
  possessive: `${garden.label}’s`,
  main: undefined,
  parts: [],
  ph: garden.ph,
  aim: garden.aim,
  nitrogen: [0, 0],
  organicSoil: false,
  salt: garden.salt,
  notes: [
    `Read by a general garden band, pH ${told(garden.ph)}: the crop may want another soil. The laboratory’s own advice for it stands beside, and no lawn feed is given.`,
  ],
};

/** The same on rich and on organic soil, where band and aim lie lower. */
function onOrganicSoil(sward: Sward, organicMatter: number | undefined): Sward {
  const {
    ph: [foot, high],
  } = sward;
  let low = foot;
  let { aim } = sward;
  const { from, lower, leastFoot, soilFrom, highestAim } = correction.organicSoil;
  const organicSoil = organicMatter !== undefined && organicMatter >= soilFrom;
  const notes = [...sward.notes];
  if (organicMatter !== undefined && organicMatter >= from) {
    low = organicSoil ? leastFoot : Math.max(Math.min(low, leastFoot), low - lower);
    aim = Math.max(low, organicSoil ? Math.min(aim - lower, highestAim) : aim - lower);
    notes.push(
      `With ${organicMatter.toFixed(0)} % organic matter ${organicSoil ? 'this is an organic soil' : 'the soil is rich'}: its acidity is mostly harmless hydrogen, so band and aim lie lower, ${told([low, high])} and ${aim.toFixed(1)}.`,
    );
  }
  return { ...sward, ph: [tenth(low), tenth(high)], aim: tenth(aim), organicSoil, notes };
}
