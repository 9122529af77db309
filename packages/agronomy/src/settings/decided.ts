import { capital } from '../units/capital.ts';
import { InputError } from '../calculators/fields.ts';
import type { CorrectionRule } from '../nutrients/correction.ts';
import {
  type Rating,
  type SufficiencySet,
  type YearlyRates,
  readSufficiencySet,
  readYearlyRates,
  sufficiencySets,
  yearlyRates,
} from '../nutrients/sufficiencyTables.ts';
import {
  type AdviceSettings,
  type CapKey,
  type LimeDepth,
  type NamedTarget,
  type OwnCap,
  type PlaceRules,
  type School,
  type UsualYear,
  type WorkPrice,
  capKeys,
  defaultSettings,
} from './settings.ts';

/** How one goes about it. */
export interface SchoolDecided {
  readonly school: School;
  readonly correct: CorrectionRule;
  readonly leaveAloneFrom?: number | null | undefined;
  readonly leaveAloneTo?: number | null | undefined;
  readonly neutralBelow?: number | null | undefined;
  readonly limeDepth: LimeDepth;
  /** Schools that are not shown beside it. */
  readonly off?: readonly School[] | null | undefined;
  /** Wanted where a site or a zone goes its own way. */
  readonly reason?: string | null | undefined;
}

/** A laboratory's or a state's bands in one extractant, mg/kg. */
export interface BandsDecided {
  readonly name: string;
  readonly source: string;
  readonly date: number;
  readonly extractant: string;
  readonly rows: ReadonlyArray<{
    readonly nutrient: string;
    readonly soilGroup?: string | null | undefined;
    readonly veryLowBelow?: number | null | undefined;
    readonly low: number;
    readonly high: number;
    readonly veryHighFrom?: number | null | undefined;
  }>;
}

/** P₂O₅ and K₂O for the year by rating, g/m². */
export interface RatesDecided {
  readonly name: string;
  readonly source: string;
  readonly date: number;
  readonly p: Readonly<Record<Rating, number>>;
  readonly pEstablishing?: Readonly<Record<Rating, number>> | null | undefined;
  readonly k: Readonly<Record<Rating, number>>;
}

/** What was decided, by kind. */
export interface Decisions {
  readonly school: SchoolDecided;
  readonly targets: { readonly targets: readonly NamedTarget[] };
  readonly caps: Readonly<Partial<Record<CapKey, number | null | undefined>>>;
  readonly bands: { readonly tables: readonly BandsDecided[] };
  readonly yearlyRates: RatesDecided;
  readonly rules: PlaceRules;
  readonly usualYear: UsualYear;
  readonly work: { readonly prices: readonly WorkPrice[] };
}

export type DecidedAt = 'practice' | 'site' | 'zone';
/** Whether a decision stands for all, for a site or for a zone. */
export type Decision = {
  [K in keyof Decisions]: { readonly kind: K; readonly at: DecidedAt; readonly value: Decisions[K] };
}[keyof Decisions];

const given = <T>(value: T | null | undefined): T | undefined => value ?? undefined;

/**
 * Bands of one's own as the rating takes them. What the extractant is doubted for stays: it lies in the method.
 *
 * @throws {InputError} for bands that do not rise, or two of one nutrient.
 */
export function ownBands({ name, source, date, extractant, rows }: BandsDecided): SufficiencySet {
  const general = sufficiencySets.find((set) => set.extractant === extractant);
  return readSufficiencySet(
    {
      source: `${name}: ${source}`,
      basis: 'mg/kg of the element, as entered by the practice',
      region: name,
      date,
      extractant,
      ...(general?.suitsPh ? { suitsPh: general.suitsPh } : {}),
      ...(general?.notDoubted ? { notDoubted: general.notDoubted } : {}),
      ...(general?.doubtedWithCarbonate ? { doubtedWithCarbonate: general.doubtedWithCarbonate } : {}),
      rows: rows.map(({ nutrient, soilGroup, veryLowBelow, low, high, veryHighFrom }) => ({
        nutrient,
        ...(soilGroup ? { soilGroup } : {}),
        medium: [low, high],
        ...(given(veryLowBelow) === undefined ? {} : { veryLowBelow }),
        ...(given(veryHighFrom) === undefined ? {} : { veryHighFrom }),
      })),
    },
    'table',
  );
}

/** Rates of one's own, still held by the general cap of a pass and scaled to no grass. @throws {InputError} */
export function ownRates({ name, source, date, p, pEstablishing, k }: RatesDecided): YearlyRates {
  const perArea = (rates: Readonly<Record<Rating, number>>) =>
    Object.fromEntries(Object.entries(rates).map(([rating, rate]) => [rating, `${rate} g/m2`]));
  return readYearlyRates({
    source: `${name}: ${source}`,
    basis: 'of the oxide per year by rating, as entered by the practice',
    region: name,
    date,
    perApplication: yearlyRates.perApplication,
    p: perArea(p),
    ...(pEstablishing ? { pEstablishing: perArea(pEstablishing) } : {}),
    k: perArea(k),
  });
}

const order: readonly DecidedAt[] = ['practice', 'site', 'zone'];
const whose: Readonly<Record<DecidedAt, string>> = {
  practice: 'the practice’s own cap',
  site: 'the site’s own cap',
  zone: 'the zone’s own cap',
};

/** The lower of two caps. */
function lower(one: OwnCap | undefined, other: OwnCap): OwnCap {
  return one && one.most <= other.most ? one : other;
}

/** The nearest decision of a kind: the zone's before the site's before the practice's. */
function nearest<K extends keyof Decisions>(decisions: readonly Decision[], kind: K) {
  const of = decisions.filter((decision): decision is Extract<Decision, { kind: K }> => decision.kind === kind);
  return of.sort((a, b) => order.indexOf(b.at) - order.indexOf(a.at))[0];
}

/**
 * What holds for a zone out of all that was decided: its own before its site's before the practice's. Caps and named
 * targets of all levels count together, and of two caps the lower one.
 *
 * @throws {InputError} for a table that cannot be used.
 */
export function settingsFrom(decisions: readonly Decision[]): AdviceSettings {
  const school = nearest(decisions, 'school');
  const rules = nearest(decisions, 'rules')?.value ?? null;
  const bands = nearest(decisions, 'bands')?.value.tables ?? [];
  const rates = nearest(decisions, 'yearlyRates')?.value;
  const usual = nearest(decisions, 'usualYear')?.value;
  const caps: Partial<Record<CapKey, OwnCap>> = {};
  for (const decision of decisions)
    if (decision.kind === 'caps')
      for (const key of capKeys) {
        const most = given(decision.value[key]);
        if (most !== undefined) caps[key] = lower(caps[key], { most, by: whose[decision.at] });
      }
  for (const key of ['nitrogenYear', 'nitrogenPass'] as const) {
    const most = given(rules?.[key]);
    if (rules && most !== undefined) caps[key] = lower(caps[key], { most, by: rules.name });
  }
  const targets = [...order]
    .reverse()
    .flatMap((at) =>
      decisions.flatMap((decision) =>
        decision.kind === 'targets' && decision.at === at ? decision.value.targets : [],
      ),
    );
  const { leaveAloneFrom, leaveAloneTo, neutralBelow } = school?.value ?? {};
  const [from, to] = defaultSettings.leaveAlone;
  const reason = school?.value.reason?.trim();
  return {
    ...defaultSettings,
    ...(school
      ? { school: school.value.school, correct: school.value.correct, limeDepth: school.value.limeDepth }
      : {}),
    leaveAlone: [leaveAloneFrom ?? from, leaveAloneTo ?? to],
    neutralBelow: neutralBelow ?? defaultSettings.neutralBelow,
    schoolsOff: (school?.value.off ?? []).filter((off) => off !== school?.value.school),
    schoolBy:
      school && school.at !== 'practice'
        ? `${capital(school.value.school)} is set for this ${school.at}${reason ? `: “${reason}”` : ''}.`
        : null,
    correctBy: school && school.at !== 'practice' ? `Set for this ${school.at}${reason ? `: “${reason}”` : ''}.` : null,
    phosphorusRule: rules?.phosphorus ?? defaultSettings.phosphorusRule,
    rules,
    caps,
    targets,
    bands: bands.map(ownBands),
    yearlyRates: rates ? ownRates(rates) : null,
    usualYear: usual && usual.visits.length > 0 ? usual : null,
    work: nearest(decisions, 'work')?.value.prices ?? [],
  };
}

/** What is wrong with a table of one's own, for a form; nothing where it can be used. */
export function tableFault(read: () => unknown): { readonly field: string; readonly message: string } | undefined {
  try {
    read();
    return undefined;
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return { field: error.field.replace(/^table\.?/, ''), message: error.message };
  }
}
