import { InputError, readBagCode } from '@glenfold/agronomy';
import type { BagCount, BagLineAnswer, BagState, BoardAnswer, PlannedWalkAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { PAGE, cut, readPlace } from '../platform/paging.ts';
import { Problem, refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { ofLivingSite } from '../sites/living.ts';
import { Bag } from './bag.entity.ts';
import { BagAnswers } from './bagAnswers.service.ts';
import { DUE } from './due.ts';

/** Which page of the board is asked for; without a state, of all bags that are under way. */
export interface BoardAsked {
  readonly state?: BagState | undefined;
  readonly after?: string | undefined;
  readonly limit?: number | undefined;
}

/** What belongs to a site that was deleted is on no board. */
const OF_LIVING_SITE = `EXISTS (SELECT FROM site s WHERE s."id" = b."siteId" AND s."deletedAt" IS NULL)`;

/** Where the bags of all sites are. */
@Injectable()
export class BoardService {
  constructor(
    private readonly records: Records,
    private readonly answers: BagAnswers,
  ) {}

  /** Bags of all sites, what is longest overdue first. */
  async page({ state, after, limit = PAGE }: BoardAsked): Promise<BoardAnswer> {
    const [due, since, id] = readPlace(after, 3) ?? [];
    const found = await this.records.ask<Bag & { readonly due: Date | null }>(
      `SELECT * FROM (
         SELECT b.*, ${DUE} AS "due", coalesce(${DUE}, 'infinity') AS "last" FROM bag b
         WHERE b."practiceId" = $1 AND b."deletedAt" IS NULL
           AND ${OF_LIVING_SITE}
           AND CASE WHEN $2::text IS NULL THEN b."state" NOT IN ('read', 'lost', 'spoiled') ELSE b."state" = $2 END
       ) b
       WHERE $3::timestamptz IS NULL OR ("last", "since", "id") > ($3, $4::timestamptz, $5::uuid)
       ORDER BY "last", "since", "id" LIMIT $6`,
      [state ?? null, due ?? null, since ?? null, id ?? null, limit + 1],
    );
    const counts = await this.records.ask<BagCount>(
      `SELECT b."state", b."laboratory", count(*)::int AS "count" FROM bag b
       WHERE b."practiceId" = $1 AND b."deletedAt" IS NULL AND ${OF_LIVING_SITE} GROUP BY 1, 2`,
    );
    const { shown, next } = cut(found, limit, (last) => [
      last.due?.toISOString() ?? 'infinity',
      last.since.toISOString(),
      last.id,
    ]);
    return { bags: await this.answers.lines(shown), counts, next };
  }

  /** Sites with bags that wait to be walked. */
  walks(): Promise<PlannedWalkAnswer[]> {
    return this.records.ask(
      `SELECT s."id" AS "siteId", s."name" AS "siteName", count(*)::int AS "bags"
       FROM bag b JOIN site s ON s."id" = b."siteId" AND s."deletedAt" IS NULL
       WHERE b."practiceId" = $1 AND b."deletedAt" IS NULL AND b."state" = 'planned'
       GROUP BY 1, 2 ORDER BY 2, 1`,
    );
  }

  /** The bag of a code, however it was typed. @throws a refusal for a mistyped code, 404 for one of no bag */
  async find(typed: string): Promise<BagLineAnswer> {
    const [bag] = await this.records.of(Bag).find({ code: readCode(typed), siteId: ofLivingSite() });
    if (!bag)
      throw new Problem(
        404,
        'No such bag',
        `The code is well formed, but no bag of this practice has it. It may belong to another practice, or its bag or site was deleted.`,
      );
    return (await this.answers.lines([bag]))[0]!;
  }
}

/** @throws a refusal that says what is wrong with a code */
function readCode(typed: string): string {
  try {
    return readBagCode(typed, 'The code');
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return refuse([{ field: 'code', message: `${error.message}.` }]);
  }
}
