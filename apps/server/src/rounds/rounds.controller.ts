import { RoundsAnswer, SiteStateAnswer } from '@glenfold/contract';
import { Controller, Get, Param, ParseUUIDPipe } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { RoundsService } from './rounds.service.ts';

@ApiTags('rounds')
@Controller()
export class RoundsController {
  constructor(private readonly service: RoundsService) {}

  @Get('rounds')
  @For('work.read')
  @ApiOkResponse({ type: RoundsAnswer })
  rounds(): Promise<RoundsAnswer> {
    return this.service.rounds();
  }

  @Get('sites/:siteId/state')
  @For('work.read')
  @ApiOkResponse({ type: SiteStateAnswer })
  state(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<SiteStateAnswer> {
    return this.service.site(siteId);
  }
}
