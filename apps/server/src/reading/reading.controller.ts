import type { UnitSystem, Working } from '@glenfold/agronomy';
import { ReadingAnswer, RetestsAnswer, SiteReadingsAnswer } from '@glenfold/contract';
import { Controller, Get, Header, Param, ParseUUIDPipe, Query, StreamableFile } from '@nestjs/common';
import { ApiOkResponse, ApiProduces, ApiQuery, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { readLimit } from '../platform/paging.ts';
import { systems, unitsPipe } from '../platform/units.ts';
import { WorkingQuery, workingOf, AnswersWorking, workingsAside } from '../platform/workings.ts';
import { ReadingService } from './reading.service.ts';

const againstPipe = new ParseUUIDPipe({ optional: true });

@ApiTags('reading')
@Controller()
export class ReadingController {
  constructor(private readonly readings: ReadingService) {}

  /** What a zone's soil says, what limits it most, and how sure that is. */
  @Get('zones/:zoneId/reading')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: ReadingAnswer })
  async zone(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<ReadingAnswer> {
    return workingsAside(await this.readings.zone(zoneId, units), `/zones/${zoneId}/reading/working?units=${units}`);
  }

  /** How one number of the reading came about, when somebody opens it. */
  @Get('zones/:zoneId/reading/working')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @AnswersWorking()
  async zoneWorking(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query() asked: WorkingQuery,
  ): Promise<Working> {
    return workingOf(await this.readings.zone(zoneId, units), asked);
  }

  /** All zones side by side, laid beside one of them where it is told. */
  @Get('sites/:siteId/readings')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiQuery({ name: 'against', required: false })
  @ApiOkResponse({ type: SiteReadingsAnswer })
  async site(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query('against', againstPipe) against?: string,
  ): Promise<SiteReadingsAnswer> {
    return workingsAside(
      await this.readings.site(siteId, units, against),
      `/sites/${siteId}/readings/working?units=${units}${against ? `&against=${against}` : ''}`,
    );
  }

  /** How a number of the zones side by side is worked out. */
  @Get('sites/:siteId/readings/working')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiQuery({ name: 'against', required: false })
  @AnswersWorking()
  async siteWorking(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query() asked: WorkingQuery,
    @Query('against', againstPipe) against?: string,
  ): Promise<Working> {
    return workingOf(await this.readings.site(siteId, units, against), asked);
  }

  /** The same on one page, with the drawing shaded by a measure. */
  @Get('sites/:siteId/readings.pdf')
  @For('work.read')
  @Header('content-type', 'application/pdf')
  @ApiProduces('application/pdf')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiQuery({ name: 'against', required: false })
  @ApiQuery({ name: 'shaded', required: false })
  @ApiOkResponse({ schema: { type: 'string', format: 'binary' } })
  async sitePdf(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query('against', againstPipe) against?: string,
    @Query('shaded') shaded?: string,
  ): Promise<StreamableFile> {
    return new StreamableFile(await this.readings.sitePaper(siteId, units, against, shaded));
  }

  /** When each zone is to be tested again, across sites, the soonest first. */
  @Get('retests')
  @For('work.read')
  @ApiQuery({ name: 'after', required: false })
  @ApiQuery({ name: 'limit', required: false })
  @ApiOkResponse({ type: RetestsAnswer })
  retests(@Query('after') after?: string, @Query('limit') limit?: string): Promise<RetestsAnswer> {
    return this.readings.retests(after, readLimit(limit));
  }
}
