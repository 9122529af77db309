import { Injectable, StreamableFile } from '@nestjs/common';
import { GroundService } from '../ground/ground.service.ts';
import { PracticeService } from '../people/practice.service.ts';
import { notFound } from '../platform/problem.ts';
import { Threads } from '../platform/threads.ts';
import { Days } from '../settings/days.service.ts';
import { quotePaper } from './quotePdf.ts';
import { Quotes } from './quotes.service.ts';

/** Quotes on paper, to be ticked and signed. */
@Injectable()
export class QuotePapers {
  constructor(
    private readonly quotes: Quotes,
    private readonly ground: GroundService,
    private readonly practices: PracticeService,
    private readonly days: Days,
    private readonly threads: Threads,
  ) {}

  /** @param siteId of the report in which it is read; nothing for those who work on it */
  async onPaper(siteId: string | null, id: string): Promise<StreamableFile> {
    const { siteId: of, units, ...quote } = await this.quotes.whole(id);
    if (siteId !== null && siteId !== of) notFound();
    const { name: siteName } = await this.ground.site(of);
    const { name: practiceName } = await this.practices.current();
    const day = await this.days.on(of, new Date(quote.offeredAt));
    const file = `${siteName} quote.pdf`.replace(/[^\w .-]/g, '');
    return new StreamableFile(await this.threads.run(quotePaper, quote, { siteName, practiceName, day, units }), {
      type: 'application/pdf',
      disposition: `inline; filename="${file}"`,
    });
  }
}
