import type { ReportedValues } from '@glenfold/agronomy';
import { LabResultAnswer, type LabResultInput, dayIn } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Any, type FindOptionsWhere, IsNull } from 'typeorm';
import { GroundService } from '../ground/ground.service.ts';
import { type Heir, heirsAmong } from '../ground/lineage.ts';
import type { Zone } from '../ground/zone.entity.ts';
import { Measurement } from '../measurements/measurement.entity.ts';
import { isSame, stored, valuesOf } from '../measurements/reported.ts';
import { grouped } from '../platform/grouped.ts';
import { Problem, refuse } from '../platform/problem.ts';
import { Days } from '../settings/days.service.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { entriesOf, questionsAbout } from './questions.ts';
import { LabResult } from './labResult.entity.ts';
import { Sample } from './sample.entity.ts';
import { SampleZone } from './sampleZone.entity.ts';

/** A result with the zones that share its sample, and what has taken its place. */
export interface KnownResult extends LabResult {
  readonly zoneIds: readonly string[];
  /** Zones that it speaks for since the ground was divided anew. */
  readonly inherited: readonly Heir[];
  readonly supersededById: string | null;
  /** What its bag was taken for, and of how many cores; nothing where it came in no bag that was planned here. */
  readonly bag: FilledFor | null;
}

/** What a bag was filled for. */
export interface FilledFor {
  readonly purpose: string;
  readonly cores: number;
}

/** Cores that a result is of: those counted into its bag, or else as typed. */
export const coresOf = ({ bag, sample }: KnownResult): number | undefined =>
  bag && bag.cores > 0 ? bag.cores : (sample.cores ?? undefined);

/** With its values. */
export interface ReadResult extends KnownResult {
  readonly values: ReportedValues;
}

/** What a file brings of a result beside its numbers. */
interface ResultOrigin {
  readonly origin: string;
  readonly reportId?: string | null;
  /** The bag it came in. */
  readonly bagId?: string | null;
  /** What else its line said. */
  readonly beside?: string | null;
  /** The result of the same bag that it takes the place of. */
  readonly supersedes?: Pick<LabResult, 'id' | 'sampleId'> | undefined;
}

const TYPED: ResultOrigin = { origin: 'typed' };

@Injectable()
export class LabService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly days: Days,
  ) {}

  /** Results of a site, newest first; those that were superseded stand among them, marked. @throws a 404 problem */
  async results(siteId: string): Promise<ReadResult[]> {
    await this.ground.site(siteId);
    return this.resultsOf(siteId);
  }

  /** Results of a site that is known to be there. */
  async resultsOf(siteId: string): Promise<ReadResult[]> {
    return this.#withValues(await this.#known({ sample: { siteId } }));
  }

  /** Results that came of these bags and that nothing has taken the place of. */
  async ofBags(bagIds: ReadonlySet<string>): Promise<ReadResult[]> {
    if (bagIds.size === 0) return [];
    const found = await this.#known({ sample: { bagId: Any([...bagIds]) } });
    return this.#withValues(found.filter(({ supersededById }) => supersededById === null));
  }

  /** @param only one of them; what has taken its place is of the same sample. */
  async #known(where: FindOptionsWhere<LabResult>, only?: string): Promise<KnownResult[]> {
    const results = await this.records.of(LabResult).find(where, { createdAt: 'DESC' });
    if (results.length === 0) return [];
    const sampleIds = results.map(({ sampleId }) => sampleId);
    const zones = await this.records.of(SampleZone).find({ sampleId: Any(sampleIds) }, { createdAt: 'ASC', id: 'ASC' });
    const ever = await this.ground.descended(results.map(({ sample }) => sample.siteId));
    const alive = new Set(ever.flatMap(({ id, deletedAt }) => (deletedAt ? [] : [id])));
    const heirs = heirsAmong(ever);
    const shared = grouped(zones, ({ sampleId }) => sampleId);
    const bags = await this.#bagsOf(results);
    const superseded = new Map(results.flatMap(({ id, supersedesId }) => (supersedesId ? [[supersedesId, id]] : [])));
    const when = ({ sample, createdAt }: LabResult): string =>
      `${sample.sampledOn ?? dayIn(createdAt, 'UTC')} ${createdAt.toISOString()}`;
    return results
      .map((result) => {
        const sampled = (shared.get(result.sampleId) ?? []).map(({ zoneId }) => zoneId);
        const zoneIds = sampled.filter((id) => alive.has(id));
        const inherited = sampled
          .flatMap((id) => heirs(id, takenAt(result)))
          .filter(
            ({ zoneId }, at, all) => !zoneIds.includes(zoneId) && all.findIndex((one) => one.zoneId === zoneId) === at,
          );
        return {
          ...{ ...result, zoneIds, inherited, supersededById: superseded.get(result.id) ?? null },
          bag: bags.get(result.sample.bagId ?? '') ?? null,
        };
      })
      .filter(
        ({ id, zoneIds, inherited }) => zoneIds.length + inherited.length > 0 && (only === undefined || id === only),
      )
      .sort((a, b) => when(b).localeCompare(when(a)));
  }

  async #bagsOf(results: readonly LabResult[]): Promise<ReadonlyMap<string, FilledFor>> {
    const ids = [...new Set(results.flatMap(({ sample }) => sample.bagId ?? []))];
    if (ids.length === 0) return new Map();
    const found = await this.records.ask<FilledFor & { readonly id: string }>(
      `SELECT b."id", b."purpose", count(c."id") FILTER (WHERE c."state" = 'cored')::int AS "cores"
       FROM bag b LEFT JOIN core c ON c."bagId" = b."id" AND c."deletedAt" IS NULL
       WHERE b."practiceId" = $1 AND b."id" = ANY($2) GROUP BY b."id"`,
      [ids],
    );
    return new Map(found.map(({ id, purpose, cores }) => [id, { purpose, cores }]));
  }

  async #withValues(results: readonly KnownResult[]): Promise<ReadResult[]> {
    if (results.length === 0) return [];
    const found = await this.records.of(Measurement).find({ resultId: Any(results.map(({ id }) => id)) });
    const own = grouped(found, ({ resultId }) => resultId);
    return results.map((result) => ({ ...result, values: valuesOf(own.get(result.id) ?? []) }));
  }

  async one(id: string): Promise<ReadResult> {
    const result = await this.records.of(LabResult).one(id);
    const [read] = await this.#withValues(await this.#known({ sampleId: result.sampleId }, id));
    return read ?? { ...result, zoneIds: [], inherited: [], supersededById: null, bag: null, values: {} };
  }

  add(input: LabResultInput): Promise<ReadResult> {
    return this.records.together((of) => this.write(of, input, TYPED));
  }

  /** Write a sample with its result; one that supersedes another is of the same sample. */
  async write(of: RecordsOf, input: LabResultInput, from: ResultOrigin): Promise<ReadResult> {
    const zones = await this.#zones(input);
    await this.#refuseFuture(input, zones[0]!.siteId);
    const { origin, reportId = null, bagId = null, beside = null, supersedes } = from;
    // A bag whose results were deleted has its sample still.
    const [known] = bagId && !supersedes ? await of(Sample).find({ bagId, apart: IsNull() }) : [];
    const sampleId = supersedes?.sampleId ?? known?.id;
    const values = sampleValues(input, zones[0]!.siteId);
    const sample = sampleId ? await of(Sample).change(sampleId, values) : await of(Sample).add({ ...values, bagId });
    await this.#share(of, sample.id, zones);
    const result = await of(LabResult).add({
      ...resultValues(input),
      ...{ sampleId: sample.id, sample, reportId, origin, beside, supersedesId: supersedes?.id ?? null },
    });
    await of(Measurement).addAll(
      entriesOf(input.values).map(([analyte, value]) => ({
        ...{ sampleId: sample.id, resultId: result.id, analyte, takenOn: sample.sampledOn },
        ...stored(value),
      })),
    );
    return this.one(result.id);
  }

  change(id: string, input: LabResultInput, version: number): Promise<ReadResult> {
    return this.records.together(async (of) => {
      const zones = await this.#zones(input);
      await this.#refuseFuture(input, zones[0]!.siteId);
      const before = await this.one(id);
      const told = labResultAnswer(before);
      const tell = (found: LabResult): LabResultAnswer => ({ ...told, version: found.version });
      const result = await of(LabResult).change(id, resultValues(input), { version, tell, withParts: true });
      // What a change does not speak of stays.
      const { cores = before.sample.cores, of: kind = before.sample.of } = input;
      const sample = await of(Sample).change(
        result.sampleId,
        sampleValues({ ...input, cores, of: kind }, zones[0]!.siteId),
      );
      await this.#share(of, sample.id, zones);
      await this.#measure(of, result, sample, input.values);
      return this.one(id);
    });
  }

  async remove(id: string): Promise<void> {
    await this.records.of(LabResult).remove(id);
  }

  restore(id: string): Promise<ReadResult> {
    return this.records.together(async (of) => {
      const { sampleId, supersedesId } = await of(LabResult).deleted(id);
      const line = await of(LabResult).find({ sampleId });
      if (line.some((other) => other.id !== id && other.supersedesId === supersedesId))
        throw new Problem(
          409,
          'Another took its place',
          'Another result of the same bag was taken meanwhile. Delete that one first, to bring this one back.',
        );
      await of(LabResult).restore(id);
      return this.one(id);
    });
  }

  /** Values that a newer reader has found in the line of a kept file, beside those that are known. */
  async found(of: RecordsOf, id: string, values: ReportedValues, beside: string | null): Promise<void> {
    const { sample, ...known } = await this.one(id);
    const fresh = entriesOf(values).filter(([analyte]) => known.values[analyte] === undefined);
    if (fresh.length === 0) return;
    await of(Measurement).addAll(
      fresh.map(([analyte, value]) => ({
        ...{
          sampleId: sample.id,
          resultId: id,
          analyte,
          takenOn: sample.sampledOn,
          source: 'read again from its file',
        },
        ...stored(value),
      })),
    );
    await of(LabResult).change(id, { beside });
  }

  /** The measurements of a result become these: a row is changed, added or taken away. */
  async #measure(of: RecordsOf, { id }: LabResult, sample: Sample, values: ReportedValues): Promise<void> {
    const own = await of(Measurement).find({ resultId: id });
    const wanted = new Map(entriesOf(values));
    for (const measurement of own) {
      const value = wanted.get(measurement.analyte);
      wanted.delete(measurement.analyte);
      if (!value) await of(Measurement).remove(measurement.id);
      else if (!isSame(stored(value), measurement) || measurement.takenOn !== sample.sampledOn)
        await of(Measurement).change(measurement.id, { ...stored(value), takenOn: sample.sampledOn });
    }
    await of(Measurement).addAll(
      [...wanted].map(([analyte, value]) => ({
        ...{ sampleId: sample.id, resultId: id, analyte, takenOn: sample.sampledOn },
        ...stored(value),
      })),
    );
  }

  /** The zones that a sample speaks for. */
  async #share(of: RecordsOf, sampleId: string, zones: readonly Zone[]): Promise<void> {
    const before = await of(SampleZone).find({ sampleId });
    for (const { id, zoneId } of before) if (!zones.some((zone) => zone.id === zoneId)) await of(SampleZone).remove(id);
    await of(SampleZone).addAll(
      zones.flatMap(({ id: zoneId }) =>
        before.some((known) => known.zoneId === zoneId) ? [] : [{ sampleId, zoneId }],
      ),
    );
  }

  async #zones({ zoneIds }: LabResultInput): Promise<Zone[]> {
    const zones = [];
    for (const id of zoneIds) zones.push(await this.ground.zone(id));
    if (new Set(zones.map(({ siteId }) => siteId)).size > 1)
      refuse([{ field: 'zoneIds', message: 'A sample is of zones of one site: choose them again.' }]);
    return zones;
  }

  async #refuseFuture({ sampledOn }: LabResultInput, siteId: string): Promise<void> {
    if (sampledOn && sampledOn.slice(0, 10) > (await this.days.on(siteId))) {
      refuse([{ field: 'sampledOn', message: `The sampling date ${sampledOn} lies in the future: check the year.` }]);
    }
  }
}

/** Of results that were read together: those of the soil that stand, by the zones that they speak for. */
const byZones = new WeakMap<readonly KnownResult[], ReadonlyMap<string, readonly KnownResult[]>>();

function byZone<T extends KnownResult>(results: readonly T[]): ReadonlyMap<string, readonly T[]> {
  const known = byZones.get(results) as ReadonlyMap<string, readonly T[]> | undefined;
  if (known) return known;
  const found = new Map<string, T[]>();
  for (const result of results) {
    if (result.supersededById !== null || result.sample.of !== 'soil') continue;
    for (const zoneId of new Set([...result.zoneIds, ...result.inherited.map((heir) => heir.zoneId)]))
      if (found.get(zoneId)?.push(result) === undefined) found.set(zoneId, [result]);
  }
  byZones.set(results, found);
  return found;
}

/** Results of a zone's soil that stand, its own and those that it shares or inherited, in the order in which all came. */
export const standingOf = <T extends KnownResult>(results: readonly T[], zoneId: string): readonly T[] =>
  byZone(results).get(zoneId) ?? [];

/**
 * What rates of a zone rest on: the newest result of soil that nothing has taken the place of; where the zone was not
 * sampled itself, that of the ground it came from.
 *
 * @param results newest first.
 */
export function testOf<T extends KnownResult>(results: readonly T[], zoneId: string): T | undefined {
  const standing = standingOf(results, zoneId);
  const own = standing.filter(({ zoneIds }) => zoneIds.includes(zoneId));
  return own.find(({ bag }) => bag?.purpose !== BAD_HALF) ?? own[0] ?? standing[0];
}

/** What a bag of the bad half of a pair is taken for: it tells of the spot, and the zone rests on another where it can. */
export const BAD_HALF = 'problem';
/** And of the half that it is read against. */
export const HEALTHY_HALF = 'healthy';

/** When the soil was taken, as far as that is known. */
const takenAt = ({ sample, createdAt }: LabResult): Date => (sample.sampledOn ? new Date(sample.sampledOn) : createdAt);

/** Says of what ground a test is, where it is not the zone's own. */
function inheritedWords({ zoneIds, inherited }: KnownResult, zoneId: string): string | undefined {
  const heir = zoneIds.includes(zoneId) ? undefined : inherited.find((one) => one.zoneId === zoneId);
  if (!heir) return undefined;
  return heir.how === 'parted'
    ? `This test is of ${heir.of}, taken before this zone was parted from it.`
    : `This test is of ${heir.of}, which was joined to this zone: it speaks for that part.`;
}

/** Says whose soil a test is of, where it is not of the zone's alone. @param names of the zones of the site */
export function borrowedWords(
  result: KnownResult,
  zoneId: string,
  names: ReadonlyMap<string, string>,
): string | undefined {
  const shared = result.zoneIds.filter((id) => id !== zoneId).flatMap((id) => names.get(id) ?? []);
  return (
    inheritedWords(result, zoneId) ??
    (shared.length > 0
      ? `One bag with ${shared.join(', ')}: a mean of all, and not of this ground by itself.`
      : undefined)
  );
}

function sampleValues({ label, sampledOn, depth, of, cores }: LabResultInput, siteId: string) {
  return { siteId, label, sampledOn: sampledOn?.slice(0, 10) ?? null, depth, cores: cores ?? null, of: of ?? 'soil' };
}

function resultValues({ labNumber, extractant, limeFactor, advice, advised, values }: LabResultInput) {
  const counts = values.bufferPh?.method === 'adams-evans';
  return {
    ...{ labNumber: labNumber ?? null, extractant, advice: advice ?? null },
    advised: (advised ?? []).map((one) => ({ ...one })),
    limeFactor: counts ? (limeFactor ?? null) : null,
  };
}

export function labResultAnswer(result: ReadResult): LabResultAnswer {
  const { id, version, sampleId, sample, zoneIds, inherited, values, createdAt, supersedesId, supersededById } = result;
  const { labNumber, extractant, limeFactor, beside, advice, advised, origin } = result;
  const { siteId, label, sampledOn, depth, cores, of } = sample;
  return {
    ...{
      id,
      version,
      siteId,
      sampleId,
      of,
      zoneIds: [...zoneIds],
      inherited: [...inherited],
      label,
      labNumber,
      sampledOn,
      depth,
      cores: cores ?? null,
    },
    ...{ extractant, limeFactor, values: { ...values }, beside, advice, advised: [...advised], origin },
    ...{ supersedesId, supersededById, recordedAt: createdAt.toISOString() },
    questions: questionsAbout({ depth, values }),
  };
}
