import { ErasureAnswer, ErasureInput } from '@glenfold/contract';
import { Body, Controller, HttpCode, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { InSeveralSteps } from '../platform/onceOnly.ts';
import { ErasureService } from './erasure.service.ts';

@ApiTags('ground')
@InSeveralSteps()
@Controller()
export class ErasureController {
  constructor(private readonly erasure: ErasureService) {}

  /** Erase the client of a site: what is personal goes for good, the figures of the ground stay without a name. */
  @Post('sites/:siteId/erasure')
  @For('practice.manage')
  @HttpCode(200)
  @ApiOkResponse({ type: ErasureAnswer })
  erase(@Param('siteId', ParseUUIDPipe) siteId: string, @Body() { name }: ErasureInput): Promise<ErasureAnswer> {
    return this.erasure.erase(siteId, name);
  }
}
