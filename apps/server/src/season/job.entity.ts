import type { MixedIn, RemedyName, Sense } from '@glenfold/agronomy';
import type { DayPart, JobState } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A decision to wait, with its reason. */
export interface Hold {
  readonly reason: string;
  readonly words: string | null;
  /** `2027-04-12` */
  readonly since: string;
  readonly by: string | null;
}

/** How much a job was to be before another program was handed over, as its own columns have it. */
export type FormerAmount = Pick<Job, 'rate' | 'sense' | 'quantity' | 'unit' | 'mixed' | 'productId'>;

/** A dose of a program on its day, with who does it. */
@Entity('job')
export class Job extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'uuid' })
  zoneId: string;

  @Column({ type: 'uuid', nullable: true })
  programId: string | null;

  @Column({ type: 'uuid', nullable: true })
  doseId: string | null;

  @Column({ type: 'text' })
  key: string;

  @Column({ type: 'text' })
  remedy: RemedyName;

  @Column({ type: 'text' })
  name: string;

  /** What one dose is called. */
  @Column({ type: 'text' })
  dose: string;

  @Column({ type: 'integer' })
  position: number;

  @Column({ type: 'uuid', nullable: true })
  productId: string | null;

  /** In the unit of the sense. */
  @Column({ type: 'double precision', nullable: true })
  rate: number | null;

  @Column({ type: 'text' })
  sense: Sense;

  @Column({ type: 'double precision', nullable: true })
  quantity: number | null;

  @Column({ type: 'text', nullable: true })
  unit: 'kg' | 'L' | 'm3' | null;

  /** What goes into the same mix. */
  @Column({ type: 'jsonb', default: [] })
  mixed: readonly MixedIn[];

  @Column({ type: 'jsonb', default: [] })
  cautions: readonly string[];

  /** Days that the program gives it. */
  @Column({ type: 'date', nullable: true })
  from: string | null;

  @Column({ type: 'date', nullable: true })
  to: string | null;

  @Column({ type: 'boolean', default: false })
  own: boolean;

  /** Whether days were looked for since it came. */
  @Column({ type: 'boolean', default: false })
  dated: boolean;

  @Column({ type: 'date', nullable: true })
  earliest: string | null;

  @Column({ type: 'date', nullable: true })
  latest: string | null;

  @Column({ type: 'date', nullable: true })
  day: string | null;

  /** Of its day, as its client is told it. */
  @Column({ type: 'text', nullable: true })
  part: DayPart | null;

  /** Day of which its clients were told by mail that somebody comes. */
  @Column({ type: 'date', nullable: true })
  told: string | null;

  @Column({ type: 'jsonb', default: [] })
  words: readonly string[];

  /** Set by hand: it keeps its day when days are looked for anew. */
  @Column({ type: 'boolean', default: false })
  moved: boolean;

  @Column({ type: 'text', nullable: true })
  movedBecause: string | null;

  @Column({ type: 'jsonb', nullable: true })
  hold: Hold | null;

  @Column({ type: 'uuid', nullable: true })
  personId: string | null;

  @Column({ type: 'uuid', nullable: true })
  machineId: string | null;

  /** The job of a program before whose place it took, with all that people had decided of it. */
  @Column({ type: 'uuid', nullable: true })
  replacesId: string | null;

  /** What that one was to be, where it was another amount. */
  @Column({ type: 'jsonb', nullable: true })
  was: FormerAmount | null;

  @Column({ type: 'text', default: 'open' })
  state: JobState;
}
