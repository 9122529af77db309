import {
  type FormerPlan,
  type Reading,
  type RetestDue,
  type UnitSystem,
  type ZoneProgram,
  programOfPlan,
} from '@glenfold/agronomy';
import type { LabResultAnswer } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A zone of a program as its owner saw it; it never changes again. */
@Entity('program_zone')
export class ProgramZone extends Owned {
  @Column({ type: 'uuid' })
  programId: string;

  @Column({ type: 'uuid' })
  zoneId: string;

  @Column({ type: 'uuid', nullable: true })
  labResultId: string | null;

  @Column({ type: 'timestamptz' })
  issuedAt: Date;

  @Column({ type: 'jsonb' })
  issued: IssuedZone;

  /** What was decided by hand of it then, a sum of each treatment’s; nothing on papers of before. */
  @Column({ type: 'jsonb', nullable: true })
  decided: Readonly<Record<string, string>> | null;
}

/** What a paper of a zone says beside its program. */
interface Paper {
  readonly units: UnitSystem;
  readonly practiceName: string;
  readonly siteName: string;
  readonly zoneName: string;
  readonly zoneLabel: string;
  readonly area: number;
  readonly grass: string;
  /** Sign of the money; "$" on papers from before it could be chosen. */
  readonly currency?: string;
}

interface Answered {
  /** Nothing on ground without a test. */
  readonly result: LabResultAnswer | null;
  /** Whose soil that test is of, where it is not the zone's alone; not told on papers from before it was. */
  readonly borrowed?: string | null;
  readonly reading: Reading;
  /** Papers from before there were roles carry no mark: they show their costs. */
  readonly priced?: boolean;
  /** When it is tested again; not told on papers from before it was. */
  readonly retest?: RetestDue | null;
}

/** A zone’s program on paper. */
export interface ZonePaper extends Paper {
  readonly answer: Answered & { readonly program: ZoneProgram };
  /** Its share of what is bought for the whole site; nothing while a price is missing, on papers of before, and for those who see none. */
  readonly share?: number | null;
}

/** All that the paper shows, frozen; before there were programs it was a plan. */
export type IssuedZone = ZonePaper | (Paper & { readonly answer: Answered & { readonly plan: FormerPlan } });

/** The paper on the pattern of today; what it says stays. */
export function paperOf(issued: IssuedZone): ZonePaper {
  const { answer, ...paper } = issued;
  if ('program' in answer) return { ...paper, answer };
  const { plan, ...rest } = answer;
  return { ...paper, answer: { ...rest, program: programOfPlan(plan, paper.units) } };
}
