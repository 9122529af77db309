import type { UnitSystem, Working } from '@glenfold/agronomy';
import { IssuedPlanAnswer, PlanChoicesInput, ShoppingAnswer, ZonePlanAnswer } from '@glenfold/contract';
import { Body, Controller, Get, Header, Param, ParseUUIDPipe, Post, Put, Query } from '@nestjs/common';
import { ApiCreatedResponse, ApiOkResponse, ApiProduces, ApiQuery, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { systems, unitsPipe } from '../platform/units.ts';
import { SeenVersion } from '../platform/version.ts';
import { WorkingQuery, workingOf, workingSchema, workingsAside } from '../platform/workings.ts';
import { PlanPapers } from './planPapers.service.ts';
import { RatesService } from './rates.service.ts';

@ApiTags('rates')
@Controller()
export class RatesController {
  constructor(
    private readonly rates: RatesService,
    private readonly papers: PlanPapers,
  ) {}

  @Get('zones/:zoneId/plan')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: ZonePlanAnswer })
  plan(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<ZonePlanAnswer> {
    return this.#told(zoneId, units);
  }

  /** How one number of the plan came about, when somebody opens it. */
  @Get('zones/:zoneId/plan/working')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse(workingSchema)
  async working(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query() asked: WorkingQuery,
  ): Promise<Working> {
    return workingOf(await this.rates.plan(zoneId, units), asked);
  }

  /** What the whole site takes, to buy in one go. */
  @Get('sites/:siteId/shopping')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: ShoppingAnswer })
  async shopping(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<ShoppingAnswer> {
    return workingsAside(await this.rates.shopping(siteId, units), `/sites/${siteId}/shopping/working?units=${units}`);
  }

  /** How one number of the list came about, when somebody opens it. */
  @Get('sites/:siteId/shopping/working')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse(workingSchema)
  async shoppingWorking(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query() asked: WorkingQuery,
  ): Promise<Working> {
    return workingOf(await this.rates.shopping(siteId, units), asked);
  }

  @Put('zones/:zoneId/plan/choices')
  @For('work.write')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: ZonePlanAnswer })
  async choose(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Body() choices: PlanChoicesInput,
    @SeenVersion() version: number,
  ): Promise<ZonePlanAnswer> {
    await this.rates.choose(zoneId, choices, version);
    return this.#told(zoneId, units);
  }

  @Post('zones/:zoneId/plans')
  @For('work.write')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiCreatedResponse({ type: IssuedPlanAnswer })
  async issue(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<IssuedPlanAnswer> {
    const { id, issuedAt } = await this.rates.issue(zoneId, units);
    return { id, issuedAt: issuedAt!.toISOString(), pdf: `/api/plans/${id}/plan.pdf` };
  }

  @Get('plans/:planId/plan.pdf')
  @For('work.read')
  @Header('content-type', 'application/pdf')
  @ApiProduces('application/pdf')
  @ApiOkResponse({ schema: { type: 'string', format: 'binary' } })
  async pdf(@Param('planId', ParseUUIDPipe) planId: string) {
    const plan = await this.rates.issued(planId);
    return this.papers.issued(plan, await this.rates.dayOf(plan.zoneId, plan.issuedAt!));
  }

  /** Printing hands nothing over. */
  @Get('zones/:zoneId/plan.pdf')
  @For('work.read')
  @Header('content-type', 'application/pdf')
  @ApiProduces('application/pdf')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ schema: { type: 'string', format: 'binary' } })
  async draftPdf(@Param('zoneId', ParseUUIDPipe) zoneId: string, @Query('units', unitsPipe) units: UnitSystem) {
    return this.papers.draft(await this.rates.draft(zoneId, units), await this.rates.dayOf(zoneId));
  }

  async #told(zoneId: string, units: UnitSystem): Promise<ZonePlanAnswer> {
    return workingsAside(await this.rates.plan(zoneId, units), `/zones/${zoneId}/plan/working?units=${units}`);
  }
}
