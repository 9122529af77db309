import type { Change, Reading, RemedyName, ShoppingList, ZoneProgram } from '@glenfold/agronomy';
import { remedyNames } from '@glenfold/agronomy';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { LabResultAnswer } from './lab.ts';

/** What the advisor decides by hand of a treatment, with the reason. */
export class TreatmentInput {
  @IsIn(remedyNames, { message: 'Choose what it is from the list.' })
  remedy: RemedyName;

  /** Nothing of the test asked for it. */
  @IsOptional()
  @IsBoolean()
  added?: boolean;

  @IsOptional()
  @IsIn(['left out', 'next year'], { message: 'It is left out, or put off to next year.' })
  out?: 'left out' | 'next year' | null;

  /** By the fields of the remedy. */
  @IsOptional()
  @IsObject({ message: 'Send what is set by its names.' })
  values?: Record<string, unknown>;

  /** Month of each dose, 1 to 12. */
  @IsOptional()
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(12)
  @IsInt({ each: true, message: 'A month is a number from 1 to 12.' })
  @Min(1, { each: true, message: 'A month is a number from 1 to 12.' })
  @Max(12, { each: true, message: 'A month is a number from 1 to 12.' })
  months?: number[] | null;

  @IsString({ message: 'Say why: whoever reads it next year will ask.' })
  @Length(3, 300, { message: 'Say why in a few words, 300 characters at most.' })
  reason: string;
}

/** A change as it is kept, with the version that a later one rests on. */
export class TreatmentChangeAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsObject() change: Change;
}

/** What of a program its owner has in hand. */
export class HandedOverAnswer {
  @IsString() at: string;
  @IsString() pdf: string;
  /** What the program says now that it did not then. */
  @IsString({ each: true }) differences: string[];
}

/** A zone's newest result with its reading and its program as it stands. */
export class ZoneProgramAnswer {
  @IsString() zoneId: string;
  /** Nothing while there is no test: then only what was added by hand is in the program. */
  @IsOptional() @ValidateNested() @Type(() => LabResultAnswer) result: LabResultAnswer | null;
  @IsObject() reading: Reading;
  @IsObject() program: ZoneProgram;
  @ValidateNested({ each: true }) @Type(() => TreatmentChangeAnswer) changes: TreatmentChangeAnswer[];
  @IsOptional() @ValidateNested() @Type(() => HandedOverAnswer) handedOver: HandedOverAnswer | null;
  /** Costs are left out for those who see no prices. */
  @IsBoolean() priced: boolean;
}

/** A zone of a site's program, to look over. */
export class ProgramZoneAnswer {
  @IsString() zoneId: string;
  @IsString() name: string;
  @IsObject() program: Pick<ZoneProgram, 'treatments' | 'findings' | 'cost' | 'year'>;
}

/** The program of a site: its zones, and one list to buy. */
export class SiteProgramAnswer {
  @ValidateNested({ each: true }) @Type(() => ProgramZoneAnswer) zones: ProgramZoneAnswer[];
  @IsObject() list: ShoppingList;
  /** Names of zones that have no test yet. */
  @IsString({ each: true }) untested: string[];
  /** Costs are left out for those who see no prices. */
  @IsBoolean() priced: boolean;
}

/** A program that was handed over. */
export class IssuedProgramAnswer {
  @IsString() id: string;
  @IsString() issuedAt: string;
  @IsString() pdf: string;
  @IsNumber() zones: number;
}

/** Which zones are handed over; all that are tested when nothing is said. */
export class HandOverInput {
  @IsOptional()
  @IsArray()
  @IsUUID(undefined, { each: true, message: 'Choose zones of the site.' })
  zoneIds?: string[];
}
