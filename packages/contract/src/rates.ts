import { IsOptional, IsUUID } from 'class-validator';
import { Amount } from './checks.ts';

const productOnly = { message: 'Choose a product of the catalogue.' };

/** Products that the advisor chose for a zone; a purpose left out takes the suggestion. */
export class PlanChoicesInput {
  @IsOptional()
  @IsUUID(undefined, productOnly)
  lime?: string;

  @IsOptional()
  @IsUUID(undefined, productOnly)
  nitrogen?: string;

  @IsOptional()
  @IsUUID(undefined, productOnly)
  phosphorus?: string;

  @IsOptional()
  @IsUUID(undefined, productOnly)
  potassium?: string;
}

/** What a practice sets for a product: its bag (kg) and what that costs. */
export class ProductPriceInput {
  @Amount('Bag', { min: 0.1, max: 2000, unit: 'kg' })
  bagMass: number;

  @IsOptional()
  @Amount('Price of a bag', { min: 0, max: 100_000, unit: '$' })
  bagPrice: number | null;
}
