import { type BufferMethod, type Extractant, bufferMethods, extractants, panelNames } from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Amount, oneOf, trim, trimOrNone } from './checks.ts';

/** What a laboratory asks for a panel. */
export class PanelFeeInput {
  @IsIn(panelNames, oneOf('Panel', panelNames))
  panel: string;

  @Amount('The fee', { min: 0, max: 10_000 })
  fee: number;
}

/** A depth that a laboratory's ratings and lime are calibrated for, cm. */
export class CalibratedDepthInput {
  @trim
  @IsString({ message: 'Say what ground the depth is for.' })
  @Length(1, 60, { message: 'Say what ground the depth is for, such as established turf.' })
  for: string;

  @Amount('Depth', { min: 2, max: 60, unit: 'cm' })
  from: number;

  @Amount('Depth', { min: 2, max: 60, unit: 'cm' })
  to: number;
}

/** A laboratory of the practice's own: bags are posted to it, and its reports come by post or as files. */
export class LaboratoryInput {
  @trim
  @IsString({ message: 'Give the laboratory a name.' })
  @Length(1, 120, { message: 'Give the laboratory a name of 1 to 120 letters.' })
  name: string;

  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the address as text.' })
  @MaxLength(400, { message: 'Keep the address under 400 letters.' })
  address?: string | null;

  /** Whom to ask about a report. */
  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the name of its soil scientist as text.' })
  @MaxLength(120, { message: 'Keep the name under 120 letters.' })
  scientist?: string | null;

  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the phone number as text.' })
  @MaxLength(60, { message: 'Keep the phone number under 60 signs.' })
  phone?: string | null;

  @IsIn(extractants, oneOf('Extractant', extractants))
  extractant: Extractant;

  /** None where it measures no buffer. */
  @IsOptional()
  @IsIn(bufferMethods, oneOf('Buffer method', bufferMethods))
  bufferMethod?: BufferMethod | null;

  @IsArray({ message: 'Give the depths as a list.' })
  @ArrayMaxSize(8, { message: 'Give at most eight depths.' })
  @ValidateNested({ each: true })
  @Type(() => CalibratedDepthInput)
  depths: CalibratedDepthInput[];

  @Amount('What fills its bag', { min: 20, max: 5000, unit: 'mL', remedy: 'A pint is 473 mL, a US cup 237 mL.' })
  volume: number;

  @IsArray({ message: 'Give the fees as a list.' })
  @ArrayMaxSize(20, { message: 'Give one fee for each panel.' })
  @ValidateNested({ each: true })
  @Type(() => PanelFeeInput)
  fees: PanelFeeInput[];

  @Amount('Days to the report', { min: 1, max: 120 })
  daysLeast: number;

  @Amount('Days to the report', { min: 1, max: 120 })
  daysMost: number;
}

/** What a laboratory asks for a panel. */
export class PanelFeeAnswer {
  @IsString() panel: string;
  @IsNumber() fee: number;
}

/** Depths that a laboratory's ratings and lime are calibrated for, cm. */
export class CalibratedDepthAnswer {
  @IsString() for: string;
  @IsNumber() from: number;
  @IsNumber() to: number;
}

/** A laboratory that bags can be sent to, as it describes itself. */
export class LaboratoryAnswer {
  /** Of one of the practice's own; nothing of one that lets know by itself. */
  @IsOptional() @IsString() id: string | null;
  @IsInt() version: number;
  @IsString() name: string;
  @IsOptional() @IsString() address: string | null;
  @IsOptional() @IsString() scientist: string | null;
  @IsOptional() @IsString() phone: string | null;
  /** Made up and run inside Glenfold: nothing is posted. */
  @IsBoolean() simulated: boolean;
  @IsString() extractant: Extractant;
  @IsOptional() @IsString() bufferMethod: BufferMethod | null;
  /** How it prints nutrients, such as "P and K in lb/acre". */
  @IsString() units: string;
  /** How it sends its report, and how it takes a submission. */
  @IsString() reports: string;
  @ValidateNested({ each: true }) @Type(() => CalibratedDepthAnswer) depths: CalibratedDepthAnswer[];
  /** What fills its bag, mL. */
  @IsNumber() volume: number;
  @ValidateNested({ each: true }) @Type(() => PanelFeeAnswer) fees: PanelFeeAnswer[];
  /** Days from arrival to report, least and most. */
  @IsInt() daysLeast: number;
  @IsInt() daysMost: number;
}

/** What a laboratory asks for one bag with these panels; nothing where it has no price for one of them. */
export function feeOf(
  laboratory: Pick<LaboratoryAnswer, 'fees'> | undefined,
  panels: readonly string[],
): number | null {
  const fees = panels.map((panel) => laboratory?.fees.find((entry) => entry.panel === panel)?.fee);
  return fees.includes(undefined) ? null : fees.reduce<number>((sum, fee) => sum + (fee ?? 0), 0);
}

/** What of a laboratory a person changes. */
export function laboratoryInput(laboratory: LaboratoryAnswer): LaboratoryInput {
  const { name, address, scientist, phone, extractant, bufferMethod, depths, volume, fees, daysLeast, daysMost } =
    laboratory;
  return { name, address, scientist, phone, extractant, bufferMethod, depths, volume, fees, daysLeast, daysMost };
}

/** What came in when the laboratories were asked. */
export class LaboratoryNewsAnswer {
  @IsInt() arrived: number;
  @IsInt() reports: number;
  /** In words, one line for each. */
  @IsArray() @IsString({ each: true }) words: string[];
}

/** Days by which the simulated laboratories' calendar is hurried. */
export class HurryInput {
  @IsInt({ message: 'Give whole days.' })
  @Min(1, { message: 'Give 1 to 30 days.' })
  @Max(30, { message: 'Give 1 to 30 days.' })
  days: number;
}

export class SoilValueAnswer {
  @IsString() analyte: string;
  @IsString() unit: string;
  @IsNumber() soil: number;
  @IsNumber() bag: number;
}

/** What only a simulated laboratory can tell: the soil that its numbers were drawn from. */
export class HiddenSoilAnswer {
  @IsInt() cores: number;
  @ValidateNested({ each: true }) @Type(() => SoilValueAnswer) values: SoilValueAnswer[];
  /** What else was done to the report on purpose. */
  @IsOptional() @IsString() fault: string | null;
}
