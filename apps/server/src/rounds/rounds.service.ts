import {
  type RoundsTask,
  type SiteStateAnswer,
  type SiteStatesAnswer,
  type TasksAnswer,
  allows,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { GroundService, type SitesAsked, type SizedSite, siteAnswer } from '../ground/ground.service.ts';
import { readPlace, writePlace } from '../platform/paging.ts';
import { notFound, refuse } from '../platform/problem.ts';
import { Work } from '../platform/work.ts';
import type { FoundTask } from '../steps/stepReporter.ts';
import { StepReporters } from '../steps/stepReporters.ts';

/** Collects what the steps tell of themselves, and pages it; knows none of them. */
@Injectable()
export class RoundsService {
  constructor(
    private readonly ground: GroundService,
    private readonly reporters: StepReporters,
    private readonly work: Work,
  ) {}

  /** What wants doing, most pressing first; only what the person may do. @param after where the last page ended */
  async tasks(after: string | undefined, limit: number): Promise<TasksAnswer> {
    const { role } = this.work.worker;
    const kinds = this.reporters.tasks.filter(({ may }) => role === null || allows(role, may));
    const [name, siteName, id] = readPlace(after, 3) ?? [];
    const begin = name === undefined ? 0 : kinds.findIndex((kind) => kind.name === name);
    if (begin < 0) refuse([{ field: 'after', message: 'This is not where a page ends: begin with the first.' }]);
    const tasks: RoundsTask[] = [];
    for (const [at, kind] of kinds.entries()) {
      if (at < begin) continue;
      const behind = at === begin && siteName !== undefined && id !== undefined ? { siteName, id } : undefined;
      // One more than fits tells whether another page follows.
      const found = await kind.page(behind, limit - tasks.length + 1);
      const fits = found.slice(0, limit - tasks.length);
      tasks.push(...fits.map((task) => told(task, kind.step)));
      if (found.length > fits.length) {
        const last = fits.at(-1);
        // Where nothing of a kind fitted, the next page begins with it.
        return {
          tasks,
          next: last ? writePlace([kind.name, last.siteName, last.id]) : writePlace([kind.name, '', NONE]),
        };
      }
    }
    return { tasks, next: null };
  }

  /** Sites by name, each with its state. */
  async sites(asked: SitesAsked): Promise<SiteStatesAnswer> {
    const { sites, count, next } = await this.ground.sites(asked);
    return { sites: await this.#states(sites), count, next };
  }

  async site(siteId: string): Promise<SiteStateAnswer> {
    const { sites } = await this.ground.sites({ ids: [siteId] });
    const [state] = await this.#states(sites);
    return state ?? notFound();
  }

  async #states(sites: readonly SizedSite[]): Promise<SiteStateAnswer[]> {
    const stepsOf = await this.reporters.states(sites.map(({ id }) => id));
    return sites.map((site) => {
      const { zones, area, id } = site;
      return { site: siteAnswer(site), zones, area, steps: stepsOf(id) };
    });
  }
}

const NONE = '00000000-0000-0000-0000-000000000000';
const told = ({ id: _id, ...task }: FoundTask, step: RoundsTask['step']): RoundsTask => ({ ...task, step });
