import { type UnitSystem, differencesOf, planned } from '@glenfold/agronomy';
import type { HandOverAheadAnswer, HandOverInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { createHash } from 'node:crypto';
import { GroundService } from '../ground/ground.service.ts';
import { Clock } from '../platform/clock.ts';
import { Problem } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { changedSince, decidedNow } from './changedSince.ts';
import { HandOver, type HandedZone } from './handOver.service.ts';
import { Program } from './program.entity.ts';
import { ProgramZone, paperOf } from './programZone.entity.ts';
import { RatesService } from './rates.service.ts';

/** The same for two programs by which an owner would do the same. */
function sealOf(zones: readonly HandedZone[]): string {
  const told = zones.map(({ zoneId, resultId, program }) => [
    zoneId,
    resultId,
    planned(program.treatments).map(({ key, rate, doses, supply, others }) => [
      ...[key, rate?.value, doses],
      [supply, ...others].map((one) => one && [one.materialId, one.quantity.value]),
    ]),
  ]);
  return createHash('sha256').update(JSON.stringify(told)).digest('hex').slice(0, 32);
}

/** Hands programs over, and says before what that does. */
@Injectable()
export class HandingOver {
  constructor(
    private readonly records: Records,
    private readonly rates: RatesService,
    private readonly ground: GroundService,
    private readonly clock: Clock,
    private readonly handOver: HandOver,
  ) {}

  /** What handing these zones over would do: what is another than on the last paper, and what becomes of the jobs. */
  async ahead(siteId: string, units: UnitSystem, zoneIds?: readonly string[]): Promise<HandOverAheadAnswer> {
    const zones = await this.ground.zones(siteId);
    const { papers } = await this.rates.papers(siteId, units, zoneIds);
    const last = new Map(
      (await this.handOver.last(papers.map(({ zoneId }) => zoneId))).map((one) => [one.zoneId, one]),
    );
    return {
      seal: sealOf(papers),
      zones: papers.map(({ zoneId, paper, program }) => {
        const before = last.get(zoneId);
        return {
          ...{ zoneId, name: paper.zoneName, at: before?.issuedAt.toISOString() ?? null },
          differences: before ? differencesOf(paperOf(before.issued).answer.program, program, units) : [],
        };
      }),
      without: zones
        .filter(({ id }) => (zoneIds?.includes(id) ?? true) && !papers.some(({ zoneId }) => zoneId === id))
        .map(({ name }) => name),
      jobs: [...(await this.handOver.jobsAhead(siteId, papers, units))],
    };
  }

  /** Which of some zones have something decided that is in no paper yet. */
  async changing(zoneIds: readonly string[]): Promise<ReadonlySet<string>> {
    return new Set([...(await changedSince(this.records, zoneIds))].map((one) => one.split(' ')[0]!));
  }

  /**
   * Hand a site’s program over: frozen as it stands, and in place of what was handed over of these zones before.
   *
   * @throws a 409 problem where it is not what was looked at any more
   */
  async issue(
    siteId: string,
    units: UnitSystem,
    { zoneIds, seal }: HandOverInput = {},
  ): Promise<Program & { zones: number }> {
    const seen = await this.handOver.last(zoneIds ?? (await this.ground.zones(siteId)).map(({ id }) => id));
    const { papers, price } = await this.rates.papers(siteId, units, zoneIds);
    const first = papers[0] ?? this.rates.nothingYet('This site');
    if (seal !== undefined && seal !== sealOf(papers))
      throw new Problem(
        409,
        'Changed meanwhile',
        'Something of the program was changed after you looked, so nothing was handed over. Look at what it says now, and hand it over then.',
      );
    return this.records.together(async (of) => {
      const earlier = await this.handOver.claim(siteId, papers, seen);
      const issuedAt = this.clock.now();
      const decided = await decidedNow(this.records, papers.map(({ zoneId }) => zoneId)); // prettier-ignore
      const program = await of(Program).add({
        ...{ siteId, state: 'handed over', handedOverAt: issuedAt, units, price, startsOn: first.startsOn },
      });
      await of(ProgramZone).addAll(
        papers.map(({ zoneId, paper, resultId }) => ({
          ...{ programId: program.id, zoneId, labResultId: resultId, issuedAt, issued: paper },
          decided: decided.get(zoneId) ?? {},
        })),
      );
      await this.handOver.keep(program, papers, earlier);
      return { ...program, zones: papers.length };
    });
  }
}
