import {
  type DrainageNext,
  type FieldTestKind,
  type FieldValue,
  type LoadKind,
  type LoadVerdict,
  type Working,
  fieldTestKinds,
  loadKinds,
} from '@glenfold/agronomy';
import {
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
  Matches,
  MaxLength,
  Min,
} from 'class-validator';
import { Place, oneOf, trim, trimOrNone } from './checks.ts';

/** A test of one's own on a zone, as far as it is done; sent again as it goes on. */
export class FieldTestInput {
  /** Made on the device: sent again, it is the same test. */
  @IsUUID(undefined, { message: 'The id of a test is a UUID.' })
  id: string;

  @IsUUID(undefined, { message: 'Choose the zone that is tested.' })
  zoneId: string;

  @IsIn(fieldTestKinds, oneOf('Test', fieldTestKinds))
  kind: FieldTestKind;

  /** The day it was done, or begun. */
  @Matches(/^\d{4}-\d\d-\d\d$/, { message: 'Write the day as 2026-03-14.' })
  on: string;

  /** What was read: each test has its own fields, cm, mm/h, °C, ISO 8601. */
  @IsObject({ message: 'Give what was read by its fields.' })
  record: object;

  /** Nothing more is read. */
  @IsBoolean({ message: 'Closed is yes or no.' })
  closed: boolean;

  /** Counts up on the device with every reading: what is older than what is kept changes nothing. */
  @IsInt({ message: 'The revision is a whole number.' })
  @Min(1)
  revision: number;

  @trimOrNone
  @IsOptional()
  @IsString()
  @MaxLength(120, { message: 'Keep the name under 120 letters.' })
  doneBy?: string | null;

  /** [longitude, latitude] */
  @IsOptional()
  @Place()
  place?: number[] | null;
}

export class FieldTestAnswer extends FieldTestInput {
  @IsInt() version: number;
  @IsString() siteId: string;
  /** What it comes to, in analytes' own units. */
  @IsArray() values: FieldValue[];
  /** The answer in one line; nothing while there is none. */
  @IsOptional() @IsString() title: string | null;
  @IsArray() @IsString({ each: true }) words: string[];
  @IsArray() working: Working;
  /** Of a drainage hole: what comes next. */
  @IsOptional() @IsObject() next: DrainageNext | null;
}

/** One value of a zone on its time line. */
export class RecordPointAnswer {
  @IsOptional() @IsString() on: string | null;
  /** In the analyte's own unit. */
  @IsNumber() value: number;
  /** As it stands, with its unit. */
  @IsString() told: string;
  @IsOptional() @IsString() method: string | null;
  @IsOptional() @IsNumber() depthFrom: number | null;
  @IsOptional() @IsNumber() depthTo: number | null;
  @IsOptional() @IsString() season: string | null;
  /** Who, or which file. */
  @IsString() source: string;
  /** Of which other zone it was taken, and how it comes to speak for this one. */
  @IsOptional() @IsString() borrowed: string | null;
  /** Points of one run can be laid beside each other. */
  @IsInt() run: number;
  /** Why it begins a run of its own. */
  @IsOptional() @IsString() apart: string | null;
  @IsBoolean() superseded: boolean;
}

/** One analyte of a zone over time. */
export class RecordSeriesAnswer {
  @IsString() analyte: string;
  @IsString() name: string;
  @IsString() unit: string;
  /** Its numbers stand for words. */
  @IsBoolean() worded: boolean;
  /** The oldest first. */
  @IsArray() points: RecordPointAnswer[];
}

export class ZoneRecordAnswer {
  @IsString() zoneId: string;
  @IsArray() series: RecordSeriesAnswer[];
}

/** A load at the gate, or a bag of seed, looked over. */
export class LoadCheckInput {
  @IsUUID(undefined, { message: 'The id of a check is a UUID.' })
  id: string;

  @IsUUID(undefined, { message: 'Choose the site that it was brought to.' })
  siteId: string;

  @IsIn(loadKinds, oneOf('Load', loadKinds))
  kind: LoadKind;

  @Matches(/^\d{4}-\d\d-\d\d$/, { message: 'Write the day as 2026-03-14.' })
  on: string;

  /** Whose, and how much: "yard waste compost, 9 m³". */
  @trim
  @IsString({ message: 'Say what was brought.' })
  @Length(1, 160, { message: 'Say what was brought, in 1 to 160 letters.' })
  name: string;

  /** What was looked at: °C, mm, dS/m, %. */
  @IsObject({ message: 'Give what was looked at by its fields.' })
  record: object;

  /** What was decided, whatever the checks say. */
  @IsOptional()
  @IsIn(['taken', 'taken for some things', 'sent back'], { message: 'It is taken, taken for some things, or sent back.' })
  decided?: 'taken' | 'taken for some things' | 'sent back' | null;

  @trimOrNone
  @IsOptional()
  @IsString()
  @MaxLength(400, { message: 'Keep the reason under 400 letters.' })
  reason?: string | null;
} // prettier-ignore

export class LoadCheckAnswer extends LoadCheckInput {
  @IsInt() version: number;
  @IsString() verdict: LoadVerdict;
  @IsArray() @IsString({ each: true }) reasons: string[];
  @IsArray() @IsString({ each: true }) goodFor: string[];
  /** What nobody looked at and matters. */
  @IsArray() @IsString({ each: true }) open: string[];
  @IsOptional() @IsString() by: string | null;
}

/** A site on which a test goes on. */
export class OpenTestsAnswer {
  @IsString() siteId: string;
  @IsString() siteName: string;
  @IsInt() tests: number;
}
