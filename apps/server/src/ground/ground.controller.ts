import {
  DrawingAnswer,
  DrawnThingsAnswer,
  MeasurementsInput,
  DrawingChangesInput,
  SiteAnswer,
  SiteInput,
  SitesAnswer,
  ZoneAnswer,
  ZoneFactsInput,
  ZoneInput,
} from '@glenfold/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post, Put, Query } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { SeenVersion } from '../platform/version.ts';
import { AskedForSites, type SitesQuery, sitesAsked } from './sitesQuery.ts';
import { DrawingService } from './drawing.service.ts';
import { GroundService, siteAnswer, zoneAnswer } from './ground.service.ts';

@ApiTags('ground')
@Controller()
export class GroundController {
  constructor(
    private readonly ground: GroundService,
    private readonly drawings: DrawingService,
  ) {}

  /** Sites with their next step, a page at a time. */
  @Get('sites')
  @For('work.read')
  @AskedForSites()
  @ApiOkResponse({ type: SitesAnswer })
  async sites(@Query() query: SitesQuery): Promise<SitesAnswer> {
    const { sites, count, next } = await this.ground.sites(sitesAsked(query));
    return { sites: sites.map(siteAnswer), count, next };
  }

  /** Take on a site. */
  @Post('sites')
  @For('work.write')
  @ApiCreatedResponse({ type: SiteAnswer })
  async addSite(@Body() input: SiteInput): Promise<SiteAnswer> {
    return siteAnswer(await this.ground.addSite(input));
  }

  /** One site. */
  @Get('sites/:siteId')
  @For('work.read')
  @ApiOkResponse({ type: SiteAnswer })
  async site(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<SiteAnswer> {
    return siteAnswer(await this.ground.site(siteId));
  }

  /** Change what is known of a site. */
  @Put('sites/:siteId')
  @For('work.write')
  @ApiOkResponse({ type: SiteAnswer })
  async changeSite(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Body() input: SiteInput,
    @SeenVersion() version: number,
  ): Promise<SiteAnswer> {
    return siteAnswer(await this.ground.changeSite(siteId, input, version));
  }

  /** Delete a site; it can be restored. */
  @Delete('sites/:siteId')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeSite(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<void> {
    return this.ground.removeSite(siteId);
  }

  /** Restore a deleted site with what was deleted along with it. */
  @Post('sites/:siteId/restore')
  @For('work.delete')
  @ApiCreatedResponse({ type: SiteAnswer })
  async restoreSite(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<SiteAnswer> {
    return siteAnswer(await this.ground.restoreSite(siteId));
  }

  /** Zones of a site in walking order. */
  @Get('sites/:siteId/zones')
  @For('work.read')
  @ApiOkResponse({ type: ZoneAnswer, isArray: true })
  async zones(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<ZoneAnswer[]> {
    return (await this.ground.zones(siteId)).map(zoneAnswer);
  }

  /** Add a zone. */
  @Post('sites/:siteId/zones')
  @For('work.write')
  @ApiCreatedResponse({ type: ZoneAnswer })
  async addZone(@Param('siteId', ParseUUIDPipe) siteId: string, @Body() input: ZoneInput): Promise<ZoneAnswer> {
    return zoneAnswer(await this.ground.addZone(siteId, input));
  }

  /** The plan but for the outlines, which come with the zones. */
  @Get('sites/:siteId/drawing')
  @For('work.read')
  @ApiOkResponse({ type: DrawnThingsAnswer })
  things(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<DrawnThingsAnswer> {
    return this.drawings.things(siteId);
  }

  /** Each record in the body names the version that was seen. */
  @Post('sites/:siteId/drawing')
  @For('work.write')
  @HttpCode(200)
  @ApiOkResponse({ type: DrawingAnswer })
  changePlan(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Body() changes: DrawingChangesInput,
  ): Promise<DrawingAnswer> {
    return this.drawings.change(siteId, changes);
  }

  /** Change a zone's name, area, grass and care. */
  @Put('zones/:zoneId')
  @For('work.write')
  @ApiOkResponse({ type: ZoneAnswer })
  async changeZone(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Body() input: ZoneInput,
    @SeenVersion() version: number,
  ): Promise<ZoneAnswer> {
    return zoneAnswer(await this.ground.changeZone(zoneId, input, version));
  }

  /** Set what was measured on a zone. */
  @Put('zones/:zoneId/measurements')
  @For('field.write')
  @ApiOkResponse({ type: ZoneAnswer })
  async measure(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Body() input: MeasurementsInput,
    @SeenVersion() version: number,
  ): Promise<ZoneAnswer> {
    return zoneAnswer(await this.ground.measure(zoneId, input, version));
  }

  /** Set the facts of a zone: water, slope, sun, wear, layers, trouble seen. */
  @Put('zones/:zoneId/facts')
  @For('field.write')
  @ApiOkResponse({ type: ZoneAnswer })
  async changeFacts(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Body() input: ZoneFactsInput,
    @SeenVersion() version: number,
  ): Promise<ZoneAnswer> {
    return zoneAnswer(await this.ground.changeFacts(zoneId, input, version));
  }

  /** Delete a zone; it can be restored. */
  @Delete('zones/:zoneId')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeZone(@Param('zoneId', ParseUUIDPipe) zoneId: string): Promise<void> {
    return this.ground.removeZone(zoneId);
  }

  /** Restore a deleted zone. */
  @Post('zones/:zoneId/restore')
  @For('work.delete')
  @ApiCreatedResponse({ type: ZoneAnswer })
  async restoreZone(@Param('zoneId', ParseUUIDPipe) zoneId: string): Promise<ZoneAnswer> {
    return zoneAnswer(await this.ground.restoreZone(zoneId));
  }
}
