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
  sampleKinds,
  soilAnalytes,
} from '@glenfold/agronomy';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsISO8601,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Matches,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { Amount, ValueOf, WithPh, oneOf, trim, trimOrNone } from './checks.ts';

/** Laboratories give the lime of an Adams–Evans buffer as pure carbonate, or times 1.5 for field lime. */
export const limeFactors = [1, 1.5] as const;

/** A value as the laboratory printed it. */
export class ReportedValueInput {
  @Amount('The value', { min: 0, max: 1_000_000, remedy: 'A test cannot read below 0.' })
  value: number;

  @IsString({ message: 'Say the unit of the value.' })
  unit: LabUnit;

  @IsIn(bases, {
    message: 'Say whether the value is the element (P, K) or the oxide (P₂O₅, K₂O): they differ by more than a fifth.',
  })
  basis: (typeof bases)[number];

  @IsOptional()
  @IsBoolean({ message: 'Below detection is yes or no.' })
  belowDetection?: boolean;

  @IsOptional()
  @IsBoolean({ message: 'Above the range is yes or no.' })
  aboveRange?: boolean;

  /** Of a buffer pH its method; of a nutrient its extractant, where it is not the report’s. */
  @IsOptional()
  @IsString({ message: 'Say the method as text.' })
  @MaxLength(60)
  method?: string;
}

/** Values of a sample by analyte; each analyte of the core's list has its place and its checks here. */
export const ValuesInput = class ValuesInput {} as new () => Partial<Record<Analyte, ReportedValueInput>>;
export type ValuesInput = InstanceType<typeof ValuesInput>;
for (const analyte of soilAnalytes)
  for (const check of [IsOptional(), ValidateNested(), ValueOf(analyte), Type(() => ReportedValueInput)])
    check(ValuesInput.prototype as object, analyte);

/** What a laboratory itself advises of one thing, as it said so. */
export class AdvisedInput {
  @IsIn(advisedKinds, oneOf('What is advised', advisedKinds))
  what: AdvisedKind;

  /** As printed, in `unit`; nothing where it only says so in words. */
  @IsOptional()
  @Amount('The advised amount', { min: 0, max: 1_000_000 })
  amount: number | null;

  @IsOptional()
  @IsIn(advisedUnits, oneOf('Unit of the advice', advisedUnits))
  unit: AdvisedUnit | null;

  @trimOrNone
  @IsOptional()
  @IsString()
  @MaxLength(120, { message: 'Keep the product under 120 letters.' })
  product?: string | null;

  @trimOrNone
  @IsOptional()
  @IsString()
  @MaxLength(60, { message: 'Keep the target under 60 letters.' })
  target?: string | null;

  @trimOrNone
  @IsOptional()
  @IsString()
  @MaxLength(400, { message: 'Keep the words under 400 letters.' })
  words?: string | null;
}

/** What a laboratory found in one sample, which one zone or several share. Depth in cm. */
export class LabResultInput {
  @IsArray({ message: 'Choose the zone that the sample came from.' })
  @ArrayMinSize(1, { message: 'Choose the zone that the sample came from.' })
  @ArrayMaxSize(50)
  @ArrayUnique({ message: 'Name each zone once.' })
  @IsUUID(undefined, { each: true, message: 'Choose the zone that the sample came from.' })
  zoneIds: string[];

  /** What was sampled; soil unless told. */
  @IsOptional()
  @IsIn(sampleKinds, oneOf('Sample of', sampleKinds))
  of?: (typeof sampleKinds)[number];

  @IsString({ message: 'Give the label of the bag.' })
  @Length(1, 60, { message: 'Give the label of the bag, 1 to 60 letters.' })
  label: string;

  @trimOrNone
  @IsOptional()
  @IsString()
  @MaxLength(60)
  labNumber?: string | null;

  @IsOptional()
  @IsISO8601({ strict: true }, { message: 'Write the date as 2026-03-14.' })
  sampledOn?: string | null;

  @Amount('Sampled depth', {
    min: 2,
    max: 60,
    unit: 'cm',
    remedy: 'The depth scales the lime rate: take it from the report or the field sheet.',
  })
  depth: number;

  @IsIn(extractants, oneOf('Extractant', extractants))
  extractant: Extractant;

  /** By which an Adams–Evans laboratory has multiplied its lime already; asked with the report. */
  @IsOptional()
  @IsIn(limeFactors, oneOf('Lime factor', limeFactors.map(String)))
  limeFactor?: number | null;

  /** What the laboratory itself advises, in its words. */
  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the laboratory’s advice as text.' })
  @MaxLength(2000, { message: 'Keep the laboratory’s advice under 2000 letters.' })
  advice?: string | null;

  /** The same in amounts, where it gives them. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20, { message: 'Give at most twenty lines of advice.' })
  @ValidateNested({ each: true })
  @Type(() => AdvisedInput)
  advised?: AdvisedInput[];

  @IsObject({ message: 'Give the values by analyte.' })
  @WithPh()
  @ValidateNested()
  @Type(() => ValuesInput)
  values: ValuesInput;
}

/** What of a result a person changes, out of all that is told of it. */
export function labResultInput(result: LabResultAnswer): LabResultInput {
  const { zoneIds, of, label, labNumber, sampledOn, depth, extractant, limeFactor, advice, advised, values } = result;
  return { zoneIds, of, label, labNumber, sampledOn, depth, extractant, limeFactor, advice, advised, values };
}

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

/** A zone that a test speaks for although it was not sampled itself. */
export class InheritedAnswer {
  @IsString() zoneId: string;
  /** The zone that was sampled. */
  @IsString() of: string;
  /** This zone was parted from it, or it was joined to this zone. */
  @IsString() how: 'parted' | 'joined';
}

export class LabResultAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() siteId: string;
  @IsString() sampleId: string;
  @IsString() of: (typeof sampleKinds)[number];
  /** That share the sample. */
  @IsArray() @IsString({ each: true }) zoneIds: string[];
  /** Zones that it speaks for since the ground was divided anew. */
  @ValidateNested({ each: true }) @Type(() => InheritedAnswer) inherited: InheritedAnswer[];
  @IsString() label: string;
  @IsOptional() @IsString() labNumber: string | null;
  @IsOptional() @IsString() sampledOn: string | null;
  @IsNumber() depth: number;
  @IsString() extractant: Extractant;
  @IsOptional() @IsNumber() limeFactor: number | null;
  @ValidateNested() @Type(() => ValuesInput) values: ValuesInput;
  /** What else the laboratory's line said, in its own words, such as its lime advice. */
  @IsOptional() @IsString() beside: string | null;
  /** What the laboratory itself advises, as it was entered. */
  @IsOptional() @IsString() advice: string | null;
  /** The same in amounts, read from its columns or entered. */
  @ValidateNested({ each: true }) @Type(() => AdvisedInput) advised: AdvisedInput[];
  /** Where the numbers came from: typed, or the name of a file. */
  @IsString() origin: string;
  /** The result that this one takes the place of, such as that of a report that was amended. */
  @IsOptional() @IsString() supersedesId: string | null;
  /** The result that has taken its place: rates rest on that one. */
  @IsOptional() @IsString() supersededById: string | null;
  @IsString() recordedAt: string;
  /** Values that look like a slip of unit or column, one sentence each. */
  @IsArray() @IsString({ each: true }) questions: string[];
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
