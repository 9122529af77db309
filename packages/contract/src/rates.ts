import type {
  Change,
  OwnWork,
  Reading,
  RemedyName,
  SectionSum,
  ShoppingList,
  Working,
  Worth,
  ZoneProgram,
} from '@glenfold/agronomy';
import { remedyNames } from '@glenfold/agronomy';
import { Type } from './metadata.ts';
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
  MaxLength,
  Length,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { Amount } from './checks.ts';
import { LabResultAnswer } from './lab.ts';

class OwnWorkInput implements OwnWork {
  @IsString({ message: 'Choose one of the prices of work.' })
  @Length(1, 120, { message: 'Choose one of the prices of work.' })
  name: string;

  @Amount('How much', { min: 0.01, max: 100_000 })
  amount: number;
}

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

  /** Hours, days and the like, by the names of the practice’s prices of work. */
  @IsOptional()
  @IsArray({ message: 'Give the work as a list.' })
  @ArrayMaxSize(20, { message: 'Give at most twenty lines of work.' })
  @ValidateNested({ each: true })
  @Type(() => OwnWorkInput)
  work?: OwnWorkInput[] | null;

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

/** What waited for this year, and whether the year before is over. */
export class YearBeforeAnswer {
  /** First day of the year that the program is for; nothing while none was begun. */
  @IsOptional() @IsString() began: string | null;
  /** A sentence each: what was put off, and what waits for the retest. */
  @IsString({ each: true }) waits: string[];
  /** The ground was tested again since the year before was handed over. */
  @IsBoolean() retested: boolean;
  /** The year is over, and the next has not begun. */
  @IsBoolean() over: boolean;
}

class WorkNameAnswer {
  @IsString() name: string;
  @IsString() per: string;
}

/** A zone's newest result with its reading and its program as it stands. */
export class ZoneProgramAnswer {
  @IsString() zoneId: string;
  /** Nothing while there is no test: then only what was added by hand is in the program. */
  @IsOptional() @ValidateNested() @Type(() => LabResultAnswer) result: LabResultAnswer | null;
  /** Whose soil that test is of, where it is not the zone's alone. */
  @IsOptional() @IsString() borrowed: string | null;
  @IsObject() reading: Reading;
  @IsObject() program: ZoneProgram;
  @ValidateNested({ each: true }) @Type(() => TreatmentChangeAnswer) changes: TreatmentChangeAnswer[];
  @IsOptional() @ValidateNested() @Type(() => HandedOverAnswer) handedOver: HandedOverAnswer | null;
  /** What comes over from the year before; nothing in the first. */
  @IsOptional() @ValidateNested() @Type(() => YearBeforeAnswer) yearBefore: YearBeforeAnswer | null;
  /** Prices of work that may be set with a treatment. */
  @ValidateNested({ each: true }) @Type(() => WorkNameAnswer) work: WorkNameAnswer[];
  /** Costs are left out for those who see no prices. */
  @IsBoolean() priced: boolean;
}

/** What one more measurement is worth in a zone. */
export class WorthAnswer implements Omit<Worth, 'fee'> {
  @IsString() key: string;
  @IsString() name: string;
  @IsInt() minutes: number;
  @IsString() words: string;
  /** Money between what the program may cost; nothing for those who see no prices, or while something has none. */
  @IsOptional() @IsNumber() stake: number | null;
  @IsArray() firsts: Worth['firsts'];
  @IsArray() moved: Worth['moved'];
  @IsArray() working: Working;
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
  /** What each section comes to, against its budget; nothing where no zone stands in one. */
  @IsArray() sections: readonly SectionSum[];
  /** First day of the year that the program is for; nothing while no year has been begun. */
  @IsOptional() @IsString() began: string | null;
  /** A program was handed over, and its year is over. */
  @IsBoolean() over: boolean;
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

  /** Of what was looked at before; what is another by then is not handed over. */
  @IsOptional()
  @IsString()
  @MaxLength(64)
  seal?: string;
}

/** What becomes of a job when another program is handed over. */
export class JobAheadAnswer {
  @IsIn(['gone', 'changed', 'moved']) kind: 'gone' | 'changed' | 'moved';
  @IsString() name: string;
  @IsString() zoneId: string;
  @IsString() zone: string;
  @IsOptional() @IsString() amount: string | null;
  /** What it is now, where that is another. */
  @IsOptional() @IsString() was: string | null;
  @IsOptional() @IsString() day: string | null;
  /** Its day until now, where it moves. */
  @IsOptional() @IsString() from: string | null;
  /** What people had decided of it, a sentence each. */
  @IsString({ each: true }) decided: string[];
}

/** A zone as handing over would freeze it, beside the last paper of it. */
export class ZoneAheadAnswer {
  @IsString() zoneId: string;
  @IsString() name: string;
  /** When the last was handed over; nothing where none was. */
  @IsOptional() @IsString() at: string | null;
  @IsString({ each: true }) differences: string[];
}

/** What handing over would do. */
export class HandOverAheadAnswer {
  /** To be given back with the hand-over. */
  @IsString() seal: string;
  @ValidateNested({ each: true }) @Type(() => ZoneAheadAnswer) zones: ZoneAheadAnswer[];
  /** Names of zones that have nothing to hand over. */
  @IsString({ each: true }) without: string[];
  @ValidateNested({ each: true }) @Type(() => JobAheadAnswer) jobs: JobAheadAnswer[];
}
