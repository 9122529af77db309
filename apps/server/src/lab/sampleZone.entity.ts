import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A zone that a sample speaks for. */
@Entity('sample_zone')
export class SampleZone extends Owned {
  @Column({ type: 'uuid' })
  sampleId: string;

  @Column({ type: 'uuid' })
  zoneId: string;

  /** Of the soil in the bag, 0 to 1; nothing where nobody counted. */
  @Column({ type: 'double precision', nullable: true })
  share: number | null;
}
