import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A touch on the walk as the device sent it. Its id was made there, so that it counts once however often it comes. */
@Entity('core_tap')
export class CoreTap extends Owned {
  @Column({ type: 'uuid' })
  coreId: string;

  /** As it came. */
  @Column({ type: 'jsonb' })
  tap: object;

  /** By the server's clock. */
  @Column({ type: 'timestamptz' })
  at: Date;

  @Column({ type: 'text' })
  by: string;

  @Column({ type: 'text' })
  outcome: string;
}
