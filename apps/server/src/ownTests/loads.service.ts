import { InputError, type LoadJudged, judgeLoad, refusalWords } from '@glenfold/agronomy';
import type { LoadCheckAnswer, LoadCheckInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { GroundService } from '../ground/ground.service.ts';
import { refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Days } from '../settings/days.service.ts';
import { LoadCheck } from './loadCheck.entity.ts';

/** Loads and seed at the gate: taken or sent back by what was looked at. */
@Injectable()
export class LoadsService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly work: Work,
    private readonly days: Days,
  ) {}

  async of(siteId: string): Promise<LoadCheckAnswer[]> {
    await this.ground.site(siteId);
    return (await this.records.of(LoadCheck).find({ siteId }, { on: 'DESC', createdAt: 'DESC' })).map(told);
  }

  /** Sent again, it is the same check, changed. */
  async keep(input: LoadCheckInput): Promise<LoadCheckAnswer> {
    const { id, siteId, kind, on, name, record, decided = null, reason = null } = input;
    await this.ground.site(siteId);
    if (on > (await this.days.on(siteId)))
      refuse([{ field: 'on', message: 'That day has not come yet: check the date.' }]);
    const { verdict } = judged(input);
    if (decided === 'taken' && verdict !== 'take it' && !reason)
      refuse([{ field: 'reason', message: `The checks say: ${verdict}. Say why it is taken all the same.` }]);
    const values = { kind, on, name, record, decided, reason };
    return this.records.together(async (of) => {
      const [known] = await of(LoadCheck).find({ id });
      return told(
        known
          ? await of(LoadCheck).change(id, values)
          : await of(LoadCheck).add({ id, siteId, ...values, by: this.work.worker.person?.name ?? null }),
      );
    });
  }

  remove(id: string): Promise<void> {
    return this.records.of(LoadCheck).remove(id);
  }

  async restore(id: string): Promise<LoadCheckAnswer> {
    return told(await this.records.of(LoadCheck).restore(id));
  }
}

/** @throws a 422 problem naming the field of what cannot be */
function judged({ kind, record, on }: Pick<LoadCheckInput, 'kind' | 'record' | 'on'>): LoadJudged {
  try {
    return judgeLoad(kind, record, on);
  } catch (error) {
    if (error instanceof InputError) refuse([{ field: `record.${error.field}`, message: refusalWords(error) }]);
    throw error;
  }
}

function told(found: LoadCheck): LoadCheckAnswer {
  const { id, version, siteId, kind, on, name, record, decided, reason, by } = found;
  const { verdict, reasons, goodFor, open } = judged(found);
  return {
    ...{ id, version, siteId, kind, on, name, record, decided, reason, by, verdict },
    ...{ reasons: [...reasons], goodFor: [...goodFor], open: [...open] },
  };
}
