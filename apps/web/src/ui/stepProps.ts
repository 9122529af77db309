import type { LabResultAnswer, SiteAnswer, ZoneAnswer } from '@glenfold/contract';

/** What every step's screen gets. */
export interface StepProps {
  readonly site: SiteAnswer;
  readonly zones: readonly ZoneAnswer[];
  /** Newest first. */
  readonly results: readonly LabResultAnswer[];
  readonly zone: ZoneAnswer | undefined;
}
