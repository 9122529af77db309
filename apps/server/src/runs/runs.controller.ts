import { RunAnswer } from '@glenfold/contract';
import { Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post } from '@nestjs/common';
import { ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { RunsService } from './runs.service.ts';

@ApiTags('runs')
@Controller('runs')
export class RunsController {
  constructor(private readonly runs: RunsService) {}

  /** Long work: what runs, what waits, what is done. */
  @Get()
  @For('work.read')
  @ApiOkResponse({ type: RunAnswer, isArray: true })
  all(): Promise<RunAnswer[]> {
    return this.runs.all();
  }

  /** Stop long work. */
  @Post(':id/stop')
  @For('work.write')
  @HttpCode(200)
  @ApiOkResponse({ type: RunAnswer })
  stop(@Param('id', ParseUUIDPipe) id: string): Promise<RunAnswer> {
    return this.runs.stop(id);
  }

  /** Begin long work again. */
  @Post(':id/again')
  @For('work.write')
  @HttpCode(200)
  @ApiOkResponse({ type: RunAnswer })
  again(@Param('id', ParseUUIDPipe) id: string): Promise<RunAnswer> {
    return this.runs.again(id);
  }

  /** Take ended work off the list. */
  @Delete(':id')
  @For('work.write')
  @HttpCode(204)
  @ApiNoContentResponse()
  dismiss(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.runs.dismiss(id);
  }
}
