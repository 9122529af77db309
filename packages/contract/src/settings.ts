import {
  type BandsDecided,
  type RatesDecided,
  capKeys,
  capNames,
  correctionRules,
  extractants,
  grassNames,
  limeDepths,
  nutrients,
  ownBands,
  ownRates,
  phosphorusRules,
  ratings,
  schools,
  shortageRatings,
  targetAnalytes,
  soilGroups,
  tableFault,
} from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Matches,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { Amount, Held, oneOf, trim, trimOrNone } from './checks.ts';
import { UsualYearSetting, UsualYearsSetting } from './usualYear.ts';
import { SectionsSetting, WorkSetting } from './workSettings.ts';

const ph = (label: string) => Amount(label, { min: 4, max: 9, unit: 'pH' });

/** A name and where it comes from, as every decision about other people's numbers wants them. */
class Sourced {
  @trim
  @IsString({ message: 'Give it a name.' })
  @Length(1, 80, { message: 'Give it a name of 1 to 80 letters, such as that of the state or the laboratory.' })
  name: string;

  @trim
  @IsString({ message: 'Say where it is written.' })
  @Length(1, 300, { message: 'Say where it is written, so that somebody can look it up.' })
  source: string;
}

/** How one goes about it; for one site or zone with the reason. */
export class SchoolSetting {
  @IsIn(schools, oneOf('School', schools))
  school: (typeof schools)[number];

  @IsIn(correctionRules, oneOf('When to correct', correctionRules))
  correct: (typeof correctionRules)[number];

  @IsOptional()
  @ph('Left alone from')
  @Held(({ leaveAloneFrom, leaveAloneTo }: SchoolSetting) =>
    leaveAloneFrom != null && leaveAloneTo != null && leaveAloneFrom >= leaveAloneTo
      ? {
          field: 'leaveAloneTo',
          message: 'What is left alone goes from the lower pH to the higher: change the two about.',
        }
      : undefined,
  )
  leaveAloneFrom?: number | null;

  @IsOptional()
  @ph('Left alone to')
  leaveAloneTo?: number | null;

  @IsOptional()
  @ph('Toward neutral below')
  neutralBelow?: number | null;

  @IsIn(limeDepths, oneOf('Lime reckoned for', limeDepths))
  limeDepth: (typeof limeDepths)[number];

  /** Schools that are not shown beside it. */
  @IsOptional()
  @IsIn(schools, { each: true, message: `Schools are ${schools.join(', ')}.` })
  @Held(({ school, off }: SchoolSetting) =>
    off?.includes(school)
      ? { field: 'off', message: 'The school that zones are planned by cannot be switched off: choose another first.' }
      : undefined,
  )
  off?: Array<(typeof schools)[number]> | null;

  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the reason as text.' })
  @MaxLength(200, { message: 'Keep the reason under 200 letters.' })
  reason?: string | null;
}

const targetRanges = {
  soilPh: [4.5, 8, 'A pH to aim at lies between 4.5 and 8.'],
  organicMatter: [0.5, 12, 'Organic matter to build to lies between 0.5 and 12 %.'],
  cec: [2, 60, 'An exchange capacity to build to lies between 2 and 60 meq/100 g.'],
} as const;

export class TargetSetting {
  @trim
  @IsString({ message: 'Give the target a name.' })
  @Length(1, 80, { message: 'Give the target a name of 1 to 80 letters, such as whose wish it is.' })
  name: string;

  @IsIn(targetAnalytes, oneOf('Target for', targetAnalytes))
  analyte: (typeof targetAnalytes)[number];

  /** pH, % organic matter, or cmol(+)/kg of exchange capacity. */
  @Held(({ analyte, value }: TargetSetting) => {
    const [low, high, message] = Object.hasOwn(targetRanges, analyte) ? targetRanges[analyte] : targetRanges.soilPh;
    return typeof value === 'number' && value >= low && value <= high ? undefined : { field: 'value', message };
  })
  value: number;

  @IsOptional()
  @IsIn(grassNames, oneOf('Grass', grassNames))
  grass?: string | null;
}

export class TargetsSetting {
  @IsArray({ message: 'Give the targets as a list.' })
  @ArrayMaxSize(30, { message: 'Give at most thirty targets.' })
  @ValidateNested({ each: true })
  @Type(() => TargetSetting)
  targets: TargetSetting[];
}

/** Caps lower than the general ones, g/m². */
export class CapsSetting implements Readonly<Partial<Record<(typeof capKeys)[number], number | null>>> {
  readonly [key: string]: number | null | undefined;
}
for (const key of capKeys) {
  Amount(capNames[key], { min: 0.05, max: 2000, unit: 'g/m²' })(CapsSetting.prototype, key);
  IsOptional()(CapsSetting.prototype, key);
}

class BandRow {
  @IsIn(nutrients, oneOf('Nutrient', nutrients))
  nutrient: string;

  @IsOptional()
  @IsIn(soilGroups, oneOf('Soil', soilGroups))
  soilGroup?: string | null;

  @IsOptional()
  @Amount('Low from', { min: 0.01, max: 100_000, unit: 'mg/kg' })
  veryLowBelow?: number | null;

  @Amount('Medium from', { min: 0.01, max: 100_000, unit: 'mg/kg' })
  low: number;

  @Amount('Medium to', { min: 0.01, max: 100_000, unit: 'mg/kg' })
  high: number;

  @IsOptional()
  @Amount('Very high from', { min: 0.01, max: 200_000, unit: 'mg/kg' })
  veryHighFrom?: number | null;
}

const YEAR = { min: 1950, max: 2100 } as const;

/** The bands of a laboratory or a state, in one extractant. */
export class BandsTable extends Sourced implements BandsDecided {
  @Amount('The year', YEAR)
  date: number;

  @IsIn(extractants, oneOf('Extractant', extractants))
  extractant: string;

  @IsArray({ message: 'Give the bands as a list.' })
  @ArrayMinSize(1, { message: 'Give the band of one nutrient at least.' })
  @ArrayMaxSize(60, { message: 'Give at most sixty bands.' })
  @ValidateNested({ each: true })
  @Type(() => BandRow)
  @Held((table: BandsTable) => {
    const fault = Array.isArray(table.rows) ? tableFault(() => ownBands(table)) : undefined;
    const row = /^rows\.(\d+)/.exec(fault?.field ?? '')?.[1];
    if (!fault || row === undefined) return undefined;
    return {
      field: `rows.${row}.low`,
      message: fault.message.includes('second row')
        ? 'This nutrient has a band already for this soil: keep one of the two.'
        : 'The bands are to rise: low, medium from, medium to, very high.',
    };
  })
  rows: BandRow[];
}

export class BandsSetting {
  @IsArray({ message: 'Give the tables as a list.' })
  @ArrayMaxSize(12, { message: 'Give at most twelve tables.' })
  @ValidateNested({ each: true })
  @Type(() => BandsTable)
  @Held(({ tables }: BandsSetting) => {
    const twice = tables.findIndex(
      ({ extractant }, index) => tables.findIndex((other) => other.extractant === extractant) < index,
    );
    return twice < 0
      ? undefined
      : {
          field: `tables.${twice}.extractant`,
          message: 'There is a table of this extractant already: add its bands there.',
        };
  })
  tables: BandsTable[];
}

class RatesByRating implements Readonly<Record<(typeof ratings)[number], number>> {
  'very low': number;
  low: number;
  medium: number;
  high: number;
  'very high': number;
}
for (const rating of ratings)
  Amount(`The rate at ${rating}`, { min: 0, max: 100, unit: 'g/m²' })(RatesByRating.prototype, rating);

/** P₂O₅ and K₂O for the year by rating, g/m². */
export class YearlyRatesSetting extends Sourced implements RatesDecided {
  @Amount('The year', YEAR)
  date: number;

  @ValidateNested()
  @Type(() => RatesByRating)
  @Held((table: YearlyRatesSetting) => {
    if (typeof table.p !== 'object' || typeof table.k !== 'object') return undefined;
    const fault = tableFault(() => ownRates(table));
    return (
      fault && {
        field: fault.field,
        message: 'A poorer soil is not to get less than a richer one: check the two rates.',
      }
    );
  })
  p: RatesByRating;

  /** P₂O₅ while a lawn is being established. */
  @IsOptional()
  @ValidateNested()
  @Type(() => RatesByRating)
  pEstablishing?: RatesByRating | null;

  @ValidateNested()
  @Type(() => RatesByRating)
  k: RatesByRating;
}

const DAY = /^(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/;
const monthDay = { message: 'Write the day as month and day, 11-15 for 15 November.' };

class BlackoutSetting {
  @Matches(DAY, monthDay)
  from: string;

  @Matches(DAY, monthDay)
  to: string;

  @IsIn(['nitrogen', 'phosphorus', 'all fertilizer'], oneOf('What', ['nitrogen', 'phosphorus', 'all fertilizer']))
  what: 'nitrogen' | 'phosphorus' | 'all fertilizer';
}

/** What the law of the place says. */
export class RulesSetting extends Sourced {
  @IsIn(phosphorusRules, oneOf('Phosphorus', phosphorusRules))
  phosphorus: (typeof phosphorusRules)[number];

  /** This rating and any below it is a shown shortage. */
  @IsOptional()
  @IsIn(shortageRatings, oneOf('A shortage', shortageRatings))
  shortage?: (typeof shortageRatings)[number] | null;

  /** A lawn being established may have it without one. */
  @IsOptional()
  @IsBoolean({ message: 'Say yes or no for new lawns.' })
  establishing?: boolean | null;

  /** Years within which the proving test was taken. */
  @IsOptional()
  @Amount('The age of the proof', { min: 1, max: 10, unit: 'years' })
  proofYears?: number | null;

  /** What is to be kept as proof. */
  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write what is to be kept as text.' })
  @MaxLength(200, { message: 'Keep it under 200 letters.' })
  proof?: string | null;

  /** g/m² */
  @IsOptional()
  @Amount('N a year', { min: 0.05, max: 60, unit: 'g/m²' })
  nitrogenYear?: number | null;

  /** g/m² */
  @IsOptional()
  @Amount('N in one pass', { min: 0.05, max: 10, unit: 'g/m²' })
  nitrogenPass?: number | null;

  @IsOptional()
  @Amount('The strip by water', { min: 0, max: 200, unit: 'm' })
  waterStrip?: number | null;

  @IsArray({ message: 'Give the blackouts as a list.' })
  @ArrayMaxSize(12, { message: 'Give at most twelve blackouts.' })
  @ValidateNested({ each: true })
  @Type(() => BlackoutSetting)
  blackouts: BlackoutSetting[];
}

/** What can be decided, and in what words it is written. */
export const settingKinds = {
  school: SchoolSetting,
  targets: TargetsSetting,
  caps: CapsSetting,
  bands: BandsSetting,
  yearlyRates: YearlyRatesSetting,
  rules: RulesSetting,
  usualYear: UsualYearSetting,
  usualYears: UsualYearsSetting,
  sections: SectionsSetting,
  work: WorkSetting,
} as const;
export type SettingKind = keyof typeof settingKinds;
export type SettingValue<K extends SettingKind> = InstanceType<(typeof settingKinds)[K]>;

/** Where each may be decided beside the practice. */
export const settingPlaces: Readonly<Record<SettingKind, readonly ('site' | 'zone')[]>> = {
  school: ['site', 'zone'],
  targets: ['site', 'zone'],
  caps: ['site', 'zone'],
  bands: ['site'],
  yearlyRates: ['site'],
  rules: ['site'],
  usualYear: ['site'],
  usualYears: [],
  sections: ['site'],
  work: [],
};

export const settingNames: Readonly<Record<SettingKind, string>> = {
  school: 'School and when to correct',
  targets: 'Targets',
  caps: 'Caps',
  bands: 'Bands of one’s own',
  yearlyRates: 'Yearly rates of one’s own',
  rules: 'Rules of the place',
  usualYear: 'The usual year',
  usualYears: 'Years to begin from',
  sections: 'Sections over the years',
  work: 'Prices of work',
};

/** A decision: for the practice unless a site or a zone is named. */
export class SettingInput {
  @IsOptional()
  @IsUUID(undefined, { message: 'Choose a site of this practice.' })
  siteId?: string | null;

  @IsOptional()
  @IsUUID(undefined, { message: 'Choose a zone of this practice.' })
  zoneId?: string | null;

  @IsObject({ message: 'Give what is decided.' })
  value: object;
}

export class SettingAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() kind: SettingKind;
  @IsOptional() @IsString() siteId: string | null;
  @IsOptional() @IsString() zoneId: string | null;
  @IsObject() value: object;
}
