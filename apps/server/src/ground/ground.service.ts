import { InputError, areaShape, checkGeometry } from '@glenfold/agronomy';
import { areaOf } from '@glenfold/agronomy/geometry';
import {
  type Measured,
  GroundFeatureInput,
  type MeasurementsInput,
  type NewZone,
  type SiteAnswer,
  SiteInput,
  ZoneAnswer,
  ZoneFactsInput,
  type ZoneGeometry,
  ZoneInput,
  problemFields,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { plainToInstance } from 'class-transformer';
import { Any, In, Raw } from 'typeorm';
import { validate } from 'class-validator';
import { type Booked, EntriesService } from '../entries/entries.service.ts';
import { FieldTestsService, type ZoneTests, zoneTests } from '../measurements/fieldTests.service.ts';
import { PAGE, anywhere, cut, readPlace } from '../platform/paging.ts';
import { Problem, notFound, refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { GroundFeature, featureValues } from './groundFeature.entity.ts';
import { Days } from '../settings/days.service.ts';
import { ofLivingSite } from '../sites/living.ts';
import { Site } from '../sites/site.entity.ts';
import { isBehind } from '../steps/paging.ts';
import type { Descended } from './lineage.ts';
import { Zone } from './zone.entity.ts';

interface GeoJsonFeature {
  readonly geometry?: { readonly type: string; readonly coordinates: unknown } | null;
  readonly properties?: Readonly<Record<string, unknown>> | null;
}

/** A site with its zones, as a GeoJSON FeatureCollection; read from outside, so nothing of it is taken on trust. */
export interface SiteFile extends Partial<SiteInput> {
  readonly type: string;
  readonly name: string;
  readonly features: readonly GeoJsonFeature[];
}

/** A zone with what was measured on it last, and its book. */
export type MeasuredZone = Zone & ZoneTests & Booked & { readonly measured: Measured };

/** Which sites are asked for. */
export interface SitesAsked {
  /** Part of a name or place. */
  readonly text?: string | undefined;
  readonly ids?: readonly string[] | undefined;
  /** Where the last page ended. */
  readonly after?: string | undefined;
  readonly limit?: number | undefined;
}
/** A site with the number of its zones and their area in m². */
export type SizedSite = Site & { readonly zones: number; readonly area: number };
export interface SitesPage {
  readonly sites: readonly SizedSite[];
  /** How many match, on whatever page. */
  readonly count: number;
  readonly next: string | null;
}

@Injectable()
export class GroundService {
  constructor(
    private readonly records: Records,
    private readonly tests: FieldTestsService,
    private readonly days: Days,
    private readonly entries: EntriesService,
  ) {}

  /** A page of sites by name, each with its size; deleted ones are left out. */
  async sites({ text = '', ids, after, limit = PAGE }: SitesAsked): Promise<SitesPage> {
    const [name, id] = readPlace(after, 2) ?? [];
    const matching = `FROM site s WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL
      AND ($5::uuid[] IS NULL OR s."id" = ANY($5)) AND ($6 = '%%' OR s."name" ILIKE $6 OR s."place" ILIKE $6)`;
    const found = await this.records.ask<SizedSite & { readonly all: number }>(
      `SELECT p.*, o."zones", o."area", (SELECT count(*)::int ${matching}) AS "all"
       FROM (SELECT s.* ${matching} AND ${isBehind('s."name"', 's."id"')} ORDER BY s."name", s."id" LIMIT $4) p
       CROSS JOIN LATERAL (
         SELECT count(*)::int AS "zones", coalesce(sum(z."area"), 0) AS "area" FROM zone z
         WHERE z."siteId" = p."id" AND z."deletedAt" IS NULL
       ) o ORDER BY p."name", p."id"`,
      [name ?? null, id ?? null, limit + 1, ids ?? null, anywhere(text)],
    );
    const { shown, next } = cut(found, limit, (last) => [last.name, last.id]);
    return { sites: shown, count: found[0]?.all ?? 0, next };
  }

  /** What sites and zones are called, deleted or not: what was done on them keeps their names. */
  async namesEver(ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const named = await this.records.ask<{ id: string; name: string }>(
      `SELECT "id", "name" FROM site WHERE "practiceId" = $1 AND "id" = ANY($2)
       UNION ALL SELECT "id", "name" FROM zone WHERE "practiceId" = $1 AND "id" = ANY($2)`,
      [[...new Set(ids)]],
    );
    return new Map(named.map(({ id, name }) => [id, name]));
  }

  site(id: string): Promise<Site> {
    return this.records.of(Site).one(id);
  }

  addSite(input: SiteInput): Promise<Site> {
    return this.records.of(Site).add(siteValues(input));
  }

  changeSite(id: string, input: SiteInput, version: number): Promise<Site> {
    return this.records.of(Site).change(id, siteValues(input), { version, tell: siteAnswer });
  }

  removeSite(id: string): Promise<void> {
    return this.records.of(Site).remove(id);
  }

  restoreSite(id: string): Promise<Site> {
    return this.records.of(Site).restore(id);
  }

  async zones(siteId: string): Promise<MeasuredZone[]> {
    await this.site(siteId);
    return this.#known(await this.records.of(Zone).find({ siteId }, { position: 'ASC', createdAt: 'ASC' }));
  }

  /** All zones of a zone's site, it among them; nothing where it is not there. */
  async zonesBeside(zoneId: string): Promise<MeasuredZone[]> {
    const siteId = Raw((column) => `${column} = (SELECT "siteId" FROM zone WHERE "id" = :zoneId)`, { zoneId });
    return this.#known(await this.records.of(Zone).find({ siteId }, { position: 'ASC', createdAt: 'ASC' }));
  }

  /** Every zone of some sites with its descent, also those that were taken away. */
  async descended(siteIds: readonly string[]): Promise<Descended[]> {
    const siteId = Any([...new Set(siteIds)]);
    return this.records.of(Zone).findWithout(['geometry', 'properties', 'facts', 'taped'], { siteId }, undefined, true);
  }

  /** Zones, deleted or not: what was done on them keeps their names. */
  zonesEver(ids: readonly string[]): Promise<Zone[]> {
    return this.records.of(Zone).findEver({ id: In([...ids]) });
  }

  async zone(id: string): Promise<MeasuredZone> {
    // What belongs to a site that was deleted is gone with it.
    const [zone] = await this.records.of(Zone).find({ id, siteId: ofLivingSite() });
    return this.#measured(zone ?? notFound());
  }

  async #measured(zone: Zone): Promise<MeasuredZone> {
    const [measured] = await this.#known([zone]);
    return measured!;
  }

  /** Zones with what was measured on them and put down. */
  async #known(zones: readonly Zone[]): Promise<MeasuredZone[]> {
    return this.entries.with(await this.tests.with(zones));
  }

  async addZone(siteId: string, input: ZoneInput): Promise<MeasuredZone> {
    const [zone] = await this.addZones(siteId, [input]);
    return zone!;
  }

  /** Add zones, all of them or none; those that are drawn are to be measured after. */
  async addZones(siteId: string, inputs: readonly NewZone[]): Promise<MeasuredZone[]> {
    if (inputs.length === 0) return [];
    const known = await this.zones(siteId);
    const today = await this.days.on(siteId);
    const last = Math.max(0, ...known.map((zone) => zone.position));
    return this.records.together(async (of) => {
      const added: Zone[] = [];
      for (const [index, input] of inputs.entries()) {
        this.#refuseTwinLabel([...known, ...added], input.label);
        const { tests, rest } = apart(input);
        const { applications, ...facts } = input.facts ?? {};
        const values = { ...rest, facts, area: areaAsTaped(input), siteId, position: last + 1 + index };
        const parent = input.partOf ? known.find(({ id }) => id === input.partOf) : undefined;
        if (input.partOf && !parent) notFound();
        const zone = await of(Zone).add(values);
        await this.entries.remember(of, zone, applications ?? []);
        await this.tests.record(of, zone.id, tests, { takenOn: today, inheritedFrom: parent?.id });
        added.push(zone);
      }
      return this.#known(added);
    });
  }

  changeZone(id: string, input: ZoneInput, version: number): Promise<MeasuredZone> {
    return this.records.together(async (of) => {
      const zone = await of(Zone).locked(id);
      const others = (await this.zones(zone.siteId)).filter((other) => other.id !== id);
      this.#refuseTwinLabel(others, input.label);
      const unknown = {
        grass: null,
        soilGroup: null,
        aimPh: null,
        aimReason: null,
        taped: null,
      };
      const { tests, rest } = apart({ ...untested, ...input });
      const before = await this.#measured(zone);
      // What is drawn is measured; a typed or taped area belongs to a zone that is not.
      const area = zone.geometry ? zone.area : areaAsTaped(input);
      const values = { ...unknown, ...rest, area };
      const saved = await of(Zone).change(id, values, { version, tell: tellWith(before), withParts: true });
      await this.tests.record(of, id, tests, { takenOn: await this.days.on(zone.siteId) });
      return this.#measured(saved);
    });
  }

  /** What is measured in the field; the other facts stay. */
  measure(id: string, input: MeasurementsInput, version: number): Promise<MeasuredZone> {
    return this.records.together(async (of) => {
      const zone = await this.zone(id);
      await of(Zone).change(id, {}, { version, tell: tellWith(zone), withParts: true });
      await this.tests.record(
        of,
        id,
        { ...untested, ...apart(input).tests },
        {
          takenOn: await this.days.on(zone.siteId),
        },
      );
      return this.zone(id);
    });
  }

  /** What else is known of a zone, in place of what was known; what was put down before goes into the book. */
  async changeFacts(id: string, input: ZoneFactsInput, version: number): Promise<MeasuredZone> {
    const tell = (zone: Zone) => ({ ...zone.facts, version: zone.version });
    const { applications, ...facts } = input;
    return this.records.together(async (of) => {
      const saved = await of(Zone).change(id, { facts }, { version, tell });
      await this.entries.remember(of, saved, applications ?? []);
      return this.#measured(saved);
    });
  }

  async removeZone(id: string): Promise<void> {
    await this.records.of(Zone).remove(id);
  }

  async restoreZone(id: string): Promise<MeasuredZone> {
    const { siteId, label } = await this.records.of(Zone).deleted(id);
    this.#refuseTwinLabel(await this.zones(siteId), label);
    return this.#measured(await this.records.of(Zone).restore(id));
  }

  /** Import a site with its zones; all of it or nothing. */
  async importSite({ type, features, ...told }: Partial<SiteFile>): Promise<Site> {
    if (type !== 'FeatureCollection' || !features) {
      throw new Problem(
        422,
        'Not a site file',
        'A site file is a GeoJSON FeatureCollection with a name and one polygon a zone.',
      );
    }
    const { name = '', place, position, timeZone, climate, normals, contacts, access } = told;
    const given = plainToInstance(SiteInput, { name, place, position, timeZone, climate, normals, contacts, access });
    const errors = problemFields(await validate(given));
    if (errors.length > 0) refuse(errors);
    const isThing = (feature: GeoJsonFeature): boolean => feature.properties?.kind !== undefined;
    const zones = await Promise.all(
      features.flatMap((feature, index) => (isThing(feature) ? [] : [this.#readFeature(feature, index)])),
    );
    const things = await Promise.all(
      features.flatMap((feature, index) => (isThing(feature) ? [readThing(feature, index)] : [])),
    );
    return this.records.together(async (of) => {
      const site = await of(Site).add(siteValues(given));
      for (const [index, { input, geometry, facts }] of zones.entries()) {
        const { tests, rest } = apart(input);
        const { applications, ...told } = facts ?? {};
        const zone = await of(Zone).add({
          ...{ ...rest, siteId: site.id, position: index + 1, geometry },
          facts: facts && told,
        });
        await this.entries.remember(of, zone, applications ?? []);
        // A file says nothing of the day.
        await this.tests.record(of, zone.id, tests, { takenOn: null });
      }
      for (const thing of things) await of(GroundFeature).add({ ...featureValues(thing), siteId: site.id });
      return site;
    });
  }

  async #readFeature(
    { geometry, properties }: GeoJsonFeature,
    index: number,
  ): Promise<{ input: ZoneInput; geometry: ZoneGeometry | null; facts: ZoneFactsInput | null }> {
    const path = `features.${index}.`;
    const outline = geometry ? readOutline(geometry, index) : null;
    const area: unknown = outline ? Math.round(areaOf(outline) * 10) / 10 : properties?.area;
    const input = plainToInstance(ZoneInput, { ...properties, area });
    const errors = problemFields(await validate(input, { whitelist: true }), path);
    const facts = properties?.facts ? plainToInstance(ZoneFactsInput, properties.facts) : null;
    if (facts) errors.push(...problemFields(await validate(facts), `${path}facts.`));
    if (errors.length > 0) refuse(errors);
    return { input, geometry: outline, facts };
  }

  #refuseTwinLabel(zones: readonly Zone[], label: string): void {
    const twin = zones.find((zone) => zone.label.toLowerCase() === label.toLowerCase());
    if (twin)
      refuse([
        {
          field: 'label',
          message: `${twin.name} already has the bag label ${twin.label}: results could not tell them apart. Choose another.`,
        },
      ]);
  }
}

const untested: ZoneTests = { thatch: null, rootDepth: null, probeStop: null };

/** What of an input is measured, and what else it says. */
function apart<T extends Partial<ZoneTests>>(input: T) {
  const tests: Partial<ZoneTests> = Object.fromEntries(
    zoneTests.flatMap((test) => (input[test] === undefined ? [] : [[test, input[test]]])),
  );
  const { thatch: _thatch, rootDepth: _rootDepth, probeStop: _probeStop, ...rest } = input;
  return { tests, rest };
}

/** A zone as it stands now, with what was measured on it. */
const tellWith =
  ({ thatch, rootDepth, probeStop, measured, entries, applied }: Omit<MeasuredZone, keyof Zone>) =>
  (zone: Zone): ZoneAnswer =>
    zoneAnswer({ ...zone, thatch, rootDepth, probeStop, measured, entries, applied });

/** The area that taped lengths make, m²; otherwise the one that was typed. */
function areaAsTaped({ taped, area }: ZoneInput): number {
  if (!taped) return area;
  const { lengths, ...shape } = taped;
  return Math.round(areaShape({ ...lengths, ...shape }).result.area * 10) / 10;
}

/** The outline of a zone of a site file. */
function readOutline(geometry: object, index: number): ZoneGeometry {
  const raw: unknown = geometry;
  try {
    checkGeometry(raw, 'zone', `Zone ${index + 1}`);
    return raw as ZoneGeometry;
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return refuse([{ field: `features.${index}.geometry`, message: `${error.message}.` }]);
  }
}

/** A bed, a line or a tree of a site file. */
async function readThing({ geometry, properties }: GeoJsonFeature, index: number): Promise<GroundFeatureInput> {
  const input = plainToInstance(GroundFeatureInput, { ...properties, geometry });
  const errors = problemFields(await validate(input, { whitelist: true }), `features.${index}.`);
  if (errors.length > 0) refuse(errors);
  return input;
}

function siteValues(input: SiteInput) {
  const { name, place = null, position = null, timeZone = null, climate = null, normals = null } = input;
  const { contacts = null, access = null } = input;
  const told = access && Object.values(access).some((text) => text) ? access : null;
  return { name, place, position, timeZone, climate, normals, contacts, access: told };
}

export function siteAnswer(site: Site): SiteAnswer {
  const { id, name, place, position, timeZone, climate, normals, contacts, access, version } = site;
  return { id, name, place, position, timeZone, climate, normals, contacts, access, version };
}

export function zoneAnswer(zone: MeasuredZone): ZoneAnswer {
  const {
    practiceId: _practiceId,
    createdAt: _createdAt,
    deletedAt: _deletedAt,
    position: _position,
    partOf: _partOf,
    joinedInto: _joinedInto,
    entries: _entries,
    ...answer
  } = zone;
  return { ...answer, facts: zone.facts ?? {} };
}
