import type { Agreement, BesideRow, RankedLimit, RetestDue, SchoolRead, ZoneReading } from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import { IsArray, IsBoolean, IsInt, IsNumber, IsObject, IsOptional, IsString, ValidateNested } from 'class-validator';
import { LabResultAnswer } from './lab.ts';

/** What a zone's soil says, what limits it most, and how sure that is. */
export class ReadingAnswer {
  @IsString() zoneId: string;
  /** Nothing while there is no test. */
  @IsOptional() @ValidateNested() @Type(() => LabResultAnswer) result: LabResultAnswer | null;
  /** Whose soil the test is of, where it is not the zone's alone. */
  @IsOptional() @IsString() borrowed: string | null;
  /** Cores of the composite; nothing where it came in no bag that was planned here. */
  @IsOptional() @IsInt() cores: number | null;
  @IsObject() read: ZoneReading;
}

/** A zone as it stands beside the others. */
export class BesideZoneAnswer {
  @IsString() zoneId: string;
  @IsString() name: string;
  @IsString() label: string;
  @IsString() grass: string;
  @IsNumber() area: number;
  @IsOptional() @IsString() sampledOn: string | null;
  @IsBoolean() borrowed: boolean;
  /** What limits it most; nothing where nothing does. */
  @IsOptional() @IsObject() first: Pick<RankedLimit, 'label' | 'degree' | 'standing' | 'what'> | null;
  /** Sentences on why its test weighs less. */
  @IsString({ each: true }) doubts: string[];
}

/** All zones of a site side by side, in walking order. */
export class SiteReadingsAnswer {
  @IsString() siteId: string;
  @ValidateNested({ each: true }) @Type(() => BesideZoneAnswer) zones: BesideZoneAnswer[];
  @IsArray() rows: BesideRow[];
}

/** One report read by every school that is not switched off. */
export class SchoolsAnswer {
  @IsArray() schools: SchoolRead[];
  @IsArray() agreements: Agreement[];
  /** Who chose the school of the zone, and why. */
  @IsOptional() @IsString() by: string | null;
  /** Prices are shown to whoever sees them. */
  @IsBoolean() priced: boolean;
}

/** When a zone is to be tested again. */
export class RetestAnswer implements RetestDue {
  @IsString() siteId: string;
  @IsString() siteName: string;
  @IsString() zoneId: string;
  @IsString() zone: string;
  @IsString() sampledOn: string;
  @IsString() on: string;
  @IsString() words: string;
  @IsBoolean() due: boolean;
}

/** Retests across sites, the soonest first. */
export class RetestsAnswer {
  @ValidateNested({ each: true }) @Type(() => RetestAnswer) retests: RetestAnswer[];
  @IsInt() count: number;
  @IsInt() due: number;
  /** Where the next page begins. */
  @IsOptional() @IsString() next: string | null;
}
