import { lightWords } from '../reading/light.ts';
import { capital } from '../units/capital.ts';
import { requirementMinimumLevel } from '../nutrients/minimumLevel.ts';
import { nitrogenAnnual } from '../nutrients/nitrogen.ts';
import { nitrogenLimits } from '../nutrients/nitrogenLimits.ts';
import { nitrogenCredits } from '../nutrients/nitrogenTables.ts';
import { nutrientConvert } from '../nutrients/convert.ts';
import { requirementSufficiency } from '../nutrients/sufficiency.ts';
import { type Rating, extractantNames, yearlyRates } from '../nutrients/sufficiencyTables.ts';
import { cationNeed } from '../schools/cationNeeds.ts';
import type { Sward } from '../nutrients/sward.ts';
import type { Reading } from '../reading/reading.ts';
import type { SoilTest, ZoneFacts } from '../reading/zoneFacts.ts';
import type { AdviceSettings, PlaceRules } from '../settings/settings.ts';
import { withheldPhosphorus } from './phosphorusRule.ts';
import { densityOf } from '../soil/bulkDensity.ts';
import { monthName } from '../units/monthOf.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';

export type Macro = 'n' | 'p2o5' | 'k2o';
export const macroNames: Readonly<Record<Macro, string>> = { n: 'Nitrogen', p2o5: 'P₂O₅', k2o: 'K₂O' };

/** What a zone wants of a nutrient this year, before any product. */
export interface Need {
  readonly nutrient: Macro;
  readonly status: 'due' | 'none' | 'cannot say';
  readonly words: string;
  /** g/m² */
  readonly need: Figure | null;
  /** g/m² that all products together may bring; nothing where more does no harm. */
  readonly most: number | undefined;
  /** g/m² that the year may bring from whatever source; nothing where {@link most} says it already. */
  readonly range?: number;
  /** g/m² that further credits, such as compost’s, may take off a need of nitrogen. */
  readonly creditLeft?: number;
  readonly cautions: readonly string[];
}

/** What is laid or spread beside the feeding, g/m² in the first year, and of what. */
export interface Brought {
  readonly n: number;
  readonly p2o5: number;
  readonly k2o: number;
  /** "compost" */
  readonly by: string;
  /** Its nitrogen feeds at once, and counts whole; of what comes slowly at most half of the year’s need is credited. */
  readonly quick?: boolean;
}

/** A need less what is brought beside the feeding: credits together take half of the nitrogen at most. */
export function lessBrought(need: Need, brought: Brought, system: UnitSystem): Need {
  const comes = brought[need.nutrient];
  if (comes <= 0 || !need.need) return need;
  const off = Math.min(comes, need.need.value, brought.quick ? Infinity : (need.creditLeft ?? Infinity));
  const book = new WorkingBook();
  book.include(need.need.working);
  book.step({
    label: `Less what ${brought.by} brings`,
    formula:
      need.nutrient === 'n' && !brought.quick ? 'need − first year’s N, half of the year at most' : 'need − brought',
    numbers: `${figure(need.need.value)} − ${figure(off)}`,
    result: need.need.value - off,
    unit: 'g/m2',
  });
  const told = present('nutrientRate', comes, system).text;
  const value = need.need.value - off;
  return {
    ...need,
    need: { value, working: book.entries },
    status: need.status === 'due' && value <= 1e-9 ? 'none' : need.status,
    ...(need.most === undefined ? {} : { most: Math.max(0, need.most - comes) }),
    words: `${need.words} ${brought.by === '' ? 'It' : capital(brought.by)} brings ${told} of ${macroNames[need.nutrient] === 'Nitrogen' ? 'N' : macroNames[need.nutrient]}${off < comes - 1e-9 && off > 0 ? `, of which ${present('nutrientRate', off, system).text} is counted off` : off > 0 ? ', counted off' : ''}.`,
  };
}

/**
 * A need less what the logbook says is down: of nitrogen since the year began, of what is tested since the test. All of it
 * counts, also against what the year may bring at most.
 */
export function lessDown(need: Need, { down, sinceTest }: ZoneFacts, system: UnitSystem): Need {
  if (!need.need) return need;
  const { nutrient } = need;
  const year = down?.year[nutrient] ?? 0;
  const off = nutrient === 'n' ? year : (sinceTest?.[nutrient] ?? 0);
  const capped = { ...(need.most === undefined ? {} : { most: Math.max(0, need.most - year) }) };
  if (off <= 1e-9) return { ...need, ...capped };
  const value = Math.max(0, need.need.value - off);
  const book = new WorkingBook();
  book.include(need.need.working);
  book.step({
    label: 'Less what is down by the logbook',
    formula: nutrient === 'n' ? 'need − put down since the year began' : 'need − put down since the test',
    numbers: `${figure(need.need.value)} − ${figure(off)}`,
    result: value,
    unit: 'g/m2',
  });
  const since = nutrient === 'n' && down ? `since ${down.since}` : 'since the test';
  return {
    ...need,
    ...capped,
    need: { value, working: book.entries },
    status: need.status === 'due' && value <= 1e-9 ? 'none' : need.status,
    words: `${need.words} ${present('nutrientRate', off, system).text} of ${nutrient === 'n' ? 'N' : macroNames[nutrient]} is down ${since}, and comes off.`,
  };
}

const grams = (perThousand: number): number => convert(perThousand, 'lb/1000ft2', 'g/m2');

/** Nitrogen for the year by the grass, not by the test; a seedbed's own year is its starter and one more. */
export function nitrogenNeed(
  zone: ZoneFacts,
  sward: Sward,
  organicMatter: number | undefined,
  settings: AdviceSettings,
  system: UnitSystem,
): Need {
  if (!sward.main) return noLawn('n');
  const [low, high] = sward.nitrogen;
  const { result, working } = nitrogenAnnual({
    grass: sward.main.name,
    ...(sward.parts.length > 1 ? { range: [grams(low), grams(high)] } : {}),
    intensity: zone.intensity,
    shade: zone.shade,
    clippings: zone.clippings,
    organicMatter,
  });
  const book = new WorkingBook();
  book.include(working);
  const seedbed = zone.surface === 'seedbed';
  const ofSeedbed = grams(nitrogenLimits.total.seedbed * nitrogenLimits.seedbedPasses);
  const year = settings.caps.nitrogenYear;
  const ofKind = seedbed ? Math.min(result.annual, ofSeedbed) : result.annual;
  const held = Math.min(ofKind, year?.most ?? Infinity);
  if (ofKind < result.annual)
    book.cap(
      `A seedbed takes the starter and one more 4 to 6 weeks after it is up: ${present('nutrientRate', ofKind, system).text}. The rest belongs to next year’s program.`,
      nitrogenLimits.source,
    );
  const cut =
    year && held < ofKind ? ` Held at ${present('nutrientRate', held, system).text} a year by ${year.by}.` : '';
  if (year && cut !== '') book.cap(`At most ${present('nutrientRate', held, system).text} a year: ${year.by}.`);
  const saved = Object.entries({ shade: 'shade', clippings: 'clippings left', organicMatter: 'organic matter' })
    .filter(([key]) => result.credits[key as 'shade'] > 0)
    .map(([, words]) => words);
  const credited =
    result.credits.total > 0
      ? ` ${present('nutrientRate', result.credits.total, system).text} saved by ${saved.join(', ')}.`
      : '';
  const planned = seedbed
    ? 'For the seedbed: a starter at seeding and, where more is due, one feed 4 to 6 weeks after it is up.'
    : `Planned from the grass’s year, ${zone.intensity} intensity, not from the test.`;
  const cautions = sward.parts.flatMap(({ caution }) => caution ?? []);
  const shade = nitrogenCredits.shade[zone.shade];
  return {
    nutrient: 'n',
    status: held > 0 ? 'due' : 'none',
    words: `${planned}${credited}${cut}${lightWords(zone)}`,
    need: { value: held, working: book.entries },
    most: Math.min(
      year?.most ?? Infinity,
      Math.max(held, seedbed ? Math.min(ofSeedbed, grams(high) * shade) : grams(high) * shade),
    ),
    range: Math.min(year?.most ?? Infinity, Math.max(held, grams(high) * shade)),
    ...(sward.organicSoil
      ? {}
      : {
          creditLeft: Math.max(
            0,
            (result.annual + result.credits.clippings + result.credits.organicMatter) * nitrogenCredits.mostTogether -
              result.credits.clippings -
              result.credits.organicMatter,
          ),
        }),
    cautions: [...cautions, ...placeCautions(settings.rules, 'nitrogen', system)],
  };
}

/** A bed is fed by what grows in it, which nobody has told. */
function noLawn(nutrient: Macro): Need {
  return {
    nutrient,
    status: 'none',
    words: 'No lawn feed on a garden bed: its crop and the laboratory’s own advice decide.',
    need: null,
    most: 0,
    cautions: [],
  };
}

/** "15 November" of `11-15`. */
export function dayOfYear(monthDay: string): string {
  const [month = 1, day = 1] = monthDay.split('-').map(Number);
  return `${day} ${monthName(month)}`;
}

/** What the rules of the place ask of whoever spreads it. */
function placeCautions(rules: PlaceRules | null, nutrient: 'nitrogen' | 'phosphorus', system: UnitSystem): string[] {
  if (!rules) return [];
  const out = rules.blackouts.filter(({ what }) => what === nutrient || what === 'all fertilizer');
  return [
    ...(out.length > 0
      ? [
          `None from ${out.map(({ from, to }) => `${dayOfYear(from)} to ${dayOfYear(to)}`).join(', nor from ')}: ${rules.name}.`,
        ]
      : []),
    ...(rules.waterStrip
      ? [`Stay ${present('length', rules.waterStrip, system).text} back from water and drains: ${rules.name}.`]
      : []),
  ];
}

/** Phosphorus is gated by law in many places; what the test says decides which way. */
function phosphorusCaution(rating: Rating, { phosphorusRule, rules }: AdviceSettings): string {
  const gate =
    phosphorusRule === 'none'
      ? rules
        ? `${rules.name} sets no rule for phosphorus; the label still does.`
        : 'No local phosphorus rule is set: make sure that there is none.'
      : rating === 'medium'
        ? 'A medium test is a shortage only for a lawn being established, under most local phosphorus rules: check the rule before spreading any.'
        : rules
          ? `The test shows the shortage that ${rules.name} asks for.`
          : 'The test shows the shortage that most phosphorus rules ask for; the local rule still decides.';
  return `${gate} Keep it off paving and back from water and drains.`;
}

/** P₂O₅ or K₂O for the year by the test, by the practice's school. */
export function testedNeed(
  nutrient: 'p2o5' | 'k2o',
  zone: ZoneFacts,
  sward: Sward,
  test: SoilTest | undefined,
  reading: Reading,
  nitrogen: number,
  settings: AdviceSettings,
  system: UnitSystem,
  { carbonate = false, on }: { readonly carbonate?: boolean; readonly on?: string | undefined } = {},
): Need {
  if (!sward.main) return noLawn(nutrient);
  const element = nutrient === 'p2o5' ? 'p' : 'k';
  const symbol = element.toUpperCase();
  const name = macroNames[nutrient];
  const bar = reading.bars.find(({ key }) => key === element);
  // Phosphorus that nobody has shown to be wanted is not to come along with anything.
  const unknown = { nutrient, need: null, most: element === 'p' ? 0 : undefined, cautions: [] } as const;
  if (!test || !bar)
    return { ...unknown, status: 'cannot say', words: `${symbol} was not tested: no ${name} without a test.` };
  if (!bar.rating) return { ...unknown, status: 'cannot say', words: bar.words };
  const value = bar.word
    ? `“${bar.word}” without a number`
    : `${bar.belowDetection ? 'below ' : ''}${present('concentration', bar.figure.value, system).text}`;
  const told = `${symbol} ${value} by ${extractantNames[test.extractant]} is ${bar.rating}`;
  const sand =
    bar.onSand === undefined ? '' : ` The soil is not known and read as loam; on sand it would be ${bar.onSand}.`;

  const need =
    settings.school === 'minimum level'
      ? byFloor(element, bar.figure, test, nitrogen)
      : settings.school === 'cation balance' && element === 'k'
        ? byShare(test, carbonate)
        : undefined;
  if (need === null)
    return {
      ...unknown,
      status: 'cannot say',
      words: `Minimum levels were made for Mehlich-3 at pH 5.5 and above; this test is by ${extractantNames[test.extractant]} at pH ${test.soilPh.toFixed(1)}.`,
    };
  const { result, working } = requirementSufficiency({
    nutrient: element,
    rating: bar.rating,
    established: zone.surface !== 'seedbed',
    middleNitrogen: (sward.nitrogen[0] + sward.nitrogen[1]) / 2,
    ...(sward.parts.length === 1 ? { grass: sward.main.name } : {}),
    ...(settings.yearlyRates ? { table: settings.yearlyRates } : {}),
  });
  const figure: Figure = need ?? { value: result.requirement, working: [...bar.figure.working, ...working] };
  const withheld = element === 'p' ? withheldPhosphorus(bar.rating, zone, test, settings, on) : undefined;
  const ruled = withheld !== undefined;
  if (figure.value === 0 || ruled) {
    const wanted = (need?.value ?? result.requirement) > 0;
    const why =
      withheld && wanted && withheld.words !== ''
        ? `, but ${withheld.words}`
        : need?.value === 0 && settings.school === 'cation balance'
          ? ', but it holds the share of the exchange that cation balance wants'
          : need?.value === 0 && settings.school === 'minimum level'
            ? ', and what the year uses leaves it above its floor'
            : bar.rating === 'medium' && element === 'p'
              ? ', which feeds grown turf, and which most phosphorus rules call no shortage'
              : '';
    const kept: Figure = ruled && figure.value > 0 ? { ...figure, value: 0 } : figure;
    return {
      nutrient,
      status: 'none',
      words: `No ${name}. ${told}${why}.${sand}`,
      need: kept,
      most: element === 'p' ? 0 : undefined,
      cautions: [],
    };
  }
  const school =
    settings.school !== 'cation balance'
      ? ''
      : element === 'p'
        ? ' Phosphorus is no cation: by its rating.'
        : need
          ? ' By cation balance; field trials have not shown that ideal shares pay.'
          : ' Shares of the exchange cannot be said of this test: by its rating.';
  const table =
    settings.yearlyRates && settings.school !== 'minimum level'
      ? ` By the rates of ${settings.yearlyRates.region}.`
      : '';
  const tilled = zone.surface === 'seedbed' ? ' Tilled in at once, before seeding.' : '';
  return {
    nutrient,
    status: 'due',
    words: `${told}.${table}${tilled}${sand}${school}`,
    need: figure,
    most: element === 'p' ? figure.value : undefined,
    cautions:
      element === 'p'
        ? [phosphorusCaution(bar.rating, settings), ...placeCautions(settings.rules, 'phosphorus', system)]
        : [],
  };
}

/** Potash that brings potassium to the foot of its share, at most what a very low test would be given; nothing where shares cannot be said. */
function byShare(test: SoilTest, carbonate: boolean): Figure | undefined {
  const found = cationNeed('k', test, carbonate);
  if ('why' in found) return undefined;
  if (!found.need) return { value: 0, working: [] };
  const { result, working } = nutrientConvert({ value: found.need.value, nutrient: 'k', from: 'element', to: 'oxide' });
  const most = grams(yearlyRates.k['very low']);
  const book = new WorkingBook();
  book.include([...found.need.working, ...working]);
  if (result.value > most) book.cap('Held to what a very low test is given in a year: the rest waits for the next test.', yearlyRates.source); // prettier-ignore
  return { value: Math.min(result.value, most), working: book.entries };
}

/** By minimum levels; null where they do not hold. */
function byFloor(element: 'p' | 'k', tested: Figure, test: SoilTest, nitrogen: number): Figure | null {
  if (test.extractant !== 'mehlich-3' || test.soilPh < 5.5) return null;
  const { result, working } = requirementMinimumLevel({
    nutrient: element,
    test: tested.value,
    nitrogen,
    depth: test.depth,
    ...(test.organicMatter === undefined ? {} : { bulkDensity: densityOf(test.organicMatter) }),
  });
  const oxide = nutrientConvert({ value: result.requirement, nutrient: element, from: 'element', to: 'oxide' });
  return { value: oxide.result.value, working: [...tested.working, ...working, ...oxide.working] };
}
