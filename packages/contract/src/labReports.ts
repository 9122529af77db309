import {
  type Analyte,
  type BufferMethod,
  type ColumnMatch,
  type Extractant,
  type LabRow,
  type LabUnit,
  type AdvisedKind,
  type AdvisedUnit,
  type DateOrder,
  type Doubt,
  type ReportedValue,
  type RowFault,
  advisedKinds,
  advisedUnits,
  bases,
  bufferMethods,
  dateOrders,
  extractants,
  labFields,
  labUnits,
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
  Length,
  Matches,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { Amount, oneOf } from './checks.ts';
import { ValuesInput, limeFactors } from './lab.ts';

/** What a laboratory's file may hold, bytes. */
export const LARGEST_LAB_FILE = 6_000_000;

/** A laboratory's file as it came, or as text that was pasted. */
export class LabFileInput {
  @IsString({ message: 'Give the name of the file.' })
  @Length(1, 200, { message: 'Give the name of the file.' })
  fileName: string;

  @ValidateIf(({ bytes }: LabFileInput) => bytes === undefined)
  @IsString({ message: 'Give the file as text in “content”, or byte for byte in “bytes”.' })
  @Length(1, 2_000_000, { message: 'The file is empty, or larger than 2 MB: is it the right one?' })
  content?: string;

  /** Base64 */
  @IsOptional()
  @IsString({ message: 'Give the bytes of the file in base64.' })
  @Length(1, Math.ceil(LARGEST_LAB_FILE / 3) * 4, {
    message: `The file is empty, or larger than ${LARGEST_LAB_FILE / 1e6} MB: is it the right one? A history of many tests comes in under “History”.`,
  })
  @Matches(/^[A-Za-z0-9+/]+={0,2}$/, { message: 'The file is not written in base64.' })
  bytes?: string;
}

/** A column of a laboratory’s own advice. */
export class AdvisedColumnInput {
  @IsIn(advisedKinds, oneOf('What is advised', advisedKinds))
  what: AdvisedKind;

  @IsOptional()
  @IsIn(advisedUnits, oneOf('Unit of the advice', advisedUnits))
  unit: AdvisedUnit | null;
}

export class ColumnChoice {
  @IsOptional()
  @IsIn(labFields, oneOf('Column', labFields))
  field: (typeof labFields)[number] | null;

  @IsOptional()
  @IsIn([...labUnits, 'in'], { message: 'Choose the unit of the column.' })
  unit: LabUnit | 'in' | null;

  @IsIn(bases, oneOf('Basis', bases))
  basis: (typeof bases)[number];

  /** Extractant of this column alone. */
  @IsOptional()
  @IsIn(extractants, oneOf('Extractant', extractants))
  method?: Extractant | null;

  /** What "not detected" stands for, in the column's unit. */
  @IsOptional()
  @Amount('The detection limit', { min: 0, max: 100_000 })
  limit?: number | null;

  /** A column of the laboratory's own advice. */
  @IsOptional()
  @ValidateNested()
  @Type(() => AdvisedColumnInput)
  advised?: AdvisedColumnInput | null;
}

/** What a person decided of a line: taken with its doubts, held back, or corrected. */
export class RowDecision {
  @IsInt({ message: 'Rows are named by their line in the file.' })
  @Min(1)
  line: number;

  @IsOptional()
  @IsIn(['accepted', 'held'], { message: 'A line is accepted or held.' })
  state?: 'accepted' | 'held' | null;

  /** Values in the place of those that were read. */
  @IsOptional()
  @ValidateNested()
  @Type(() => ValuesInput)
  values?: ValuesInput;
}

export class RowChoice {
  @IsInt({ message: 'Rows are named by their line in the file.' })
  @Min(1)
  line: number;

  @IsOptional()
  @IsUUID(undefined, { message: 'Choose a zone of this site, or none.' })
  zoneId: string | null;

  /** The bag that the laboratory means, where its line names another. */
  @IsOptional()
  @IsUUID(undefined, { message: 'Choose a bag of this site, or none.' })
  bagId?: string | null;
}

/** What the person corrected before importing a file. */
export class LabReportChoices {
  @IsArray()
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => ColumnChoice)
  columns: ColumnChoice[];

  @IsArray()
  @ArrayMaxSize(5000)
  @ValidateNested({ each: true })
  @Type(() => RowChoice)
  rows: RowChoice[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(5000)
  @ValidateNested({ each: true })
  @Type(() => RowDecision)
  decisions?: RowDecision[];

  @IsOptional()
  @IsIn(dateOrders, oneOf('Order of dates', dateOrders))
  dateOrder?: DateOrder | null;

  @IsOptional()
  @IsIn(extractants, oneOf('Extractant', extractants))
  extractant?: Extractant | null;

  @IsOptional()
  @IsIn(bufferMethods, oneOf('Buffer method', bufferMethods))
  bufferMethod?: BufferMethod | null;

  @IsOptional()
  @IsIn(limeFactors, oneOf('Lime factor', limeFactors.map(String)))
  limeFactor?: number | null;

  /** cm, for rows that do not give one. */
  @IsOptional()
  @Amount('Sampled depth', { min: 2, max: 60, unit: 'cm' })
  depth?: number | null;
}

/** A bag with soil in it. */
export class FilledBagAnswer {
  @IsString() id: string;
  @IsString() code: string;
  @IsArray() @IsString({ each: true }) zoneIds: string[];
}

/** An earlier value of the same ground. */
export interface LastValue {
  readonly value: ReportedValue;
  readonly on: string | null;
  /** Why the two cannot be compared. */
  readonly apart: string | null;
}

/** The learned way of a laboratory, laid over a file. */
export class AppliedProfileAnswer {
  @IsString() id: string;
  @IsString() name: string;
  /** Headers that it did not know. */
  @IsArray() @IsString({ each: true }) fresh: string[];
  /** Headers that it knows and the file has not. */
  @IsArray() @IsString({ each: true }) missing: string[];
}

export class LabReportRowAnswer {
  @IsInt() line: number;
  @IsArray() @IsString({ each: true }) cells: string[];
  @IsObject() row: LabRow;
  @IsOptional() @IsString() zoneId: string | null;
  /** The bag whose numbers these are: they are for each of its zones. */
  @IsOptional() @IsString() bagId: string | null;
  /** Where it goes was chosen by the person, not matched by label. */
  @IsBoolean() zoneChosen: boolean;
  /** What keeps the row from being imported. */
  @IsArray() faults: RowFault[];
  @IsArray() @IsString({ each: true }) questions: string[];
  /** What looks wrong in it, each with its reason; with a grave one it is taken only when it is accepted. */
  @IsArray() doubts: Doubt[];
  /** The zone's last test of each value, and why it cannot be laid beside where it cannot. */
  @IsObject() last: Partial<Record<Analyte, LastValue>>;
  /** What the person decided of it. */
  @IsOptional() @IsString() state: 'accepted' | 'held' | null;
  /** Analytes that the person corrected. */
  @IsArray() @IsString({ each: true }) corrected: string[];
  /** The result it became. */
  @IsOptional() @IsString() resultId: string | null;
}

export class LabReportAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() siteId: string;
  @IsString() fileName: string;
  @IsString() status: 'open' | 'imported';
  @IsArray() columns: ColumnMatch[];
  @IsOptional() @IsString() extractant: Extractant | null;
  @IsOptional() @IsString() bufferMethod: BufferMethod | null;
  @IsOptional() @IsNumber() limeFactor: number | null;
  @IsOptional() @IsNumber() depth: number | null;
  /** Which comes first in its dates; nothing where they do not tell. */
  @IsOptional() @IsString() dateOrder: DateOrder | null;
  /** What it was read as, where it is no plain text. */
  @IsOptional() @IsString() readAs: string | null;
  /** Address of the file as it came; nothing of one that was kept before that was done. */
  @IsOptional() @IsString() original: string | null;
  /** The laboratory whose way was known. */
  @IsOptional() @ValidateNested() @Type(() => AppliedProfileAnswer) profile: AppliedProfileAnswer | null;
  @ValidateNested({ each: true }) @Type(() => LabReportRowAnswer) rows: LabReportRowAnswer[];
  /** Bags of the site that a line may be about, newest first. */
  @ValidateNested({ each: true }) @Type(() => FilledBagAnswer) bags: FilledBagAnswer[];
}
