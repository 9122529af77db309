import { capital } from '../units/capital.ts';
import { sulfurRequirement } from '../acidify/sulfur.ts';
import { sulfurLimits } from '../acidify/tables.ts';
import { InputError } from '../calculators/fields.ts';
import { otherNutrients } from '../nutrients/otherNutrients.ts';
import type { Sward } from '../nutrients/sward.ts';
import { nitrogenLimits, passesWithin } from '../nutrients/nitrogenLimits.ts';
import { bandWords, groundKind, organicTarget, tellBar } from '../reading/bars.ts';
import type { AdviceSettings } from '../settings/settings.ts';
import { limitTable } from '../reading/limitTable.ts';
import type { Ground, Reading } from '../reading/reading.ts';
import type { MagnesiumNeed } from '../schools/magnesiumNeed.ts';
import type { SoilTest, ZoneFacts } from '../reading/zoneFacts.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { compostLayers, compostProgram } from '../organic/program.ts';
import { densityOf } from '../soil/bulkDensity.ts';
import { gypsumRequirement, saltLeaching, sodiumTable } from '../soil/sodium.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';

/** Whether a remedy is wanted that has no product and doses yet: the answer and its reason. */
export interface Verdict {
  readonly remedy: 'sulfur' | 'compost' | 'gypsum' | 'leaching' | 'magnesium';
  readonly name: string;
  readonly status: 'due' | 'none' | 'refused' | 'cannot say';
  /** Empty where nobody would ask. */
  readonly words: string;
  /** The same without the amount, where something reckons that anew. */
  readonly reason?: string;
  /** Where it can be reckoned: g/m² of the pure material; of compost cm, of leaching mm of water. */
  readonly need: Figure | null;
  /** The need in the reader's unit; nothing where there is none. */
  readonly told?: string;
  /** What of it belongs to this year, in the unit of the need, and in how many doses. */
  readonly year?: { readonly total: number; readonly each: number; readonly times: number };
  readonly cautions: readonly string[];
}

/** A year's share of a need, in as few doses as its cap allows. */
function yearOf(total: number, once: number): NonNullable<Verdict['year']> {
  const times = Math.max(1, Math.ceil(total / once - 1e-9));
  return { total, each: total / times, times };
}

/** A layer as it is raked: to a millimetre, or the twentieth of an inch; never nothing. */
const layerWords = (cm: number, system: UnitSystem): string =>
  system === 'us'
    ? `${Number((Math.max(1, Math.round((cm / 2.54) * 20)) / 20).toFixed(2))} in`
    : `${Math.max(1, Math.round(cm * 10))} mm`;

const grams = (perThousand: number): number => convert(perThousand, 'lb/1000ft2', 'g/m2');
const IN_A_BED = 'plants that stand it; iron where leaves yellow; no lime-bearing water or topdressing.';
const INSTEAD =
  'ammonium sulfate as the nitrogen, watered in at once; iron when it yellows; a tolerant grass at the next seeding; no lime-bearing water or topdressing.';

/** Whoever spreads sulfur reads them, whether it was proposed or set by hand. */
export const sulfurCautions: readonly string[] = [
  'In warm, moist soil only, watered off the leaves; never in heat or on waterlogged ground. Sulfur dust irritates and can ignite: no sparks, eye protection.',
];

/** What to do about a pH above the band: sulfur in small steps, or why not and what instead. */
export function sulfurVerdict(zone: ZoneFacts, test: SoilTest, ground: Ground, system: UnitSystem): Verdict {
  const { sward, target, carbonate } = ground;
  const [, high] = sward.ph;
  const out = test.soilPh - high;
  const told = `pH ${test.soilPh.toFixed(1)}`;
  const band = `${sward.possessive} ${bandWords(sward.ph)}`;
  const base = { remedy: 'sulfur', name: 'Sulfur', need: null, cautions: [] } as const;
  const instead = zone.garden ? IN_A_BED : INSTEAD;
  if (out <= 1e-9 && target.way !== 'lower') return { ...base, status: 'none', words: '' };
  if (target.way !== 'lower')
    return {
      ...base,
      status: 'none',
      words: `No sulfur: ${told} is above ${band}, and left alone. ${target.ruleWords}`,
    };
  const slight = out <= limitTable.ph.small + 1e-9;
  if (slight && target.rule !== 'to the aim')
    return {
      ...base,
      status: 'none',
      words: `No sulfur: ${told} is a small miss above ${band}, and sulfur is not worth it within ${limitTable.ph.small} of the band.`,
    };
  if (carbonate.state === 'present')
    return {
      ...base,
      status: 'refused',
      words: `No sulfur: ${carbonate.evidence}, so it would be eaten up before the pH moves. Instead: ${instead}`,
    };
  if (carbonate.state === 'unknown' && test.soilPh >= limitTable.freeCarbonate.phFrom - 1e-9)
    return {
      ...base,
      status: 'cannot say',
      words: `${told} is above ${band}. Whether sulfur can work hangs on free carbonate: put a drop of vinegar or acid on the soil. If it fizzes, no sulfur but ${instead}`,
    };
  const surface = zone.surface === 'fine turf' ? 'fine turf' : 'turf';
  let need: Figure;
  let feasible: boolean;
  try {
    const { result, working } = sulfurRequirement({
      soilPh: test.soilPh,
      targetPh: target.aim,
      soilGroup: zone.soilGroup ?? 'loam',
      depth: test.depth,
      surface,
      freeCarbonate: carbonate.state === 'little' ? carbonate.measured : undefined,
    });
    need = { value: result.requirement, working };
    feasible = result.feasible;
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return {
      ...base,
      status: 'refused',
      words: `No sulfur: ${told} is beyond what sulfur answers; free lime or sodium rules. Instead: ${instead}`,
    };
  }
  const total = present('limeRate', need.value, system).text;
  if (!feasible)
    return {
      ...base,
      status: 'refused',
      need,
      words: `No sulfur: ${total} would be wanted, more than ten years at the cap. Instead: ${instead}`,
    };
  const once = Math.min(
    sulfurLimits.perApplication[surface],
    convert(ground.settings.caps.sulfurOnce?.most ?? Infinity, 'g/m2', 'lb/1000ft2'),
  );
  const year = sulfurLimits.perYear[surface] * (slight ? 0.5 : 1);
  const amounts = `at most ${present('nutrientRate', grams(once), system).text} of S at once and ${present('nutrientRate', grams(year), system).text} this year`;
  const years = Math.ceil(need.value / grams(year) - 1e-9);
  const pace = years > 1 ? `, some ${years} years of it` : '';
  const fizz = carbonate.state === 'unknown' ? ' See first that the soil does not fizz under vinegar or acid.' : '';
  const soil = zone.soilGroup === undefined ? ' The soil is not known and read as loam; sand takes about half.' : '';
  return {
    ...base,
    status: 'due',
    need,
    told: total,
    year: yearOf(Math.min(need.value, grams(year)), grams(once)),
    words: `${told} is ${out > 1e-9 ? `above ${band}` : `inside ${band} and above the aim`}: sulfur in small steps to ${target.aim.toFixed(1)}, about ${total} of S in all, ${amounts}${pace}, 8 weeks apart, then a retest.${fizz}${soil}${zone.garden ? '' : ' Ammonium sulfate as the nitrogen helps.'}`,
    cautions: sulfurCautions,
  };
}

/** Points of organic matter, %, that a laboratory can tell apart. */
const TELLABLE = 0.1;

/** Whether the ground wants compost. */
export function compostVerdict(
  zone: ZoneFacts,
  test: SoilTest,
  reading: Reading,
  { targets }: Pick<AdviceSettings, 'targets'>,
  system: UnitSystem,
): Verdict {
  const base = { remedy: 'compost', name: 'Compost', need: null, cautions: [] } as const;
  const bar = reading.bars.find(({ key }) => key === 'organicMatter');
  if (!bar) return { ...base, status: 'cannot say', words: 'Organic matter was not tested.' };
  const target = organicTarget(zone, targets);
  const wanted = target !== undefined && (test.organicMatter ?? 0) < target.value - 1e-9;
  const poor = bar.rating === 'low' || bar.rating === 'very low';
  const foot = Math.max(wanted ? target.value : 0, poor ? (bar.wanted?.[0] ?? 0) : 0);
  if (groundKind(zone) === 'fine turf' || !(poor || wanted)) return { ...base, status: 'none', words: '' };
  if (foot - (test.organicMatter ?? 0) < TELLABLE - 1e-9)
    return {
      ...base,
      status: 'none',
      words: `Organic matter ${Number((test.organicMatter ?? 0).toPrecision(3))} % is as near to ${figure(foot)} % as a laboratory can tell: clippings left lying do it.`,
    };
  const told = `Organic matter ${Number((test.organicMatter ?? 0).toPrecision(3))} % is ${poor ? bar.rating : 'in the band'}${wanted ? `, below the ${target.value} % that “${target.name}” wants` : ''}`;
  const tested = reading.bars.find(({ key }) => key === 'p');
  const phosphorus = tested?.rating;
  if (phosphorus === 'high' || phosphorus === 'very high')
    return {
      ...base,
      status: 'refused',
      words: `${told}, but phosphorus is ${phosphorus}: compost would add more. Take leaf mould or another source poor in phosphorus.`,
    };
  const how = zone.garden
    ? 'dug in'
    : zone.surface === 'seedbed'
      ? 'tilled in before seeding'
      : 'a thin layer after coring, over years';
  const counts = zone.garden
    ? ' What it feeds counts in the laboratory’s own advice.'
    : phosphorus === 'medium'
      ? ' Phosphorus is medium: what it brings counts.'
      : phosphorus === undefined || phosphorus === null
        ? tested
          ? ` Phosphorus is ${tellBar(tested, system)}, which is not rated here: ask the laboratory before years of it.`
          : ' Phosphorus is not known: have it tested before years of it.'
        : '';
  const { way, ...amount } = compostTo(zone, test, foot, system);
  const reason = `${told}: compost, ${how}; mature and weed-free.${zone.garden ? '' : ' What it feeds comes off the nitrogen once it is laid.'}${counts}`;
  return {
    ...base,
    ...amount,
    status: 'due',
    cautions: reading.limitations.some(({ key }) => key === 'salt')
      ? ['Composts hold salt, and this ground has enough of it: have theirs tested before any is laid.']
      : [],
    reason,
    words: `${reason}${way}`,
  };
}

const COMPOST = 'mature compost';

/** The usual compost over years to an aim, % of organic matter in the sampled slice: how much, and in words. */
function compostTo(
  { surface, garden }: ZoneFacts,
  { organicMatter = 0, depth }: SoilTest,
  aim: number,
  system: UnitSystem,
): Pick<Verdict, 'need' | 'told' | 'year'> & { readonly way: string } {
  const perYear = garden || surface === 'seedbed' ? compostLayers.seedbed : compostLayers.turfPass;
  const { result, working } = compostProgram({
    organicMatter,
    target: aim,
    soilDepth: depth,
    material: COMPOST,
    perYear,
  });
  const { years, total, reached } = result;
  const [first] = years;
  if (!first) return { need: null, way: '' };
  const say = (rate: number): string => present('nutrientRate', rate, system).text;
  const count = years.length === 1 ? 'one year' : `${years.length} years`;
  const layer = `${layerWords(first.thickness, system)} of ${COMPOST} a year`;
  const way = reached
    ? `About ${layer} for ${count}, ${layerWords(total, system)} together, reaches ${figure(aim)} %`
    : `Even ${layer} for ${count} does not reach ${figure(aim)} %`;
  return {
    need: { value: total, working },
    told: layerWords(total, system),
    year: yearOf(first.thickness, first.thickness),
    way: ` ${way}; a year’s layer carries ${say(first.p2o5)} of P₂O₅, and ${say(first.nitrogenFirstYear)} of its N feeds in the first year.`,
  };
}

/** Whether sodium wants gypsum; nothing where sodium was not tested. */
export function gypsumVerdict(
  zone: ZoneFacts,
  test: SoilTest,
  reading: Reading,
  system: UnitSystem,
): Verdict | undefined {
  const { esp, cec, depth, organicMatter } = test;
  if (esp === undefined) return undefined;
  const base = { remedy: 'gypsum', name: 'Gypsum', need: null, cautions: [] } as const;
  const shut = reading.limitations.find(({ key }) => key === 'drainage');
  const [clear, sodic] = limitTable.esp;
  const told = `Exchangeable sodium is ${esp.toFixed(0)} %`;
  if (esp < sodic - 1e-9 && !(esp >= clear - 1e-9 && zone.soilGroup === 'clay' && shut))
    return { ...base, status: 'none', words: '' };
  const first = shut ? 'the drain first, since gypsum does nothing where water cannot leave; then ' : '';
  if (cec === undefined)
    return {
      ...base,
      status: 'due',
      words: `${told}: ${first}gypsum, then water to wash the sodium down. How much hangs on the exchange capacity: ask for CEC. It does not change the pH.`,
    };
  const { result, working } = gypsumRequirement({
    ...{ cec, esp, depth },
    ...(organicMatter === undefined ? {} : { bulkDensity: densityOf(organicMatter) }),
  });
  const once = grams(sodiumTable.most.turf);
  const tilled = zone.surface === 'seedbed' || zone.garden;
  const year = yearOf(
    Math.min(result.requirement, tilled ? Infinity : once * sodiumTable.timesAYear),
    tilled ? Infinity : once,
  );
  const say = (rate: number): string => present('limeRate', rate, system).text;
  const rest = result.requirement - year.total;
  const doses = tilled
    ? `${say(year.total)}, tilled in`
    : year.times === 1
      ? `${say(result.requirement)} at once`
      : `${say(result.requirement)} in all, about ${say(year.each)} at a time, ${timesWords(year.times)} this year${rest > 1e-9 ? `, the rest of ${say(rest)} after a retest` : ''}`;
  return {
    ...base,
    status: 'due',
    need: { value: result.requirement, working },
    told: say(result.requirement),
    year,
    words: `${told}: ${first}gypsum, ${doses}, then water to wash the sodium down${year.times > 1 ? ' after each' : ''}. It does not change the pH.`,
    cautions: ['Before any of it: see where the water that carries the sodium away will go.'],
  };
}

/** Whether salt is to be washed down; nothing where it does no harm. */
export function leachingVerdict(
  zone: ZoneFacts,
  test: SoilTest,
  reading: Reading,
  sward: Sward,
  system: UnitSystem,
): Verdict | undefined {
  const salt = reading.limitations.find(({ key }) => key === 'salt');
  const bar = reading.bars.find(({ key }) => key === 'ecPaste');
  if (!salt || !bar) return undefined;
  const [stands] = sward.salt;
  const depth = zone.measured?.rootDepth ?? test.depth;
  const { result, working } = saltLeaching({ ec: bar.figure.value, targetEc: stands, depth });
  const shut = reading.limitations.some(({ key }) => key === 'drainage');
  const sodic = test.esp !== undefined && test.esp >= limitTable.esp[1] - 1e-9;
  const water = present('rainfall', result.water, system).text;
  const first = [...(shut ? ['once water can leave'] : []), ...(sodic ? ['after the gypsum'] : [])];
  return {
    remedy: 'leaching',
    name: 'Leaching',
    status: 'due',
    need: { value: result.water, working: [...bar.figure.working, ...working] },
    told: water,
    year: yearOf(result.water, result.water),
    words: `${first.length > 0 ? `${capital(first.join(' and '))}, a` : 'A'}bout ${water} of water through the top ${present('depth', depth, system).text}, beyond what the grass drinks, in several soakings, brings the salt from ${bar.uncertain ? 'about ' : ''}${bar.figure.value.toFixed(1)} to the ${figure(stands)} dS/m that ${sward.main?.label ?? sward.label} stands. The water itself must be poorer in salt than that; test again after it.`,
    cautions: [],
  };
}

const timesWords = (times: number): string => (times === 2 ? 'twice' : `${times} times`);
/** Magnesium: with dolomitic lime where lime is due, of its own at a good pH; nothing where it is not short. */
export function magnesiumVerdict(
  asked: MagnesiumNeed | undefined,
  limeDue: boolean,
  system: UnitSystem,
): Verdict | undefined {
  if (!asked) return undefined;
  const { value, why } = asked;
  const base = { remedy: 'magnesium', name: 'Magnesium', cautions: [] } as const;
  if (limeDue)
    return {
      ...base,
      status: 'due',
      need: null,
      words: `${why}: take dolomitic lime, which brings it.`,
    };
  const { magnesium, source } = otherNutrients;
  const perThousand = convert(value, 'g/m2', 'lb/1000ft2');
  const book = new WorkingBook();
  book.include(asked.working);
  const carrier = (value * 100) / magnesium.content;
  const passes = passesWithin(perThousand, nitrogenLimits.magnesium);
  book.step({
    label: `As ${magnesium.carrier}`,
    formula: 'magnesium / content',
    numbers: `${present('nutrientRate', value, system).text} / ${magnesium.content} %`,
    result: carrier,
    unit: 'g/m2',
    source,
  });
  const each = present('nutrientRate', grams(nitrogenLimits.magnesium), system).text;
  return {
    ...base,
    status: 'due',
    need: { value, working: book.entries },
    told: `${present('nutrientRate', value, system).text} Mg`,
    reason: `${why} at a pH that wants no lime: as a sulfate, which leaves the pH as it is.`,
    words: `${why} at a pH that wants no lime: ${present('productRate', carrier, system).text} of ${magnesium.carrier} a year in ${passes} passes of ${each} Mg, or a potassium-magnesium sulfate for the potash. Not in the cost.`,
  };
}
