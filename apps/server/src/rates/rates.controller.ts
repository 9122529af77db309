import type { UnitSystem, Working } from '@glenfold/agronomy';
import {
  HandOverAheadAnswer,
  HandOverInput,
  IssuedProgramAnswer,
  SchoolsAnswer,
  SiteProgramAnswer,
  TreatmentChangeAnswer,
  TreatmentInput,
  WorthAnswer,
  ZoneProgramAnswer,
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
import { systems, unitsPipe } from '../platform/units.ts';
import { SeenVersion } from '../platform/version.ts';
import { WorkingQuery, workingOf, AnswersWorking, workingsAside } from '../platform/workings.ts';
import { Days } from '../settings/days.service.ts';
import { Otherwise } from './otherwise.service.ts';
import { ProgramPapers } from './programPapers.service.ts';
import { type Copy, copies } from './programPdf.ts';
import { HandingOver } from './handingOver.service.ts';
import { RatesService } from './rates.service.ts';

/** The owner’s paper unless the workings are asked for. */
const copyPipe = new ParseEnumPipe(copies, { optional: true });

const pdf = { schema: { type: 'string', format: 'binary' } };

@ApiTags('rates')
@Controller()
export class RatesController {
  constructor(
    private readonly handing: HandingOver,
    private readonly rates: RatesService,
    private readonly otherwise: Otherwise,
    private readonly papers: ProgramPapers,
    private readonly days: Days,
  ) {}

  /** The year's program of a zone. */
  @Get('zones/:zoneId/program')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: ZoneProgramAnswer })
  async program(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<ZoneProgramAnswer> {
    return workingsAside(
      await this.rates.zoneProgram(zoneId, units),
      `/zones/${zoneId}/program/working?units=${units}`,
    );
  }

  /** How one number of the program came about, when somebody opens it. */
  @Get('zones/:zoneId/program/working')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @AnswersWorking()
  async working(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query() asked: WorkingQuery,
  ): Promise<Working> {
    return workingOf(await this.rates.zoneProgram(zoneId, units), asked);
  }

  /** What one more measurement would settle, the most worth first. */
  @Get('zones/:zoneId/worth')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: WorthAnswer, isArray: true })
  worth(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<WorthAnswer[]> {
    return this.otherwise.worth(zoneId, units);
  }

  /** One report read by every school that is not switched off, and what each would spend. */
  @Get('zones/:zoneId/schools')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: SchoolsAnswer })
  async schools(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<SchoolsAnswer> {
    return workingsAside(
      await this.otherwise.schools(zoneId, units),
      `/zones/${zoneId}/schools/working?units=${units}`,
    );
  }

  /** How the schools come to what they say of a zone. */
  @Get('zones/:zoneId/schools/working')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @AnswersWorking()
  async schoolsWorking(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query() asked: WorkingQuery,
  ): Promise<Working> {
    return workingOf(await this.otherwise.schools(zoneId, units), asked);
  }

  /** What the advisor decides by hand: a rate, product, dose or month of one’s own, something added or left out. */
  @Put('zones/:zoneId/program/treatments/:key')
  @For('work.write')
  @ApiOkResponse({ type: TreatmentChangeAnswer })
  change(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Param('key') key: string,
    @Body() input: TreatmentInput,
    @SeenVersion() version: number,
  ): Promise<TreatmentChangeAnswer> {
    return this.rates.change(zoneId, key, input, version);
  }

  /** Back to what the test asks for. */
  @Delete('zones/:zoneId/program/treatments/:key')
  @For('work.write')
  @HttpCode(204)
  @ApiNoContentResponse()
  undo(@Param('zoneId', ParseUUIDPipe) zoneId: string, @Param('key') key: string): Promise<void> {
    return this.rates.undo(zoneId, key);
  }

  /** The whole site, with what there is to buy in one go. */
  @Get('sites/:siteId/program')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: SiteProgramAnswer })
  async site(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<SiteProgramAnswer> {
    return workingsAside(
      await this.rates.siteProgram(siteId, units),
      `/sites/${siteId}/program/working?units=${units}`,
    );
  }

  /** How one number of the site’s program came about, when somebody opens it. */
  @Get('sites/:siteId/program/working')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @AnswersWorking()
  async siteWorking(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query() asked: WorkingQuery,
  ): Promise<Working> {
    return workingOf(await this.rates.siteProgram(siteId, units), asked);
  }

  /** Begin the next year: what was put off is due in it. */
  @Post('sites/:siteId/program/year')
  @For('work.write')
  @HttpCode(204)
  @ApiNoContentResponse()
  beginYear(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<void> {
    return this.rates.beginYear(siteId);
  }

  /** What handing them over would do, before it is done. */
  @Get('sites/:siteId/programs/ahead')
  @For('work.write')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiQuery({ name: 'zone', required: false })
  @ApiOkResponse({ type: HandOverAheadAnswer })
  ahead(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query('zone', new ParseUUIDPipe({ optional: true })) zone?: string,
  ): Promise<HandOverAheadAnswer> {
    return this.handing.ahead(siteId, units, zone === undefined ? undefined : [zone]);
  }

  /** Hand over programs of a site, as they are now. */
  @Post('sites/:siteId/programs')
  @For('work.write')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiCreatedResponse({ type: IssuedProgramAnswer })
  async issue(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Body() input: HandOverInput,
  ): Promise<IssuedProgramAnswer> {
    const { id, handedOverAt, zones } = await this.handing.issue(siteId, units, input);
    return { id, issuedAt: handedOverAt!.toISOString(), pdf: `/api/programs/${id}/program.pdf`, zones };
  }

  /** A program as it was handed over, on paper. */
  @Get('programs/:programId/program.pdf')
  @For('work.read')
  @Header('content-type', 'application/pdf')
  @ApiProduces('application/pdf')
  @ApiQuery({ name: 'copy', enum: copies, required: false })
  @ApiOkResponse(pdf)
  async pdf(@Param('programId', ParseUUIDPipe) programId: string, @Query('copy', copyPipe) copy?: Copy) {
    const { program, papers } = await this.rates.handedOverProgram(programId);
    return this.papers.onPaper(papers, 'program', await this.days.on(program.siteId, program.handedOverAt!), copy);
  }

  /** One zone of it, as its owner has it. */
  @Get('program-zones/:planId/program.pdf')
  @For('work.read')
  @Header('content-type', 'application/pdf')
  @ApiProduces('application/pdf')
  @ApiOkResponse(pdf)
  async zonePdf(@Param('planId', ParseUUIDPipe) planId: string) {
    const { paper, zoneId, issuedAt } = await this.rates.issued(planId);
    return this.papers.onPaper([paper], 'program', await this.rates.dayOf(zoneId, issuedAt));
  }

  /** Printing hands nothing over. */
  @Get('zones/:zoneId/program.pdf')
  @For('work.read')
  @Header('content-type', 'application/pdf')
  @ApiProduces('application/pdf')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiQuery({ name: 'copy', enum: copies, required: false })
  @ApiOkResponse(pdf)
  async draftPdf(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query('copy', copyPipe) copy?: Copy,
  ) {
    return this.papers.onPaper([await this.rates.draft(zoneId, units)], 'draft', await this.rates.dayOf(zoneId), copy);
  }

  /** The whole site as it stands. */
  @Get('sites/:siteId/program.pdf')
  @For('work.read')
  @Header('content-type', 'application/pdf')
  @ApiProduces('application/pdf')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiQuery({ name: 'copy', enum: copies, required: false })
  @ApiOkResponse(pdf)
  async siteDraftPdf(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query('copy', copyPipe) copy?: Copy,
  ) {
    return this.papers.onPaper(await this.rates.siteDraft(siteId, units), 'draft', await this.days.on(siteId), copy);
  }
}
