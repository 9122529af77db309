import { type Treatment, type UnitSystem, type ZoneProgram, coreUnit, planned, productIdOf } from '@glenfold/agronomy';
import type { JobAheadAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { In } from 'typeorm';
import { randomUUID } from 'node:crypto';
import { Problem } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Program } from './program.entity.ts';
import { ProgramZone } from './programZone.entity.ts';
import { DoseRecord, TreatmentRecord } from './treatment.entity.ts';

/** A zone of a program that is handed over. */
export interface HandedZone {
  readonly zoneId: string;
  readonly program: ZoneProgram;
  readonly resultId: string | null;
}

/** A dose that was kept, with the treatment it is of. */
export interface HandedDose {
  readonly doseId: string;
  readonly zoneId: string;
  readonly position: number;
  readonly treatment: Treatment;
}

/** What was handed over just now, in the same transaction. */
export interface Handed {
  readonly program: Program;
  readonly zones: readonly HandedZone[];
  readonly doses: readonly HandedDose[];
}

/** What a hand-over will do to the jobs of the program before it. */
export type JobsForeseer = (
  siteId: string,
  zones: readonly HandedZone[],
  doses: readonly HandedDose[],
  units: UnitSystem,
) => Promise<readonly JobAheadAnswer[]>;

/** Treatments that are handed over, and their doses, each with an id of its own. */
function linesOf(zones: readonly HandedZone[]) {
  const lines = zones.flatMap(({ zoneId, program: { treatments } }) =>
    planned(treatments).map((treatment) => ({ id: randomUUID(), zoneId, treatment })),
  );
  const doses = lines.flatMap(({ id, zoneId, treatment }) =>
    treatment.doses.map((dose, position) => ({
      ...{ doseId: randomUUID(), treatmentId: id, zoneId, position, treatment, dose },
    })),
  );
  return { lines, doses };
}

/** Keeps what is handed over as rows, and tells the steps that go on from there. */
@Injectable()
export class HandOver {
  readonly #listeners: Array<(handed: Handed) => Promise<void>> = [];

  #foreseer: JobsForeseer = () => Promise.resolve([]);

  constructor(private readonly records: Records) {}

  /** Do something with every program that is handed over: it stands or falls with it. */
  listen(listener: (handed: Handed) => Promise<void>): void {
    this.#listeners.push(listener);
  }

  /** Say beforehand what a hand-over does to the jobs that there are. */
  foresee(foreseer: JobsForeseer): void {
    this.#foreseer = foreseer;
  }

  /** What becomes of the jobs of some zones, were they handed over now. */
  jobsAhead(siteId: string, zones: readonly HandedZone[], units: UnitSystem): Promise<readonly JobAheadAnswer[]> {
    return this.#foreseer(siteId, zones, linesOf(zones).doses, units);
  }

  /** The newest that was handed over of each zone. */
  async last(zoneIds: readonly string[]): Promise<ProgramZone[]> {
    const zones = await this.records.of(ProgramZone).find({ zoneId: In([...zoneIds]) }, { issuedAt: 'DESC' });
    return [...new Map(zones.reverse().map((zone) => [zone.zoneId, zone])).values()];
  }

  /**
   * From here on nobody else hands over this site; what was handed over last of these zones.
   *
   * @param seen what was handed over last when the program was worked out
   * @throws a 409 problem where somebody has handed over since: of two at the same moment one wins, and the other is told
   */
  async claim(
    siteId: string,
    zones: ReadonlyArray<Pick<HandedZone, 'zoneId'>>,
    seen: readonly ProgramZone[],
  ): Promise<ProgramZone[]> {
    await this.records.alone(`programs of ${siteId}`);
    const now = await this.last(zones.map(({ zoneId }) => zoneId));
    if (now.every(({ id }) => seen.some((one) => one.id === id))) return now;
    throw new Problem(
      409,
      'Handed over meanwhile',
      'Somebody handed this program over at the same moment, so nothing was handed over here. Look at what stands now; hand over again only if something is missing in it.',
    );
  }

  /** Treatments and doses as rows, so that what was handed over can be asked for. */
  async keep(program: Program, zones: readonly HandedZone[], earlier: readonly ProgramZone[]): Promise<void> {
    const { lines, doses } = linesOf(zones);
    await this.records.of(TreatmentRecord).addAll(
      lines.map(({ id, zoneId, treatment: { key, remedy, supply, rate, sense } }) => ({
        ...{ id, programId: program.id, zoneId, key, remedy, productId: productIdOf(supply) },
        ...{ rate: rate?.value ?? null, unit: coreUnit(sense), override: null },
      })),
    );
    await this.records.of(DoseRecord).addAll(
      doses.map(({ doseId, treatmentId, position, dose: { rate, from, to } }) => ({
        ...{ id: doseId, treatmentId, position, rate, earliest: from, latest: to },
      })),
    );
    await this.#supersede(earlier.map(({ programId }) => programId));
    for (const listener of this.#listeners) await listener({ program, zones, doses });
  }

  /** Programs of which nothing is newest any more. */
  async #supersede(programIds: readonly string[]): Promise<void> {
    const newest = new Set(
      (
        await this.records.ask<{ programId: string }>(
          `SELECT DISTINCT ON ("zoneId") "programId" FROM program_zone WHERE "practiceId" = $1 AND "deletedAt" IS NULL
             AND "zoneId" IN (SELECT "zoneId" FROM program_zone WHERE "programId" = ANY($2))
           ORDER BY "zoneId", "issuedAt" DESC`,
          [[...programIds]],
        )
      ).map(({ programId }) => programId),
    );
    const old = [...new Set(programIds)].filter((id) => !newest.has(id));
    for (const id of old) await this.records.of(Program).change(id, { state: 'superseded' });
  }
}
