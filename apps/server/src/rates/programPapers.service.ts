import { Injectable, StreamableFile } from '@nestjs/common';
import { Problem } from '../platform/problem.ts';
import { Threads } from '../platform/threads.ts';
import { type Copy, programPaper } from './programPdf.ts';
import type { ZonePaper } from './programZone.entity.ts';

/** Programs on paper, as downloads that a browser shows. */
@Injectable()
export class ProgramPapers {
  constructor(private readonly threads: Threads) {}

  /** @param day when it was handed over or printed, where its site lies */
  async onPaper(
    papers: readonly ZonePaper[],
    kind: 'program' | 'draft',
    day: string,
    copy: Copy = 'owner',
  ): Promise<StreamableFile> {
    const [first] = papers;
    if (!first) throw new Problem(404, 'Nothing to print', 'No zone has anything in the program yet.');
    const of = papers.length === 1 ? `${first.siteName} ${first.zoneName}` : first.siteName;
    const file = `${of} ${kind}.pdf`.replace(/[^\w .-]/g, '');
    return new StreamableFile(await this.threads.run(programPaper, papers, kind, day, copy), {
      type: 'application/pdf',
      disposition: `inline; filename="${file}"`,
    });
  }
}
