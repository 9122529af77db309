import { Injectable, Logger } from '@nestjs/common';
import { Practice } from '../people/practice.entity.ts';
import { Door } from '../platform/door.ts';
import { Work } from '../platform/work.ts';
import { RunKinds } from '../runs/runKinds.ts';
import { LaboratoriesService } from './laboratories.service.ts';

/** Asks the laboratories of every practice each minute, on one of the servers. */
@Injectable()
export class LabPost {
  readonly #log = new Logger(LabPost.name);

  constructor(
    private readonly door: Door,
    private readonly work: Work,
    private readonly laboratories: LaboratoriesService,
    kinds: RunKinds,
  ) {
    kinds.eachMinute(() => this.ask());
  }

  /** What fails is logged, and does not keep the others from their news. */
  async ask(): Promise<void> {
    const practices = await this.door.open((manager) => manager.find(Practice));
    for (const { id: practiceId } of practices)
      await this.work
        .run({ practiceId, person: null, role: null }, () => this.laboratories.ask())
        .catch((error: unknown) => this.#log.error(error));
  }
}
