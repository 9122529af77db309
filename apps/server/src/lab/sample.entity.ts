import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** What a laboratory measured, or an advisor: the soil of a bag for one of its zones, or of a label that was typed. */
@Entity('sample')
export class Sample extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'uuid' })
  zoneId: string;

  /** The bag it came in, where that was planned here; a bag of several zones is a sample of each. */
  @Column({ type: 'uuid', nullable: true })
  bagId: string | null;

  /** As written on the bag. */
  @Column({ type: 'text' })
  label: string;

  @Column({ type: 'date', nullable: true })
  sampledOn: string | null;

  /** cm */
  @Column({ type: 'double precision' })
  depth: number;
}
