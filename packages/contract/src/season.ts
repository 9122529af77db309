import {
  type BackwardJob,
  type Break,
  type DateKind,
  type Day,
  type MixedIn,
  type RemedyName,
  type SeedWater,
  type SodCare,
  type Since,
  type UnitSystem,
  type WaterWeek,
  type WindowJob,
  type WorkCard,
  dateKinds,
  dayFlagNames,
  dayNumberNames,
  dayNumbers,
  dayWordNames,
  dayWords,
} from '@glenfold/agronomy';
import { Type } from './metadata.ts';
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
  ValidateNested,
} from 'class-validator';
import { oneOf, trim, trimOrNone } from './checks.ts';

const DAY = /^(19|20)\d\d-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/;
const asDay = { message: 'Write the day as 2027-03-14.' };

export const jobStates = ['open', 'done', 'partly done', 'not done', 'superseded'] as const;
export type JobState = (typeof jobStates)[number];

/** Of a day, as a client is told when somebody comes. */
export const dayParts = ['morning', 'midday', 'afternoon', 'evening'] as const;
export type DayPart = (typeof dayParts)[number];

/** Set a job to a day, or to none. */
export class JobDayInput {
  @IsOptional()
  @Matches(DAY, asDay)
  day?: string | null;

  /** Wanted where the day breaks something. */
  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the reason as text.' })
  @MaxLength(300, { message: 'Keep the reason under 300 letters.' })
  reason?: string | null;
}

/** Hold a job: a decision that deserves its reason. */
export class JobHoldInput {
  @trim
  @IsString({ message: 'Say why it waits.' })
  @Length(2, 300, { message: 'Say why it waits, in 2 to 300 letters.' })
  reason: string;

  /** What the client said to it. */
  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the client’s words as text.' })
  @MaxLength(300, { message: 'Keep the client’s words under 300 letters.' })
  words?: string | null;
}

/** Who does it, and with which machine. */
export class JobCrewInput {
  @IsOptional()
  @IsUUID(undefined, { message: 'Choose somebody of the practice.' })
  personId?: string | null;

  @IsOptional()
  @IsUUID(undefined, { message: 'Choose a machine of the list.' })
  machineId?: string | null;

  /** Of its day, as the client is told it. */
  @IsOptional()
  @IsIn(dayParts, oneOf('Part of the day', dayParts))
  part?: DayPart | null;
}

/** A fixed date that the work has to be ready for. */
export class SiteDateInput {
  @trim
  @IsString({ message: 'Say what the date is.' })
  @Length(2, 80, { message: 'Say what the date is, in 2 to 80 letters: “Match”, “Sale”, “Rains”.' })
  name: string;

  @IsIn(dateKinds, oneOf('Kind of date', dateKinds))
  kind: DateKind;

  @Matches(DAY, asDay)
  day: string;
}

/** What a rule of the day may be told. */
export function dayFault(value: unknown): string | undefined {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return 'Tell the day fact by fact.';
  for (const [fact, told] of Object.entries(value)) {
    if (told === null || told === undefined) continue;
    if ((dayNumberNames as readonly string[]).includes(fact)) {
      const { min, max, label, unit } = dayNumbers[fact as keyof typeof dayNumbers];
      if (typeof told !== 'number' || !(told >= min && told <= max))
        return `Give ${label} as a number from ${min} to ${max} ${unit}.`.replace(' .', '.');
    } else if ((dayWordNames as readonly string[]).includes(fact)) {
      const { words, label } = dayWords[fact as keyof typeof dayWords];
      if (!(words as readonly unknown[]).includes(told)) return `Give ${label} as one of ${words.join(', ')}.`;
    } else if ((dayFlagNames as readonly string[]).includes(fact)) {
      if (typeof told !== 'boolean') return `Say yes or no to ${fact}.`;
    } else return `${fact} is nothing that a rule asks for.`;
  }
  return undefined;
}

export class HoldAnswer {
  @IsString() reason: string;
  @IsOptional() @IsString() words: string | null;
  @IsString() since: string;
  @IsOptional() @IsString() by: string | null;
}

/** A dose on its day. */
export class JobAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() siteId: string;
  @IsString() siteName: string;
  @IsString() zoneId: string;
  @IsString() zone: string;
  @IsString() key: string;
  @IsString() remedy: RemedyName;
  /** Of its treatment: "Lime". */
  @IsString() name: string;
  /** "Application 2". */
  @IsString() dose: string;
  @IsOptional() @IsString() product: string | null;
  /** "40 lb/1000 ft², 98 lb of Pelletised lime", a mix thing by thing; empty where nothing is put down. */
  @IsString() amount: string;
  @IsOptional() @IsString() earliest: string | null;
  @IsOptional() @IsString() latest: string | null;
  @IsOptional() @IsString() day: string | null;
  @IsOptional() @IsString() part: DayPart | null;
  @IsString() state: JobState;
  /** What is to be said of its days. */
  @IsString({ each: true }) words: string[];
  /** What its day breaks, though it stands. */
  @IsString({ each: true }) breaks: string[];
  @IsOptional() @IsString() movedBecause: string | null;
  /** Of one that another program has superseded: the job that took its place. */
  @IsOptional() @IsString() replacedById: string | null;
  /** Something of it was decided on Rates after the program was handed over, and stands in no paper yet. */
  @IsBoolean() changedSince: boolean;
  /** What it was to be before the program that it is of, where that was another amount: "60 lb/1000 ft², 147 lb of lime". */
  @IsOptional() @IsString() was: string | null;
  @IsOptional() @ValidateNested() @Type(() => HoldAnswer) hold: HoldAnswer | null;
  @IsOptional() @IsString() personId: string | null;
  @IsOptional() @IsString() person: string | null;
  @IsOptional() @IsString() machineId: string | null;
  @IsOptional() @IsString() machine: string | null;
  /** Its days are over, and nobody has said what became of it. */
  @IsBoolean() late: boolean;
}

/** A span of days. */
export class SpanAnswer {
  @IsString() from: string;
  @IsString() to: string;
}

/** When a kind of work may be done in a zone, in an ordinary year from today. */
export class JobWindowsAnswer {
  @IsString() key: string;
  @IsString() name: string;
  @ValidateNested({ each: true }) @Type(() => SpanAnswer) spans: SpanAnswer[];
}

/** What is done in a zone, on its day. */
export class DoneAnswer {
  @IsString() id: string;
  @IsString() on: string;
  @IsString() words: string;
  @IsString() kind: string;
}

export class SeasonZoneAnswer {
  @IsString() zoneId: string;
  @IsString() zone: string;
  @ValidateNested({ each: true }) @Type(() => JobWindowsAnswer) windows: JobWindowsAnswer[];
  @ValidateNested({ each: true }) @Type(() => DoneAnswer) done: DoneAnswer[];
  /** Days on which it was sampled. */
  @IsString({ each: true }) tested: string[];
  /** This week and the next. */
  @IsArray() water: WaterWeek[];
  /** Of the year to come, the week that asks for most. */
  @IsOptional() @IsObject() driest: WaterWeek | null;
  @IsOptional() @IsString() mowing: string | null;
  @IsArray() seedWater: SeedWater[];
  @IsOptional() @IsString() firstCut: string | null;
  /** Of sod that is or will be laid: its water, and when it holds, is cut and fed. */
  @IsOptional() @IsObject() sod: SodCare | null;
}

export class SiteDateAnswer extends SiteDateInput {
  @IsString() id: string;
  /** Latest starts, the first to come first. */
  @IsArray() jobs: BackwardJob[];
}

/** A week of the ordinary year: what warms and grows. */
export class NormalWeekAnswer {
  @IsString() day: string;
  @IsNumber() soil: number;
  @IsNumber() growth: number;
}

/** The season of a site. */
export class SeasonAnswer {
  @IsString() siteId: string;
  /** The day there. */
  @IsString() today: string;
  @ValidateNested({ each: true }) @Type(() => JobAnswer) jobs: JobAnswer[];
  @ValidateNested({ each: true }) @Type(() => SeasonZoneAnswer) zones: SeasonZoneAnswer[];
  @ValidateNested({ each: true }) @Type(() => NormalWeekAnswer) weeks: NormalWeekAnswer[];
  /** Whose normals these are; nothing where the place has no climate. */
  @IsOptional() @IsString() climate: string | null;
  @ValidateNested({ each: true }) @Type(() => SiteDateAnswer) dates: SiteDateAnswer[];
  /** Whether anything was handed over that jobs could come from. */
  @IsBoolean() handedOver: boolean;
  /** Jobs that are to be dated, or dated anew. */
  @IsInt() undated: number;
}

/** A zone’s water in a week of an ordinary year. */
export class ZoneWaterAnswer {
  /** Nothing where the place has no climate or no position. */
  @IsOptional() @IsObject() week: WaterWeek | null;
}

/** What setting a job to a day would break. */
export class BreaksAnswer {
  @IsArray() breaks: Break[];
}

/** A job on one card, with all that a device needs to judge and count it alone. */
export class CardAnswer {
  @ValidateNested() @Type(() => JobAnswer) job: JobAnswer;
  @IsObject() card: WorkCard;
  @IsOptional() @IsString() windowJob: WindowJob | null;
  /** What the normals and the zone tell of the day already. */
  @IsObject() day: Day;
  @IsArray() since: Since[];
  @IsNumber() area: number;
  /** In the unit of the sense. */
  @IsOptional() @IsNumber() rate: number | null;
  @IsString() sense: string;
  @IsOptional() @IsNumber() quantity: number | null;
  @IsOptional() @IsString() unit: 'kg' | 'L' | 'm3' | null;
  @IsOptional() @IsNumber() packSize: number | null;
  @IsOptional() @IsString() productId: string | null;
  /** What goes into the same mix; nothing on cards that a device has kept from before. */
  @IsOptional() @IsArray() mixed?: Array<MixedIn & { readonly density?: number | null }>;
  /** g/cm³ of what is put down, where it is on record: it may be told by weight or by volume. */
  @IsOptional() @IsNumber() density?: number | null;
  @IsString() entryKind: string;
  @IsString() units: UnitSystem;
}

/** Jobs of some days, across sites. */
export class WeekAnswer {
  @IsString() from: string;
  @IsString() to: string;
  @ValidateNested({ each: true }) @Type(() => JobAnswer) jobs: JobAnswer[];
  /** Jobs whose days are over. */
  @ValidateNested({ each: true }) @Type(() => JobAnswer) late: JobAnswer[];
}

/** A secret address of somebody’s jobs, for a calendar. */
export class CalendarLinkAnswer {
  @IsString() id: string;
  @IsString() madeAt: string;
  @IsString() state: 'open' | 'revoked' | 'expired';
  /** Until when it is read. */
  @IsString() until: string;
  /** In the answer to its making only. */
  @IsOptional() @IsString() address: string | null;
}
