import type { AccessInput, ContactInput, NormalsInput } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A property that is looked after. */
@Entity('site')
export class Site extends Owned {
  @Column({ type: 'text' })
  name: string;

  @Column({ type: 'text', nullable: true })
  place: string | null;

  /** [longitude, latitude] */
  @Column({ type: 'jsonb', nullable: true })
  position: number[] | null;

  /** That of the practice where there is none. */
  @Column({ type: 'text', nullable: true })
  timeZone: string | null;

  /** A class that stands in until there are normals. */
  @Column({ type: 'text', nullable: true })
  climate: string | null;

  @Column({ type: 'jsonb', nullable: true })
  normals: NormalsInput | null;

  @Column({ type: 'jsonb', nullable: true })
  contacts: ContactInput[] | null;

  @Column({ type: 'jsonb', nullable: true })
  access: AccessInput | null;
}
