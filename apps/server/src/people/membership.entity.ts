import type { Role } from '@glenfold/contract';
import { Column, Entity, JoinColumn, ManyToOne, type Relation } from 'typeorm';
import { Owned } from '../platform/owned.ts';
import { Person } from './person.entity.ts';

/** What a person is to a practice. */
@Entity('membership')
export class Membership extends Owned {
  @Column({ type: 'uuid' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn({ name: 'personId' })
  person: Relation<Person>;

  @Column({ type: 'text' })
  role: Role;

  /** Sites whose reports a client reads. */
  @Column({ type: 'jsonb', default: [] })
  siteIds: string[];

  /** Jobs that somebody had when they were removed, and who has them since: they come back when they do. */
  @Column({ type: 'jsonb', nullable: true })
  handedOn: { readonly jobIds: readonly string[]; readonly to: string | null } | null;

  /** When an owner last had a link sent to choose a password. */
  @Column({ type: 'timestamptz', nullable: true })
  resetAskedAt: Date | null;
}
