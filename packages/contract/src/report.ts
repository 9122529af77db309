import type { Reading, UnitSystem, ZoneProgram } from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import { OwnerReportAnswer } from './ownerReport.ts';
import type { DayPart } from './season.ts';
import { QuoteAnswer } from './quotes.ts';
import { IsBoolean, IsInt, IsNumber, IsObject, IsOptional, IsString, ValidateNested } from 'class-validator';

/** A plan that was handed over, as it stood then. */
export class ReportPlanAnswer {
  @IsString() id: string;
  @IsString() issuedAt: string;
  @IsOptional() @IsString() sampledOn: string | null;
  @IsObject() reading: Reading;
  @IsObject() program: ZoneProgram;
  /** The units it was handed over in. */
  @IsString() units: UnitSystem;
  /** Sign of the money it was handed over in. */
  @IsString() currency: string;
  /** Address of the plan on paper. */
  @IsString() pdf: string;
}

/** A zone as its owner reads it: what was handed over, nothing that is still being worked on. */
export class ReportZoneAnswer {
  @IsString() name: string;
  @IsNumber() area: number;
  @IsString() grass: string;
  /** Nothing until a plan was handed over. */
  @IsOptional() @ValidateNested() @Type(() => ReportPlanAnswer) plan: ReportPlanAnswer | null;
  /** Something of it was decided after the plan, and is not handed over yet. */
  @IsBoolean() changing: boolean;
}

/** Something that was done, or is to come, as the owner reads it. */
export class ReportLineAnswer {
  @IsString() zone: string;
  /** "14 April 2027"; nothing where no day is known. */
  @IsOptional() @IsString() when: string | null;
  /** Of that day, where it was said. */
  @IsOptional() @IsString() part: DayPart | null;
  @IsString() words: string;
}

/** The year on the ground. */
export class ReportYearAnswer {
  @ValidateNested({ each: true }) @Type(() => ReportLineAnswer) done: ReportLineAnswer[];
  @ValidateNested({ each: true }) @Type(() => ReportLineAnswer) next: ReportLineAnswer[];
  @ValidateNested({ each: true }) @Type(() => ReportLineAnswer) moved: ReportLineAnswer[];
  @ValidateNested({ each: true }) @Type(() => ReportLineAnswer) retests: ReportLineAnswer[];
}

/** Something that is another since a price was told. */
export class PriceChangeAnswer {
  /** Nothing for what serves the whole site. */
  @IsOptional() @IsString() zone: string | null;
  /** "Lime: 30 lb of pelleted lime in place of 60 lb of pelleted lime". */
  @IsString() words: string;
  /** Day on which it was told so. */
  @IsOptional() @IsString() on: string | null;
  /** Less than nought where it is cheaper. */
  @IsNumber() difference: number;
}

/** A price as it was told once, and what is another since: the differences lead from its sum to that of today. */
export class PriceToldAnswer {
  @IsString() on: string;
  /** Who agreed to it; nothing where nobody was asked. */
  @IsOptional() @IsString() by: string | null;
  @IsNumber() sum: number;
  @ValidateNested({ each: true }) @Type(() => PriceChangeAnswer) changes: PriceChangeAnswer[];
}

/** What one treatment of one zone costs. */
export class PriceLineAnswer {
  @IsString() zone: string;
  /** Of the treatment. */
  @IsString() key: string;
  /** Nothing while it has none. */
  @IsOptional() @IsNumber() price: number | null;
}

/** What the year of a site costs, as its owner is told it. */
export class SitePriceAnswer {
  @IsNumber() sum: number;
  @IsString() currency: string;
  /** What the sum is made of, beside visits. */
  @ValidateNested({ each: true }) @Type(() => PriceLineAnswer) lines: PriceLineAnswer[];
  /** What has no price yet, and is not in the sum. */
  @IsString({ each: true }) unpriced: string[];
  /** The sum with what was agreed to at most for each of those; nothing where something is open upward. */
  @IsOptional() @IsNumber() most: number | null;
  /** As it was agreed to. */
  @IsOptional() @ValidateNested() @Type(() => PriceToldAnswer) quote: PriceToldAnswer | null;
  /** As the report in plain words says. */
  @IsOptional() @ValidateNested() @Type(() => PriceToldAnswer) report: PriceToldAnswer | null;
  /** What costs more now than it was agreed to at most. */
  @IsString({ each: true }) over: string[];
}

/** The price of a site; nothing where none was told yet, and for those who see none. */
export class PriceOfSiteAnswer {
  @IsOptional() @ValidateNested() @Type(() => SitePriceAnswer) price: SitePriceAnswer | null;
}

/** A report in plain words of before. */
export class EarlierReportAnswer {
  /** Day on which it was handed over. */
  @IsString() on: string;
  /** Address of it on paper. */
  @IsString() pdf: string;
}

/** The report of one site. */
export class SiteReportAnswer {
  @IsString() siteId: string;
  @IsString() siteName: string;
  @IsOptional() @IsString() place: string | null;
  @IsString() practiceName: string;
  /** Whoever reads it is a client, and may make links to it. */
  @IsBoolean() mayShare: boolean;
  /** By which it is reached. */
  @IsOptional() @IsString() practicePhone: string | null;
  @IsOptional() @IsString() practiceEmail: string | null;
  @ValidateNested({ each: true }) @Type(() => ReportZoneAnswer) zones: ReportZoneAnswer[];
  /** The report in plain words that was handed over last; nothing while none was. */
  @IsOptional() @ValidateNested() @Type(() => OwnerReportAnswer) owner: OwnerReportAnswer | null;
  /** What is offered, to be answered line by line; nothing where nothing is. */
  @IsOptional() @ValidateNested() @Type(() => QuoteAnswer) quote: QuoteAnswer | null;
  /** What the year costs as it stands; nothing where none was told yet. */
  @IsOptional() @ValidateNested() @Type(() => SitePriceAnswer) price: SitePriceAnswer | null;
  /** Reports in plain words that were handed over before the last. */
  @ValidateNested({ each: true }) @Type(() => EarlierReportAnswer) earlier: EarlierReportAnswer[];
  /** The practice knows how to get in. */
  @IsBoolean() entryKnown: boolean;
  /** What was done this year, what comes next and what moved. */
  @ValidateNested() @Type(() => ReportYearAnswer) year: ReportYearAnswer;
}

export class SharedSiteAnswer {
  @IsString() siteId: string;
  @IsString() siteName: string;
  @IsOptional() @IsString() place: string | null;
}

/** Sites whose reports a person reads, a page at a time. */
export class SharedSitesAnswer {
  @ValidateNested({ each: true }) @Type(() => SharedSiteAnswer) sites: SharedSiteAnswer[];
  /** How many there are that match. */
  @IsInt() count: number;
  /** Where the next page begins; nothing behind the last. */
  @IsOptional() @IsString() next: string | null;
}
