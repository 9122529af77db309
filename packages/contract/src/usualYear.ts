import { type UsualVisit, type UsualYear, remedyNames } from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { Amount, trim } from './checks.ts';

class VisitSetting implements UsualVisit {
  @IsInt({ message: 'A month is a number from 1 to 12.' })
  @Min(1, { message: 'A month is a number from 1 to 12.' })
  @Max(12, { message: 'A month is a number from 1 to 12.' })
  month: number;

  @IsIn(remedyNames, { message: 'Choose what is done from the list.' })
  remedy: string;

  @IsOptional()
  @IsUUID(undefined, { message: 'Choose a product of your list.' })
  material?: string | null;

  /** g/m² of the product. */
  @IsOptional()
  @Amount('The rate', { min: 0.1, max: 5000, unit: 'g/m²' })
  rate?: number | null;
}

/** What is sold to everybody, and a test changes. */
export class UsualYearSetting implements UsualYear {
  @trim
  @IsString({ message: 'Give the usual year a name.' })
  @Length(1, 80, { message: 'Give the usual year a name of 1 to 80 letters, such as “Four visits”.' })
  name: string;

  @IsArray({ message: 'Give the visits as a list.' })
  @ArrayMaxSize(60, { message: 'Give at most sixty visits.' })
  @ValidateNested({ each: true })
  @Type(() => VisitSetting)
  visits: VisitSetting[];
}

/** Years that a practice keeps, for sites to begin from. */
export class UsualYearsSetting {
  @IsArray({ message: 'Give the years as a list.' })
  @ArrayMaxSize(12, { message: 'Give at most twelve years.' })
  @ValidateNested({ each: true })
  @Type(() => UsualYearSetting)
  years: UsualYearSetting[];
}
