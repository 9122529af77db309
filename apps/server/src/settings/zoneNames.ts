import { Injectable } from '@nestjs/common';
import { notFound } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';

/** Zones by name, for decisions that stand for one: the ground itself is built on the settings. */
@Injectable()
export class ZoneNames {
  constructor(private readonly records: Records) {}

  /** @throws a 404 problem, also for another practice's zone */
  async one(id: string): Promise<{ readonly id: string; readonly name: string }> {
    const [found] = await this.records.ask<{ id: string; name: string }>(
      'SELECT id, name FROM zone WHERE "practiceId" = $1 AND id = $2 AND "deletedAt" IS NULL',
      [id],
    );
    return found ?? notFound();
  }
}
