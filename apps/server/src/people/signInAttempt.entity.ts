import { Column, CreateDateColumn, Entity, PrimaryGeneratedColumn } from 'typeorm';

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
