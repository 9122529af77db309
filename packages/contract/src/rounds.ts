import { Type } from 'class-transformer';
import { IsInt, IsNumber, IsOptional, IsString, ValidateNested } from 'class-validator';
import { SiteAnswer } from './site.ts';

/** The eight steps of a site, in working order. */
export const steps = ['ground', 'sampling', 'lab', 'reading', 'rates', 'season', 'logbook', 'proof'] as const;
export type Step = (typeof steps)[number];

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

export class RoundsAnswer {
  @ValidateNested({ each: true }) @Type(() => RoundsTask) tasks: RoundsTask[];
  @ValidateNested({ each: true }) @Type(() => SiteStateAnswer) sites: SiteStateAnswer[];
}
