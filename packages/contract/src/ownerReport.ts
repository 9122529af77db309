import type { OwnerReport, UnitSystem } from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import { IsArray, IsInt, IsObject, IsOptional, IsString, Length, ValidateNested } from 'class-validator';
import type { ZoneGeometry } from './site.ts';

export const ownerReportStates = ['asked', 'draft', 'handed over', 'superseded'] as const;
export type OwnerReportState = (typeof ownerReportStates)[number];

/** The covering letter, as its advisor wants it. */
export class OwnerLetterInput {
  @IsString({ message: 'Write the letter as text.' })
  @Length(20, 6000, { message: 'A letter has 20 to 6000 letters.' })
  letter: string;
}

export class OwnerPhotoAnswer {
  @IsString() zoneId: string;
  @IsOptional() @IsString() caption: string | null;
  @IsOptional() @IsString() takenOn: string | null;
  /** The small picture, as a data address. */
  @IsString() src: string;
}

/** A zone as the drawing on the cover shows it. */
export class OwnerOutlineAnswer {
  @IsString() zoneId: string;
  @IsString() name: string;
  @IsOptional() @IsObject() geometry: ZoneGeometry | null;
}

/** A report for the owner, in plain words: what was found, what comes first, what it costs, what to expect by when. */
export class OwnerReportAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() state: OwnerReportState;
  @IsString() units: UnitSystem;
  @IsString() siteName: string;
  @IsOptional() @IsString() place: string | null;
  @IsString() practiceName: string;
  /** Nothing until it is made. */
  @IsOptional() @IsString() madeOn: string | null;
  @IsOptional() @IsString() handedOverAt: string | null;
  @IsString() letter: string;
  @IsOptional() @IsObject() report: OwnerReport | null;
  @ValidateNested({ each: true }) @Type(() => OwnerOutlineAnswer) outlines: OwnerOutlineAnswer[];
  @IsArray() @ValidateNested({ each: true }) @Type(() => OwnerPhotoAnswer) photos: OwnerPhotoAnswer[];
  /** Address of the report on paper. */
  @IsString() pdf: string;
}

/** The newest report of a site. */
export class NewestOwnerReportAnswer {
  /** Nothing while none was asked for. */
  @IsOptional() @ValidateNested() @Type(() => OwnerReportAnswer) newest: OwnerReportAnswer | null;
}
