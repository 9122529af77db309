import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** What a laboratory's soil scientist was asked about a zone, and what came back. */
@Entity('lab_question')
export class LabQuestion extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'uuid' })
  zoneId: string;

  /** The result that it is about. */
  @Column({ type: 'uuid', nullable: true })
  resultId: string | null;

  @Column({ type: 'text', nullable: true })
  laboratory: string | null;

  @Column({ type: 'text', nullable: true })
  askedOf: string | null;

  @Column({ type: 'date' })
  askedOn: string;

  @Column({ type: 'text', nullable: true })
  askedBy: string | null;

  @Column({ type: 'text' })
  question: string;

  @Column({ type: 'text', nullable: true })
  answer: string | null;

  @Column({ type: 'text', nullable: true })
  answeredBy: string | null;

  @Column({ type: 'date', nullable: true })
  answeredOn: string | null;
}
