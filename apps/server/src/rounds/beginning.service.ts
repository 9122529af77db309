import { type BeginningAnswer, type BeginningKey, beginningKeys } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Practice } from '../people/practice.entity.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';

const DONE = `
  SELECT p."later" AS "later",
    p."phone" IS NOT NULL OR p."email" IS NOT NULL AS "reach",
    EXISTS (SELECT FROM person o WHERE o."id" = $2 AND o."units" IS NOT NULL) AS "units",
    EXISTS (SELECT FROM laboratory l WHERE l."practiceId" = $1 AND l."deletedAt" IS NULL)
      OR EXISTS (SELECT FROM lab_result r WHERE r."practiceId" = $1 AND r."deletedAt" IS NULL) AS "laboratory",
    EXISTS (SELECT FROM setting s WHERE s."practiceId" = $1 AND s."kind" = 'work' AND s."deletedAt" IS NULL) AS "prices",
    EXISTS (SELECT FROM machine m WHERE m."practiceId" = $1 AND m."deletedAt" IS NULL) AS "machines",
    EXISTS (SELECT FROM membership m WHERE m."practiceId" = $1 AND m."deletedAt" IS NULL AND m."personId" <> $2)
      OR EXISTS (SELECT FROM invitation i WHERE i."practiceId" = $1 AND i."deletedAt" IS NULL) AS "person",
    EXISTS (SELECT FROM site s WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL) AS "site"
  FROM practice p WHERE p."id" = $1`;

type Done = Readonly<Record<BeginningKey, boolean>> & { readonly later: readonly BeginningKey[] };

/** What a new practice begins with, what of it is done, and what was left for later. */
@Injectable()
export class BeginningService {
  constructor(
    private readonly records: Records,
    private readonly work: Work,
  ) {}

  async steps(): Promise<BeginningAnswer> {
    const [done] = await this.records.ask<Done>(DONE, [this.work.worker.person?.id ?? null]);
    return {
      steps: beginningKeys.map((key) => ({
        key,
        state: done?.[key] ? 'done' : done?.later.includes(key) ? 'later' : 'open',
      })),
    };
  }

  /** Leave one for later, or take it up again. */
  async leave(key: BeginningKey, later: boolean): Promise<BeginningAnswer> {
    const { practiceId } = this.work;
    await this.records.scoped(async (manager) => {
      const practice = await manager.findOneOrFail(Practice, {
        where: { id: practiceId },
        lock: { mode: 'pessimistic_write' },
      });
      const others = practice.later.filter((one) => one !== key);
      await manager.save(Object.assign(practice, { later: later ? [...others, key] : others }));
    });
    return this.steps();
  }
}
