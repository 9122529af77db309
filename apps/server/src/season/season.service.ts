import {
  type SeedWater,
  type UnitSystem,
  type WateredZone,
  type WaterWeek,
  backwardFrom,
  carriedOut,
  cardOf,
  findGrass,
  firstCutWords,
  lastDayOf,
  mowingAdvice,
  normalDay,
  dayOn,
  seedWater,
  standing,
  thirstiestWeek,
  waterWeek,
  windowsAhead,
} from '@glenfold/agronomy';
import type {
  SeasonAnswer,
  SeasonZoneAnswer,
  SiteDateAnswer,
  SiteDateInput,
  WeekAnswer,
  ZoneWaterAnswer,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Any, In } from 'typeorm';
import { GroundService, type MeasuredZone } from '../ground/ground.service.ts';
import { LabService } from '../lab/lab.service.ts';
import { grouped } from '../platform/grouped.ts';
import { Records } from '../platform/records.ts';
import { Program } from '../rates/program.entity.ts';
import { Days } from '../settings/days.service.ts';
import { Site } from '../sites/site.entity.ts';
import { type SeasonBasis, SeasonBases, doseOf, seasonOfZone } from './basis.service.ts';
import { Job } from './job.entity.ts';
import { JobsService, weekOf } from './jobs.service.ts';
import { SiteDate } from './siteDate.entity.ts';

/** Days to emerge where the grass is not known. */
const EMERGE = [7, 21] as const;
const WEEK = 7;

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
  ) {}

  async season(siteId: string, units: UnitSystem): Promise<SeasonAnswer> {
    const basis = await this.bases.of(siteId);
    const jobs = await this.jobs.of(siteId);
    const tests = await this.lab.resultsOf(siteId);
    const dates = await this.records.of(SiteDate).find({ siteId }, { day: 'ASC' });
    const handedOver = await this.records.of(Program).find({ siteId, state: 'handed over' });
    const { site, zones, today, climate } = basis;
    const { groundOf } = basis;
    const zoneNames = new Map(zones.map(({ id, name }) => [id, name]));
    const standingJobs = jobs.filter(({ zoneId }) => zoneNames.has(zoneId));
    const byZone = grouped(standingJobs, ({ zoneId }) => zoneId);
    const [first] = zones;
    const year = first && basis.yearOf(first);
    return {
      siteId,
      today,
      jobs: await this.jobs.told(standingJobs, units, new Map([[site.id, site.name]]), zoneNames, basis),
      zones: zones.map((zone) => ({
        ...{ zoneId: zone.id, zone: zone.name },
        windows: this.#windows(byZone.get(zone.id) ?? [], basis, groundOf(zone.id, units)),
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
        ...this.#care(zone, byZone.get(zone.id) ?? [], basis, units),
      })),
      weeks: year
        ? Array.from({ length: 53 }, (_, index) => dayOn(today, index * WEEK)).map((day) => {
            const { soil, growth } = normalDay(year, day);
            return { day, soil, growth };
          })
        : [],
      climate: climate?.basis ?? null,
      dates: dates.map((date) => this.#date(date, standingJobs, basis)),
      handedOver: handedOver.length > 0,
      undated: standingJobs.filter(({ state, dated, day, hold }) => state === 'open' && hold === null && (!dated || (day === null && climate !== undefined))).length, // prettier-ignore
    };
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

  async addDate(siteId: string, { name, day }: SiteDateInput): Promise<SiteDateAnswer> {
    const basis = await this.bases.of(siteId);
    const date = await this.records.of(SiteDate).add({ siteId, name, day });
    return this.#date(date, await this.jobs.of(siteId), basis);
  }

  removeDate(id: string): Promise<void> {
    return this.records.of(SiteDate).remove(id);
  }

  async restoreDate(id: string): Promise<SiteDateAnswer> {
    const date = await this.records.of(SiteDate).restore(id);
    return this.#date(date, await this.jobs.of(date.siteId), await this.bases.of(date.siteId));
  }

  async #across(jobs: readonly Job[], units: UnitSystem) {
    const sites = await this.records.of(Site).findEver({ id: In([...new Set(jobs.map(({ siteId }) => siteId))]) });
    const zones = await this.ground.zonesEver([...new Set(jobs.map(({ zoneId }) => zoneId))]);
    const names = (list: ReadonlyArray<{ id: string; name: string }>) =>
      new Map(list.map(({ id, name }) => [id, name]));
    return this.jobs.told(jobs, units, names(sites), names(zones));
  }

  #date({ id, name, day }: SiteDate, jobs: readonly Job[], basis: SeasonBasis): SiteDateAnswer {
    const open = jobs.filter(({ state }) => state === 'open' || state === 'partly done');
    const dated = open.map((job) => ({ ...doseOf(job, basis), day: job.day, latest: job.latest }));
    return { id, name, day, jobs: backwardFrom(day, dated) };
  }

  /** When each kind of its open work may be done; one of a kind stands for all of it. */
  #windows(jobs: readonly Job[], basis: SeasonBasis, ground: ReturnType<SeasonBasis['groundOf']>) {
    const kinds = new Map<string, Job>();
    for (const job of jobs) if (job.state === 'open' && !kinds.has(job.key)) kinds.set(job.key, job);
    if (!ground.year) return [];
    return [...kinds.values()].map((job) => ({
      ...{ key: job.key, name: job.name },
      spans: cardOf(job.remedy).window ? windowsAhead(doseOf(job, basis), ground) : [],
    }));
  }

  /** Water and mowing of a zone: this week and the next, and the first weeks of what was sown or will be. */
  #care(
    zone: MeasuredZone,
    jobs: readonly Job[],
    basis: SeasonBasis,
    units: UnitSystem,
  ): Pick<SeasonZoneAnswer, 'water' | 'driest' | 'mowing' | 'seedWater' | 'firstCut'> {
    const { facts, grass } = zone;
    const year = basis.yearOf(zone);
    const watered = wateredZone(zone);
    const { from } = weekOf(basis.today);
    const water: WaterWeek[] = year
      ? [0, WEEK].flatMap((by) => waterWeek(year, dayOn(from, by), watered, units) ?? [])
      : [];
    const sown = jobs.find(({ remedy, day, state }) => (remedy === 'seed' || remedy === 'mulch') && day !== null && state !== 'not done'); // prettier-ignore
    const emerge = (grass ? findGrass(grass).seed?.emerge : undefined) ?? EMERGE;
    const seed: SeedWater[] = sown ? seedWater(sown.day!, emerge, year, watered, units) : [];
    const dry = facts?.drySpell === 'browned' || facts?.drySpell === 'died';
    const mowing = grass
      ? mowingAdvice(
          {
            grass,
            top: zone.shade === 'deep' || dry,
            fineTurf: zone.surface === 'fine turf',
            clippings: zone.clippings,
          },
          units,
        )
      : undefined;
    return {
      water,
      driest: (year && thirstiestWeek(year, from, watered, units)) ?? null,
      mowing: mowing?.words ?? null,
      seedWater: seed,
      firstCut: sown && grass ? firstCutWords(grass, units) : null,
    };
  }
}

/** A zone as it is watered. */
const wateredZone = (zone: MeasuredZone): WateredZone => ({
  season: seasonOfZone(zone),
  soilGroup: zone.soilGroup ?? undefined,
  slope: zone.facts?.slope ?? undefined,
  rootDepth: zone.rootDepth ?? undefined,
  deepShade: zone.shade === 'deep',
  irrigation: zone.facts?.irrigation ?? undefined,
  // By cups and a ring, where they were out; dry cups would say that it never ends.
  precipitation: zone.measured.sprinklerRate?.value || undefined,
  infiltration: zone.measured.infiltration?.value || undefined,
});
