import { Column, Entity } from 'typeorm';
import { Owned } from '../../platform/owned.ts';
import type { PrintedSample } from './reportFiles.ts';
import type { Soil } from './hiddenSoil.ts';

/** What a simulated laboratory does to a report, so that readers of reports are on their guard. */
export const reportFaults = ['missing analyte', 'mislabelled', 'duplicate', 'amended'] as const;
export type ReportFault = (typeof reportFaults)[number];

/** A sample in a simulated laboratory, with the calendar of what happens to it. */
@Entity('standin_sample')
export class StandInSample extends Owned {
  @Column({ type: 'uuid' })
  bagId: string;

  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'text' })
  siteName: string;

  @Column({ type: 'text' })
  laboratory: string;

  /** The report that it stands in. */
  @Column({ type: 'text' })
  report: string;

  /** What is printed of it. */
  @Column({ type: 'jsonb' })
  printed: PrintedSample;

  /** Printed first, where the report is amended later. */
  @Column({ type: 'jsonb', nullable: true })
  printedFirst: PrintedSample | null;

  /** A second run of it, printed as well. */
  @Column({ type: 'jsonb', nullable: true })
  printedTwice: PrintedSample | null;

  @Column({ type: 'text', nullable: true })
  fault: ReportFault | null;

  /** Of the whole zone, and of what came in the bag. */
  @Column({ type: 'jsonb' })
  soils: { readonly zone: Soil; readonly bag: Soil; readonly cores: number };

  @Column({ type: 'timestamptz' })
  arrivesAt: Date;

  @Column({ type: 'timestamptz' })
  reportsAt: Date;

  @Column({ type: 'timestamptz', nullable: true })
  amendsAt: Date | null;

  /** How much of its news was told: 0 none, 1 arrived, 2 reported, 3 amended. */
  @Column({ type: 'integer' })
  told: number;
}
