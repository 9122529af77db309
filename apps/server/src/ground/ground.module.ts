import { SiteAnswer, SiteInput, ZoneAnswer, ZoneInput } from '@glenfold/contract';
import { Body, Controller, Delete, Get, HttpCode, Module, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Site } from './site.entity.ts';
import { GroundService, zoneAnswer } from './ground.service.ts';

const siteAnswer = ({ id, name, place }: Site): SiteAnswer => ({ id, name, place });

@ApiTags('ground')
@Controller()
class GroundController {
  constructor(private readonly ground: GroundService) {}

  @Get('sites')
  @ApiOkResponse({ type: SiteAnswer, isArray: true })
  async sites(): Promise<SiteAnswer[]> {
    return (await this.ground.sites()).map(siteAnswer);
  }

  @Post('sites')
  @ApiCreatedResponse({ type: SiteAnswer })
  async addSite(@Body() input: SiteInput): Promise<SiteAnswer> {
    return siteAnswer(await this.ground.addSite(input));
  }

  @Get('sites/:siteId')
  @ApiOkResponse({ type: SiteAnswer })
  async site(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<SiteAnswer> {
    return siteAnswer(await this.ground.site(siteId));
  }

  @Put('sites/:siteId')
  @ApiOkResponse({ type: SiteAnswer })
  async changeSite(@Param('siteId', ParseUUIDPipe) siteId: string, @Body() input: SiteInput): Promise<SiteAnswer> {
    return siteAnswer(await this.ground.changeSite(siteId, input));
  }

  @Delete('sites/:siteId')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeSite(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<void> {
    return this.ground.removeSite(siteId);
  }

  @Post('sites/:siteId/restore')
  @ApiCreatedResponse({ type: SiteAnswer })
  async restoreSite(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<SiteAnswer> {
    return siteAnswer(await this.ground.restoreSite(siteId));
  }

  @Get('sites/:siteId/zones')
  @ApiOkResponse({ type: ZoneAnswer, isArray: true })
  async zones(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<ZoneAnswer[]> {
    return (await this.ground.zones(siteId)).map(zoneAnswer);
  }

  @Post('sites/:siteId/zones')
  @ApiCreatedResponse({ type: ZoneAnswer })
  async addZone(@Param('siteId', ParseUUIDPipe) siteId: string, @Body() input: ZoneInput): Promise<ZoneAnswer> {
    return zoneAnswer(await this.ground.addZone(siteId, input));
  }

  @Put('zones/:zoneId')
  @ApiOkResponse({ type: ZoneAnswer })
  async changeZone(@Param('zoneId', ParseUUIDPipe) zoneId: string, @Body() input: ZoneInput): Promise<ZoneAnswer> {
    return zoneAnswer(await this.ground.changeZone(zoneId, input));
  }

  @Delete('zones/:zoneId')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeZone(@Param('zoneId', ParseUUIDPipe) zoneId: string): Promise<void> {
    return this.ground.removeZone(zoneId);
  }

  @Post('zones/:zoneId/restore')
  @ApiCreatedResponse({ type: ZoneAnswer })
  async restoreZone(@Param('zoneId', ParseUUIDPipe) zoneId: string): Promise<ZoneAnswer> {
    return zoneAnswer(await this.ground.restoreZone(zoneId));
  }
}

@Module({ controllers: [GroundController], providers: [GroundService], exports: [GroundService] })
export class GroundModule {}
