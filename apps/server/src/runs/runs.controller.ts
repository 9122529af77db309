import { RunAnswer } from '@glenfold/contract';
import { Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { RunsService } from './runs.service.ts';

@ApiTags('runs')
@Controller('runs')
export class RunsController {
  constructor(private readonly runs: RunsService) {}

  @Get()
  @For('work.read')
  @ApiOkResponse({ type: RunAnswer, isArray: true })
  all(): Promise<RunAnswer[]> {
    return this.runs.all();
  }

  @Post(':id/stop')
  @For('work.write')
  @HttpCode(200)
  @ApiOkResponse({ type: RunAnswer })
  stop(@Param('id', ParseUUIDPipe) id: string): Promise<RunAnswer> {
    return this.runs.stop(id);
  }

  @Post(':id/again')
  @For('work.write')
  @HttpCode(200)
  @ApiOkResponse({ type: RunAnswer })
  again(@Param('id', ParseUUIDPipe) id: string): Promise<RunAnswer> {
    return this.runs.again(id);
  }

  @Delete(':id')
  @For('work.write')
  @HttpCode(204)
  @ApiNoContentResponse()
  dismiss(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.runs.dismiss(id);
  }
}
