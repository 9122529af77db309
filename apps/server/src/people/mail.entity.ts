import { Column, CreateDateColumn, Entity, PrimaryGeneratedColumn } from 'typeorm';

/** A message to a person, in the outbox. */
@Entity('mail')
export class Mail {
  @PrimaryGeneratedColumn('uuid')
  id: string;

  /** Whose owner may read it; nothing when it concerns a person of several practices. */
  @Column({ type: 'uuid', nullable: true })
  practiceId: string | null;

  @Column({ type: 'text' })
  to: string;

  @Column({ type: 'text' })
  subject: string;

  /** Removed once a mail server took it: it may hold a one-time link. */
  @Column({ type: 'text', nullable: true })
  text: string | null;

  @CreateDateColumn({ type: 'timestamptz' })
  createdAt: Date;

  @Column({ type: 'timestamptz', nullable: true })
  sentAt: Date | null;

  @Column({ type: 'text', nullable: true })
  failure: string | null;
}
