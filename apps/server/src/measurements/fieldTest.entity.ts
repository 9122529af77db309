import type { FieldTestKind } from '@glenfold/agronomy';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A test done with one's own hands, as it was read; what it comes to are measurements of the zone. */
@Entity('field_test')
export class FieldTestRecord extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'uuid' })
  zoneId: string;

  @Column({ type: 'text' })
  kind: FieldTestKind;

  @Column({ type: 'date' })
  on: string;

  /** By the fields of its kind. */
  @Column({ type: 'jsonb' })
  record: object;

  @Column({ type: 'boolean', default: false })
  closed: boolean;

  /** Of the device: what is older changes nothing. */
  @Column({ type: 'integer' })
  revision: number;

  @Column({ type: 'text', nullable: true })
  doneBy: string | null;

  /** [longitude, latitude] */
  @Column({ type: 'jsonb', nullable: true })
  place: number[] | null;
}
