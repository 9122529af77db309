import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** One composite of cores: a bag. */
@Entity('sample')
export class Sample extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'uuid' })
  zoneId: string;

  /** As written on the bag. */
  @Column({ type: 'text' })
  label: string;

  @Column({ type: 'date', nullable: true })
  sampledOn: string | null;

  /** cm */
  @Column({ type: 'double precision' })
  depth: number;
}
