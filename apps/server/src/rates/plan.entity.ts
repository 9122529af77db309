import type { ProductChoices, UnitSystem } from '@glenfold/agronomy';
import type { ZonePlanAnswer } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** The products chosen for a zone (one open plan), or a plan as it was handed over. */
@Entity('plan')
export class Plan extends Owned {
  @Column({ type: 'uuid' })
  zoneId: string;

  @Column({ type: 'jsonb', default: {} })
  choices: ProductChoices;

  /** Set when handed over; such a plan never changes again. */
  @Column({ type: 'timestamptz', nullable: true })
  issuedAt: Date | null;

  @Column({ type: 'uuid', nullable: true })
  labResultId: string | null;

  @Column({ type: 'jsonb', nullable: true })
  issued: IssuedPlan | null;
}

/** All that the paper shows, frozen. */
export interface IssuedPlan {
  readonly units: UnitSystem;
  readonly practiceName: string;
  readonly siteName: string;
  readonly zoneName: string;
  readonly zoneLabel: string;
  readonly area: number;
  readonly grass: string;
  /** Sign of the money; "$" on papers from before it could be chosen. */
  readonly currency?: string;
  readonly answer: ZonePlanAnswer;
}
