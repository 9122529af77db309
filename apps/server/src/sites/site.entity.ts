import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A property that is looked after. */
@Entity('site')
export class Site extends Owned {
  @Column({ type: 'text' })
  name: string;

  @Column({ type: 'text', nullable: true })
  place: string | null;
}
