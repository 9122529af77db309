import {
  type Analyte,
  type Extractant,
  type LabUnit,
  type AdvisedKind,
  type AdvisedUnit,
  advisedKinds,
  advisedUnits,
  type Rating,
  bases,
  extractants,
  ratings,
  sampleKinds,
  soilAnalytes,
} from '@glenfold/agronomy';
import { Type } from './metadata.ts';
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
  Max,
  Min,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { Amount, oneOf, trimOrNone } from './checks.ts';
import { ValueOf, WithPh } from './valueChecks.ts';

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

  /** The report gave this word and no number. */
  @IsOptional()
  @IsIn(ratings, oneOf('The report’s word', ratings))
  rated?: Rating;

  /** Of a buffer pH its method; of a nutrient its extractant, where it is not the report’s. */
  @IsOptional()
  @IsString({ message: 'Say the method as text.' })
  @MaxLength(60)
  method?: string;
}

/** Values of a sample by analyte; each analyte of the core's list has its place and its checks here. */
export const ValuesInput = class ValuesInput {} as new () => Partial<Record<Analyte, ReportedValueInput>>;
export type ValuesInput = Partial<Record<Analyte, ReportedValueInput>>;
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

  /** Of the composite: the more, the surer. */
  @IsOptional()
  @IsInt({ message: 'Cores are counted: give a whole number.' })
  @Min(1, { message: 'A bag holds at least one core.' })
  @Max(1000, { message: 'Give at most 1000 cores.' })
  cores?: number | null;

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
  const { zoneIds, of, label, labNumber, sampledOn, depth, cores } = result;
  const { extractant, limeFactor, advice, advised, values } = result;
  // Required: what is forgotten here would be emptied by the next change.
  const input: Required<LabResultInput> = {
    ...{ zoneIds, of, label, labNumber, sampledOn, depth, cores },
    ...{ extractant, limeFactor, advice, advised, values },
  };
  return input;
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
  /** Of the composite, as it was told; nothing where nobody did. */
  @IsOptional() @IsInt() cores: number | null;
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
