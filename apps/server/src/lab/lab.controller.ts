import {
  HistoryAnswer,
  HistoryInput,
  LabFileInput,
  LabProfileAnswer,
  LabProfileInput,
  LabReportAnswer,
  LabReportChoices,
  LabResultAnswer,
  LabResultInput,
  LaboratoryNewsAnswer,
  LearnInput,
} from '@glenfold/contract';
import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Post,
  Put,
  type StreamableFile,
} from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { SeenVersion } from '../platform/version.ts';
import { HistoriesService } from './histories.service.ts';
import { LabProfilesService } from './labProfiles.service.ts';
import { LabReportService } from './labReport.service.ts';
import { LabService, labResultAnswer } from './lab.service.ts';
import { LaboratoriesService } from './laboratories.service.ts';

@ApiTags('lab')
@Controller()
export class LabController {
  constructor(
    private readonly lab: LabService,
    private readonly imports: LabReportService,
    private readonly laboratories: LaboratoriesService,
    private readonly profiles: LabProfilesService,
    private readonly histories: HistoriesService,
  ) {}

  /** Ask the laboratories what is new: bags that arrived, reports. They are asked each minute anyhow. */
  @Post('laboratories/news')
  @For('field.write')
  @HttpCode(200)
  @ApiOkResponse({ type: LaboratoryNewsAnswer })
  ask(): Promise<LaboratoryNewsAnswer> {
    return this.laboratories.ask();
  }

  /** Results of a site, the newest first. */
  @Get('sites/:siteId/lab-results')
  @For('work.read')
  @ApiOkResponse({ type: LabResultAnswer, isArray: true })
  async results(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<LabResultAnswer[]> {
    return (await this.lab.results(siteId)).map(labResultAnswer);
  }

  /** Enter a result by hand. */
  @Post('lab-results')
  @For('work.write')
  @ApiCreatedResponse({ type: LabResultAnswer })
  async add(@Body() input: LabResultInput): Promise<LabResultAnswer> {
    return labResultAnswer(await this.lab.add(input));
  }

  /** Correct a result. */
  @Put('lab-results/:id')
  @For('work.write')
  @ApiOkResponse({ type: LabResultAnswer })
  async change(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: LabResultInput,
    @SeenVersion() version: number,
  ): Promise<LabResultAnswer> {
    return labResultAnswer(await this.lab.change(id, input, version));
  }

  /** Delete a result; it can be restored. */
  @Delete('lab-results/:id')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.lab.remove(id);
  }

  /** Restore a deleted result. */
  @Post('lab-results/:id/restore')
  @For('work.delete')
  @ApiCreatedResponse({ type: LabResultAnswer })
  async restore(@Param('id', ParseUUIDPipe) id: string): Promise<LabResultAnswer> {
    return labResultAnswer(await this.lab.restore(id));
  }

  /** Laboratories' reports of a site, read and waiting. */
  @Get('sites/:siteId/lab-reports')
  @For('work.read')
  @ApiOkResponse({ type: LabReportAnswer, isArray: true })
  imported(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<LabReportAnswer[]> {
    return this.imports.list(siteId);
  }

  /** Read a laboratory's file; nothing is imported until it is confirmed. */
  @Post('sites/:siteId/lab-reports')
  @For('work.write')
  @ApiCreatedResponse({ type: LabReportAnswer })
  preview(@Param('siteId', ParseUUIDPipe) siteId: string, @Body() file: LabFileInput): Promise<LabReportAnswer> {
    return this.imports.preview(siteId, file);
  }

  /** Correct how a file is read: columns, units, zones. */
  @Put('lab-reports/:id')
  @For('work.write')
  @ApiOkResponse({ type: LabReportAnswer })
  correct(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() choices: LabReportChoices,
    @SeenVersion() version: number,
  ): Promise<LabReportAnswer> {
    return this.imports.correct(id, choices, version);
  }

  /** Import the accepted rows of a file. */
  @Post('lab-reports/:id/confirm')
  @For('work.write')
  @ApiCreatedResponse({ type: LabReportAnswer })
  confirm(@Param('id', ParseUUIDPipe) id: string): Promise<LabReportAnswer> {
    return this.imports.confirm(id);
  }

  /** The file as the laboratory sent it. */
  @Get('lab-reports/:id/original')
  @For('work.read')
  @ApiProduces('application/octet-stream')
  @ApiOkResponse({ schema: { type: 'string', format: 'binary' } })
  original(@Param('id', ParseUUIDPipe) id: string): Promise<StreamableFile> {
    return this.imports.original(id);
  }

  /** Keep how a file's columns were put right as its laboratory's way. */
  @Post('lab-reports/:id/profile')
  @For('work.write')
  @ApiCreatedResponse({ type: LabReportAnswer })
  learn(@Param('id', ParseUUIDPipe) id: string, @Body() { name }: LearnInput): Promise<LabReportAnswer> {
    return this.imports.learn(id, name);
  }

  /** Put a file aside; it can be restored. */
  @Delete('lab-reports/:id')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  discard(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.imports.remove(id);
  }

  /** Restore a file that was put aside. */
  @Post('lab-reports/:id/restore')
  @For('work.delete')
  @ApiCreatedResponse({ type: LabReportAnswer })
  restoreImport(@Param('id', ParseUUIDPipe) id: string): Promise<LabReportAnswer> {
    return this.imports.restore(id);
  }

  /** Laboratories' ways, each tried on its sample. */
  @Get('lab-profiles')
  @For('work.read')
  @ApiOkResponse({ type: LabProfileAnswer, isArray: true })
  ways(): Promise<LabProfileAnswer[]> {
    return this.profiles.list();
  }

  /** Write down how a laboratory sets out its reports. */
  @Post('lab-profiles')
  @For('work.write')
  @ApiCreatedResponse({ type: LabProfileAnswer })
  addWay(@Body() input: LabProfileInput): Promise<LabProfileAnswer> {
    return this.profiles.add(input);
  }

  /** Change how a laboratory's reports are read. */
  @Put('lab-profiles/:id')
  @For('work.write')
  @ApiOkResponse({ type: LabProfileAnswer })
  changeWay(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: LabProfileInput,
    @SeenVersion() version: number,
  ): Promise<LabProfileAnswer> {
    return this.profiles.change(id, input, version);
  }

  /** Delete a laboratory's way; it can be restored. */
  @Delete('lab-profiles/:id')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeWay(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.profiles.remove(id);
  }

  /** Restore a deleted laboratory's way. */
  @Post('lab-profiles/:id/restore')
  @For('work.delete')
  @ApiCreatedResponse({ type: LabProfileAnswer })
  restoreWay(@Param('id', ParseUUIDPipe) id: string): Promise<LabProfileAnswer> {
    return this.profiles.restore(id);
  }

  /** Files of many years' tests, the newest first. */
  @Get('histories')
  @For('work.read')
  @ApiOkResponse({ type: HistoryAnswer, isArray: true })
  historiesOf(): Promise<HistoryAnswer[]> {
    return this.histories.list();
  }

  /** Have many years' tests taken in: all of it, or nothing and why. */
  @Post('histories')
  @For('work.write')
  @ApiCreatedResponse({ type: HistoryAnswer })
  addHistory(@Body() input: HistoryInput): Promise<HistoryAnswer> {
    return this.histories.add(input);
  }
}
