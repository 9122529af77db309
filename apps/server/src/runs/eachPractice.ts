import { Injectable, Logger } from '@nestjs/common';
import { Practice } from '../people/practice.entity.ts';
import { Door } from '../platform/door.ts';
import { Work } from '../platform/work.ts';
import { RunKinds } from './runKinds.ts';

/** What is looked after in every practice, each minute, on one of the servers. */
@Injectable()
export class EachPractice {
  constructor(
    private readonly door: Door,
    private readonly work: Work,
    private readonly kinds: RunKinds,
  ) {}

  eachMinute(name: string, look: () => Promise<unknown>): void {
    this.kinds.eachMinute(() => this.now(name, look));
  }

  /** What fails in one practice is logged, and does not keep the others from their turn. */
  async now(name: string, look: () => Promise<unknown>): Promise<void> {
    const practices = await this.door.open((manager) => manager.find(Practice));
    for (const { id: practiceId } of practices)
      await this.work
        .run({ practiceId, person: null, role: null }, look)
        .catch((error: unknown) => new Logger(name).error(error));
  }
}
