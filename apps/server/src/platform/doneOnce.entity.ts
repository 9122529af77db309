import { Column, CreateDateColumn, Entity, PrimaryColumn } from 'typeorm';

/** A request that came with a key, and how it was answered. */
@Entity('done_once')
export class DoneOnce {
  @PrimaryColumn({ type: 'uuid' })
  practiceId: string;

  @PrimaryColumn({ type: 'text' })
  key: string;

  /** SHA-256 of who asked for what. */
  @Column({ type: 'text' })
  asked: string;

  @Column({ type: 'integer' })
  status: number;

  @Column({ type: 'json', nullable: true })
  answer: unknown;

  @CreateDateColumn({ type: 'timestamptz' })
  createdAt: Date;
}
