import { Injectable, Logger, type OnApplicationBootstrap, type OnApplicationShutdown } from '@nestjs/common';
import { Practice } from '../people/practice.entity.ts';
import { Door } from '../platform/door.ts';
import { Work } from '../platform/work.ts';
import { LaboratoriesService } from './laboratories.service.ts';

const EVERY = 60_000;

/** Asks the laboratories of every practice each minute. Copies of the server may ask at once: news is told once. */
@Injectable()
export class LabPost implements OnApplicationBootstrap, OnApplicationShutdown {
  readonly #log = new Logger(LabPost.name);
  #timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly door: Door,
    private readonly work: Work,
    private readonly laboratories: LaboratoriesService,
  ) {}

  onApplicationBootstrap(): void {
    this.#timer = setInterval(() => void this.ask(), EVERY).unref();
  }

  onApplicationShutdown(): void {
    clearInterval(this.#timer);
  }

  /** What fails is logged, and does not keep the others from their news. */
  async ask(): Promise<void> {
    try {
      const practices = await this.door.open((manager) => manager.find(Practice));
      for (const { id: practiceId } of practices)
        await this.work
          .run({ practiceId, person: null, role: null }, () => this.laboratories.ask())
          .catch((error: unknown) => this.#log.error(error));
    } catch (error) {
      this.#log.error(error);
    }
  }
}
