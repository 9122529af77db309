import type { Purpose } from '@glenfold/agronomy';
import { Type } from 'class-transformer';
import { IsBoolean, IsInt, IsNumber, IsOptional, IsString, ValidateNested } from 'class-validator';
import { Amount } from './checks.ts';

/** What a practice sets for a product: its bag (kg) and what that costs. */
export class ProductPriceInput {
  @Amount('Bag', { min: 0.1, max: 2000, unit: 'kg' })
  bagMass: number;

  @IsOptional()
  @Amount('Price of a bag', { min: 0, max: 100_000, unit: '$' })
  bagPrice: number | null;
}

export class GradeAnswer {
  @IsNumber() n: number;
  @IsNumber() p2o5: number;
  @IsNumber() k2o: number;
}

export class ProductAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() name: string;
  @IsString() purpose: Purpose;
  @ValidateNested() @Type(() => GradeAnswer) grade: GradeAnswer;
  @IsNumber() slowRelease: number;
  /** % effective by the label, for liming products. */
  @IsOptional() @IsNumber() effectiveness: number | null;
  @IsBoolean() caustic: boolean;
  @IsNumber() bagMass: number;
  /** Nothing when it is not set, and for those who see no prices. */
  @IsOptional() @IsNumber() bagPrice: number | null;
}
