import { withReadableDays } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { SiteMail } from '../people/siteMail.service.ts';
import { Clock } from '../platform/clock.ts';
import { grouped } from '../platform/grouped.ts';
import { Records } from '../platform/records.ts';
import { EachPractice } from '../runs/eachPractice.ts';
import { Job } from './job.entity.ts';

/** From this hour on, where the site lies, its clients are told of the day that follows. */
const TOLD_FROM = 12;

interface Coming {
  readonly siteId: string;
  readonly siteName: string;
  readonly id: string;
  readonly name: string;
  readonly zone: string;
  readonly part: string | null;
  readonly day: string;
}

const COMING = `
  SELECT j."siteId", s."name" AS "siteName", j."id", j."name", z."name" AS "zone", j."part", j."day"::text AS "day"
  FROM job j JOIN site s ON s."id" = j."siteId" AND s."deletedAt" IS NULL
    JOIN zone z ON z."id" = j."zoneId" AND z."deletedAt" IS NULL
    JOIN practice p ON p."id" = j."practiceId"
    CROSS JOIN LATERAL (SELECT $2::timestamptz AT TIME ZONE coalesce(s."timeZone", p."timeZone") AS "at") l
  WHERE j."practiceId" = $1 AND j."state" IN ('open', 'partly done') AND j."hold" IS NULL AND j."deletedAt" IS NULL
    AND j."day" = l."at"::date + 1 AND extract(hour FROM l."at") >= $3 AND j."told" IS DISTINCT FROM j."day"
  ORDER BY j."siteId", j."createdAt"`;

/** Tells the clients of a site on the afternoon before that somebody comes: once for each day that a job is given. */
@Injectable()
export class VisitNews {
  constructor(
    private readonly records: Records,
    private readonly clock: Clock,
    private readonly mail: SiteMail,
    private readonly practices: EachPractice,
  ) {
    practices.eachMinute(VisitNews.name, () => this.#tell());
  }

  /** At once, in every practice. */
  tell(): Promise<void> {
    return this.practices.now(VisitNews.name, () => this.#tell());
  }

  async #tell(): Promise<void> {
    const coming = await this.records.ask<Coming>(COMING, [this.clock.now(), TOLD_FROM]);
    for (const jobs of grouped(coming, ({ siteId }) => siteId).values()) {
      const { siteId, siteName, day } = jobs[0]!;
      const lines = jobs.map(({ name, zone, part }) => `${name}, ${zone}${part ? `, in the ${part}` : ''}`);
      for (const { id } of jobs) await this.records.of(Job).change(id, { told: day });
      const words = `Tomorrow, ${withReadableDays(day)}, we come to ${siteName}: ${[...new Set(lines)].join('; ')}.`;
      await this.mail.tell({ to: 'clients', siteId, subject: `Tomorrow at ${siteName}`, words });
    }
  }
}
