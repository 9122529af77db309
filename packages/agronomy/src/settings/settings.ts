import { type CorrectionRule, correction } from '../nutrients/correction.ts';
import type { SufficiencySet, YearlyRates } from '../nutrients/sufficiencyTables.ts';

/** Schools of reading what a soil holds: by rating, by a floor, by shares of the exchange. */
export const schools = ['sufficiency', 'minimum level', 'cation balance'] as const;
export type School = (typeof schools)[number];

/** What a local rule lets phosphorus do: on a shown shortage or at establishment, freely, or never. */
export const phosphorusRules = ['shortage', 'none', 'never'] as const;
export type PhosphorusRule = (typeof phosphorusRules)[number];

/** How deep a lime requirement is reckoned on turf: what was sampled, or the top in which surface lime acts first. */
export const limeDepths = ['sampled slice', 'top 4 in'] as const;
export type LimeDepth = (typeof limeDepths)[number];
/** cm */
export const LIME_TOP = 10.16;

/** What may be held lower than the general tables do, g/m². */
export const capNames = {
  limeOnce: 'Lime at a time',
  limeYear: 'Lime a year',
  nitrogenPass: 'N in one pass',
  solubleNitrogenPass: 'Soluble N in one pass',
  nitrogenYear: 'N a year',
  potashPass: 'K₂O in one pass',
  sulfurOnce: 'Sulfur at a time',
} as const;
export type CapKey = keyof typeof capNames;
export const capKeys = Object.keys(capNames) as readonly CapKey[];

/** A cap that is lower than the general one, and whose it is. */
export interface OwnCap {
  /** g/m² */
  readonly most: number;
  /** "the practice’s own cap", "Fennimore nutrient code". */
  readonly by: string;
}

/** What can be given a target of one's own. */
export const targetAnalytes = ['soilPh', 'organicMatter', 'cec'] as const;
export type TargetAnalyte = (typeof targetAnalytes)[number];

/** A target with a name: what a client or a practice wants of a soil. */
export interface NamedTarget {
  readonly name: string;
  readonly analyte: TargetAnalyte;
  /** pH, % organic matter, or cmol(+)/kg of exchange capacity. */
  readonly value: number;
  /** For this grass only. */
  readonly grass?: string | null | undefined;
}

/** Days of the year in which something is not to be spread: month and day, the last one included. */
export interface Blackout {
  /** `11-15` */
  readonly from: string;
  readonly to: string;
  readonly what: 'nitrogen' | 'phosphorus' | 'all fertilizer';
}

/** Ratings that a rule may call a shortage. */
export const shortageRatings = ['very low', 'low', 'medium'] as const;
export type ShortageRating = (typeof shortageRatings)[number];

/** What the law of a place says, as a practice has written it down; nothing of it is claimed to be the law. */
export interface PlaceRules {
  readonly name: string;
  readonly source: string;
  readonly phosphorus: PhosphorusRule;
  /** What counts as a shown shortage: this rating and any below it; low where it is not told. */
  readonly shortage?: ShortageRating | null | undefined;
  /** Whether a lawn being established may have it without one; so where it is not told. */
  readonly establishing?: boolean | null | undefined;
  /** Years within which the test must have been taken that proves it. */
  readonly proofYears?: number | null | undefined;
  /** What is to be kept as proof, in words. */
  readonly proof?: string | null | undefined;
  /** g/m² of N */
  readonly nitrogenYear?: number | null | undefined;
  readonly nitrogenPass?: number | null | undefined;
  /** m to stay back from water and drains. */
  readonly waterStrip?: number | null | undefined;
  readonly blackouts: readonly Blackout[];
}

/** One treatment of a usual year. */
export interface UsualVisit {
  /** 1 to 12 */
  readonly month: number;
  /** Name of the remedy, such as `lime`. */
  readonly remedy: string;
  /** Id of the material; the suggestion where none is named. */
  readonly material?: string | null | undefined;
  /** g/m² of the material at this visit. */
  readonly rate?: number | null | undefined;
}

/** What a practice sells to everybody, and a test changes. */
export interface UsualYear {
  readonly name: string;
  readonly visits: readonly UsualVisit[];
}

/** What work is charged by. */
export const workUnits = ['hour', 'day', 'visit', 'bag', 'km', 'load', '100 m²', '1000 ft²'] as const;

/** What work costs. */
export interface WorkPrice {
  readonly name: string;
  readonly price: number;
  readonly per: (typeof workUnits)[number];
  /** Remedies that it counts with by itself, `all` for everything; none where hours and days are set by hand. */
  readonly for?: readonly string[] | null | undefined;
  /** In whole ones only, as a hired machine. */
  readonly whole?: boolean;
}

/** How a practice, a site or a zone is advised; nothing in it is unsaid. */
export interface AdviceSettings {
  /** When a pH is corrected. */
  readonly correct: CorrectionRule;
  /** pH between which the rule "leave alone" does nothing. */
  readonly leaveAlone: readonly [low: number, high: number];
  /** pH below which the rule "toward neutral" limes. */
  readonly neutralBelow: number;
  /** Who decided when to correct, and why, where it is not the practice. */
  readonly correctBy: string | null;
  /** By which school P and K are planned. */
  readonly school: School;
  /** Schools that are not shown beside it. */
  readonly schoolsOff: readonly School[];
  /** Who chose the school, and why, where it is not the practice. */
  readonly schoolBy: string | null;
  readonly limeDepth: LimeDepth;
  readonly phosphorusRule: PhosphorusRule;
  /** The rules of the place, where they are set. */
  readonly rules: PlaceRules | null;
  readonly caps: Readonly<Partial<Record<CapKey, OwnCap>>>;
  readonly targets: readonly NamedTarget[];
  /** Tables of one's own, which stand before the general ones. */
  readonly bands: readonly SufficiencySet[];
  readonly yearlyRates: YearlyRates | null;
  /** What a program begins from; nothing where it begins from nothing. */
  readonly usualYear: UsualYear | null;
  /** Labour, hire and haulage; none for somebody who sees no prices. */
  readonly work: readonly WorkPrice[];
  /** Sign of the money that prices are in. */
  readonly currency: string;
}

/** What holds until somebody decides otherwise. */
export const defaultSettings: AdviceSettings = {
  correct: 'outside the band',
  leaveAlone: correction.leaveAlone.between,
  neutralBelow: correction.towardNeutral.below,
  correctBy: null,
  school: 'sufficiency',
  schoolsOff: [],
  schoolBy: null,
  limeDepth: 'sampled slice',
  phosphorusRule: 'shortage',
  rules: null,
  caps: {},
  targets: [],
  bands: [],
  yearlyRates: null,
  usualYear: null,
  work: [],
  currency: '$',
};

/** The target of one's own for a soil, by grass before the general one. */
export function targetFor(
  targets: readonly NamedTarget[],
  analyte: NamedTarget['analyte'],
  grass: string | undefined,
): NamedTarget | undefined {
  const of = targets.filter((target) => target.analyte === analyte);
  return of.find((target) => target.grass && target.grass === grass) ?? of.find((target) => !target.grass);
}
