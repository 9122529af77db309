import type { OwnerReport, UnitSystem } from '@glenfold/agronomy';
import type { OwnerReportState } from '@glenfold/contract';
import { Column, Entity } from 'typeorm';
import type { Digest } from '../ports/fileStore.ts';
import { Owned } from '../platform/owned.ts';

/** A photo on an owner’s page. */
export interface OwnerPhoto {
  readonly zoneId: string;
  readonly caption: string | null;
  readonly takenOn: string | null;
  /** The small picture, in the store of files. */
  readonly thumb: Digest;
}

/** All that a report shows, as it was when it was made. */
export interface MadeReport {
  readonly report: OwnerReport;
  readonly siteName: string;
  readonly place: string | null;
  readonly practiceName: string;
  /** Outlines of the zones in their order, for the cover. */
  readonly outlines: ReadonlyArray<{
    readonly zoneId: string;
    readonly name: string;
    readonly geometry: object | null;
  }>;
  readonly photos: readonly OwnerPhoto[];
}

/** A report for the owner of a site: asked for, a draft, handed over, or in the place of which another was handed over. */
@Entity('owner_report')
export class OwnerReportRecord extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  @Column({ type: 'text' })
  state: OwnerReportState;

  @Column({ type: 'text' })
  units: UnitSystem;

  /** The covering letter where somebody has changed it; the suggested one where not. */
  @Column({ type: 'text', nullable: true })
  letter: string | null;

  /** Nothing until it is made. */
  @Column({ type: 'jsonb', nullable: true })
  made: MadeReport | null;

  /** Of the day at its place. */
  @Column({ type: 'date', nullable: true })
  madeOn: string | null;

  @Column({ type: 'timestamptz', nullable: true })
  handedOverAt: Date | null;
}
