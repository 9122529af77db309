import type { BufferMethod, Extractant } from '@glenfold/agronomy';
import type { CalibratedDepthInput, PanelFeeInput } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A laboratory that the practice sends bags to, as the practice has written it down. */
@Entity('laboratory')
export class OwnLaboratory extends Owned {
  @Column({ type: 'text' })
  name: string;

  @Column({ type: 'text', nullable: true })
  address: string | null;

  @Column({ type: 'text', nullable: true })
  scientist: string | null;

  @Column({ type: 'text', nullable: true })
  phone: string | null;

  @Column({ type: 'text' })
  extractant: Extractant;

  @Column({ type: 'text', nullable: true })
  bufferMethod: BufferMethod | null;

  /** cm */
  @Column({ type: 'jsonb' })
  depths: CalibratedDepthInput[];

  /** mL */
  @Column({ type: 'double precision' })
  volume: number;

  @Column({ type: 'jsonb' })
  fees: PanelFeeInput[];

  @Column({ type: 'integer' })
  daysLeast: number;

  @Column({ type: 'integer' })
  daysMost: number;
}
