import type { UnitSystem } from '@glenfold/agronomy';
import { Injectable } from '@nestjs/common';
import { PracticeService } from '../people/practice.service.ts';
import { Threads } from '../platform/threads.ts';
import { Days } from '../settings/days.service.ts';
import { DrawingService } from './drawing.service.ts';
import { drawingPaper, drawingSvg } from './drawingPaper.ts';
import { GroundService } from './ground.service.ts';

/** The plan of a site to take away. */
@Injectable()
export class DrawingSheetService {
  constructor(
    private readonly ground: GroundService,
    private readonly drawings: DrawingService,
    private readonly practices: PracticeService,
    private readonly days: Days,
    private readonly threads: Threads,
  ) {}

  async svg(siteId: string, units: UnitSystem): Promise<string> {
    return this.threads.run(drawingSvg, ...(await this.#drawn(siteId)), units);
  }

  async pdf(siteId: string, units: UnitSystem): Promise<Uint8Array> {
    return this.threads.run(drawingPaper, ...(await this.#drawn(siteId)), units);
  }

  async #drawn(siteId: string) {
    const { name, place } = await this.ground.site(siteId);
    const practice = await this.practices.current();
    const by = `${practice.name}, ${await this.days.on(siteId)}`;
    return [{ name, place, practice: practice.name }, await this.drawings.plan(siteId), by] as const;
  }
}
