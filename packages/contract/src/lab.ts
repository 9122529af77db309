import {
  type BufferMethod,
  type ColumnMatch,
  type Extractant,
  type LabRow,
  type LabUnit,
  type RowFault,
  bufferMethods,
  extractants,
  labFields,
  labUnits,
} from '@glenfold/agronomy';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
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
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Amount, BufferReading, NutrientUnit, oneOf, trimOrNone } from './checks.ts';

const bases = ['element', 'oxide'] as const;
/** Laboratories give the lime of an Adams–Evans buffer as pure carbonate, or times 1.5 for field lime. */
export const limeFactors = [1, 1.5] as const;

/** A nutrient as the laboratory printed it. */
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
}

export class NutrientsInput {
  @IsOptional()
  @ValidateNested()
  @NutrientUnit('p')
  @Type(() => ReportedValueInput)
  p?: ReportedValueInput;

  @IsOptional()
  @ValidateNested()
  @NutrientUnit('k')
  @Type(() => ReportedValueInput)
  k?: ReportedValueInput;

  @IsOptional()
  @ValidateNested()
  @NutrientUnit('ca')
  @Type(() => ReportedValueInput)
  ca?: ReportedValueInput;

  @IsOptional()
  @ValidateNested()
  @NutrientUnit('mg')
  @Type(() => ReportedValueInput)
  mg?: ReportedValueInput;
}

/** One laboratory result of one zone. Depth in cm, organic matter in %. */
export class LabResultInput {
  @IsUUID(undefined, { message: 'Choose the zone that the sample came from.' })
  zoneId: string;

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

  @IsOptional()
  @IsIn(bufferMethods, oneOf('Buffer method', bufferMethods))
  bufferMethod?: BufferMethod | null;

  @Amount('Soil pH', { min: 2.5, max: 11, remedy: 'No soil reads outside it: check the report.' })
  soilPh: number;

  @IsOptional()
  @BufferReading('bufferMethod')
  bufferPh?: number | null;

  /** By which an Adams–Evans laboratory has multiplied its lime already; asked with the report. */
  @IsOptional()
  @IsIn(limeFactors, oneOf('Lime factor', limeFactors.map(String)))
  limeFactor?: number | null;

  @IsOptional()
  @Amount('Organic matter', { min: 0, max: 100, unit: '%' })
  organicMatter?: number | null;

  @ValidateNested()
  @Type(() => NutrientsInput)
  nutrients: NutrientsInput;
}

/** A laboratory's file as text. */
export class LabFileInput {
  @IsString({ message: 'Give the name of the file.' })
  @Length(1, 200, { message: 'Give the name of the file.' })
  fileName: string;

  @IsString({ message: 'The file must be text, such as CSV.' })
  @Length(1, 2_000_000, { message: 'The file is empty, or larger than 2 MB: is it the right one?' })
  content: string;
}

export class ColumnChoice {
  @IsOptional()
  @IsIn(labFields, oneOf('Column', labFields))
  field: (typeof labFields)[number] | null;

  @IsOptional()
  @IsIn([...labUnits, 'cm', 'in', '%'], { message: 'Choose the unit of the column.' })
  unit: LabUnit | 'cm' | 'in' | '%' | null;

  @IsIn(bases, oneOf('Basis', bases))
  basis: (typeof bases)[number];
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
export class LabImportChoices {
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

export class LabResultAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() siteId: string;
  @IsString() zoneId: string;
  @IsString() label: string;
  @IsOptional() @IsString() labNumber: string | null;
  @IsOptional() @IsString() sampledOn: string | null;
  @IsNumber() depth: number;
  @IsString() extractant: Extractant;
  @IsOptional() @IsString() bufferMethod: BufferMethod | null;
  @IsNumber() soilPh: number;
  @IsOptional() @IsNumber() bufferPh: number | null;
  @IsOptional() @IsNumber() limeFactor: number | null;
  @IsOptional() @IsNumber() organicMatter: number | null;
  @ValidateNested() @Type(() => NutrientsInput) nutrients: NutrientsInput;
  /** What else the laboratory's line said, in its own words, such as its lime advice. */
  @IsOptional() @IsString() beside: string | null;
  /** Where the numbers came from: typed, or the name of a file. */
  @IsString() origin: string;
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

export class LabImportRowAnswer {
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
  /** The result it became. */
  @IsOptional() @IsString() resultId: string | null;
}

export class LabImportAnswer {
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
  @ValidateNested({ each: true }) @Type(() => LabImportRowAnswer) rows: LabImportRowAnswer[];
  /** Bags of the site that a line may be about, newest first. */
  @ValidateNested({ each: true }) @Type(() => FilledBagAnswer) bags: FilledBagAnswer[];
}
