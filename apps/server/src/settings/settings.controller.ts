import { SettingAnswer, SettingInput } from '@glenfold/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { SeenVersion } from '../platform/version.ts';
import { SettingsService } from './settings.service.ts';

@ApiTags('settings')
@Controller('settings')
export class SettingsController {
  constructor(private readonly settings: SettingsService) {}

  /** All that was decided, for the practice and for its sites and zones. */
  @Get()
  @For('work.read')
  @ApiOkResponse({ type: SettingAnswer, isArray: true })
  list(): Promise<SettingAnswer[]> {
    return this.settings.list();
  }

  /** Decide a setting, for the practice or a site. */
  @Put(':kind')
  @For('work.write')
  @ApiOkResponse({ type: SettingAnswer })
  decide(
    @Param('kind') kind: string,
    @Body() input: SettingInput,
    @SeenVersion() version: number,
  ): Promise<SettingAnswer> {
    return this.settings.decide(kind, input, version);
  }

  /** What stands for more then holds again. */
  @Delete(':id')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.settings.remove(id);
  }

  /** Restore an earlier decision. */
  @Post(':id/restore')
  @For('work.delete')
  @ApiCreatedResponse({ type: SettingAnswer })
  restore(@Param('id', ParseUUIDPipe) id: string): Promise<SettingAnswer> {
    return this.settings.restore(id);
  }
}
