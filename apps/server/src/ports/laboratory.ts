import type { LaboratoryAnswer } from '@glenfold/contract';

/** A bag as it is handed to a laboratory with its form. */
export interface SubmittedSample {
  readonly bagId: string;
  /** As it stands on the bag. */
  readonly code: string;
  readonly siteId: string;
  readonly siteName: string;
  readonly sentAt: Date;
  readonly sampledOn: string | null;
  /** cm */
  readonly depth: number;
  readonly panels: readonly string[];
}

/** What a laboratory lets its clients know. */
export type LaboratoryNews =
  | { readonly kind: 'arrived'; readonly bagId: string; readonly labNumber: string; readonly at: Date }
  | {
      readonly kind: 'report';
      readonly siteId: string;
      readonly bagIds: readonly string[];
      readonly at: Date;
      readonly file: { readonly fileName: string; readonly content: string };
      /** It takes the place of one that came before. */
      readonly amends: boolean;
    };

/** A laboratory outside: takes samples with their forms, and lets know when they arrived and what it found. */
export abstract class Laboratory {
  abstract readonly profile: LaboratoryAnswer;
  /** Take samples; one that was taken before is left as it is. Bags of one call travel in one parcel. */
  abstract submit(samples: readonly SubmittedSample[]): Promise<void>;
  /** What is new since it was last asked, oldest first; each is told once. */
  abstract news(): Promise<LaboratoryNews[]>;
}

/** The laboratories that the practice at work can send to. */
export abstract class Laboratories {
  abstract all(): Promise<readonly Laboratory[]>;
}
