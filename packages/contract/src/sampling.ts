import { grassNames, panelNames, pointDesigns, samplingPurposes } from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsDateString,
  IsIn,
  IsInt,
  IsISO8601,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Amount, Place, oneOf, trimOrNone } from './checks.ts';

/** Where a bag is, in the order in which it goes there. */
export const custodyStates = ['planned', 'cored', 'drying', 'sent', 'at the lab', 'reported', 'read'] as const;
/** Where its way ends too early; its history stays, and its cores can be taken again. */
export const custodyEnds = ['lost', 'spoiled'] as const;
export const bagStates = [...custodyStates, ...custodyEnds] as const;
export type BagState = (typeof bagStates)[number];

/** Days that a bag may stand where it is before somebody should ask after it. */
export const custodyDays: Readonly<Partial<Record<BagState, number>>> = {
  cored: 2,
  drying: 7,
  sent: 5,
  'at the lab': 14,
  reported: 2,
};

export const coreStates = ['waiting', 'cored', 'skipped'] as const;
export type CoreState = (typeof coreStates)[number];
export const soilMoistures = ['dry', 'crumbles', 'moulds to a ball', 'sticks to the hand'] as const;
export const skipReasons = [
  'stone or rubble',
  'root',
  'too wet',
  'line marked here',
  'no access',
  'spilled product',
  'other',
] as const;

/** Sheets of labels that any stationer has, and a small roll; millimetres. */
export const labelSheets = {
  'A4, 24 labels of 70 × 37 mm': { page: [210, 297], label: [70, 37], columns: 3, rows: 8, left: 0, top: 0.5 },
  'A4, 14 labels of 99 × 38 mm': { page: [210, 297], label: [99.1, 38.1], columns: 2, rows: 7, left: 4.7, top: 15.1 },
  'Letter, 30 labels of 2⅝ × 1 in': {
    page: [215.9, 279.4],
    label: [69.85, 25.4],
    columns: 3,
    rows: 10,
    left: 4.8,
    top: 12.7,
  },
  'Roll, 62 × 29 mm': { page: [62, 29], label: [62, 29], columns: 1, rows: 1, left: 0, top: 0 },
} as const;
export type LabelSheet = keyof typeof labelSheets;
export const labelSheetNames = Object.keys(labelSheets) as LabelSheet[];

const Note = (): PropertyDecorator => MaxLength(400, { message: 'Keep the note under 400 letters.' });
const Day = (): PropertyDecorator =>
  Matches(/^(19|20)\d\d-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/, { message: 'Write the day as 2026-10-14.' });
/** A time as a device tells it, with its zone. */
const Moment = (): PropertyDecorator =>
  IsISO8601({ strict: true }, { message: 'Give the time with its zone, such as 2026-10-14T09:30:00Z.' });

/** One place to push the probe; a zone without a plan has no place on the map. */
export class CoreInput {
  @IsUUID() zoneId: string;

  @IsOptional() @Place() place?: [longitude: number, latitude: number] | null;

  /** In the walk through all cores of the site that were planned together. */
  @IsInt({ message: 'Give the place in the walk as a whole number.' })
  @Min(1)
  @Max(20_000)
  turn: number;
}

/** A composite as it is planned. */
export class BagInput {
  @IsIn(samplingPurposes, oneOf('Purpose', samplingPurposes)) purpose: string;

  @Amount('Depth', { min: 2, max: 100, unit: 'cm' }) depth: number;

  @Amount('Probe', { min: 0.5, max: 15, unit: 'cm' }) probe: number;

  @IsArray()
  @ArrayMinSize(1, { message: 'Choose at least one panel.' })
  @ArrayUnique({ message: 'Name each panel once.' })
  @IsIn(panelNames, { each: true, ...oneOf('Panel', panelNames) })
  panels: string[];

  @IsIn(pointDesigns, oneOf('Design', pointDesigns)) design: string;

  /** m kept from edges. */
  @Amount('Edge', { min: 0, max: 20, unit: 'm' }) edge: number;

  /** m kept from buried lines. */
  @Amount('Distance from lines', { min: 0, max: 20, unit: 'm' }) clear: number;

  /** Places come from it: the same gives the same. */
  @IsInt() @Min(0) @Max(4_294_967_295) seed: number;

  @IsOptional() @Day() plannedFor?: string | null;

  /** Where it is to go. */
  @trimOrNone @IsOptional() @IsString() @MaxLength(120) laboratory?: string | null;

  /** What is to grow there, where that is not what grows there now. */
  @IsOptional() @IsIn(grassNames, oneOf('Grass wanted', grassNames)) grassWanted?: string | null;

  @trimOrNone @IsOptional() @IsString() @Note() note?: string | null;

  @IsArray()
  @ArrayMinSize(1, { message: 'A bag needs cores.' })
  @ArrayMaxSize(200, { message: 'Nobody fills a bag from more than 200 cores: divide the zone.' })
  @ValidateNested({ each: true })
  @Type(() => CoreInput)
  cores: CoreInput[];
}

/** Bags that are planned together, walked together. */
export class SamplingInput {
  @IsArray()
  @ArrayMinSize(1, { message: 'Choose at least one zone.' })
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => BagInput)
  bags: BagInput[];
}

/** One touch of the walk's buttons. Its id is made on the device: sent twice, it counts once. */
export class CoreTapInput {
  @IsUUID() id: string;

  @IsUUID() coreId: string;

  @IsIn(coreStates, oneOf('State', coreStates)) state: CoreState;

  /** As the device's clock has it. */
  @Moment() at: string;

  /** Depth that the probe reached, cm. */
  @IsOptional() @Amount('Depth pushed', { min: 0, max: 100, unit: 'cm' }) pushed?: number | null;

  /** Length of the core that came up, cm. */
  @IsOptional() @Amount('Core', { min: 0, max: 100, unit: 'cm' }) recovered?: number | null;

  @IsOptional() @IsIn(soilMoistures, oneOf('Moisture', soilMoistures)) moisture?: string | null;

  @IsOptional() @IsIn(skipReasons, oneOf('Reason', skipReasons)) reason?: string | null;

  @trimOrNone @IsOptional() @IsString() @Note() note?: string | null;
}

export class CoreTapsInput {
  /** The device's clock as it sends: a wrong clock is put right by it. */
  @Moment() sentAt: string;

  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(500)
  // Each is looked at by itself, so that one that is wrong does not hold up the others.
  @IsObject({ each: true })
  @Type(() => CoreTapInput)
  taps: CoreTapInput[];
}

/** A bag goes on, or its way ends. */
export class CustodyInput {
  @IsArray()
  @ArrayMinSize(1, { message: 'Choose at least one bag.' })
  @ArrayMaxSize(200)
  @IsUUID(undefined, { each: true })
  bagIds: string[];

  @IsIn(bagStates, oneOf('State', bagStates)) state: BagState;

  /** When, where it was not just now. */
  @IsOptional() @IsDateString({}, { message: 'Give the time with its zone.' }) at?: string | null;

  @trimOrNone @IsOptional() @IsString() @MaxLength(120) laboratory?: string | null;

  /** What goes by one post. */
  @trimOrNone @IsOptional() @IsString() @MaxLength(80) parcel?: string | null;

  @trimOrNone @IsOptional() @IsString() @Note() note?: string | null;
}

/** The laboratory's own number or barcode, beside ours. */
export class LabNumberInput {
  @trimOrNone @IsOptional() @IsString() @MaxLength(60) labNumber?: string | null;
}

export class CoreAnswer {
  @IsString() id: string;
  @IsString() zoneId: string;
  @IsInt() number: number;
  @IsInt() turn: number;
  @IsOptional() @IsArray() place: [longitude: number, latitude: number] | null;
  @IsString() state: CoreState;
  @IsOptional() @IsNumber() pushed: number | null;
  @IsOptional() @IsNumber() recovered: number | null;
  @IsOptional() @IsString() moisture: string | null;
  @IsOptional() @IsString() reason: string | null;
  @IsOptional() @IsString() note: string | null;
  @IsOptional() @IsString() at: string | null;
  @IsOptional() @IsString() by: string | null;
}

export class CustodyAnswer {
  @IsString() state: BagState;
  @IsString() at: string;
  @IsString() by: string;
  @IsOptional() @IsString() note: string | null;
}

/** A bag as the board shows it, across all sites. */
export class BagLineAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() siteId: string;
  @IsString() siteName: string;
  @IsString() code: string;
  @IsArray() @IsString({ each: true }) zoneIds: string[];
  @IsArray() @IsString({ each: true }) zoneNames: string[];
  @IsString() state: BagState;
  /** When it came there. */
  @IsString() since: string;
  @IsInt() days: number;
  /** Days past those it may stand there; 0 while it is in time. */
  @IsInt() overdue: number;
  @IsInt() cored: number;
  @IsInt() cores: number;
  @IsOptional() @IsString() plannedFor: string | null;
  @IsOptional() @IsString() laboratory: string | null;
  @IsOptional() @IsString() labNumber: string | null;
  @IsOptional() @IsString() parcel: string | null;
  @IsString() purpose: string;
  @IsArray() @IsString({ each: true }) panels: string[];
}

/** How many bags stand somewhere. */
export class BagCount {
  @IsString() state: BagState;
  @IsOptional() @IsString() laboratory: string | null;
  @IsInt() count: number;
}

/** A page of the bags of all sites: what is longest overdue first. */
export class BoardAnswer {
  @ValidateNested({ each: true }) @Type(() => BagLineAnswer) bags: BagLineAnswer[];
  /** Of all bags, whatever the page shows. */
  @ValidateNested({ each: true }) @Type(() => BagCount) counts: BagCount[];
  /** Where the next page begins; nothing behind the last. */
  @IsOptional() @IsString() next: string | null;
}

/** A site with bags that wait to be walked. */
export class PlannedWalkAnswer {
  @IsString() siteId: string;
  @IsString() siteName: string;
  @IsInt() bags: number;
}

export class BagAnswer extends BagLineAnswer {
  @IsNumber() depth: number;
  @IsNumber() probe: number;
  @IsString() design: string;
  @IsNumber() edge: number;
  @IsNumber() clear: number;
  @IsNumber() seed: number;
  @IsOptional() @IsString() note: string | null;
  @IsOptional() @IsString() grassWanted: string | null;
  @ValidateNested({ each: true }) @Type(() => CoreAnswer) places: CoreAnswer[];
  @ValidateNested({ each: true }) @Type(() => CustodyAnswer) custody: CustodyAnswer[];
  /** The bag that was taken in its place, or that it takes the place of. */
  @IsOptional() @IsString() insteadOf: string | null;
}

export class TapAnswer {
  @IsString() id: string;
  /** `known`: it had come before. `met`: somebody else had been there first; both are kept, theirs counts. */
  @IsIn(['taken', 'known', 'met', 'gone', 'refused']) outcome: 'taken' | 'known' | 'met' | 'gone' | 'refused';
  @IsOptional() @IsString() words: string | null;
}

export class CoreTapsAnswer {
  @ValidateNested({ each: true }) @Type(() => TapAnswer) taps: TapAnswer[];
  /** s by which the device's clock is ahead of the server's. */
  @IsInt() clockAhead: number;
}
