import {
  type FieldTestJudged,
  type TestedGround,
  type UnitSystem,
  InputError,
  refusalWords,
  analytes,
  drainageNext,
  findGrass,
  judgeFieldTest,
  soilOf,
} from '@glenfold/agronomy';
import type { FieldTestAnswer, FieldTestInput, OpenTestsAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { GroundService, type MeasuredZone } from '../ground/ground.service.ts';
import { Measurement } from '../measurements/measurement.entity.ts';
import { Clock } from '../platform/clock.ts';
import { Problem, refuse } from '../platform/problem.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Days } from '../settings/days.service.ts';
import { FieldTestRecord } from '../measurements/fieldTest.entity.ts';

/** Tests with one's own hands: kept as they were read, judged by the core, and measurements of the zone. */
@Injectable()
export class OwnTestsService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly work: Work,
    private readonly days: Days,
    private readonly clock: Clock,
  ) {}

  async of(siteId: string, units: UnitSystem): Promise<FieldTestAnswer[]> {
    const zones = new Map((await this.ground.zones(siteId)).map((zone) => [zone.id, zone]));
    const found = await this.records.of(FieldTestRecord).find({ siteId }, { on: 'DESC', createdAt: 'DESC' });
    return found.flatMap((test) => {
      const zone = zones.get(test.zoneId);
      return zone ? [this.#told(test, zone, units)] : [];
    });
  }

  /** Sites on which a test is begun and not done: a hole to be read, a probe that stands. */
  async openSites(): Promise<OpenTestsAnswer[]> {
    return this.records.ask<OpenTestsAnswer>(
      `SELECT s."id" AS "siteId", s."name" AS "siteName", count(*)::int AS "tests"
       FROM field_test t JOIN site s ON s."id" = t."siteId" AND s."deletedAt" IS NULL
       WHERE t."practiceId" = $1 AND t."deletedAt" IS NULL AND NOT t."closed" GROUP BY s."id", s."name" ORDER BY s."name"`,
    );
  }

  /**
   * Keep a test as far as it is done. Sent again it is the same test; what is older than what is kept changes nothing, and
   * readings of two devices come together.
   */
  async keep(input: FieldTestInput, units: UnitSystem): Promise<FieldTestAnswer> {
    const zone = await this.ground.zone(input.zoneId);
    if (input.on > (await this.days.on(zone.siteId)))
      refuse([{ field: 'on', message: 'That day has not come yet: check the date.' }]);
    const test = await this.records.together(async (of) => {
      await this.records.ask('SELECT pg_advisory_xact_lock(hashtextextended($2, 0)), $1::uuid', [input.id]);
      const [known] = await of(FieldTestRecord).findEver({ id: input.id });
      if (known && known.zoneId !== input.zoneId)
        throw new Problem(409, 'Another zone', 'This test was begun on another zone: begin a new one here.');
      if (known?.deletedAt)
        throw new Problem(409, 'Deleted', 'This test was deleted meanwhile: bring it back first, or begin a new one.');
      const record = known ? together(known.record, input.record, input.revision >= known.revision) : input.record;
      const judged = this.#judged({ ...input, record }, zone, units);
      if (known && input.revision < known.revision && JSON.stringify(record) === JSON.stringify(known.record)) return known;
      const newer = !known || input.revision >= known.revision;
      const { kind, on, closed, doneBy = this.work.worker.person?.name ?? null, place = null } = newer ? input : known;
      const values = { kind, on, record, closed, doneBy, place, revision: Math.max(input.revision, known?.revision ?? 0) };
      const kept = known
        ? await of(FieldTestRecord).change(known.id, values)
        : await of(FieldTestRecord).add({ id: input.id, siteId: zone.siteId, zoneId: zone.id, ...values });
      await this.#measure(of, kept, judged);
      return kept;
    });
    return this.#told(test, zone, units);
  } // prettier-ignore

  remove(id: string): Promise<void> {
    return this.records.together(async (of) => {
      for (const one of await of(Measurement).find({ fieldTestId: id })) await of(Measurement).remove(one.id);
      await of(FieldTestRecord).remove(id);
    });
  }

  restore(id: string, units: UnitSystem): Promise<FieldTestAnswer> {
    return this.records.together(async (of) => {
      const test = await of(FieldTestRecord).restore(id);
      const zone = await this.ground.zone(test.zoneId);
      await this.#measure(of, test, this.#judged(test, zone, units));
      return this.#told(test, zone, units);
    });
  }

  /** @throws a 422 problem naming the field of a record that cannot be */
  #judged({ kind, record }: Pick<FieldTestInput, 'kind' | 'record'>, zone: MeasuredZone, units: UnitSystem): FieldTestJudged {
    try {
      return judgeFieldTest(kind, record, groundOf(zone), units);
    } catch (error) {
      if (error instanceof InputError) refuse([{ field: `record.${error.field}`, message: refusalWords(error) }]);
      throw error;
    }
  } // prettier-ignore

  /** The measurements of a test become what it comes to now. */
  async #measure(of: RecordsOf, test: FieldTestRecord, { values }: FieldTestJudged): Promise<void> {
    const before = await of(Measurement).find({ fieldTestId: test.id });
    const left = [...before];
    for (const { analyte, value, depthFrom = null, depthTo = null } of values) {
      const at = left.findIndex((one) => one.analyte === analyte);
      const [known] = at < 0 ? [] : left.splice(at, 1);
      const wanted = { value, depthFrom, depthTo, takenOn: test.on, source: test.doneBy };
      if (!known)
        await of(Measurement).add({
          ...{ zoneId: test.zoneId, fieldTestId: test.id, analyte, basis: 'element', method: test.kind },
          unit: analytes[analyte].units[0] || null,
          ...wanted,
        });
      else if (
        known.value !== value ||
        known.depthFrom !== depthFrom ||
        known.depthTo !== depthTo ||
        known.takenOn !== test.on
      )
        await of(Measurement).change(known.id, wanted);
    }
    for (const { id } of left) await of(Measurement).remove(id);
  }

  #told(test: FieldTestRecord, zone: MeasuredZone, units: UnitSystem): FieldTestAnswer {
    const { id, version, siteId, zoneId, kind, on, record, closed, revision, doneBy, place } = test;
    const { values, title, words, working } = this.#judged(test, zone, units);
    return {
      ...{ id, version, siteId, zoneId, kind, on, record, closed, revision, doneBy, place },
      ...{ values: [...values], title, words: [...words], working },
      next:
        kind === 'drainage' && !closed
          ? drainageNext(record as Parameters<typeof drainageNext>[0], this.clock.now().toISOString())
          : null,
    };
  }
}

interface Timed {
  readonly at: string;
}

/** Readings of two devices side by side, each moment once; of all else the newer stands. */
function together(kept: object, sent: object, sentIsNewer: boolean): object {
  const [older, newer] = sentIsNewer ? [kept, sent] : [sent, kept];
  const readings = (of: object): readonly Timed[] | undefined => {
    const list = (of as { readonly readings?: unknown }).readings;
    return Array.isArray(list) && list.every((one: Partial<Timed> | null) => typeof one?.at === 'string')
      ? (list as readonly Timed[])
      : undefined;
  };
  const [before, after] = [readings(older), readings(newer)];
  if (!before || !after) return newer;
  const at = new Map([...before, ...after].map((one) => [Date.parse(one.at), one]));
  return { ...newer, readings: [...at].sort(([a], [b]) => a - b).map(([, one]) => one) };
}

/** What of a zone its tests are judged by. */
export function groundOf(zone: MeasuredZone): TestedGround {
  const { facts, rootDepth, grass, surface, measured } = zone;
  return {
    slope: facts?.slope ?? undefined,
    soilGroup: soilOf(zone)?.group,
    rootDepth: rootDepth ?? undefined,
    season: grass ? findGrass(grass).season : undefined,
    fineTurf: surface === 'fine turf',
    sprinklerRate: measured.sprinklerRate?.value,
  };
}
