import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A secret address of somebody’s jobs, for a calendar; deleted when revoked. */
@Entity('calendar_link')
export class CalendarLink extends Owned {
  @Column({ type: 'uuid' })
  personId: string;

  /** SHA-256 of what stands in the address. */
  @Column({ type: 'text' })
  tokenHash: string;
}
