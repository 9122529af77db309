import { HitsAnswer, ProofAnswer } from '@glenfold/contract';
import { Controller, Get, Param, ParseUUIDPipe } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { ProofService } from './proof.service.ts';

@ApiTags('proof')
@Controller()
export class ProofController {
  constructor(private readonly proofs: ProofService) {}

  /** What was foretold of a site beside what the retest says. */
  @Get('sites/:siteId/proof')
  @For('work.read')
  @ApiOkResponse({ type: ProofAnswer })
  proof(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<ProofAnswer> {
    return this.proofs.proof(siteId);
  }

  /** Hits and misses of all predictions of the practice. */
  @Get('proof')
  @For('work.read')
  @ApiOkResponse({ type: HitsAnswer })
  hits(): Promise<HitsAnswer> {
    return this.proofs.hits();
  }
}
