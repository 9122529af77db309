import { IsInt, IsOptional, IsString, IsUUID, Length, Matches, MaxLength } from 'class-validator';
import { trim, trimOrNone } from './checks.ts';

/** A question put to a laboratory's soil scientist about a zone, with what came back. */
export class LabQuestionInput {
  @IsUUID(undefined, { message: 'Choose the zone that it is about.' })
  zoneId: string;

  /** The result that looked odd. */
  @IsOptional()
  @IsUUID(undefined, { message: 'Choose the result that it is about, or none.' })
  resultId?: string | null;

  @trimOrNone
  @IsOptional()
  @IsString()
  @MaxLength(120, { message: 'Keep the laboratory under 120 letters.' })
  laboratory?: string | null;

  @trimOrNone
  @IsOptional()
  @IsString()
  @MaxLength(120, { message: 'Keep the name under 120 letters.' })
  askedOf?: string | null;

  @Matches(/^\d{4}-\d\d-\d\d$/, { message: 'Write the day it was asked as 2026-03-14.' })
  askedOn: string;

  @trim
  @IsString({ message: 'Write the question.' })
  @Length(1, 2000, { message: 'Write the question, in at most 2000 letters.' })
  question: string;

  @trimOrNone
  @IsOptional()
  @IsString()
  @MaxLength(4000, { message: 'Keep the answer under 4000 letters.' })
  answer?: string | null;

  @trimOrNone
  @IsOptional()
  @IsString()
  @MaxLength(120, { message: 'Keep the name under 120 letters.' })
  answeredBy?: string | null;

  @IsOptional()
  @Matches(/^\d{4}-\d\d-\d\d$/, { message: 'Write the day of the answer as 2026-03-14.' })
  answeredOn?: string | null;
}

export class LabQuestionAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() siteId: string;
  @IsString() zoneId: string;
  @IsOptional() @IsString() resultId: string | null;
  @IsOptional() @IsString() laboratory: string | null;
  /** Whom it was put to. */
  @IsOptional() @IsString() askedOf: string | null;
  @IsString() askedOn: string;
  @IsOptional() @IsString() askedBy: string | null;
  @IsString() question: string;
  @IsOptional() @IsString() answer: string | null;
  @IsOptional() @IsString() answeredBy: string | null;
  @IsOptional() @IsString() answeredOn: string | null;
}

/** What of a question a person changes. */
export function labQuestionInput(found: LabQuestionAnswer): LabQuestionInput {
  const { zoneId, resultId, laboratory, askedOf, askedOn, question, answer, answeredBy, answeredOn } = found;
  return { zoneId, resultId, laboratory, askedOf, askedOn, question, answer, answeredBy, answeredOn };
}
