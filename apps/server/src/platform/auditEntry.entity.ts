import { Column, Entity, PrimaryColumn } from 'typeorm';

/** Who changed what, from what to what. Written by the database itself, in the transaction of the change. */
@Entity('audit')
export class AuditEntry {
  @PrimaryColumn({ type: 'uuid', default: () => 'gen_random_uuid()' })
  id: string;

  @Column({ type: 'uuid' })
  practiceId: string;

  /** Order within the practice. */
  @Column({ type: 'bigint', insert: false, update: false })
  number: string;

  @Column({ type: 'timestamptz', default: () => 'clock_timestamp()' })
  at: Date;

  @Column({ type: 'uuid', nullable: true })
  personId: string | null;

  @Column({ type: 'text' })
  personName: string;

  @Column({ type: 'text' })
  action: 'add' | 'change' | 'delete' | 'restore' | 'erase';

  /** The table. */
  @Column({ type: 'text' })
  kind: string;

  @Column({ type: 'uuid' })
  recordId: string;

  @Column({ type: 'text' })
  recordName: string;

  @Column({ type: 'jsonb', nullable: true })
  before: Record<string, unknown> | null;

  @Column({ type: 'jsonb', nullable: true })
  after: Record<string, unknown> | null;
}
