import { type Step, type StepState, steps } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Clock } from '../platform/clock.ts';
import { Records } from '../platform/records.ts';
import type { Facts, StepReporter, TaskKind } from './stepReporter.ts';

/** The steps that report themselves. One that is built later registers here, and nothing else changes. */
@Injectable()
export class StepReporters {
  readonly #byStep = new Map<Step, StepReporter>();

  constructor(
    private readonly records: Records,
    private readonly clock: Clock,
  ) {}

  register<K extends string>(reporter: StepReporter<K>): void {
    this.#byStep.set(reporter.step, reporter);
  }

  /** Kinds of tasks of every step, the most pressing first. */
  get tasks(): Array<TaskKind & { readonly step: Step }> {
    return [...this.#byStep.values()]
      .flatMap(({ step, tasks }) => tasks.map((kind) => ({ ...kind, step })))
      .sort((one, other) => one.pressing - other.pressing);
  }

  /** How far every step is on each of these sites: one statement, however many steps and sites there are. */
  async states(siteIds: readonly string[]): Promise<(siteId: string) => StepState[]> {
    const reporters = [...this.#byStep.values()];
    const each = reporters.map(
      ({ step, numbers }) =>
        `SELECT '${step}' AS "step", n."siteId", to_jsonb(n) - 'siteId' AS "facts" FROM (${numbers}) n`,
    );
    const shared = new Map(reporters.flatMap((reporter) => Object.entries(reporter.shared ?? {})));
    const named = [...shared].map(([name, statement]) => `, ${name} AS MATERIALIZED (${statement})`).join('');
    // The first line gives the parameters their types, whichever of them the steps ask for.
    const rows = await this.records.ask<{ step: Step; siteId: string; facts: Facts }>(
      `WITH asked AS (SELECT $1::uuid, $2::uuid[], $3::timestamptz)${named} ${each.join(' UNION ALL ')}`,
      [siteIds, this.clock.now()],
    );
    const known = new Map(rows.map(({ step, siteId, facts }) => [`${step} ${siteId}`, facts]));
    return (siteId) =>
      steps.map((step) => {
        const facts = known.get(`${step} ${siteId}`);
        const reporter = this.#byStep.get(step);
        return { step, ...(facts && reporter ? reporter.state(facts) : TO_COME) };
      });
  }
}

const TO_COME = { words: 'to come', state: 'later' } as const;
