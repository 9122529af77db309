import type { PracticeAnswer, PracticeInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Records, Stale } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Practice } from './practice.entity.ts';

/** The practice at work. */
@Injectable()
export class PracticeService {
  constructor(
    private readonly records: Records,
    private readonly work: Work,
  ) {}

  current(): Promise<Practice> {
    const { practiceId } = this.work;
    return this.records.scoped((manager) => manager.findOneByOrFail(Practice, { id: practiceId }));
  }

  change(input: PracticeInput, version: number): Promise<Practice> {
    const { name, timeZone, currency, phone = null, email = null, clientsShare } = input;
    return this.records.scoped(async (manager) => {
      const { practiceId } = this.work;
      const practice = await manager.findOneOrFail(Practice, {
        where: { id: practiceId },
        lock: { mode: 'pessimistic_write' },
      });
      if (practice.version !== version) {
        const { by, at } = await this.records.lastChange(practiceId);
        const changedAt = (at ?? practice.createdAt).toISOString();
        throw new Stale({ current: practiceAnswer(practice), changedBy: by, changedAt });
      }
      return manager.save(
        Object.assign(practice, {
          name,
          timeZone,
          currency,
          phone,
          email,
          clientsShare: clientsShare ?? practice.clientsShare,
        }),
      );
    });
  }
}

export function practiceAnswer({
  id,
  name,
  demo,
  timeZone,
  currency,
  version,
  phone,
  email,
  clientsShare,
}: Omit<Practice, 'createdAt' | 'later'>): PracticeAnswer {
  return { id, name, demo, timeZone, currency, version, phone, email, clientsShare };
}
