import type { UnitSystem } from '@glenfold/agronomy';
import {
  BreaksAnswer,
  CalendarLinkAnswer,
  CardAnswer,
  JobAnswer,
  JobCrewInput,
  JobDayInput,
  JobHoldInput,
  SeasonAnswer,
  SiteDateAnswer,
  SiteDateInput,
  WeekAnswer,
  ZoneWaterAnswer,
} from '@glenfold/contract';
import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Param,
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
import { GroundService } from '../ground/ground.service.ts';
import { For } from '../platform/gate.ts';
import { refuse } from '../platform/problem.ts';
import { systems, unitsPipe } from '../platform/units.ts';
import { SeenVersion } from '../platform/version.ts';
import { CalendarService } from './calendar.service.ts';
import { CardsService } from './cards.service.ts';
import type { Job } from './job.entity.ts';
import { JobsService } from './jobs.service.ts';
import { SeasonService } from './season.service.ts';

const DAY = /^\d{4}-\d\d-\d\d$/;
const dayAsked = (day: string | undefined): string | undefined => {
  if (day !== undefined && !DAY.test(day)) refuse([{ field: 'day', message: 'Write the day as 2027-03-14.' }]);
  return day;
};

@ApiTags('season')
@Controller()
export class SeasonController {
  constructor(
    private readonly seasons: SeasonService,
    private readonly jobs: JobsService,
    private readonly cards: CardsService,
    private readonly calendars: CalendarService,
    private readonly ground: GroundService,
  ) {}

  /** The season of a site: its jobs, windows and water. */
  @Get('sites/:siteId/season')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: SeasonAnswer })
  season(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<SeasonAnswer> {
    return this.seasons.season(siteId, units);
  }

  /** Look for the days of all jobs that nobody has set by hand. */
  @Post('sites/:siteId/season/days')
  @For('work.write')
  @HttpCode(200)
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: SeasonAnswer })
  async date(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<SeasonAnswer> {
    await this.jobs.date(siteId);
    return this.seasons.season(siteId, units);
  }

  /** The jobs of a week, across sites, with what is late. */
  @Get('season/week')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiQuery({ name: 'day', required: false })
  @ApiOkResponse({ type: WeekAnswer })
  week(@Query('units', unitsPipe) units: UnitSystem, @Query('day') day?: string): Promise<WeekAnswer> {
    return this.seasons.week(dayAsked(day), units);
  }

  /** A zone’s water in the week of a day, by normals. */
  @Get('zones/:zoneId/water')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiQuery({ name: 'day', required: false })
  @ApiOkResponse({ type: ZoneWaterAnswer })
  water(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query('day') day?: string,
  ): Promise<ZoneWaterAnswer> {
    return this.seasons.water(zoneId, dayAsked(day), units);
  }

  /** The cards of a week: what a phone takes along. */
  @Get('season/cards')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiQuery({ name: 'day', required: false })
  @ApiOkResponse({ type: [CardAnswer] })
  async weekCards(@Query('units', unitsPipe) units: UnitSystem, @Query('day') day?: string): Promise<CardAnswer[]> {
    const { jobs, late } = await this.seasons.week(dayAsked(day), units);
    return this.cards.of(await this.jobs.some([...late, ...jobs].map(({ id }) => id)), units);
  }

  /** The card of a job, for who does it. */
  @Get('jobs/:jobId/card')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: CardAnswer })
  card(@Param('jobId', ParseUUIDPipe) id: string, @Query('units', unitsPipe) units: UnitSystem): Promise<CardAnswer> {
    return this.cards.card(id, units);
  }

  /** What setting a job to a day would break, before it is set. */
  @Get('jobs/:jobId/breaks')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiQuery({ name: 'day' })
  @ApiOkResponse({ type: BreaksAnswer })
  breaks(
    @Param('jobId', ParseUUIDPipe) id: string,
    @Query('units', unitsPipe) units: UnitSystem,
    @Query('day') day: string,
  ): Promise<BreaksAnswer> {
    return this.jobs.breaks(id, dayAsked(day) ?? '', units);
  }

  /** Set the day of a job, or let it float again. */
  @Put('jobs/:jobId/day')
  @For('work.write')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: JobAnswer })
  async move(
    @Param('jobId', ParseUUIDPipe) id: string,
    @Body() input: JobDayInput,
    @SeenVersion() version: number,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<JobAnswer> {
    return this.#told(await this.jobs.move(id, input, version, units), units);
  }

  /** A technician on the ground may hold a job too. */
  @Put('jobs/:jobId/hold')
  @For('field.write')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: JobAnswer })
  async hold(
    @Param('jobId', ParseUUIDPipe) id: string,
    @Body() input: JobHoldInput,
    @SeenVersion() version: number,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<JobAnswer> {
    return this.#told(await this.jobs.hold(id, input, version), units);
  }

  /** End a job's wait. */
  @Delete('jobs/:jobId/hold')
  @For('field.write')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: JobAnswer })
  async letGo(
    @Param('jobId', ParseUUIDPipe) id: string,
    @SeenVersion() version: number,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<JobAnswer> {
    return this.#told(await this.jobs.letGo(id, version), units);
  }

  /** Say who does a job. */
  @Put('jobs/:jobId/crew')
  @For('work.write')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiOkResponse({ type: JobAnswer })
  async crew(
    @Param('jobId', ParseUUIDPipe) id: string,
    @Body() input: JobCrewInput,
    @SeenVersion() version: number,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<JobAnswer> {
    return this.#told(await this.jobs.crew(id, input, version), units);
  }

  /** Mark a date on which nothing is done, or by which all is. */
  @Post('sites/:siteId/dates')
  @For('work.write')
  @ApiCreatedResponse({ type: SiteDateAnswer })
  addDate(@Param('siteId', ParseUUIDPipe) siteId: string, @Body() input: SiteDateInput): Promise<SiteDateAnswer> {
    return this.seasons.addDate(siteId, input);
  }

  /** Delete a date; it can be restored. */
  @Delete('site-dates/:id')
  @For('work.write')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeDate(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.seasons.removeDate(id);
  }

  /** Restore a deleted date. */
  @Post('site-dates/:id/restore')
  @For('work.write')
  @ApiCreatedResponse({ type: SiteDateAnswer })
  restoreDate(@Param('id', ParseUUIDPipe) id: string): Promise<SiteDateAnswer> {
    return this.seasons.restoreDate(id);
  }

  /** One’s own calendar addresses. */
  @Get('calendar-links')
  @For('report.read')
  @ApiOkResponse({ type: [CalendarLinkAnswer] })
  links(): Promise<CalendarLinkAnswer[]> {
    return this.calendars.links();
  }

  /** Make a link by which a calendar follows the jobs. */
  @Post('calendar-links')
  @For('report.read')
  @ApiCreatedResponse({ type: CalendarLinkAnswer })
  makeLink(): Promise<CalendarLinkAnswer> {
    return this.calendars.make();
  }

  /** End a calendar's link. */
  @Delete('calendar-links/:id')
  @For('report.read')
  @HttpCode(204)
  @ApiNoContentResponse()
  revokeLink(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.calendars.revoke(id);
  }

  /** The jobs of whoever holds the address, in iCalendar. */
  @Get('calendar/:token.ics')
  @For('anyone')
  @Header('Content-Type', 'text/calendar; charset=utf-8')
  @Header('Cache-Control', 'private, no-store')
  @ApiProduces('text/calendar')
  @ApiOkResponse({ schema: { type: 'string' } })
  calendar(@Param('token') token: string): Promise<string> {
    return this.calendars.feed(token);
  }

  async #told(job: Job, units: UnitSystem): Promise<JobAnswer> {
    const names = await this.ground.namesEver([job.siteId, job.zoneId]);
    const [told] = await this.jobs.told([job], units, names, names);
    return told!;
  }
}
