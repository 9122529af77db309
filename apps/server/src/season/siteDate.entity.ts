import type { DateKind } from '@glenfold/agronomy';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A date that work on a site has to be ready for. */
@Entity('site_date')
export class SiteDate extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'text' })
  name: string;

  @Column({ type: 'text', default: 'match' })
  kind: DateKind;

  @Column({ type: 'date' })
  day: string;
}
