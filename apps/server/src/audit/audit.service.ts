import type { AuditEntryAnswer, AuditPageAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { LessThan } from 'typeorm';
import { refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { AuditEntry } from '../platform/auditEntry.entity.ts';

const PAGE = 50;

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
    return { entries: shown.map(answer), next: found.length > PAGE ? shown.at(-1)!.number : null };
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
