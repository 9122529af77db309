import { FirstRunInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { readFileSync } from 'node:fs';
import { Installation } from '../platform/installation.ts';
import { SessionService } from '../people/session.service.ts';
import { SetupService } from '../people/setup.service.ts';
import { CatalogueService } from '../catalogue/catalogue.service.ts';

/** The first practice of an installation: made new, or loaded from an export. Refused once there is one. */
@Injectable()
export class FirstPractice {
  constructor(
    private readonly setup: SetupService,
    private readonly catalogue: CatalogueService,
    private readonly sessions: SessionService,
    private readonly installation: Installation,
  ) {}

  /** A practice with its owner and the generic catalogue, without prices. @returns the cookie */
  async make({ practice, name, email, password }: FirstRunInput): Promise<string> {
    await this.setup.check({ password, email });
    return this.setup.first(async (manager) => {
      const made = await this.setup.practice(manager, { name: practice, demo: false }, { name, email }, password);
      await made.enter(() => this.catalogue.import(readFileSync(this.installation.catalogue, 'utf8')));
      return this.sessions.begin(manager, made.personId, made.practiceId);
    });
  }
}
