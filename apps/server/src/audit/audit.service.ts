import { writeBagCode } from '@glenfold/agronomy';
import type { AuditEntryAnswer, AuditPageAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { LessThan } from 'typeorm';
import { refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { AuditEntry } from '../platform/auditEntry.entity.ts';

const PAGE = 50;
const UUID = /[\da-f]{8}(?:-[\da-f]{4}){3}-[\da-f]{12}/g;

/** Reading what the database wrote down of each change. */
@Injectable()
export class AuditService {
  constructor(
    private readonly records: Records,
    private readonly work: Work,
  ) {}

  /** Newest first. @param before where the last page ended */
  async page(before?: string): Promise<AuditPageAnswer> {
    if (before !== undefined && !/^\d{1,18}$/.test(before))
      refuse([{ field: 'before', message: 'This is not where a page ends: begin with the first.' }]);
    const { practiceId } = this.work;
    const found = await this.records.scoped((manager) =>
      manager.find(AuditEntry, {
        where: { practiceId, ...(before ? { number: LessThan(before) } : {}) },
        order: { number: 'DESC' },
        take: PAGE + 1,
      }),
    );
    const shown = found.slice(0, PAGE);
    const entries = shown.map(answer);
    return { entries, names: await this.#names(entries), next: found.length > PAGE ? shown.at(-1)!.number : null };
  }

  async #names(entries: readonly AuditEntryAnswer[]): Promise<Record<string, string>> {
    const ids = [...new Set(JSON.stringify(entries).match(UUID))];
    const named = await this.records.ask<{ id: string; name: string; code: boolean }>(
      `${['site', 'zone', 'product']
        .map((table) => `SELECT "id", "name", false AS "code" FROM ${table} WHERE "practiceId" = $1 AND "id" = ANY($2)`)
        .join(' UNION ALL ')}
       UNION ALL SELECT "id", "code", true FROM bag WHERE "practiceId" = $1 AND "id" = ANY($2)
       UNION ALL SELECT p."id", p."name", false FROM person p JOIN membership m ON m."personId" = p."id"
         WHERE m."practiceId" = $1 AND p."id" = ANY($2)`,
      [ids],
    );
    return Object.fromEntries(named.map(({ id, name, code }) => [id, code ? writeBagCode(name) : name]));
  }
}

function answer({
  id,
  at,
  personName,
  action,
  kind,
  recordId,
  recordName,
  before,
  after,
}: AuditEntry): AuditEntryAnswer {
  return {
    id,
    at: at.toISOString(),
    by: personName,
    action,
    kind: kind.replaceAll('_', ' '),
    recordId,
    recordName,
    before,
    after,
  };
}
