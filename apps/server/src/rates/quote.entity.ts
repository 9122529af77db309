import type { RemedyName, UnitSystem } from '@glenfold/agronomy';
import type { QuoteWord } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** A site’s program as it is offered to its owner. */
@Entity('quote')
export class Quote extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  /** One of a site stands at a time. */
  @Column({ type: 'text' })
  state: 'open' | 'answered' | 'taken over' | 'withdrawn';

  @Column({ type: 'timestamptz' })
  offeredAt: Date;

  /** Last day on which it stands. */
  @Column({ type: 'date' })
  validUntil: string;

  @Column({ type: 'text', nullable: true })
  note: string | null;

  @Column({ type: 'text' })
  units: UnitSystem;

  @Column({ type: 'text' })
  currency: string;

  /** What drives there come to; nothing where none is charged. */
  @Column({ type: 'double precision', nullable: true })
  visits: number | null;

  @Column({ type: 'timestamptz', nullable: true })
  answeredAt: Date | null;

  @Column({ type: 'text', nullable: true })
  answeredBy: string | null;

  @Column({ type: 'text', nullable: true })
  answerWords: string | null;
}

/** One treatment of one zone in a quote, as its owner read it. */
@Entity('quote_line')
export class QuoteLine extends Owned {
  @Column({ type: 'uuid' })
  quoteId: string;

  @Column({ type: 'uuid' })
  zoneId: string;

  @Column({ type: 'integer' })
  position: number;

  /** Of the treatment. */
  @Column({ type: 'text' })
  key: string;

  @Column({ type: 'text' })
  remedy: RemedyName;

  @Column({ type: 'text' })
  zone: string;

  @Column({ type: 'text' })
  name: string;

  @Column({ type: 'text' })
  words: string;

  @Column({ type: 'text' })
  amount: string;

  /** "April and September 2027". */
  @Column({ type: 'text' })
  doneIn: string;

  @Column({ type: 'text', nullable: true })
  caution: string | null;

  /** Nothing while something of it had no price. */
  @Column({ type: 'double precision', nullable: true })
  price: number | null;

  @Column({ type: 'text', nullable: true })
  answer: QuoteWord | null;

  /** What it may cost at most, where it was agreed to without a price. */
  @Column({ type: 'double precision', nullable: true })
  ceiling: number | null;
}
