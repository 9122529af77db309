import { Global, Module } from '@nestjs/common';
import { Days } from './days.service.ts';
import { SettingsController } from './settings.controller.ts';
import { SettingsService } from './settings.service.ts';
import { ZoneNames } from './zoneNames.ts';

/** What was decided, and which day it is where: every step rests on both. */
@Global()
@Module({
  controllers: [SettingsController],
  providers: [SettingsService, ZoneNames, Days],
  exports: [SettingsService, Days],
})
export class SettingsModule {}
