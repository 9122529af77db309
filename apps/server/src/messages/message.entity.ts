import type { MessageSide } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** Words about a site, between its client, the office and the field. */
@Entity('message')
export class Message extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'uuid', nullable: true })
  personId: string | null;

  @Column({ type: 'text' })
  author: string;

  @Column({ type: 'text' })
  side: MessageSide;

  @Column({ type: 'text' })
  words: string;

  @Column({ type: 'timestamptz' })
  at: Date;

  /** When the office had done with it: answered, or read. */
  @Column({ type: 'timestamptz', nullable: true })
  doneAt: Date | null;
}
