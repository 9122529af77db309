import type { MachineKind, MachineSetting } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A machine of the practice, or one that it hires. */
@Entity('machine')
export class Machine extends Owned {
  @Column({ type: 'text' })
  name: string;

  @Column({ type: 'text' })
  kind: MachineKind;

  /** m */
  @Column({ type: 'double precision', nullable: true })
  width: number | null;

  /** kg in a hopper, L in a tank */
  @Column({ type: 'double precision', nullable: true })
  holds: number | null;

  /** kg, loaded */
  @Column({ type: 'double precision', nullable: true })
  weight: number | null;

  @Column({ type: 'boolean', default: false })
  hired: boolean;

  @Column({ type: 'double precision', nullable: true })
  hireDay: number | null;

  @Column({ type: 'text', nullable: true })
  hiredFrom: string | null;

  @Column({ type: 'jsonb', default: [] })
  settings: MachineSetting[];

  @Column({ type: 'text', nullable: true })
  note: string | null;
}
