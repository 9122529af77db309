import { type UnitSystem, backwardFrom, carriedOut, dayOn, lastDayOf, standing, waterWeek } from '@glenfold/agronomy';
import type { SeasonAnswer, SiteDateAnswer, SiteDateInput, WeekAnswer, ZoneWaterAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Any, In } from 'typeorm';
import { GroundService } from '../ground/ground.service.ts';
import { LabService } from '../lab/lab.service.ts';
import { Records } from '../platform/records.ts';
import { Threads } from '../platform/threads.ts';
import { Program } from '../rates/program.entity.ts';
import { Days } from '../settings/days.service.ts';
import { Site } from '../sites/site.entity.ts';
import { type SeasonBasis, SeasonBases, datedOf, placeOf, seasonZone, wateredZone } from './basis.service.ts';
import { Job } from './job.entity.ts';
import { JobsService, OPEN, openOrDone } from './jobs.service.ts';
import { SiteDate } from './siteDate.entity.ts';
import { type SiteSeason, siteSeason } from './siteSeason.ts';
import { weekOf } from './weeks.ts';

/** The season of a site: its jobs, windows, water and fixed dates, and the week across sites. */
@Injectable()
export class SeasonService {
  constructor(
    private readonly records: Records,
    private readonly jobs: JobsService,
    private readonly bases: SeasonBases,
    private readonly ground: GroundService,
    private readonly lab: LabService,
    private readonly days: Days,
    private readonly threads: Threads,
  ) {}

  async season(siteId: string, units: UnitSystem): Promise<SeasonAnswer> {
    const basis = await this.bases.of(siteId);
    const jobs = await this.jobs.of(siteId);
    const tests = await this.lab.resultsOf(siteId);
    const dates = await this.records.of(SiteDate).find({ siteId }, { day: 'ASC' });
    const handedOver = await this.records.of(Program).find({ siteId, state: 'handed over' });
    const { site, zones, today, climate } = basis;
    const zoneNames = new Map(zones.map(({ id, name }) => [id, name]));
    const standingJobs = jobs.filter(({ zoneId }) => zoneNames.has(zoneId));
    const season = await this.#worked(basis, standingJobs, dates, units);
    return {
      siteId,
      today,
      jobs: await this.jobs.told(standingJobs, units, new Map([[site.id, site.name]]), zoneNames, {
        ...{ today, breaks: season.breaks },
      }),
      zones: zones.map((zone, at) => ({
        ...{ zoneId: zone.id, zone: zone.name },
        done: carriedOut(standing(zone.entries))
          .filter(({ on }) => lastDayOf(on) >= dayOn(today, -365))
          .map(({ id, on, words, kind }) => ({ id, on, words, kind })),
        tested: [
          ...new Set(
            tests.flatMap(({ sample, zoneIds }) =>
              sample.sampledOn && zoneIds.includes(zone.id) ? [sample.sampledOn] : [],
            ),
          ),
        ],
        ...season.zones[at]!,
      })),
      weeks: season.weeks,
      climate: climate?.basis ?? null,
      dates: dates.map(({ id, name, kind, day }, at) => ({ id, name, kind, day, jobs: [...season.dates[at]!] })),
      handedOver: handedOver.length > 0,
      undated: standingJobs.filter(({ state, dated, day, hold }) => state === 'open' && hold === null && (!dated || (day === null && climate !== undefined))).length, // prettier-ignore
    };
  }

  /** What takes a while of a season, beside the other requests. */
  #worked(
    basis: SeasonBasis,
    jobs: readonly Job[],
    dates: readonly SiteDate[],
    units: UnitSystem,
  ): Promise<SiteSeason> {
    return this.threads.run(
      siteSeason,
      placeOf(basis, units),
      basis.zones.map((zone) => seasonZone(zone, basis)),
      jobs.map((job) => ({
        ...{ ...datedOf(job, basis), day: job.day, latest: job.latest, done: job.state === 'done' },
        ...{ open: (OPEN as readonly string[]).includes(job.state), untouched: job.state === 'open' },
        counts: openOrDone(job),
      })),
      dates.map(({ day, kind }) => ({ day, kind })),
    );
  }

  /** The week of a day, across sites; what is late stands with it. */
  async week(day: string | undefined, units: UnitSystem): Promise<WeekAnswer> {
    const today = await this.days.on(null);
    const { from, to } = weekOf(day ?? today);
    const found = await this.records.ask<{ id: string; late: boolean }>(
      `SELECT j."id", coalesce(j."day", j."latest", j."to") < $4::date AND coalesce(j."day", j."latest", j."to") < $2::date AS "late"
       FROM job j JOIN site s ON s."id" = j."siteId" JOIN zone z ON z."id" = j."zoneId"
       WHERE j."practiceId" = $1 AND j."deletedAt" IS NULL AND s."deletedAt" IS NULL AND z."deletedAt" IS NULL
         AND j."state" IN ('open', 'partly done')
         AND (j."day" BETWEEN $2 AND $3 OR (j."day" IS NULL AND j."earliest" <= $3 AND j."latest" >= $2)
           OR (j."hold" IS NULL AND coalesce(j."day", j."latest", j."to") < $4::date))
       ORDER BY j."day" NULLS LAST, s."name", z."position", j."createdAt" LIMIT 300`,
      [from, to, today],
    );
    const jobs = await this.records.of(Job).find({ id: Any(found.map(({ id }) => id)) });
    const told = await this.#across(jobs, units);
    const inOrder = (late: boolean) =>
      found.flatMap(({ id, late: is }) => (is === late ? told.filter((job) => job.id === id) : []));
    return { from, to, jobs: inOrder(false), late: inOrder(true) };
  }

  /** A zone’s water in the week of a day; in this one where none is named. */
  async water(zoneId: string, day: string | undefined, units: UnitSystem): Promise<ZoneWaterAnswer> {
    const { siteId } = await this.ground.zone(zoneId);
    const basis = await this.bases.of(siteId, []);
    const zone = basis.zones.find(({ id }) => id === zoneId)!;
    const year = basis.yearOf(zone);
    return { week: (year && waterWeek(year, weekOf(day ?? basis.today).from, wateredZone(zone), units)) ?? null };
  }

  async addDate(siteId: string, { name, kind, day }: SiteDateInput): Promise<SiteDateAnswer> {
    const basis = await this.bases.of(siteId);
    return this.#date(await this.records.of(SiteDate).add({ siteId, name, kind, day }), basis);
  }

  removeDate(id: string): Promise<void> {
    return this.records.of(SiteDate).remove(id);
  }

  async restoreDate(id: string): Promise<SiteDateAnswer> {
    const date = await this.records.of(SiteDate).restore(id);
    return this.#date(date, await this.bases.of(date.siteId));
  }

  async #across(jobs: readonly Job[], units: UnitSystem) {
    const sites = await this.records.of(Site).findEver({ id: In([...new Set(jobs.map(({ siteId }) => siteId))]) });
    const zones = await this.ground.zonesEver([...new Set(jobs.map(({ zoneId }) => zoneId))]);
    const names = (list: ReadonlyArray<{ id: string; name: string }>) =>
      new Map(list.map(({ id, name }) => [id, name]));
    return this.jobs.told(jobs, units, names(sites), names(zones));
  }

  async #date({ id, siteId, name, kind, day }: SiteDate, basis: SeasonBasis): Promise<SiteDateAnswer> {
    const open = (await this.jobs.of(siteId)).filter(({ state }) => (OPEN as readonly string[]).includes(state));
    const dated = open.map((job) => ({ ...datedOf(job, basis), day: job.day, latest: job.latest }));
    return { id, name, kind, day, jobs: backwardFrom(day, kind, dated) };
  }
}
