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

  @CreateDateColumn({ type: 'timestamptz' })
  createdAt: Date;
}

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

/** A one-time link to choose a new password. */
@Entity('password_reset')
export class PasswordReset {
  @PrimaryGeneratedColumn('uuid')
  id: string;

  @Column({ type: 'text' })
  tokenHash: string;

  @Column({ type: 'uuid' })
  personId: string;

  @Column({ type: 'timestamptz' })
  expiresAt: Date;

  @Column({ type: 'timestamptz', nullable: true })
  usedAt: Date | null;

  @CreateDateColumn({ type: 'timestamptz' })
  createdAt: Date;
}

/** A try to get in, counted whether or not the address is known. */
@Entity('sign_in_attempt')
export class SignInAttempt {
  @PrimaryGeneratedColumn('uuid')
  id: string;

  @Column({ type: 'text' })
  kind: 'sign in' | 'reset';

  @Column({ type: 'text' })
  email: string;

  /** Network address it came from. */
  @Column({ type: 'text' })
  origin: string;

  @CreateDateColumn({ type: 'timestamptz' })
  createdAt: Date;
}
