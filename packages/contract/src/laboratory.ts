import type { BufferMethod, Extractant } from '@glenfold/agronomy';
import { Type } from 'class-transformer';
import { IsArray, IsBoolean, IsInt, IsNumber, IsOptional, IsString, Max, Min, ValidateNested } from 'class-validator';

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
  @IsString() name: string;
  /** Made up and run inside Glenfold: nothing is posted. */
  @IsBoolean() simulated: boolean;
  @IsString() extractant: Extractant;
  @IsString() bufferMethod: BufferMethod;
  /** How it prints nutrients, such as "P and K in lb/acre". */
  @IsString() units: string;
  /** How it sends its report, and how it takes a submission. */
  @IsString() reports: string;
  @ValidateNested({ each: true }) @Type(() => CalibratedDepthAnswer) depths: CalibratedDepthAnswer[];
  /** What fills its bag, mL. */
  @IsNumber() volume: number;
  @ValidateNested({ each: true }) @Type(() => PanelFeeAnswer) fees: PanelFeeAnswer[];
  /** Days from arrival to report, least and most. */
  @IsArray() days: [least: number, most: number];
}

/** What a laboratory asks for one bag with these panels; nothing where it has no price for one of them. */
export function feeOf(
  laboratory: Pick<LaboratoryAnswer, 'fees'> | undefined,
  panels: readonly string[],
): number | null {
  const fees = panels.map((panel) => laboratory?.fees.find((entry) => entry.panel === panel)?.fee);
  return fees.includes(undefined) ? null : fees.reduce<number>((sum, fee) => sum + (fee ?? 0), 0);
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
