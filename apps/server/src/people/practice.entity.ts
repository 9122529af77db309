import type { BeginningKey } from '@glenfold/contract';
import { Column, CreateDateColumn, Entity, PrimaryGeneratedColumn, VersionColumn } from 'typeorm';

/** The business that owns everything. */
@Entity('practice')
export class Practice {
  @PrimaryGeneratedColumn('uuid')
  id: string;

  @Column({ type: 'text' })
  name: string;

  /** Filled with the made-up scenario. */
  @Column({ type: 'boolean', default: false })
  demo: boolean;

  /** Of its days, where a site has none of its own. */
  @Column({ type: 'text', default: 'UTC' })
  timeZone: string;

  /** Sign of the money that it reckons in. */
  @Column({ type: 'text', default: '$' })
  currency: string;

  /** By which its clients reach it. */
  @Column({ type: 'text', nullable: true })
  phone: string | null;

  @Column({ type: 'text', nullable: true })
  email: string | null;

  /** Clients may make links to their own reports; such a link ends with their access. */
  @Column({ type: 'boolean', default: false })
  clientsShare: boolean;

  /** Of what a practice begins with, what can wait. */
  @Column({ type: 'jsonb', default: [] })
  later: readonly BeginningKey[];

  @CreateDateColumn({ type: 'timestamptz' })
  createdAt: Date;

  @VersionColumn({ default: 1 })
  version: number;
}
