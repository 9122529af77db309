import {
  type Day,
  type EntryKind,
  type EntryState,
  type LedgerLine,
  type RateUnit,
  entryKinds,
  entryStates,
  rateUnits,
} from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { Amount, Checked, oneOf, trimOrNone } from './checks.ts';
import { WhenKnown } from './facts.ts';
import { dayFault } from './season.ts';

/** How much of one thing of a mix was used. */
export class MixedInput {
  @IsUUID(undefined, { message: 'Choose a product of the list.' })
  productId: string;

  /** kg, L or m³, as it is packed. */
  @Amount('What was used', { min: 0, max: 1e7 })
  quantity: number;
}

/** What was done in a zone, by a card or without one. */
export class EntryInput {
  /** Made where it was written, so that it can be sent twice. */
  @IsUUID(undefined, { message: 'The entry has no id of its own.' })
  id: string;

  @IsUUID(undefined, { message: 'Choose the zone.' })
  zoneId: string;

  @IsOptional()
  @IsUUID(undefined, { message: 'Choose a job of the season, or none.' })
  jobId?: string | null;

  @WhenKnown()
  on: string;

  @IsIn(entryKinds, oneOf('What', entryKinds))
  kind: EntryKind;

  @IsIn(entryStates, oneOf('How far', entryStates))
  state: EntryState;

  /** As it is remembered; wanted where no product is named. */
  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Say in words what was put down.' })
  @MaxLength(300, { message: 'Keep it under 300 letters.' })
  words?: string | null;

  @IsOptional()
  @IsUUID(undefined, { message: 'Choose a product of the list.' })
  productId?: string | null;

  /** What was used of it, kg, L or m³. */
  @IsOptional()
  @Amount('What was used', { min: 0, max: 1e7 })
  quantity?: number | null;

  /** What else was in the mix; by the shares of the card where it is left out. */
  @IsOptional()
  @IsArray({ message: 'Write what was in the mix as a list.' })
  @ArrayMaxSize(12, { message: 'At most 12 things go into one mix.' })
  @ValidateNested({ each: true })
  @Type(() => MixedInput)
  mixed?: MixedInput[] | null;

  /** Where the amount is told by area: g/m² of product, cm, mL/m² or mm. */
  @IsOptional()
  @Amount('Rate', { min: 0, max: 20_000 })
  rate?: number | null;

  @IsOptional()
  @IsIn(rateUnits, oneOf('Unit', rateUnits))
  unit?: RateUnit | null;

  /** m² that were treated; the whole zone where it is not told. */
  @IsOptional()
  @Amount('Area', { min: 0.1, max: 10_000_000, unit: 'm²' })
  area?: number | null;

  @IsOptional()
  @Amount('Strength', { min: 1, max: 180, unit: '%' })
  cce?: number | null;

  /** Why less was done, or nothing; or what a correction mends. */
  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the reason as text.' })
  @MaxLength(300, { message: 'Keep the reason under 300 letters.' })
  reason?: string | null;

  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write who did it as text.' })
  @MaxLength(120, { message: 'Keep the name under 120 letters.' })
  doneBy?: string | null;

  /** The day as it was. */
  @IsOptional()
  @Checked('day', dayFault)
  day?: Day | null;

  /** The entry in whose place it stands. */
  @IsOptional()
  @IsUUID(undefined, { message: 'Name the entry that is corrected.' })
  correctsId?: string | null;
}

/** A thing that went down, with how much of it. */
export class EntryPartAnswer {
  @IsString() words: string;
  @IsOptional() @IsString() productId: string | null;
  @IsOptional() @IsNumber() quantity: number | null;
  @IsOptional() @IsString() quantityUnit: 'kg' | 'L' | 'm3' | null;
  @IsOptional() @IsNumber() rate: number | null;
  @IsOptional() @IsString() unit: RateUnit | null;
}

export class EntryPhotoAnswer {
  @IsString() id: string;
  @IsString() url: string;
  @IsOptional() @IsString() caption: string | null;
}

export class EntryAnswer extends EntryPartAnswer {
  @IsString() id: string;
  @IsString() zoneId: string;
  @IsString() zone: string;
  @IsOptional() @IsString() jobId: string | null;
  @IsString() on: string;
  @IsString() kind: EntryKind;
  @IsString() state: EntryState;
  /** What else was in the mix. */
  @ValidateNested({ each: true }) @Type(() => EntryPartAnswer) mixed: EntryPartAnswer[];
  @IsOptional() @IsNumber() area: number | null;
  @IsOptional() @IsNumber() cce: number | null;
  @IsOptional() @IsString() reason: string | null;
  @IsOptional() @IsString() doneBy: string | null;
  @IsOptional() @IsString() writtenBy: string | null;
  @IsString() recordedAt: string;
  @IsOptional() @IsObject() day: Day | null;
  @IsOptional() @IsString() correctsId: string | null;
  /** Whether it stands, or another stands in its place. */
  @IsBoolean() stands: boolean;
  /** What is odd about it, and how it is mended. */
  @IsString({ each: true }) notes: string[];
  @ValidateNested({ each: true }) @Type(() => EntryPhotoAnswer) photos: EntryPhotoAnswer[];
}

/** The book of a zone for a year. */
export class ZoneLedgerAnswer {
  @IsString() zoneId: string;
  @IsString() zone: string;
  @IsNumber() area: number;
  @IsArray() lines: LedgerLine[];
  /** What could not be counted. */
  @IsString({ each: true }) unknown: string[];
  /** What is over, and what is to be done about it. */
  @IsString({ each: true }) warnings: string[];
}

export class LogbookAnswer {
  @IsInt() year: number;
  @IsInt({ each: true }) years: number[];
  @ValidateNested({ each: true }) @Type(() => EntryAnswer) entries: EntryAnswer[];
  @ValidateNested({ each: true }) @Type(() => ZoneLedgerAnswer) zones: ZoneLedgerAnswer[];
  @IsString() today: string;
}

/** What was written, and what is to be known of it. */
export class EntryWrittenAnswer {
  @ValidateNested() @Type(() => EntryAnswer) entry: EntryAnswer;
  /** Said, and kept all the same: a second card for one job, a day to come, more than the zone or the store. */
  @IsString({ each: true }) notes: string[];
}

/** What is put down before, as the rates and the waiting times read it. */
export class AppliedAnswer {
  @IsString() kind: string;
  @IsString() on: string;
  @IsString() words: string;
  @IsOptional() @IsNumber() rate?: number;
  @IsOptional() @IsNumber() cce?: number;
  @IsOptional() @IsObject() mesh?: Readonly<Record<'fine' | 'medium' | 'coarse', number>>;
  @IsOptional() @IsNumber() layer?: number;
}
