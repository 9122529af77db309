import { analyteWord } from '../analytes/analytes.ts';
import { minimumLevels, requirementMinimumLevel } from '../nutrients/minimumLevel.ts';
import { type ProgramInput, type ZoneProgram, programZone } from './zoneProgram.ts';
import { understand } from '../rates/plan.ts';
import { nitrogenNeed } from '../rates/needs.ts';
import { densityOf } from '../soil/bulkDensity.ts';
import { cationTables } from '../soil/cations.ts';
import { type AdviceSettings, defaultSettings } from '../settings/settings.ts';
import type { Sense } from '../units/present.ts';
import { capital } from '../units/capital.ts';
import { present } from '../units/present.ts';
import { type Working, WorkingBook } from '../working/working.ts';
import { exchangeOf } from '../schools/exchangeOf.ts';

/** Schools as they stand beside one another: the three, and the practice's or laboratory's own table. */
export const schoolKeys = ['sufficiency', 'own table', 'minimum level', 'cation balance'] as const;
export type SchoolKey = (typeof schoolKeys)[number];

/** What is judged by each school. */
const judgedKeys = ['p', 'k', 'ca', 'mg', 's'] as const;
type JudgedKey = (typeof judgedKeys)[number];

/** What a school makes of one nutrient. */
export interface SchoolJudgement {
  readonly key: JudgedKey;
  readonly name: string;
  /** "low", "above its floor", "in range"; nothing where the school says nothing of it. */
  readonly word: string | null;
  /** Whether the school wants more of it. */
  readonly wants: boolean | null;
  readonly working: Working;
}

/** One thing that a school would put down this year. */
export interface SchoolPut {
  readonly remedy: string;
  /** Of the product, where there is one. */
  readonly name: string;
  readonly told: string;
  /** Of the year, in the unit of the sense. */
  readonly rate: number;
  readonly sense: Sense;
}

/** A report as one school reads it, and what it would spend this year. */
export interface SchoolRead {
  readonly key: SchoolKey;
  readonly name: string;
  /** What it goes by, in a sentence. */
  readonly goesBy: string;
  /** The zone is planned by it. */
  readonly chosen: boolean;
  /** Why it cannot read this report; nothing where it can. */
  readonly cannot: string | null;
  readonly judged: readonly SchoolJudgement[];
  readonly puts: readonly SchoolPut[];
  /** Nothing while something that is due has no price. */
  readonly cost: ZoneProgram['cost'];
  readonly unpriced: readonly string[];
}

/** A nutrient on which all schools that can read it agree, or do not. */
export interface Agreement {
  readonly name: string;
  readonly agree: boolean;
  readonly words: string;
}

export interface SchoolsRead {
  readonly schools: readonly SchoolRead[];
  readonly agreements: readonly Agreement[];
  /** Who chose the school of the zone, and why; nothing where it is the practice. */
  readonly by: string | null;
}

const names: Readonly<Record<SchoolKey, string>> = {
  sufficiency: 'Sufficiency',
  'own table': 'Own table',
  'minimum level': 'Minimum level',
  'cation balance': 'Cation balance',
};

const goesBy = ({ bands, yearlyRates }: AdviceSettings): Readonly<Record<SchoolKey, string>> => ({
  sufficiency: 'Feed where the test lies below the band of the general table; add nothing above it.',
  'own table': `Sufficiency by the table of ${[...new Set([...bands.map(({ region }) => region), ...(yearlyRates ? [yearlyRates.region] : [])])].join(', ')}.`,
  'minimum level':
    'Feed only what keeps the soil above a floor, after the use of the year (Woods, Stowell & Gelernter 2014).',
  'cation balance':
    'Bring calcium, magnesium and potassium to their shares of the exchange (Bear & Toth 1948). Field trials have not shown that this pays (Kopittke & Menzies 2007).',
});

/** The school by which a zone is planned. */
export const chosenSchool = ({ school, bands, yearlyRates }: AdviceSettings): SchoolKey =>
  school === 'sufficiency' && (bands.length > 0 || yearlyRates) ? 'own table' : school;

/** The settings under which a school plans by itself. */
function settingsBy(key: SchoolKey, settings: AdviceSettings): AdviceSettings {
  if (key === 'own table') return { ...settings, school: 'sufficiency' };
  return { ...settings, school: key, ...(key === 'sufficiency' ? { bands: [], yearlyRates: null } : {}) };
}

const isOn = (key: SchoolKey, settings: AdviceSettings): boolean => {
  if (key === chosenSchool(settings)) return true;
  if (key === 'own table') return settings.bands.length > 0 || settings.yearlyRates !== null;
  return !settings.schoolsOff.includes(key);
};

/** What a program puts down in its year, one line a remedy and product. */
const putsOf = ({ treatments }: ZoneProgram, system: ProgramInput['system']): SchoolPut[] =>
  treatments.flatMap(({ remedy, name, status, rate, sense, supply }) =>
    status === 'planned' && rate
      ? [
          {
            remedy,
            name: capital(supply?.name ?? name),
            sense,
            rate: rate.value,
            told: present(sense, rate.value, system).text,
          },
        ]
      : [],
  );

type Understood = ReturnType<typeof understand>;

function bySufficiency({ reading }: Understood): SchoolJudgement[] {
  return judgedKeys.map((key) => {
    const bar = reading.bars.find((one) => one.key === key);
    const { rating = null } = bar ?? {};
    return {
      ...{ key, name: capital(analyteWord(key)), word: rating ?? (bar ? 'not rated' : null) },
      wants: rating === null ? null : rating === 'low' || rating === 'very low',
      working: bar?.figure.working ?? [],
    };
  });
}

function byMinimum(
  { reading, test, sward }: Understood,
  input: ProgramInput,
  settings: AdviceSettings,
): SchoolJudgement[] {
  const nitrogen = nitrogenNeed(input.zone, sward, test?.organicMatter, settings, input.system).need?.value ?? 0;
  return judgedKeys.map((key) => {
    const bar = reading.bars.find((one) => one.key === key);
    const shared = { key, name: capital(analyteWord(key)) };
    if (!bar || !test || bar.belowDetection) return { ...shared, word: null, wants: null, working: [] };
    const { result, working } = requirementMinimumLevel({
      ...{ nutrient: key, test: bar.figure.value, nitrogen, depth: test.depth },
      ...(test.organicMatter === undefined ? {} : { bulkDensity: densityOf(test.organicMatter) }),
    });
    const under = bar.figure.value < minimumLevels.floor[key];
    const wants = result.requirement > 1e-9;
    return {
      ...shared,
      word: under ? 'below its floor' : wants ? 'falls below its floor in the year' : 'stays above its floor',
      ...{ wants, working },
    };
  });
}

function byBalance(understood: Understood): SchoolJudgement[] | string {
  const { test, ground } = understood;
  if (!test) return 'Nothing was tested.';
  const exchange = exchangeOf(test, ground?.carbonate.state === 'present');
  if (typeof exchange === 'string') return exchange;
  return judgedKeys.map((key) => {
    const shared = { key, name: capital(analyteWord(key)) };
    if (key === 'p' || key === 's') return { ...shared, word: null, wants: null, working: [] };
    const { share, judgement } = exchange.shares[key];
    const book = new WorkingBook();
    book.include(exchange.working);
    const [low, high] = cationTables.balance.ranges[key];
    return {
      ...shared,
      word: `${share.toFixed(1)} %, ${judgement} (${low}–${high} %)`,
      wants: judgement === 'low',
      working: book.entries,
    };
  });
}

/** What keeps a school from reading a report; nothing where it can. */
function cannotRead(key: SchoolKey, { test, ground }: Understood): string | null {
  if (!test) return 'There is no test to read.';
  if (key === 'minimum level' && (test.extractant !== 'mehlich-3' || test.soilPh < 5.5))
    return `The floors were made for Mehlich-3 at pH 5.5 and above; this test is ${test.extractant === 'mehlich-3' ? `at pH ${test.soilPh.toFixed(1)}` : 'by another extractant'}.`;
  if (key === 'cation balance') {
    const exchange = exchangeOf(test, ground?.carbonate.state === 'present');
    if (typeof exchange === 'string') return exchange;
  }
  return null;
}

function readBy(key: SchoolKey, input: ProgramInput, settings: AdviceSettings): SchoolRead {
  const own = settingsBy(key, settings);
  const understood = understand({ ...input, products: [], settings: own });
  const cannot = cannotRead(key, understood);
  const judged =
    cannot !== null
      ? []
      : key === 'minimum level'
        ? byMinimum(understood, input, own)
        : key === 'cation balance'
          ? byBalance(understood)
          : bySufficiency(understood);
  const shared = {
    ...{ key, name: names[key], goesBy: goesBy(settings)[key], cannot, chosen: key === chosenSchool(settings) },
    judged: typeof judged === 'string' ? [] : judged,
  };
  if (cannot !== null) return { ...shared, puts: [], cost: null, unpriced: [] };
  const { program } = programZone({ ...input, changes: [], settings: own });
  return { ...shared, puts: putsOf(program, input.system), cost: program.cost, unpriced: program.unpriced };
}

/** Where the schools agree on a nutrient, and where not, in a sentence each. */
function agreementsOf(schools: readonly SchoolRead[]): Agreement[] {
  return judgedKeys.flatMap((key): Agreement[] => {
    const said = schools.flatMap(({ name, judged }) =>
      judged.flatMap((one) => (one.key === key && one.wants !== null ? [{ name, wants: one.wants }] : [])),
    );
    if (said.length < 2) return [];
    const [wanting, content] = [said.filter(({ wants }) => wants), said.filter(({ wants }) => !wants)];
    const list = (of: typeof said): string => of.map(({ name }) => name.toLowerCase()).join(', ');
    const name = capital(analyteWord(key));
    const agree = wanting.length === 0 || content.length === 0;
    return [
      {
        ...{ name, agree },
        words: agree
          ? wanting.length > 0
            ? 'all want more of it'
            : 'none wants more of it'
          : `${list(wanting)} ${wanting.length === 1 ? 'wants' : 'want'} more; ${list(content)} ${content.length === 1 ? 'does' : 'do'} not`,
      },
    ];
  });
}

/**
 * One report read by every school that is not switched off: its judgement of each nutrient, and the program that follows
 * from it at the practice's prices, without what was changed by hand.
 */
export function schoolsOf(input: ProgramInput): SchoolsRead {
  const { settings = defaultSettings } = input;
  const schools = schoolKeys.flatMap((key) => (isOn(key, settings) ? [readBy(key, input, settings)] : []));
  return { schools, agreements: agreementsOf(schools), by: settings.schoolBy };
}
