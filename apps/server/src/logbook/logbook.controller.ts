import { type UnitSystem, ledgerLines, ledgerOf } from '@glenfold/agronomy';
import { EntryInput, EntryWrittenAnswer, LogbookAnswer } from '@glenfold/contract';
import {
  Body,
  Controller,
  Get,
  Header,
  Param,
  ParseIntPipe,
  ParseUUIDPipe,
  Post,
  Query,
  StreamableFile,
} from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiProduces, ApiQuery, ApiTags } from '@nestjs/swagger';
import { PracticeService } from '../people/practice.service.ts';
import { For } from '../platform/gate.ts';
import { refuse } from '../platform/problem.ts';
import { Threads } from '../platform/threads.ts';
import { systems, unitsPipe } from '../platform/units.ts';
import { LogbookService } from './logbook.service.ts';
import { bookCsv, bookPaper, toldLine } from './logbookPaper.ts';

const DAY = /^\d{4}-\d\d-\d\d$/;

@ApiTags('logbook')
@Controller()
export class LogbookController {
  constructor(
    private readonly logbook: LogbookService,
    private readonly practices: PracticeService,
    private readonly threads: Threads,
  ) {}

  /** The book of a site, the newest entries first. */
  @Get('sites/:siteId/logbook')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiQuery({ name: 'year', required: false })
  @ApiOkResponse({ type: LogbookAnswer })
  book(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query('year', new ParseIntPipe({ optional: true })) year?: number,
  ): Promise<LogbookAnswer> {
    return this.logbook.book(siteId, year, units);
  }

  /** Write down what was done. Sent twice it is written once. */
  @Post('entries')
  @For('field.write')
  @ApiCreatedResponse({ type: EntryWrittenAnswer })
  write(@Body() input: EntryInput): Promise<EntryWrittenAnswer> {
    return this.logbook.write(input);
  }

  /** The book of some days on paper, for an inspector. */
  @Get('sites/:siteId/logbook.pdf')
  @For('work.read')
  @Header('Cache-Control', 'private, no-store')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiQuery({ name: 'from' })
  @ApiQuery({ name: 'to' })
  @ApiProduces('application/pdf')
  @ApiOkResponse({ schema: { type: 'string', format: 'binary' } })
  async pdf(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query('from') from: string,
    @Query('to') to: string,
  ): Promise<StreamableFile> {
    this.#checkPeriod(from, to);
    const { site, zones, entries } = await this.logbook.between(siteId, from, to);
    const { name } = await this.practices.current();
    // A whole year stands against its caps and its plan as well.
    const year = from.endsWith('-01-01') && to === `${from.slice(0, 4)}-12-31` ? Number(from.slice(0, 4)) : undefined;
    const ledgers =
      year === undefined
        ? zones.map(({ name: zone, entries: own, area }) => {
            const { parts, unknown } = ledgerOf(own, area, { from, to });
            return { zone, lines: ledgerLines(parts, [], 0, {}), unknown };
          })
        : (await this.logbook.book(siteId, year, units)).zones;
    const sums = ledgers.map(({ zone, lines, unknown }) => ({ zone, told: lines.flatMap((line) => toldLine(line, units)), unknown: [...unknown] })); // prettier-ignore
    const page = { practice: name, site: site.name, from, to, entries, units, sums };
    return new StreamableFile(await this.threads.run(bookPaper, page), {
      type: 'application/pdf',
      disposition: `inline; filename="${`${site.name} logbook ${from}.pdf`.replace(/[^\w .-]/g, '')}"`,
    });
  }

  /** The same for a spreadsheet. */
  @Get('sites/:siteId/logbook.csv')
  @For('work.read')
  @Header('Cache-Control', 'private, no-store')
  @ApiQuery({ name: 'from' })
  @ApiQuery({ name: 'to' })
  @ApiProduces('text/csv')
  @ApiOkResponse({ schema: { type: 'string' } })
  async csv(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('from') from: string,
    @Query('to') to: string,
  ): Promise<StreamableFile> {
    this.#checkPeriod(from, to);
    const { site, entries } = await this.logbook.between(siteId, from, to);
    return new StreamableFile(Buffer.from(bookCsv(entries)), {
      type: 'text/csv; charset=utf-8',
      disposition: `attachment; filename="${`${site.name} logbook ${from}.csv`.replace(/[^\w .-]/g, '')}"`,
    });
  }

  #checkPeriod(from: string, to: string): void {
    for (const [field, day] of [
      ['from', from],
      ['to', to],
    ] as const)
      if (!DAY.test(day)) refuse([{ field, message: 'Write the day as 2027-01-01.' }]);
    if (from > to) refuse([{ field: 'to', message: 'The last day lies before the first: change them about.' }]);
  }
}
