import { Column, CreateDateColumn, Entity, PrimaryGeneratedColumn } from 'typeorm';

/** A browser that is signed in. */
@Entity('session')
export class Session {
  @PrimaryGeneratedColumn('uuid')
  id: string;

  /** SHA-256 of the cookie. */
  @Column({ type: 'text' })
  tokenHash: string;

  @Column({ type: 'uuid' })
  personId: string;

  /** The practice that is open in it. */
  @Column({ type: 'uuid', nullable: true })
  practiceId: string | null;

  @CreateDateColumn({ type: 'timestamptz' })
  createdAt: Date;

  @Column({ type: 'timestamptz', default: () => 'now()' })
  seenAt: Date;
}
