import { Column, CreateDateColumn, DeleteDateColumn, PrimaryGeneratedColumn } from 'typeorm';

/** Every record belongs to a practice; nothing is read or written without naming it. */
export abstract class Owned {
  @PrimaryGeneratedColumn('uuid')
  id: string;

  @Column({ type: 'uuid' })
  practiceId: string;

  @CreateDateColumn({ type: 'timestamptz' })
  createdAt: Date;

  /** Set when deleted; deleting can be undone. */
  @DeleteDateColumn({ type: 'timestamptz' })
  deletedAt: Date | null;
}
