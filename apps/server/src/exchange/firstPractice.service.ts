import { FirstRunInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { SessionService } from '../people/session.service.ts';
import { SetupService } from '../people/setup.service.ts';
import { MaterialsService } from '../materials/materials.service.ts';

/** The first practice of an installation: made new, or loaded from an export. Refused once there is one. */
@Injectable()
export class FirstPractice {
  constructor(
    private readonly setup: SetupService,
    private readonly materials: MaterialsService,
    private readonly sessions: SessionService,
  ) {}

  /** A practice with its owner and the generic catalogue, without prices. @returns the cookie */
  async make({ practice, name, email, password, timeZone }: FirstRunInput): Promise<string> {
    await this.setup.check({ password, email });
    return this.setup.first(async (manager) => {
      const made = await this.setup.practice(
        manager,
        { name: practice, demo: false, ...(timeZone ? { timeZone } : {}) },
        { name, email },
        password,
      );
      await made.enter(() => this.materials.begin());
      return this.sessions.begin(manager, made.personId, made.practiceId);
    });
  }
}
