import { Type } from './metadata.ts';
import { IsBoolean, IsIn, IsInt, IsNumber, IsOptional, IsString, ValidateNested } from 'class-validator';
import type { BagState } from './sampling.ts';
import { SiteAnswer, SiteNameAnswer } from './site.ts';
import type { Step } from './steps.ts';

export class StepState {
  @IsString() step: Step;
  /** The state in words: "2 of 5 zones tested". */
  @IsString() words: string;
  @IsString() state: 'done' | 'act' | 'waiting' | 'later';
}

export class SiteStateAnswer {
  @ValidateNested() @Type(() => SiteAnswer) site: SiteAnswer;
  @IsInt() zones: number;
  @IsNumber() area: number;
  @ValidateNested({ each: true }) @Type(() => StepState) steps: StepState[];
}

export class RoundsTask {
  @IsString() siteId: string;
  @IsString() siteName: string;
  @IsOptional() @IsString() zoneId: string | null;
  @IsString() step: Step;
  @IsString() words: string;
  @IsString() why: string;
}

/** A page of what wants doing, most pressing first. */
export class TasksAnswer {
  @ValidateNested({ each: true }) @Type(() => RoundsTask) tasks: RoundsTask[];
  /** Where the next page begins; nothing behind the last. */
  @IsOptional() @IsString() next: string | null;
}

/** A page of sites by name, each with its state. */
export class SiteStatesAnswer {
  @ValidateNested({ each: true }) @Type(() => SiteStateAnswer) sites: SiteStateAnswer[];
  /** How many there are that match. */
  @IsInt() count: number;
  @IsOptional() @IsString() next: string | null;
}

export class FoundZone {
  @IsString() id: string;
  @IsString() name: string;
  @IsString() label: string;
  @IsString() siteId: string;
  @IsString() siteName: string;
}

export class FoundBag {
  @IsString() code: string;
  @IsString() siteName: string;
  @IsString({ each: true }) zoneNames: string[];
  @IsString() state: BagState;
}

/** What a few letters find: as many of each kind as a list shows. */
export class FoundAnswer {
  @ValidateNested({ each: true }) @Type(() => SiteNameAnswer) sites: SiteNameAnswer[];
  @ValidateNested({ each: true }) @Type(() => FoundZone) zones: FoundZone[];
  @ValidateNested({ each: true }) @Type(() => FoundBag) bags: FoundBag[];
}

/** What a practice begins with, in the order in which it helps. */
export const beginningKeys = ['reach', 'units', 'laboratory', 'prices', 'machines', 'person', 'site'] as const;
export type BeginningKey = (typeof beginningKeys)[number];

export class BeginningStepAnswer {
  @IsIn(beginningKeys) key: BeginningKey;
  /** `later`: not done, and somebody has said that it can wait. */
  @IsString() state: 'open' | 'later' | 'done';
}

/** How far a practice is with what it begins with. */
export class BeginningAnswer {
  @ValidateNested({ each: true }) @Type(() => BeginningStepAnswer) steps: BeginningStepAnswer[];
}

/** Leave something for later, or take it up again. */
export class BeginningInput {
  @IsBoolean({ message: 'Say yes or no.' })
  later: boolean;
}
