import { Column, CreateDateColumn, DeleteDateColumn, PrimaryGeneratedColumn, VersionColumn } from 'typeorm';

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

  /** Counts the saves; a save that names an older one is refused. */
  @VersionColumn({ default: 1 })
  version: number;
}

/** What a record is made of, without what every record has. */
export type Values<T extends Owned> = Omit<T, keyof Owned>;
