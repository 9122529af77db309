import {
  BeginningAnswer,
  BeginningInput,
  FoundAnswer,
  SiteStateAnswer,
  SiteStatesAnswer,
  TasksAnswer,
  beginningKeys,
} from '@glenfold/contract';
import { Body, Controller, Get, Param, ParseUUIDPipe, Put, Query } from '@nestjs/common';
import { ApiOkResponse, ApiQuery, ApiTags } from '@nestjs/swagger';
import { AskedForSites, type SitesQuery, sitesAsked } from '../ground/sitesQuery.ts';
import { For } from '../platform/gate.ts';
import { readLimit } from '../platform/paging.ts';
import { notFound } from '../platform/problem.ts';
import { BeginningService } from './beginning.service.ts';
import { FindService } from './find.service.ts';
import { RoundsService } from './rounds.service.ts';

@ApiTags('rounds')
@Controller()
export class RoundsController {
  constructor(
    private readonly service: RoundsService,
    private readonly finding: FindService,
    private readonly beginning: BeginningService,
  ) {}

  /** What a practice begins with, and how far it is. */
  @Get('beginning')
  @For('practice.manage')
  @ApiOkResponse({ type: BeginningAnswer })
  steps(): Promise<BeginningAnswer> {
    return this.beginning.steps();
  }

  /** Leave something of it for later, or take it up again. */
  @Put('beginning/:step')
  @For('practice.manage')
  @ApiOkResponse({ type: BeginningAnswer })
  leave(@Param('step') step: string, @Body() { later }: BeginningInput): Promise<BeginningAnswer> {
    const key = beginningKeys.find((one) => one === step) ?? notFound();
    return this.beginning.leave(key, later);
  }

  /** What wants doing across all sites, most pressing first. */
  @Get('rounds')
  @For('work.read')
  @ApiQuery({ name: 'after', required: false })
  @ApiQuery({ name: 'limit', required: false })
  @ApiOkResponse({ type: TasksAnswer })
  tasks(@Query('after') after?: string, @Query('limit') limit?: string): Promise<TasksAnswer> {
    return this.service.tasks(after, readLimit(limit));
  }

  /** Sites by name, each with the state of its steps. */
  @Get('rounds/sites')
  @For('work.read')
  @AskedForSites()
  @ApiOkResponse({ type: SiteStatesAnswer })
  sites(@Query() query: SitesQuery): Promise<SiteStatesAnswer> {
    return this.service.sites(sitesAsked(query));
  }

  /** How far a site is, step by step. */
  @Get('sites/:siteId/state')
  @For('work.read')
  @ApiOkResponse({ type: SiteStateAnswer })
  state(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<SiteStateAnswer> {
    return this.service.site(siteId);
  }

  /** Sites, zones and bags that a few letters find. */
  @Get('find')
  @For('work.read')
  @ApiQuery({ name: 'text' })
  @ApiOkResponse({ type: FoundAnswer })
  find(@Query('text') text = ''): Promise<FoundAnswer> {
    return this.finding.find(text);
  }
}
