import type { RunState } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** Long work, from being asked for to its end, as the practice sees it; the queue itself is pg-boss's. */
@Entity('run')
export class Run extends Owned {
  /** Which {@link RunKind} does it. */
  @Column({ type: 'text' })
  kind: string;

  @Column({ type: 'text' })
  title: string;

  @Column({ type: 'text' })
  state: RunState;

  @Column({ type: 'int' })
  done: number;

  /** Nothing until it is known. */
  @Column({ type: 'int', nullable: true })
  total: number | null;

  /** What came of it, or what went wrong. */
  @Column({ type: 'text', nullable: true })
  words: string | null;

  @Column({ type: 'boolean' })
  stopAsked: boolean;

  /** Nothing where Glenfold began it by itself. */
  @Column({ type: 'text', nullable: true })
  askedBy: string | null;

  @Column({ type: 'int' })
  tries: number;

  @Column({ type: 'timestamptz', nullable: true })
  endedAt: Date | null;
}
