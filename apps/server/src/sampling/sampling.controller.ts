import { isUUID } from 'class-validator';
import type { UnitSystem } from '@glenfold/agronomy';
import {
  BagAnswer,
  BagLineAnswer,
  type BagState,
  BoardAnswer,
  CoreTapsAnswer,
  CoreTapsInput,
  CustodyInput,
  LabNumberInput,
  type LabelSheet,
  PlannedWalkAnswer,
  SamplingInput,
  bagStates,
  labelSheetNames,
} from '@glenfold/contract';
import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Param,
  ParseEnumPipe,
  ParseUUIDPipe,
  Post,
  Put,
  Query,
  StreamableFile,
} from '@nestjs/common';
import {
  ApiCreatedResponse,
  ApiNoContentResponse,
  ApiOkResponse,
  ApiProduces,
  ApiQuery,
  ApiTags,
} from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { refuse } from '../platform/problem.ts';
import { readLimit } from '../platform/paging.ts';
import { systems, unitsPipe } from '../platform/units.ts';
import { BoardService } from './board.service.ts';
import { PapersService } from './papers.service.ts';
import { SamplingService } from './sampling.service.ts';
import { WalkService } from './walk.service.ts';

const states = Object.fromEntries(bagStates.map((state) => [state, state]));
const sheets = Object.fromEntries(labelSheetNames.map((name) => [name, name]));

@ApiTags('sampling')
@Controller()
export class SamplingController {
  constructor(
    private readonly sampling: SamplingService,
    private readonly board: BoardService,
    private readonly walk: WalkService,
    private readonly papers: PapersService,
  ) {}

  /** Bags of a site with their cores. */
  @Get('sites/:siteId/bags')
  @For('work.read')
  @ApiOkResponse({ type: BagAnswer, isArray: true })
  ofSite(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<BagAnswer[]> {
    return this.sampling.ofSite(siteId);
  }

  /** Plan bags: zones, depth, cores. */
  @Post('sites/:siteId/bags')
  @For('work.write')
  @ApiCreatedResponse({ type: BagAnswer, isArray: true })
  plan(@Param('siteId', ParseUUIDPipe) siteId: string, @Body() input: SamplingInput): Promise<BagAnswer[]> {
    return this.sampling.plan(siteId, input);
  }

  /** Bags of all sites, and where each is. */
  @Get('bags')
  @For('work.read')
  @ApiQuery({ name: 'state', required: false, enum: bagStates })
  @ApiQuery({ name: 'after', required: false })
  @ApiQuery({ name: 'limit', required: false })
  @ApiOkResponse({ type: BoardAnswer })
  onBoard(
    @Query('state', new ParseEnumPipe(states, { optional: true })) state?: BagState,
    @Query('after') after?: string,
    @Query('limit') limit?: string,
  ): Promise<BoardAnswer> {
    return this.board.page({ state, after, limit: readLimit(limit) });
  }

  /** Sites with bags that wait to be walked. */
  @Get('walks')
  @For('work.read')
  @ApiOkResponse({ type: PlannedWalkAnswer, isArray: true })
  walks(): Promise<PlannedWalkAnswer[]> {
    return this.board.walks();
  }

  /** The bag of a typed or scanned code. */
  @Get('bags/by-code/:code')
  @For('work.read')
  @ApiOkResponse({ type: BagLineAnswer })
  find(@Param('code') code: string): Promise<BagLineAnswer> {
    return this.board.find(code);
  }

  /** Labels of bags, to print. */
  @Get('bags/labels.pdf')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiQuery({ name: 'sheet', enum: labelSheetNames })
  @ApiQuery({ name: 'ids', description: 'bags, with commas between' })
  @ApiProduces('application/pdf')
  @ApiOkResponse({ schema: { type: 'string', format: 'binary' } })
  async labels(
    @Query('ids') ids: string,
    @Query('sheet', new ParseEnumPipe(sheets)) sheet: LabelSheet,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<StreamableFile> {
    return pdf(await this.papers.labels(idsOf(ids), sheet, units), 'bag-labels.pdf');
  }

  /** The submission form of bags, to print. */
  @Get('bags/submission.pdf')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiQuery({ name: 'ids', description: 'bags, with commas between' })
  @ApiProduces('application/pdf')
  @ApiOkResponse({ schema: { type: 'string', format: 'binary' } })
  async submission(@Query('ids') ids: string, @Query('units', unitsPipe) units: UnitSystem): Promise<StreamableFile> {
    return pdf(await this.papers.submission(idsOf(ids), units), 'submission.pdf');
  }

  /** The submission of bags as a table. */
  @Get('bags/submission.csv')
  @For('work.read')
  @Header('content-type', 'text/csv; charset=utf-8')
  @Header('content-disposition', 'attachment; filename="submission.csv"')
  @ApiQuery({ name: 'ids', description: 'bags, with commas between' })
  @ApiProduces('text/csv')
  @ApiOkResponse({ schema: { type: 'string' } })
  submissionTable(@Query('ids') ids: string): Promise<string> {
    return this.papers.submissionTable(idsOf(ids));
  }

  /** The submission of bags for a laboratory's program. */
  @Get('bags/submission.json')
  @For('work.read')
  @Header('content-type', 'application/json; charset=utf-8')
  @Header('content-disposition', 'attachment; filename="submission.json"')
  @ApiQuery({ name: 'ids', description: 'bags, with commas between' })
  @ApiProduces('application/json')
  @ApiOkResponse({ schema: { type: 'object', description: 'the fields of submission.csv, bag by bag' } })
  submissionJson(@Query('ids') ids: string): Promise<string> {
    return this.papers.submissionJson(idsOf(ids));
  }

  /** The planned cores of a site on its plan, and a list to write on. */
  @Get('sites/:siteId/field-sheet.pdf')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiProduces('application/pdf')
  @ApiOkResponse({ schema: { type: 'string', format: 'binary' } })
  async fieldSheet(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<StreamableFile> {
    return pdf(await this.papers.fieldSheet(siteId, units), 'field-sheet.pdf');
  }

  /** Touches of a walk; sent as often as need be, each counts once. */
  @Post('core-taps')
  @For('field.write')
  @HttpCode(200)
  @ApiOkResponse({ type: CoreTapsAnswer })
  take(@Body() input: CoreTapsInput): Promise<CoreTapsAnswer> {
    return this.walk.take(input);
  }

  /** Hand bags over: picked up, posted, received. */
  @Post('bags/custody')
  @For('field.write')
  @HttpCode(200)
  @ApiOkResponse({ type: BagLineAnswer, isArray: true })
  move(@Body() input: CustodyInput): Promise<BagLineAnswer[]> {
    return this.sampling.move(input);
  }

  /** Set the number that the laboratory gave a bag. */
  @Put('bags/:bagId/lab-number')
  @For('field.write')
  @ApiOkResponse({ type: BagLineAnswer })
  setLabNumber(
    @Param('bagId', ParseUUIDPipe) bagId: string,
    @Body() { labNumber = null }: LabNumberInput,
  ): Promise<BagLineAnswer> {
    return this.sampling.setLabNumber(bagId, labNumber);
  }

  /** The cores of a lost or spoiled bag once more. */
  @Post('bags/:bagId/again')
  @For('field.write')
  @ApiCreatedResponse({ type: BagAnswer })
  again(@Param('bagId', ParseUUIDPipe) bagId: string): Promise<BagAnswer> {
    return this.sampling.again(bagId);
  }

  /** Delete a bag; it can be restored. */
  @Delete('bags/:bagId')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  remove(@Param('bagId', ParseUUIDPipe) bagId: string): Promise<void> {
    return this.sampling.remove(bagId);
  }

  /** Restore a deleted bag. */
  @Post('bags/:bagId/restore')
  @For('work.delete')
  @ApiCreatedResponse({ type: BagLineAnswer })
  restore(@Param('bagId', ParseUUIDPipe) bagId: string): Promise<BagLineAnswer> {
    return this.sampling.restore(bagId);
  }
}

/** @throws a refusal for what is no id */
function idsOf(text = ''): string[] {
  const ids = text.split(',').filter((id) => id !== '');
  if (!ids.every((id) => isUUID(id)))
    refuse([{ field: 'ids', message: 'Name the bags by their ids, with commas between.' }]);
  return ids;
}
const pdf = (bytes: Uint8Array, name: string): StreamableFile =>
  new StreamableFile(bytes, { type: 'application/pdf', disposition: `inline; filename="${name}"` });
