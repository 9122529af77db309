import { HiddenSoilAnswer, HurryInput } from '@glenfold/contract';
import { Body, Controller, Get, HttpCode, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { For } from '../../platform/gate.ts';
import { StandInLaboratories } from './standInLaboratories.ts';

/** What only simulated laboratories can: hurry, and show the soil behind their numbers. */
@ApiTags('simulated laboratories')
@Controller()
export class StandInLaboratoriesController {
  constructor(private readonly laboratories: StandInLaboratories) {}

  /** Let the simulated laboratory report now. */
  @Post('laboratories/hurry')
  @For('work.write')
  @HttpCode(204)
  @ApiNoContentResponse()
  hurry(@Body() { days }: HurryInput): Promise<void> {
    return this.laboratories.hurry(days);
  }

  /** The made-up soil of a reported bag's zones, beside what came in the bag. */
  @Get('bags/:bagId/hidden-soil')
  @For('work.read')
  @ApiOkResponse({ type: HiddenSoilAnswer })
  hidden(@Param('bagId', ParseUUIDPipe) bagId: string): Promise<HiddenSoilAnswer> {
    return this.laboratories.hidden(bagId);
  }
}
