import {
  type BufferMethod,
  type Extractant,
  type LabRow,
  type DateOrder,
  bufferMethods,
  dateOrders,
  extractants,
} from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { Amount, oneOf, trim } from './checks.ts';
import { limeFactors } from './lab.ts';
import { ColumnChoice } from './labReports.ts';

/** What a sample file of a laboratory is kept with: how it is to be read. */
export class ProfileSampleInput {
  @IsString()
  @Length(1, 200)
  fileName: string;

  @IsString()
  @Length(1, 2_000_000)
  content: string;

  /** Lines as they are read with the profile. */
  @IsArray()
  @ArrayMaxSize(2000)
  rows: LabRow[];
}

export class ProfileColumnInput extends ColumnChoice {
  @IsString()
  @MaxLength(300)
  header: string;
}

/** A laboratory's way: which of its columns holds what. */
export class LabProfileInput {
  @trim
  @IsString({ message: 'Say whose way it is.' })
  @Length(1, 120, { message: 'Say whose way it is, in 1 to 120 letters.' })
  name: string;

  @IsArray({ message: 'Give the columns as a list.' })
  @ArrayMinSize(2, { message: 'A laboratory’s way has two columns or more.' })
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => ProfileColumnInput)
  columns: ProfileColumnInput[];

  @IsOptional()
  @IsIn(extractants, oneOf('Extractant', extractants))
  extractant: Extractant | null;

  @IsOptional()
  @IsIn(bufferMethods, oneOf('Buffer method', bufferMethods))
  bufferMethod: BufferMethod | null;

  @IsOptional()
  @IsIn(limeFactors, oneOf('Lime factor', limeFactors.map(String)))
  limeFactor: number | null;

  /** cm, of files that do not give it. */
  @IsOptional()
  @Amount('Sampled depth', { min: 2, max: 60, unit: 'cm' })
  depth: number | null;

  @IsOptional()
  @IsIn(dateOrders, oneOf('Order of dates', dateOrders))
  dateOrder: DateOrder | null;

  /** A file that keeps testing it. */
  @IsOptional()
  @ValidateNested()
  @Type(() => ProfileSampleInput)
  sample: ProfileSampleInput | null;
}

/** Whose way the arrangement of a file is. */
export class LearnInput {
  @trim
  @IsString({ message: 'Say whose way it is.' })
  @Length(1, 120, { message: 'Say whose way it is, in 1 to 120 letters.' })
  name: string;
}

/** How the kept sample is read now. */
export class ProfileTrialAnswer {
  @IsBoolean() passes: boolean;
  /** What is read otherwise than it was, a sentence each; what keeps it from being read. */
  @IsArray() @IsString({ each: true }) differences: string[];
}

export class LabProfileAnswer extends LabProfileInput {
  @IsString() id: string;
  @IsInt() version: number;
  /** Nothing where no sample is kept. */
  @IsOptional() @ValidateNested() @Type(() => ProfileTrialAnswer) trial: ProfileTrialAnswer | null;
}

/** What of a profile a person changes, and what goes from one practice to another. */
export function labProfileInput(profile: LabProfileInput): LabProfileInput {
  const { name, columns, extractant, bufferMethod, limeFactor, depth, dateOrder, sample } = profile;
  return { name, columns, extractant, bufferMethod, limeFactor, depth, dateOrder, sample };
}

/** A file of many years' tests. */
export class HistoryAnswer {
  @IsString() id: string;
  @IsString() fileName: string;
  @IsString() state: 'waiting' | 'imported' | 'refused';
  /** Lines that came in. */
  @IsOptional() @IsInt() rows: number | null;
  /** What kept it from coming in. */
  @IsArray() @IsString({ each: true }) words: string[];
  @IsString() at: string;
}

/** A history as it came: larger than one report. */
export class HistoryInput {
  @IsString({ message: 'Give the name of the file.' })
  @Length(1, 200, { message: 'Give the name of the file.' })
  fileName: string;

  /** Base64 */
  @IsString({ message: 'Give the bytes of the file in base64.' })
  @Length(1, 40_000_000, { message: 'The file is empty, or larger than 30 MB: split it by years.' })
  @Matches(/^[A-Za-z0-9+/]+={0,2}$/, { message: 'The file is not written in base64.' })
  bytes: string;
}
