import { Injectable, StreamableFile } from '@nestjs/common';
import { Problem } from '../platform/problem.ts';
import { Threads } from '../platform/threads.ts';
import type { IssuedPlan, Plan } from './plan.entity.ts';
import { planPaper } from './planPdf.ts';

/** Plans on paper, as downloads that a browser shows. */
@Injectable()
export class PlanPapers {
  constructor(private readonly threads: Threads) {}

  /** A plan as it was handed over. @param day when, where its site lies */
  issued({ issued }: Plan, day: string): Promise<StreamableFile> {
    if (!issued) throw new Problem(404, 'Not handed over', 'This plan has not been handed over yet.');
    return this.#onPaper(issued, 'plan', day);
  }

  /** A plan as it stands on the day of printing. */
  draft(draft: IssuedPlan, today: string): Promise<StreamableFile> {
    return this.#onPaper(draft, 'draft', today);
  }

  async #onPaper(issued: IssuedPlan, kind: 'plan' | 'draft', day: string): Promise<StreamableFile> {
    const file = `${issued.siteName} ${issued.zoneName} ${kind}.pdf`.replace(/[^\w .-]/g, '');
    return new StreamableFile(await this.threads.run(planPaper, issued, kind, day), {
      type: 'application/pdf',
      disposition: `inline; filename="${file}"`,
    });
  }
}
