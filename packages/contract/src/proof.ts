import type { ForecastDay, Proved, Working } from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import { IsArray, IsBoolean, IsInt, IsNumber, IsObject, IsOptional, IsString, ValidateNested } from 'class-validator';

/** A test of a zone, as it stands on its line. */
export class ProofTestAnswer {
  @IsString() sampledOn: string;
  @IsNumber() ph: number;
}

/** Whether two tests differ by more than chance. */
export class ProofChangeAnswer {
  @IsString() analyte: string;
  @IsString() from: string;
  @IsString() to: string;
  @IsNumber() before: number;
  @IsNumber() after: number;
  @IsNumber() change: number;
  @IsNumber() uncertainty: number;
  @IsBoolean() differs: boolean;
  @IsString() unit: string;
  @IsString() words: string;
  @IsArray() working: Working;
}

/** What was foretold when a program was handed over, and what came of it. */
export class PredictionAnswer {
  @IsString() id: string;
  @IsString() madeOn: string;
  /** Of the test that it begins from. */
  @IsString() from: string;
  @IsNumber() ph: number;
  @IsArray() days: ForecastDay[];
  @IsString() retestOn: string;
  /** Nothing until the retest. */
  @IsOptional() @IsObject() proved: Proved | null;
  @IsOptional() @IsString() retestedOn: string | null;
}

export class ProofMarkAnswer {
  @IsString() on: string;
  @IsString() words: string;
  @IsBoolean() done: boolean;
}

export class ProofZoneAnswer {
  @IsString() zoneId: string;
  @IsString() zone: string;
  @ValidateNested({ each: true }) @Type(() => ProofTestAnswer) tests: ProofTestAnswer[];
  /** From the last test on; nothing where its day or its pH is not known. */
  @IsOptional() @IsString() from: string | null;
  @IsArray() under: ForecastDay[];
  @IsArray() nothing: ForecastDay[];
  /** How the last day under the program comes about; empty where nothing is foretold. */
  @IsArray() working: Working;
  @IsOptional() @IsArray() band: readonly number[] | null;
  @IsOptional() @IsString() retestOn: string | null;
  @IsOptional() @IsString() retestWords: string | null;
  @IsBoolean() retestDue: boolean;
  @IsString({ each: true }) words: string[];
  @ValidateNested({ each: true }) @Type(() => ProofMarkAnswer) marks: ProofMarkAnswer[];
  @ValidateNested({ each: true }) @Type(() => PredictionAnswer) predictions: PredictionAnswer[];
  @ValidateNested({ each: true }) @Type(() => ProofChangeAnswer) changes: ProofChangeAnswer[];
}

export class ProofAnswer {
  @IsString() today: string;
  @ValidateNested({ each: true }) @Type(() => ProofZoneAnswer) zones: ProofZoneAnswer[];
}

/** One prediction against its retest. */
export class HitAnswer {
  @IsString() siteId: string;
  @IsString() site: string;
  @IsString() zoneId: string;
  @IsString() zone: string;
  @IsString() madeOn: string;
  @IsString() retestedOn: string;
  @IsNumber() expected: number;
  @IsNumber() moved: number;
  @IsBoolean() inside: boolean;
}

/** All predictions of the practice that a retest has judged. */
export class HitsAnswer {
  @ValidateNested({ each: true }) @Type(() => HitAnswer) hits: HitAnswer[];
  @IsInt() inside: number;
  @IsInt() waiting: number;
  @IsString() words: string;
}
