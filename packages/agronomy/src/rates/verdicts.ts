import { sulfurRequirement } from '../acidify/sulfur.ts';
import { sulfurLimits } from '../acidify/tables.ts';
import { InputError } from '../calculators/fields.ts';
import { otherNutrients } from '../nutrients/otherNutrients.ts';
import { nitrogenLimits, passesWithin } from '../nutrients/nitrogenLimits.ts';
import { bandWords, groundKind, organicTarget } from '../reading/bars.ts';
import type { AdviceSettings } from '../settings/settings.ts';
import { limitTable } from '../reading/limitTable.ts';
import type { Ground, Reading } from '../reading/reading.ts';
import type { SoilTest, ZoneFacts } from '../reading/zoneFacts.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { type Figure, WorkingBook } from '../working/working.ts';

/** Whether a remedy is wanted that has no product and doses yet: the answer and its reason. */
export interface Verdict {
  readonly remedy: 'sulfur' | 'compost' | 'gypsum' | 'magnesium';
  readonly name: string;
  readonly status: 'due' | 'none' | 'refused' | 'cannot say';
  /** Empty where nobody would ask. */
  readonly words: string;
  /** g/m² of the pure material, where it can be reckoned. */
  readonly need: Figure | null;
  readonly cautions: readonly string[];
}

const grams = (perThousand: number): number => convert(perThousand, 'lb/1000ft2', 'g/m2');
const IN_A_BED = 'plants that stand it; iron where leaves yellow; no lime-bearing water or topdressing.';
const INSTEAD =
  'ammonium sulfate as the nitrogen, watered in at once; iron when it yellows; a tolerant grass at the next seeding; no lime-bearing water or topdressing.';

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
  const fizz = carbonate.state === 'unknown' ? ' See first that the soil does not fizz under vinegar or acid.' : '';
  const soil = zone.soilGroup === undefined ? ' The soil is not known and read as loam; sand takes about half.' : '';
  return {
    ...base,
    status: 'due',
    need,
    words: `${told} is ${out > 1e-9 ? `above ${band}` : `inside ${band} and above the aim`}: sulfur in small steps to ${target.aim.toFixed(1)}, about ${total} of S in all, ${amounts}, 8 weeks apart, then a retest.${fizz}${soil}${zone.garden ? '' : ' Ammonium sulfate as the nitrogen helps.'}`,
    cautions: [
      'In warm, moist soil only, watered off the leaves; never in heat or on waterlogged ground. Sulfur dust irritates and can ignite: no sparks, eye protection.',
    ],
  };
}

/** Whether the ground wants compost. */
export function compostVerdict(
  zone: ZoneFacts,
  test: SoilTest,
  reading: Reading,
  { targets }: Pick<AdviceSettings, 'targets'>,
): Verdict {
  const base = { remedy: 'compost', name: 'Compost', need: null, cautions: [] } as const;
  const bar = reading.bars.find(({ key }) => key === 'organicMatter');
  if (!bar) return { ...base, status: 'cannot say', words: 'Organic matter was not tested.' };
  const target = organicTarget(zone, targets);
  const wanted = target !== undefined && (test.organicMatter ?? 0) < target.value - 1e-9;
  const poor = bar.rating === 'low' || bar.rating === 'very low';
  if (groundKind(zone) === 'fine turf' || !(poor || wanted)) return { ...base, status: 'none', words: '' };
  const told = `Organic matter ${Number((test.organicMatter ?? 0).toPrecision(2))} % is ${poor ? bar.rating : 'in the band'}${wanted ? `, below the ${target.value} % that “${target.name}” wants` : ''}`;
  const phosphorus = reading.bars.find(({ key }) => key === 'p')?.rating;
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
        ? ' Phosphorus is not known: have it tested before years of it.'
        : '';
  return {
    ...base,
    status: 'due',
    words: `${told}: compost, ${how}; mature, weed-free${zone.garden ? '' : ', and what it feeds is taken off'}.${counts}`,
  };
}

/** Whether sodium wants gypsum; nothing where sodium was not tested. */
export function gypsumVerdict(zone: ZoneFacts, test: SoilTest, reading: Reading): Verdict | undefined {
  const { esp } = test;
  if (esp === undefined) return undefined;
  const base = { remedy: 'gypsum', name: 'Gypsum', need: null, cautions: [] } as const;
  const shut = reading.limitations.find(({ key }) => key === 'drainage');
  const [clear, sodic] = limitTable.esp;
  const told = `Exchangeable sodium is ${esp.toFixed(0)} %`;
  if (esp < sodic - 1e-9 && !(esp >= clear - 1e-9 && zone.soilGroup === 'clay' && shut))
    return { ...base, status: 'none', words: '' };
  return {
    ...base,
    status: 'due',
    words: `${told}: ${shut ? 'the drain first, since gypsum does nothing where water cannot leave; then ' : ''}gypsum, then water to wash the sodium down. It does not change the pH.`,
  };
}

/** g/m² of magnesium for the year where its rating is short; 0 elsewhere. */
export function magnesiumWanted(rating: string | null | undefined): number {
  return rating === 'low' || rating === 'very low' ? grams(otherNutrients.magnesium[rating]) : 0;
}

/** Magnesium: with dolomitic lime where lime is due, of its own at a good pH; nothing where it is not short. */
export function magnesiumVerdict(reading: Reading, limeDue: boolean, system: UnitSystem): Verdict | undefined {
  const bar = reading.bars.find(({ key }) => key === 'mg');
  if (bar?.rating !== 'low' && bar?.rating !== 'very low') return undefined;
  const base = { remedy: 'magnesium', name: 'Magnesium', cautions: [] } as const;
  if (limeDue)
    return {
      ...base,
      status: 'due',
      need: null,
      words: `Magnesium is ${bar.rating}: take dolomitic lime, which brings it.`,
    };
  const { magnesium, source } = otherNutrients;
  const perThousand = magnesium[bar.rating];
  const value = magnesiumWanted(bar.rating);
  const book = new WorkingBook();
  book.include(bar.figure.working);
  book.step({
    label: 'Magnesium for the year',
    formula: 'by the rating',
    numbers: `${bar.rating}: ${perThousand} lb Mg/1000 ft²`,
    result: value,
    unit: 'g/m2',
    source,
  });
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
    words: `Magnesium is ${bar.rating} at a pH that wants no lime: ${present('productRate', carrier, system).text} of ${magnesium.carrier} a year in ${passes} passes of ${each} Mg, or a potassium-magnesium sulfate for the potash. Not in the cost.`,
  };
}
