import { type TakenTest, type TakenValue, type UnitSystem, analyteKeys, grassWords, retestDue, retestTable } from '@glenfold/agronomy'; // prettier-ignore
import { type ReadingAnswer, type RetestsAnswer, type SiteReadingsAnswer, dayIn, whereLies } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { In, IsNull } from 'typeorm';
import { GroundService, type MeasuredZone } from '../ground/ground.service.ts';
import { GroundFeature } from '../ground/groundFeature.entity.ts';
import { BAD_HALF, HEALTHY_HALF, LabService, type ReadResult, borrowedWords, coresOf, labResultAnswer, standingOf, testOf } from '../lab/lab.service.ts'; // prettier-ignore
import { Measurement } from '../measurements/measurement.entity.ts';
import { reported } from '../measurements/reported.ts';
import { PracticeService } from '../people/practice.service.ts';
import { Clock } from '../platform/clock.ts';
import { grouped } from '../platform/grouped.ts';
import { PAGE, cut, readPlace } from '../platform/paging.ts';
import { notFound } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Threads } from '../platform/threads.ts';
import { soilTest, zoneFacts } from '../rates/facts.ts';
import { Days } from '../settings/days.service.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { besidePaper } from './besidePaper.ts';
import { type SiteGround, type ZoneGround, readGround, siteReadings } from './readings.ts';

/** All that the zones of a site are read from. */
interface Basis {
  readonly results: readonly ReadResult[];
  /** Measured with one's own hands, by zone. */
  readonly own: ReadonlyMap<string, readonly Measurement[]>;
  readonly names: ReadonlyMap<string, string>;
  readonly settingsOf: Awaited<ReturnType<SettingsService['advice']>>;
  readonly site: SiteGround;
}

/** Reads zones by calling the core; judges nothing itself. */
@Injectable()
export class ReadingService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly lab: LabService,
    private readonly settings: SettingsService,
    private readonly days: Days,
    private readonly clock: Clock,
    private readonly threads: Threads,
    private readonly practices: PracticeService,
  ) {}

  /** What a zone's soil says. */
  async zone(zoneId: string, units: UnitSystem): Promise<ReadingAnswer> {
    const zones = await this.ground.zonesBeside(zoneId);
    const zone = zones.find(({ id }) => id === zoneId) ?? notFound();
    const basis = await this.#basis(zone.siteId, zones, units, [zoneId]);
    const result = resultOf(basis, zoneId);
    return {
      zoneId,
      result: result ? labResultAnswer(result) : null,
      borrowed: result ? (borrowedWords(result, zoneId, basis.names) ?? null) : null,
      cores: (result && coresOf(result)) ?? null,
      read: readGround(groundOf(zone, basis, true), basis.site),
    };
  }

  /** All zones of a site side by side. @param against the zone that the others are laid beside */
  async site(siteId: string, units: UnitSystem, against?: string): Promise<SiteReadingsAnswer> {
    await this.ground.site(siteId);
    const zones = await this.ground.zones(siteId);
    const basis = await this.#basis(siteId, zones, units, []);
    const grounds = zones.map((zone) => groundOf(zone, basis, false));
    const { rows, zones: read } = await this.threads.run(siteReadings, grounds, basis.site, against);
    return {
      siteId,
      rows,
      zones: zones.map(({ id, name, label, grass, facts, area }, index) => {
        const result = resultOf(basis, id);
        const { limits, doubts } = read[index]!;
        const [first] = limits;
        return {
          ...{ zoneId: id, name, label, grass: grassWords(grass, facts?.mix), area },
          sampledOn: result?.sample.sampledOn ?? null,
          borrowed: result !== undefined && borrowedWords(result, id, basis.names) !== undefined,
          first: first
            ? { label: first.label, degree: first.degree, standing: first.standing, what: first.what }
            : null,
          doubts: [...doubts],
        };
      }),
    };
  }

  /** The same on one page. @param shaded measure that the drawing is shaded by */
  async sitePaper(siteId: string, units: UnitSystem, against?: string, shaded?: string): Promise<Uint8Array> {
    const readings = await this.site(siteId, units, against);
    const { name, place } = await this.ground.site(siteId);
    const zones = await this.ground.zones(siteId);
    return this.threads.run(besidePaper, {
      ...{ practice: (await this.practices.current()).name, site: name, place, units, readings, shaded },
      on: await this.days.on(siteId),
      outlines: zones.map(({ id: zoneId, geometry }) => ({ zoneId, geometry })),
    });
  }

  /** What every zone of a site is read from, for whoever goes on from it. */
  async grounds(siteId: string, units: UnitSystem) {
    const zones = await this.ground.zones(siteId);
    const basis = await this.#basis(siteId, zones, units, []);
    return {
      site: basis.site,
      zones: zones.map((zone) => {
        const result = resultOf(basis, zone.id);
        return {
          zone,
          ground: groundOf(zone, basis, false),
          borrowed: result ? (borrowedWords(result, zone.id, basis.names) ?? null) : null,
          sampledOn: result?.sample.sampledOn ?? null,
        };
      }),
    };
  }

  /** When each zone is to be tested again, the soonest first. */
  async retests(after?: string, limit = PAGE): Promise<RetestsAnswer> {
    const [due = null, id = null] = readPlace(after, 2) ?? [];
    const { corrections, afterCorrection, routine } = retestTable;
    const rows = await this.records.ask<{
      siteId: string;
      siteName: string;
      zoneId: string;
      zone: string;
      sampledOn: string;
      correction: string | null;
      correctedOn: string | null;
      due: string;
      all: number;
      now: number;
    }>(
      `SELECT r."siteId", s."name" AS "siteName", r."zoneId", r."name" AS "zone", r."sampledOn"::text, r."correction",
         r."correctedOn", r."due"::text, r."all", r."now"
       FROM (
         SELECT t.*, count(*) OVER ()::int AS "all", (count(*) FILTER (WHERE t."due" <= $5::date) OVER ())::int AS "now"
         FROM retests($1, $2, $3, $4) t JOIN site l ON l."id" = t."siteId" AND l."deletedAt" IS NULL
       ) r JOIN site s ON s."id" = r."siteId"
       WHERE $6::date IS NULL OR (r."due", r."zoneId") > ($6::date, $7::uuid)
       ORDER BY r."due", r."zoneId" LIMIT $8`,
      [[...corrections], afterCorrection, routine, dayIn(this.clock.now(), 'UTC'), due, id, limit + 1],
    );
    const today = await this.days.across(rows.map(({ siteId }) => siteId));
    const { shown, next } = cut(rows, limit, (last) => [last.due, last.zoneId]);
    return {
      count: rows[0]?.all ?? 0,
      due: rows[0]?.now ?? 0,
      next,
      retests: shown.map(({ correction, correctedOn, ...row }) => {
        const told = retestDue(
          row.sampledOn,
          correction !== null && correctedOn !== null ? [{ kind: correction, on: correctedOn }] : [],
        )!;
        return {
          ...{ siteId: row.siteId, siteName: row.siteName, zoneId: row.zoneId, zone: row.zone },
          ...{ sampledOn: row.sampledOn, on: told.on, words: told.words },
          due: told.on <= (today.get(row.siteId) ?? ''),
        };
      }),
    };
  }

  /** @param measured zones of which every measurement is wanted, for what they were before */
  async #basis(
    siteId: string,
    zones: readonly MeasuredZone[],
    units: UnitSystem,
    measured: readonly string[],
  ): Promise<Basis> {
    const site = await this.ground.site(siteId);
    const own =
      measured.length === 0
        ? []
        : await this.records
            .of(Measurement)
            .find({ zoneId: In([...measured]), resultId: IsNull() }, { takenOn: 'ASC' });
    return {
      results: await this.lab.resultsOf(siteId),
      own: grouped(own, ({ zoneId }) => zoneId!),
      names: new Map(zones.map(({ id, name }) => [id, name])),
      settingsOf: await this.settings.advice(siteId),
      site: {
        things: await this.records.of(GroundFeature).find({ siteId }, { createdAt: 'ASC' }),
        latitude: whereLies(site, zones)?.[1],
        system: units,
        today: site.timeZone ? dayIn(this.clock.now(), site.timeZone) : await this.days.on(siteId),
      },
    };
  }
}

function resultOf({ results }: Basis, zoneId: string): ReadResult | undefined {
  const result = testOf(results, zoneId);
  return result && soilTest(result) ? result : undefined;
}

const takenOf = (result: ReadResult, borrowed?: string): TakenTest => ({
  ...{ on: result.sample.sampledOn, depth: result.sample.depth, cores: coresOf(result), borrowed: borrowed ?? null },
});

/** Values of the results of a zone and of its own measurements, oldest first. */
function valuesOf(results: readonly ReadResult[], own: readonly Measurement[]): TakenValue[] {
  const ofLab = results.flatMap((result) =>
    analyteKeys.flatMap((analyte): TakenValue[] => {
      const value = result.values[analyte];
      const { sampledOn: on, depthFrom, depth } = result.sample;
      return value
        ? [{ analyte, value, extractant: result.extractant, on, depthFrom, depthTo: depth, cores: coresOf(result) }]
        : [];
    }),
  );
  const byHand = own.map((one): TakenValue => ({
    ...{ analyte: one.analyte, value: reported(one), on: one.takenOn, depthFrom: one.depthFrom, depthTo: one.depthTo },
  }));
  return [...ofLab, ...byHand].sort((one, other) => (one.on ?? '').localeCompare(other.on ?? ''));
}

/** The bad and the healthy half of a lawn that was sampled as a pair, where both are reported. */
function pairOf(results: readonly ReadResult[]): ZoneGround['read']['pair'] {
  const half = (purpose: string) => {
    const result = results.find(({ bag }) => bag?.purpose === purpose);
    const test = result && soilTest(result);
    return test && { test, cores: coresOf(result) };
  };
  const [bad, healthy] = [half(BAD_HALF), half(HEALTHY_HALF)];
  return bad && healthy ? { bad, healthy } : undefined;
}

function recordedOf({
  grass,
  surface,
  shade,
  clippings,
  soilGroup,
  thatch,
  rootDepth,
  probeStop,
  measured,
  applied,
  facts,
}: MeasuredZone) {
  return {
    ...{ grass, surface, shade, clippings, soilGroup, thatch, rootDepth, probeStop, measured, applied },
    facts: facts ?? {},
  };
}

/** @param whole with all that was measured before */
function groundOf(zone: MeasuredZone, basis: Basis, whole: boolean): ZoneGround {
  const result = resultOf(basis, zone.id);
  const standing = standingOf(basis.results, zone.id).filter(({ bag }) => bag?.purpose !== BAD_HALF);
  const before = standing[standing.findIndex(({ id }) => id === result?.id) + 1];
  const borrowed = result && borrowedWords(result, zone.id, basis.names);
  return {
    zoneId: zone.id,
    outline: zone.geometry,
    recorded: recordedOf(zone),
    read: {
      zone: zoneFacts(zone),
      test: result && soilTest(result),
      taken: result && takenOf(result, borrowed),
      before: before && takenOf(before),
      values: whole ? valuesOf(standing, basis.own.get(zone.id) ?? []) : [],
      pair: whole ? pairOf(standingOf(basis.results, zone.id)) : undefined,
      settings: basis.settingsOf(zone.id),
    },
  };
}
