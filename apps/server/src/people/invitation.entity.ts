import type { Role } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A place in the practice, offered by a one-time link; deleted when revoked. */
@Entity('invitation')
export class Invitation extends Owned {
  @Column({ type: 'text' })
  email: string;

  @Column({ type: 'text' })
  role: Role;

  @Column({ type: 'jsonb', default: [] })
  siteIds: string[];

  @Column({ type: 'text' })
  invitedBy: string;

  /** SHA-256 of what stands in the link. */
  @Column({ type: 'text' })
  tokenHash: string;

  @Column({ type: 'timestamptz' })
  expiresAt: Date;

  @Column({ type: 'timestamptz', nullable: true })
  usedAt: Date | null;
}
