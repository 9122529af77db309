import { Type } from './metadata.ts';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Amount, oneOf, trim, trimOrNone } from './checks.ts';

export const quoteAnswers = ['accepted', 'declined'] as const;
export type QuoteWord = (typeof quoteAnswers)[number];
/** Open until it is answered whole, taken over into the program, withdrawn, or its days are over. */
export type QuoteState = 'open' | 'answered' | 'taken over' | 'withdrawn' | 'expired';

/** Offer a site’s program line by line. */
export class QuoteInput {
  @IsInt({ message: 'Say how many days the quote stands, as a whole number.' })
  @Min(1, { message: 'A quote stands for a day at least.' })
  @Max(365, { message: 'A quote stands for a year at most.' })
  days: number;

  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the note as text.' })
  @MaxLength(600, { message: 'Keep the note under 600 letters.' })
  note?: string | null;
}

class LineAnswerInput {
  @IsUUID(undefined, { message: 'Name a line of the quote.' })
  id: string;

  @IsIn(quoteAnswers, oneOf('Answer', quoteAnswers))
  answer: QuoteWord;

  /** What it may cost at most, where its price is open: without it such a line is not agreed to. */
  @IsOptional()
  @Amount('At most', { min: 0, max: 1e7 })
  ceiling?: number | null;
}

/** What the owner says to some lines or all of them. */
export class QuoteAnswersInput {
  /** Of the quote as it was read: an answer that came from somebody else since is not turned round unseen. */
  @IsOptional()
  @IsInt({ message: 'Send the version of the quote as a whole number.' })
  version?: number;

  @IsArray({ message: 'Answer one line at least.' })
  @ArrayMinSize(1, { message: 'Answer one line at least.' })
  @ArrayMaxSize(2000, { message: 'That is more than a quote has lines.' })
  @ValidateNested({ each: true })
  @Type(() => LineAnswerInput)
  lines: LineAnswerInput[];

  /** Who says so. */
  @trim
  @IsString({ message: 'Write the name of whoever decides.' })
  @Length(2, 120, { message: 'Write the name of whoever decides.' })
  by: string;

  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the words as text.' })
  @MaxLength(600, { message: 'Keep the words under 600 letters.' })
  words?: string | null;
}

/** One thing that is offered in one zone. */
export class QuoteLineAnswer {
  @IsString() id: string;
  @IsString() zone: string;
  @IsString() name: string;
  /** Why, in sentences. */
  @IsString() words: string;
  /** "12.5 lb/1000 ft² of urea 46-0-0"; empty for work. */
  @IsString() amount: string;
  /** "April and September 2027"; empty where no months are known. */
  @IsString() when: string;
  @IsOptional() @IsString() caution: string | null;
  /** Nothing while something of it has no price, and for those who see no prices. */
  @IsOptional() @IsNumber() price: number | null;
  @IsOptional() @IsString() answer: QuoteWord | null;
  /** What it may cost at most, where it was agreed to with an open price. */
  @IsOptional() @IsNumber() ceiling: number | null;
  /** Its price is open: it is agreed to apart, up to an amount. */
  @IsBoolean() priceOpen: boolean;
}

export class QuoteAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() state: QuoteState;
  @IsString() offeredAt: string;
  /** Last day on which it stands. */
  @IsString() validUntil: string;
  @IsOptional() @IsString() note: string | null;
  @IsString() currency: string;
  @ValidateNested({ each: true }) @Type(() => QuoteLineAnswer) lines: QuoteLineAnswer[];
  /** Drives there, which no line carries by itself. */
  @IsOptional() @IsNumber() visits: number | null;
  /** Of all lines that have a price; nothing for those who see no prices. */
  @IsOptional() @IsNumber() total: number | null;
  /** Lines without a price: not in the total. */
  @IsInt() unpriced: number;
  /** Of what is accepted and has a price. */
  @IsOptional() @IsNumber() accepted: number | null;
  /** What accepted lines with an open price may come to at most beside it; nothing where there are none. */
  @IsOptional() @IsNumber() ceilings: number | null;
  /** Who answered last, when, and in what words. */
  @IsOptional() @IsString() answeredBy: string | null;
  @IsOptional() @IsString() answeredAt: string | null;
  @IsOptional() @IsString() answerWords: string | null;
  /** May still be answered. */
  @IsBoolean() open: boolean;
  @IsString() pdf: string;
}

/** The quote of a site; nothing where none stands. */
export class QuoteOfSiteAnswer {
  @IsOptional() @ValidateNested() @Type(() => QuoteAnswer) quote: QuoteAnswer | null;
}
