import { randomUUID } from 'node:crypto';
import type { FieldTestInput, LabQuestionInput, LoadCheckInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { GroundService } from '../ground/ground.service.ts';
import { LabQuestionsService } from '../lab/labQuestions.service.ts';
import { LoadsService } from '../ownTests/loads.service.ts';
import { OwnTestsService } from '../ownTests/ownTests.service.ts';
import { Clock } from '../platform/clock.ts';
import { Days } from '../settings/days.service.ts';

/** What somebody's own hands found on a site of the demo scenario. */
export interface DemoFindings {
  /** A moment in a record is its day and time, or "-95 min" of a test that goes on. */
  readonly tests?: ReadonlyArray<Pick<FieldTestInput, 'kind' | 'record' | 'closed' | 'doneBy'> & { readonly zone: string; readonly on: string | null }>;
  readonly loads?: ReadonlyArray<Omit<LoadCheckInput, 'id' | 'siteId'>>;
  readonly questions?: ReadonlyArray<Omit<LabQuestionInput, 'zoneId'> & { readonly zone: string }>;
} // prettier-ignore

const BEFORE = /^-(\d+) min$/;

/** Tests, loads and questions of the demo, through the same services as a person would. */
@Injectable()
export class DemoTests {
  constructor(
    private readonly clock: Clock,
    private readonly days: Days,
    private readonly ground: GroundService,
    private readonly tests: OwnTestsService,
    private readonly loads: LoadsService,
    private readonly questions: LabQuestionsService,
  ) {}

  async load(siteId: string, { tests = [], loads = [], questions = [] }: DemoFindings): Promise<void> {
    const zones = new Map((await this.ground.zones(siteId)).map(({ id, label }) => [label, id]));
    const today = await this.days.on(siteId);
    for (const { zone, on, record, ...test } of tests)
      await this.tests.keep(
        {
          ...{ ...test, id: randomUUID(), zoneId: zones.get(zone)!, on: on ?? today, revision: 1 },
          record: this.#dated(record) as object,
        },
        'us',
      );
    for (const load of loads) await this.loads.keep({ ...load, id: randomUUID(), siteId });
    for (const { zone, ...question } of questions) await this.questions.add({ ...question, zoneId: zones.get(zone)! });
  }

  /** A record with its moments, wherever they stand in it. */
  #dated(value: unknown): unknown {
    if (Array.isArray(value)) return value.map((one) => this.#dated(one));
    if (typeof value === 'object' && value !== null)
      return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, this.#dated(one)]));
    const [, minutes] = (typeof value === 'string' && BEFORE.exec(value)) || [];
    return minutes === undefined
      ? value
      : new Date(this.clock.now().getTime() - Number(minutes) * 60_000).toISOString();
  }
}
