import type { UnitSystem } from '@glenfold/agronomy';
import { NewestOwnerReportAnswer, OwnerLetterInput, OwnerReportAnswer, PriceOfSiteAnswer } from '@glenfold/contract';
import {
  Body,
  Controller,
  Get,
  Header,
  HttpCode,
  Param,
  ParseBoolPipe,
  ParseUUIDPipe,
  Post,
  Put,
  Query,
  type StreamableFile,
} from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiProduces, ApiQuery, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { systems, unitsPipe } from '../platform/units.ts';
import { SeenVersion } from '../platform/version.ts';
import { GroundService } from '../ground/ground.service.ts';
import { OwnerReports } from './ownerReports.service.ts';
import { SitePrice } from './sitePrice.service.ts';

/** The report for an owner, for those who make it. */
@ApiTags('report')
@Controller()
export class OwnerReportsController {
  constructor(
    private readonly reports: OwnerReports,
    private readonly ground: GroundService,
    private readonly prices: SitePrice,
  ) {}

  /** What the year costs as its owner is told it. */
  @Get('sites/:siteId/price')
  @For('work.read')
  @ApiOkResponse({ type: PriceOfSiteAnswer })
  async price(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<PriceOfSiteAnswer> {
    await this.ground.site(siteId);
    return { price: await this.prices.of(siteId) };
  }

  /** The newest, whether it is being made, a draft or handed over. */
  @Get('sites/:siteId/owner-report')
  @For('work.read')
  @ApiOkResponse({ type: NewestOwnerReportAnswer })
  async newest(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<NewestOwnerReportAnswer> {
    return { newest: await this.reports.newest(siteId, false, '') };
  }

  /** Ask for a draft: it is made as long work, with progress. */
  @Post('sites/:siteId/owner-report')
  @For('work.write')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiCreatedResponse({ type: OwnerReportAnswer })
  ask(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<OwnerReportAnswer> {
    return this.reports.ask(siteId, units);
  }

  /** Change the covering letter of a draft. */
  @Put('owner-reports/:id/letter')
  @For('work.write')
  @ApiOkResponse({ type: OwnerReportAnswer })
  write(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() { letter }: OwnerLetterInput,
    @SeenVersion() version: number,
  ): Promise<OwnerReportAnswer> {
    return this.reports.write(id, letter, version);
  }

  /** Hand it over: the owner reads it from now on, and it stays as it is. */
  @Post('owner-reports/:id/handed-over')
  @For('work.write')
  @HttpCode(200)
  @ApiOkResponse({ type: OwnerReportAnswer })
  handOver(@Param('id', ParseUUIDPipe) id: string): Promise<OwnerReportAnswer> {
    return this.reports.handOver(id);
  }

  /** The owner's report on paper. */
  @Get('owner-reports/:id/report.pdf')
  @For('work.read')
  @Header('content-type', 'application/pdf')
  @ApiProduces('application/pdf')
  @ApiQuery({ name: 'appendix', required: false, type: Boolean })
  @ApiOkResponse({ schema: { type: 'string', format: 'binary' } })
  pdf(
    @Param('id', ParseUUIDPipe) id: string,
    @Query('appendix', new ParseBoolPipe({ optional: true })) appendix: boolean | undefined,
  ): Promise<StreamableFile> {
    return this.reports.onPaper(id, null, appendix ?? false);
  }
}
