import {
  type ReportedValues,
  type SoilGroup,
  inOwnUnit,
  nutrients,
  phBuffering,
  phInWater,
  samplingTables,
  soilTestOf,
} from '@glenfold/agronomy';
import { type Outline, Plane, type Position, chanceFrom } from '@glenfold/agronomy/geometry';
import { corePlaces } from '@glenfold/agronomy/sampling';

/** What a laboratory can find in soil: pH, mg/kg by Mehlich-3, organic matter %, salts dS/m. */
export const soilAnalytes = ['ph', 'p', 'k', 'ca', 'mg', 's', 'fe', 'mn', 'zn', 'cu', 'b', 'na', 'organicMatter', 'salts'] as const; // prettier-ignore
export type SoilAnalyte = (typeof soilAnalytes)[number];
export type Soil = Readonly<Record<SoilAnalyte, number>>;

/** What of a zone its made-up soil follows from. */
export interface HiddenZone {
  /** The same gives the same soil. */
  readonly key: string;
  readonly soilGroup: SoilGroup | null;
  readonly outline: Outline | null;
  /** The first test of it that is no stand-in's: the soil is made to agree with it. */
  readonly tested?: ReportedValues;
}

/** One push of the probe, as the soil sees it. */
export interface HiddenCore {
  readonly key: string;
  readonly place: Position | null;
  /** Length of the core as a share of the depth wanted, 0 to 1. */
  readonly whole: number;
}

const usual: Readonly<Record<SoilGroup, Soil>> = {
  sand: { ph: 5.8, p: 44, k: 56, ca: 460, mg: 62, s: 12, fe: 90, mn: 12, zn: 1.6, cu: 0.9, b: 0.4, na: 24, organicMatter: 2, salts: 0.3 }, // prettier-ignore
  loam: { ph: 5.9, p: 36, k: 112, ca: 1120, mg: 150, s: 18, fe: 120, mn: 22, zn: 2.4, cu: 1.6, b: 0.7, na: 28, organicMatter: 4, salts: 0.4 }, // prettier-ignore
  clay: { ph: 6.2, p: 24, k: 176, ca: 1900, mg: 300, s: 22, fe: 140, mn: 30, zn: 2.8, cu: 2.2, b: 0.9, na: 34, organicMatter: 4.6, salts: 0.5 }, // prettier-ignore
};

const variation = (name: string): number =>
  (samplingTables.variation.find(({ analyte }) => analyte === name)?.cv ?? 0) / 100;
/** Between single cores of one zone, as a share of the mean; those no textbook gives are this stand-in's own. */
const spreads: Soil = {
  ph: variation('pH'),
  p: variation('phosphorus'),
  k: variation('potassium'),
  organicMatter: variation('organic matter'),
  ...{ ca: 0.25, mg: 0.25, s: 0.35, fe: 0.3, mn: 0.35, zn: 0.4, cu: 0.4, b: 0.35, na: 0.4, salts: 0.4 },
};
/** How much richer the top of a core is than the whole, for each share that is missing below. */
const richerAbove: Partial<Soil> = { p: 0.5, k: 0.5, organicMatter: 0.4, zn: 0.3 };
/** Of the variation, the share that lies in patches; the rest differs from one push to the next. */
const PATCHY = 0.5;

/** A whole number out of a text (FNV-1a). */
export function seedOf(text: string): number {
  let seed = 0x811c9dc5;
  for (const letter of text) seed = Math.imul(seed ^ letter.codePointAt(0)!, 0x01000193) >>> 0;
  return seed;
}

/** A normal deviate (Box & Muller 1958). */
export function normal(chance: () => number): number {
  return Math.sqrt(-2 * Math.log(1 - chance())) * Math.cos(2 * Math.PI * chance());
}

/** Patches of a few metres to a few tens: a sum of waves in all directions, mean 0 and deviation 1. */
function patches(seed: number): (east: number, north: number) => number {
  const chance = chanceFrom(seed);
  const waves = Array.from({ length: 8 }, () => {
    const [length, turn, phase] = [6 + 34 * chance(), 2 * Math.PI * chance(), 2 * Math.PI * chance()];
    return { x: (2 * Math.PI * Math.cos(turn)) / length, y: (2 * Math.PI * Math.sin(turn)) / length, phase };
  });
  const scale = Math.sqrt(2 / waves.length);
  return (east, north) =>
    scale * waves.reduce((sum, { x, y, phase }) => sum + Math.cos(x * east + y * north + phase), 0);
}

/** @param part share of the variation that the deviate holds; over the rest the mean is meant. */
function spreadAbout(analyte: SoilAnalyte, mean: number, deviate: number, part = 1): number {
  const cv = spreads[analyte];
  if (analyte === 'ph') return mean * (1 + cv * deviate);
  const log = Math.sqrt(Math.log(1 + cv * cv));
  return mean * Math.exp(log * deviate - (part * log * log) / 2);
}

const each = (value: (analyte: SoilAnalyte) => number): Soil =>
  Object.fromEntries(soilAnalytes.map((analyte) => [analyte, value(analyte)])) as unknown as Soil;

/** The soil of a zone that nobody sees: made up from what is known of it, the same each time. */
export class HiddenSoil {
  readonly #middle: Soil;
  readonly #patches: ReadonlyMap<SoilAnalyte, (east: number, north: number) => number>;
  readonly #plane: Plane | null;

  constructor(private readonly zone: HiddenZone) {
    const { key, soilGroup, outline, tested } = zone;
    const chance = chanceFrom(seedOf(key));
    const guess = usual[soilGroup ?? 'loam'];
    const made = each((analyte) => spreadAbout(analyte, guess[analyte], 0.8 * normal(chance)));
    const known: Partial<Record<SoilAnalyte, number>> = {};
    const read = tested && soilTestOf({ values: tested, extractant: 'mehlich-3', depth: 10 });
    if (read) known.ph = read.phIn ? phInWater(read.soilPh) : read.soilPh;
    if (read?.organicMatter !== undefined) known.organicMatter = read.organicMatter;
    for (const nutrient of nutrients) {
      const reported = tested?.[nutrient];
      if (reported && !reported.belowDetection) known[nutrient] = inOwnUnit(nutrient, reported).value;
    }
    this.#middle = { ...made, ...known };
    this.#plane = outline ? new Plane(firstPlace(outline)) : null;
    this.#patches = new Map(soilAnalytes.map((analyte) => [analyte, patches(seedOf(`${key} ${analyte}`))]));
  }

  /** Mean of the whole zone: what a bag of endless cores would hold. */
  mean(): Soil {
    const { outline, key } = this.zone;
    if (!outline) return this.#middle;
    const places = corePlaces(outline, 120, 'random', seedOf(key));
    const at = places.map((place) => this.#around(place));
    return each(
      (analyte) =>
        at.reduce((sum, deviate) => sum + spreadAbout(analyte, this.#middle[analyte], deviate(analyte), PATCHY), 0) /
        at.length,
    );
  }

  /** The soil of one core. */
  core({ key, place, whole }: HiddenCore): Soil {
    const chance = chanceFrom(seedOf(`${this.zone.key} ${key}`));
    const around = place && this.#plane ? this.#around(place) : () => Math.sqrt(PATCHY) * normal(chance);
    return each((analyte) => {
      const deviate = around(analyte) + Math.sqrt(1 - PATCHY) * normal(chance);
      return spreadAbout(analyte, this.#middle[analyte], deviate) * (1 + (richerAbove[analyte] ?? 0) * (1 - whole));
    });
  }

  #around(place: Position): (analyte: SoilAnalyte) => number {
    const [east, north] = this.#plane!.toPlane(place);
    return (analyte) => Math.sqrt(PATCHY) * this.#patches.get(analyte)!(east, north);
  }
}

function firstPlace({ coordinates }: Outline): Position {
  const [longitude = 0, latitude = 0] = (coordinates as unknown[]).flat(3) as number[];
  return [longitude, latitude];
}

/** Soils mixed evenly in one bag. @param soils one or more */
export function mixed(soils: readonly Soil[]): Soil {
  return each((analyte) => soils.reduce((sum, soil) => sum + soil[analyte], 0) / soils.length);
}

/** Exchangeable acidity, cmol(+)/kg, by the buffering of the texture and organic matter up to pH 7. */
export function acidityOf({ ph, organicMatter }: Soil, soilGroup: SoilGroup | null): number {
  const buffering = phBuffering.mineral[soilGroup ?? 'loam'] + phBuffering.perOrganicMatter * organicMatter;
  return Math.max(0, 7 - ph) * buffering;
}
