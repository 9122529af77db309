import { FoundAnswer, SiteStateAnswer, SiteStatesAnswer, TasksAnswer } from '@glenfold/contract';
import { Controller, Get, Param, ParseUUIDPipe, Query } from '@nestjs/common';
import { ApiOkResponse, ApiQuery, ApiTags } from '@nestjs/swagger';
import { AskedForSites, type SitesQuery, sitesAsked } from '../ground/sitesQuery.ts';
import { For } from '../platform/gate.ts';
import { readLimit } from '../platform/paging.ts';
import { FindService } from './find.service.ts';
import { RoundsService } from './rounds.service.ts';

@ApiTags('rounds')
@Controller()
export class RoundsController {
  constructor(
    private readonly service: RoundsService,
    private readonly finding: FindService,
  ) {}

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
