import { Column, CreateDateColumn, Entity, PrimaryGeneratedColumn } from 'typeorm';

/** Somebody who may sign in; belongs to practices through memberships. */
@Entity('person')
export class Person {
  @PrimaryGeneratedColumn('uuid')
  id: string;

  /** In lower case; unique. */
  @Column({ type: 'text' })
  email: string;

  @Column({ type: 'text' })
  name: string;

  /** Argon2id; nothing until a password is set. */
  @Column({ type: 'text', nullable: true, select: false })
  passwordHash: string | null;

  /** Kept by the database: the practices may know this much. */
  @Column({ type: 'boolean', nullable: true, insert: false, update: false })
  hasPassword: boolean;

  /** The units that they read and type in; nothing until they chose. */
  @Column({ type: 'text', nullable: true })
  units: 'us' | 'metric' | null;

  @CreateDateColumn({ type: 'timestamptz' })
  createdAt: Date;
}
