import { type Nutrient, analyteWord, isNutrient, nutrients } from '../analytes/analytes.ts';
import type { Sward } from '../nutrients/sward.ts';
import { dropOf } from '../soil/percolation.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import type { Bar } from './bars.ts';
import { type Degree, degrees, grade, phDegree } from './degrees.ts';
import { limitTable as table } from './limitTable.ts';
import type { FieldMeasurements, SoilTest, ZoneFacts } from './zoneFacts.ts';

/** What can limit a lawn, in the order in which equals are told: water and air, salt, light, acidity, the rest. */
const groundKeys = [
  ...['drainage', 'compaction', 'repellent', 'thatch', 'salt', 'sodium', 'shade', 'acid', 'alkaline'],
  'organic matter',
] as const;
/** Nutrients are named as they are; the first four and sulfur lead the trace elements. */
const nutrientOrder: readonly Nutrient[] = [
  ...(['p', 'k', 'mg', 'ca', 's', 'fe'] as const),
  ...nutrients.filter((key) => !['p', 'k', 'mg', 'ca', 's', 'fe'].includes(key)),
];
export const limitKeys: readonly string[] = [...groundKeys, ...nutrientOrder.map(analyteWord)];
/** A key of {@link limitKeys}: `drainage`, `acid`, `potassium`. */
export type LimitKey = string;

export interface Limitation {
  readonly key: LimitKey;
  readonly degree: Degree;
  /** One sentence of the trade. */
  readonly what: string;
  readonly evidence: string;
}

const EPS = 1e-9;

/** What a pH does to this sward on this soil, said by degree. */
function ofPh(sward: Sward, ph: number, evidence: string): Limitation | undefined {
  const degree = phDegree(ph, sward.ph);
  if (!degree) return undefined;
  const [low] = sward.ph;
  const told = ph.toFixed(1);
  if (ph < low) {
    const key = 'acid';
    if (degree === 'small')
      return {
        key,
        degree,
        what: `A little acid: pH ${told} is a small miss below ${sward.possessive} ${low.toFixed(1)}.`,
        evidence,
      };
    const aluminium =
      ph < table.ph.aluminiumBelow - EPS &&
      !sward.organicSoil &&
      (sward.main?.ph ?? sward.ph)[0] >= table.ph.aluminiumBandFrom - EPS;
    return {
      key,
      degree,
      what: `${degree === 'severe' ? 'Very acid' : 'Acid'}: phosphorus and calcium are less available, microbes are slower, ${sward.main ? 'moss and ' : ''}acid-tolerant weeds gain.${aluminium ? ' Below pH 5.2 aluminium is toxic to roots.' : ''}`,
      evidence,
    };
  }
  const key = 'alkaline';
  if (degree === 'small')
    return {
      key,
      degree,
      what: `A little alkaline: pH ${told} is a small miss above ${sward.possessive} ${sward.ph[1].toFixed(1)}, and does no harm.`,
      evidence,
    };
  const what =
    ph > table.ph.carbonateFrom + EPS
      ? 'Alkaline: at this pH there is usually free carbonate, iron is locked up, and sulfur is mostly wasted.'
      : ph >= table.ph.ironFrom - EPS
        ? 'Alkaline: iron and manganese may show first, as yellow new leaves.'
        : sward.main
          ? 'Above what this grass likes: it thins, and iron sprays answer where it yellows.'
          : 'Above what most beds want: iron may show first, as yellow new leaves.';
  return { key, degree, what, evidence };
}

function ofDrainage({ slope, lie, signs = [], measured = {} }: ZoneFacts, system: UnitSystem): Limitation | undefined {
  const { clearBelow, severeBelow, slopeLetsOut } = table.drainage;
  const { percolationSlowest: slowest, percolationOverall: overall } = measured;
  const drop = slowest === undefined ? overall : dropOf(slowest);
  const letsOut = (slope ?? 0) > slopeLetsOut && lie !== 'hollow';
  const where = letsOut
    ? 'On this slope water leaves sideways, so it is survivable.'
    : lie === 'hollow' || lie === 'flat'
      ? 'In a hollow or on the flat it drowns roots.'
      : '';
  if (drop !== undefined) {
    const perHour = convert(drop, 'mm/h', 'in/h');
    if (perHour >= clearBelow - EPS) return undefined;
    const severe = perHour < severeBelow - EPS;
    const wanted = system === 'us' ? `${clearBelow} in/h` : `${Math.round(convert(clearBelow, 'in/h', 'mm/h'))} mm/h`;
    const rate = system === 'us' ? `${Number(perHour.toFixed(2))} in/h` : `${Number(drop.toPrecision(2))} mm/h`;
    return {
      key: 'drainage',
      degree: grade(severe),
      what: `Water ${severe ? 'hardly leaves' : 'leaves slowly'}: drain or open the ground before feeding it.`,
      evidence: [
        slowest === undefined
          ? `The test hole drops ${rate}, where ${wanted} is wanted.`
          : `The slowest layer lets a hole drop ${rate}, where ${wanted} is wanted${overall !== undefined && dropOf(slowest) < overall / 2 ? ': quick over tight, a pan' : ''}.`,
        where,
      ]
        .filter(Boolean)
        .join(' '),
    };
  }
  const seen = signs.find((sign) =>
    /puddl|stand\w* water|water\w* stand|water ?log|wet low|\bwet\b|bogg?y?\b|pond/i.test(sign),
  );
  return seen === undefined
    ? undefined
    : {
        key: 'drainage',
        degree: 'clear',
        what: 'Water stands: see where it should go before anything is fed.',
        evidence: [
          `Seen: ${seen.toLowerCase()}. A test hole settles whether it is a pan, the texture or the outfall.`,
          where,
        ]
          .filter(Boolean)
          .join(' '),
      };
}

function ofStructure(zone: ZoneFacts, system: UnitSystem): Limitation[] {
  const { signs = [], measured = {}, surface } = zone;
  const { probeStop, thatch, waterDrop } = measured;
  const depth = (value: number): string => present('depth', value, system).text;
  const found: Limitation[] = [];
  const drainage = ofDrainage(zone, system);
  if (drainage) found.push(drainage);
  const hard = signs.find((sign) => /hard ground|compact/i.test(sign));
  if (probeStop !== undefined) {
    if (probeStop < table.probeStop.clearAbove - EPS)
      found.push({
        key: 'compaction',
        degree: grade(probeStop < table.probeStop.severeAbove - EPS),
        what: 'Compacted: roots and water stop short. Core or loosen before feeding.',
        evidence: `A probe stops at ${depth(probeStop)}.`,
      });
  } else if (hard !== undefined)
    found.push({
      key: 'compaction',
      degree: 'clear',
      what: 'Compacted by the look of it: core or loosen before feeding.',
      evidence: `Seen: ${hard.toLowerCase()}. Push a probe and note where it stops.`,
    });
  if (waterDrop !== undefined ? waterDrop >= table.waterDrop[0] - EPS : signs.some((sign) => /bead|repel/i.test(sign)))
    found.push({
      key: 'repellent',
      degree: grade((waterDrop ?? 0) >= table.waterDrop[1] - EPS),
      what: 'Sheds water: a wetting agent and deep soaking before anything else is washed off.',
      evidence:
        waterDrop === undefined ? 'Seen: water beads and runs off.' : `A drop stands ${Math.round(waterDrop)} s.`,
    });
  const [clear, severe] = table.thatch[surface === 'fine turf' ? 'fine turf' : 'turf'];
  if (thatch !== undefined && thatch >= clear - EPS)
    found.push({
      key: 'thatch',
      degree: grade(thatch >= severe - EPS),
      what: 'Thatch keeps water and lime out of the soil: core or dethatch first.',
      evidence: `${depth(thatch)} of thatch; from ${depth(clear)} on it is worth a cure.`,
    });
  return found;
}

function ofSalt(sward: Sward, bars: readonly Bar[]): Limitation[] {
  const of = (wanted: Bar['key']): Bar | undefined => bars.find(({ key }) => key === wanted);
  const [salt, sodium] = [of('ecPaste'), of('esp')];
  const [ec, esp] = [salt?.figure.value, sodium?.figure.value];
  const found: Limitation[] = [];
  const [some, harmful] = sward.salt;
  const label = sward.main?.label ?? sward.label;
  if (ec !== undefined && ec >= some - EPS)
    found.push({
      key: 'salt',
      degree: grade(ec >= harmful - EPS),
      what: `Salt ${ec >= harmful - EPS ? 'harms' : 'begins to harm'} ${label}: wash it down once water can leave.`,
      evidence: `${salt?.uncertain ? 'About ' : ''}${ec.toFixed(1)} dS/m of the saturated paste${salt?.uncertain ? ', by a general factor' : ''}; ${label} stands ${some}.`,
    });
  const [clear, sodic] = table.esp;
  if (esp !== undefined && esp >= clear - EPS)
    found.push({
      key: 'sodium',
      degree: grade(esp >= sodic - EPS),
      what: `Sodium ${esp >= sodic - EPS ? 'shuts the soil' : 'may shut a clay'}: the drain first, then gypsum, then water to wash it out.`,
      evidence: `Exchangeable sodium ${esp.toFixed(0)} %.`,
    });
  return found;
}

/** Hours of sun that a zone gets: counted, else what its class stands for. */
function ofShade(sward: Sward, { shade, sunHours }: ZoneFacts): Limitation | undefined {
  if (!sward.main) return undefined;
  const hours = sunHours ?? table.sunShort.classHours[shade];
  const short = sward.main.leastSun - hours;
  if (short <= EPS) return undefined;
  return {
    key: 'shade',
    degree: grade(short > table.sunShort.severeAbove + EPS),
    what: `Too little sun for ${sward.main.label}: no feed makes up for light.`,
    evidence: `It wants ${sward.main.leastSun} h of direct sun; ${sunHours === undefined ? `${shade === 'deep' ? 'deep' : 'part'} shade leaves about ${hours}` : `${sunHours} were counted`}.`,
  };
}

/** The value against what is wanted: "60 ppm, where 75 ppm is wanted". */
function shortBy({ sense, figure, wanted, belowDetection }: Bar, system: UnitSystem): string {
  const told = `${belowDetection ? 'Below ' : ''}${present(sense, figure.value, system).text}`;
  return wanted ? `${told}, where ${present(sense, wanted[0], system).text} is wanted.` : `${told}.`;
}

function ofBar(bar: Bar, system: UnitSystem): Limitation | undefined {
  const short = bar.rating === 'very low' || bar.rating === 'low';
  if (!short) return undefined;
  if (bar.key === 'organicMatter')
    return {
      key: 'organic matter',
      degree: grade(bar.rating === 'very low'),
      what: `Organic matter is ${bar.rating}: the ground holds little water and food.`,
      evidence: shortBy(bar, system),
    };
  if (!isNutrient(bar.key)) return undefined;
  const key = analyteWord(bar.key);
  const name = key.charAt(0).toUpperCase() + key.slice(1);
  return {
    key,
    degree: bar.rating === 'very low' ? 'clear' : 'small',
    what: `${name} is ${bar.rating}.`,
    evidence: shortBy(bar, system),
  };
}

/** What limits a zone, most first: by degree, and among equals in the order of {@link limitKeys}. */
export function limitsOfZone(
  zone: ZoneFacts,
  sward: Sward,
  test: Pick<SoilTest, 'soilPh'> | undefined,
  bars: readonly Bar[],
  system: UnitSystem,
): Limitation[] {
  const found = [
    ...ofStructure(zone, system),
    ...ofSalt(sward, bars),
    ofShade(sward, zone),
    test && ofPh(sward, test.soilPh, bars[0]?.words ?? ''),
    ...bars.map((bar) => ofBar(bar, system)),
  ].flatMap((limit) => limit ?? []);
  const rank = ({ degree, key }: Limitation): number =>
    (degrees.length - degrees.indexOf(degree)) * limitKeys.length + limitKeys.indexOf(key);
  return found.sort((a, b) => rank(a) - rank(b));
}

/** Drainage or compaction that rules before feeding. */
export function groundFirst(limits: readonly Limitation[]): Limitation | undefined {
  return limits.find(({ key, degree }) => (key === 'drainage' || key === 'compaction') && degree === 'severe');
}

/** What was measured of structure, for asking after what was not. */
export function knowsDrainage({ percolationSlowest, percolationOverall }: FieldMeasurements = {}): boolean {
  return percolationSlowest !== undefined || percolationOverall !== undefined;
}
