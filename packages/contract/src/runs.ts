import { IsBoolean, IsInt, IsOptional, IsString } from 'class-validator';

/** How far long work is. */
export const runStates = ['waiting', 'running', 'done', 'stopped', 'failed'] as const;
export type RunState = (typeof runStates)[number];

/** Long work that the server does beside the requests. */
export class RunAnswer {
  @IsString() id: string;
  @IsString() kind: string;
  @IsString() title: string;
  @IsString() state: RunState;
  /** Parts that are done, each for good. */
  @IsInt() done: number;
  /** Parts there are; nothing until it is known. */
  @IsOptional() @IsInt() total: number | null;
  /** What came of it, or what went wrong. */
  @IsOptional() @IsString() words: string | null;
  /** It ends after the part it is at. */
  @IsBoolean() stopping: boolean;
  /** Nothing where Glenfold began it by itself. */
  @IsOptional() @IsString() askedBy: string | null;
  @IsString() askedAt: string;
  @IsOptional() @IsString() endedAt: string | null;
}
