import type { ProductChoices, Reading, ShoppingList, ZonePlan } from '@glenfold/agronomy';
import { Type } from 'class-transformer';
import { IsBoolean, IsInt, IsObject, IsOptional, IsString, IsUUID, ValidateNested } from 'class-validator';
import { LabResultAnswer } from './lab.ts';

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

/** A zone's newest result with its reading and rates. */
export class ZonePlanAnswer {
  @IsString() zoneId: string;
  @ValidateNested() @Type(() => LabResultAnswer) result: LabResultAnswer;
  @IsObject() reading: Reading;
  @IsObject() plan: ZonePlan;
  @IsObject() choices: ProductChoices;
  /** Of the choices; 0 while none was made. */
  @IsInt() version: number;
  /** Costs are left out for those who see no prices. */
  @IsBoolean() priced: boolean;
}

/** One list to buy for a site. */
export class ShoppingAnswer {
  @IsObject() list: ShoppingList;
  /** Zones that it is for. */
  @IsInt() zones: number;
  /** Names of those that have no test yet. */
  @IsString({ each: true }) untested: string[];
  /** Costs are left out for those who see no prices. */
  @IsBoolean() priced: boolean;
}

export class IssuedPlanAnswer {
  @IsString() id: string;
  @IsString() issuedAt: string;
  @IsString() pdf: string;
}
