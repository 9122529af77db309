import { type Applied, type Entry, appliedOf } from '@glenfold/agronomy';
import type { AppliedAnswer, PastApplication } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Any } from 'typeorm';
import { Clock } from '../platform/clock.ts';
import { grouped } from '../platform/grouped.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { EntryRecord, entryOf } from './entry.entity.ts';

interface Sized {
  readonly id: string;
  readonly area: number;
}
/** A zone with its book. */
export interface Booked {
  readonly entries: readonly Entry[];
  /** As rates, readings and waiting times read it. */
  readonly applied: AppliedAnswer[];
}

/** The book of what was put down: the one place that rates, readings and waiting times learn it from. */
@Injectable()
export class EntriesService {
  constructor(
    private readonly records: Records,
    private readonly work: Work,
    private readonly clock: Clock,
  ) {}

  /** All entries of some zones, as they were written, the oldest first. */
  async ofZones(zoneIds: readonly string[]): Promise<EntryRecord[]> {
    if (zoneIds.length === 0) return [];
    return this.records.of(EntryRecord).find({ zoneId: Any([...zoneIds]) }, { recordedAt: 'ASC' });
  }

  /** Entries of some zones, by zone. */
  async byZone(zoneIds: readonly string[]): Promise<ReadonlyMap<string, readonly Entry[]>> {
    return grouped((await this.ofZones(zoneIds)).map(entryOf), ({ zoneId }) => zoneId);
  }

  /** The zones with what was put down on them. */
  async with<T extends Sized>(zones: readonly T[]): Promise<Array<T & Booked>> {
    const found = await this.byZone(zones.map(({ id }) => id));
    return zones.map((zone) => {
      const entries = found.get(zone.id) ?? [];
      return { ...zone, entries, applied: appliedOf(entries, zone.area).map(told) };
    });
  }

  /** Write down what is remembered of before: with a month or a year, and often without an amount. */
  async remember(
    of: RecordsOf,
    { id: zoneId, siteId }: { readonly id: string; readonly siteId: string },
    applications: readonly PastApplication[],
  ): Promise<void> {
    const writtenBy = this.work.worker.person?.name ?? null;
    const now = this.clock.now().getTime();
    await of(EntryRecord).addAll(
      applications.map(({ kind, on, words, rate = null, cce = null }, index) => ({
        ...{ zoneId, siteId, kind, on, words, rate, cce, writtenBy, state: 'done' as const },
        unit: rate === null ? null : ('g/m2' as const),
        recordedAt: new Date(now + index),
      })),
    );
  }
}

const told = ({ words = '', ...applied }: Applied): AppliedAnswer => ({ ...applied, words });
