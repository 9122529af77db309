import { dayIn } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { In } from 'typeorm';
import { PracticeService } from '../people/practice.service.ts';
import { Clock } from '../platform/clock.ts';
import { Records } from '../platform/records.ts';
import { Site } from '../sites/site.entity.ts';

/** Which day it is on a site: what is done on the ground has the day of its place. */
@Injectable()
export class Days {
  constructor(
    private readonly records: Records,
    private readonly practices: PracticeService,
    private readonly clock: Clock,
  ) {}

  /** @param siteId nothing for the practice's own day. @returns `2026-10-14` */
  async on(siteId: string | null, at: Date = this.clock.now()): Promise<string> {
    return (await this.at(siteId))(at);
  }

  /** On which day moments are there. */
  async at(siteId: string | null): Promise<(at: Date) => string> {
    const [site] = siteId ? await this.records.of(Site).findEver({ id: siteId }) : [];
    const zone = site?.timeZone ?? (await this.practices.current()).timeZone;
    return (at) => dayIn(at, zone);
  }

  /** The day of each of some sites. */
  async across(siteIds: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const sites = await this.records.of(Site).findEver({ id: In([...new Set(siteIds)]) });
    const { timeZone } = await this.practices.current();
    return new Map(sites.map(({ id, timeZone: own }) => [id, dayIn(this.clock.now(), own ?? timeZone)]));
  }
}
