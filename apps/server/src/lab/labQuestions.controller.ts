import { LabQuestionAnswer, LabQuestionInput } from '@glenfold/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { SeenVersion } from '../platform/version.ts';
import { LabQuestionsService } from './labQuestions.service.ts';

@ApiTags('lab')
@Controller()
export class LabQuestionsController {
  constructor(private readonly questions: LabQuestionsService) {}

  /** Questions to the laboratory about a site's results. */
  @Get('sites/:siteId/lab-questions')
  @For('work.read')
  @ApiOkResponse({ type: LabQuestionAnswer, isArray: true })
  of(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<LabQuestionAnswer[]> {
    return this.questions.of(siteId);
  }

  /** Put a question to the laboratory. */
  @Post('lab-questions')
  @For('work.write')
  @ApiCreatedResponse({ type: LabQuestionAnswer })
  add(@Body() input: LabQuestionInput): Promise<LabQuestionAnswer> {
    return this.questions.add(input);
  }

  /** Change a question, or enter its answer. */
  @Put('lab-questions/:id')
  @For('work.write')
  @ApiOkResponse({ type: LabQuestionAnswer })
  change(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: LabQuestionInput,
    @SeenVersion() version: number,
  ): Promise<LabQuestionAnswer> {
    return this.questions.change(id, input, version);
  }

  /** Delete a question; it can be restored. */
  @Delete('lab-questions/:id')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.questions.remove(id);
  }

  /** Restore a deleted question. */
  @Post('lab-questions/:id/restore')
  @For('work.delete')
  @ApiCreatedResponse({ type: LabQuestionAnswer })
  restore(@Param('id', ParseUUIDPipe) id: string): Promise<LabQuestionAnswer> {
    return this.questions.restore(id);
  }
}
