import type { DateKind } from '@glenfold/agronomy';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

const named: ReadonlyArray<readonly [name: RegExp, kind: DateKind]> = [
  [/(?:end|last).*(?:rain|water)/i, 'rains end'],
  [/rain|monsoon|storm/i, 'rains begin'],
  [/sale|visit|viewing|inspect/i, 'visit'],
];

/** What kind a date of before there were kinds is, by its name; a match, as all were reckoned, where that does not tell. */
export const kindOfDateNamed = (name: string): DateKind => named.find(([words]) => words.test(name))?.[1] ?? 'match';

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
