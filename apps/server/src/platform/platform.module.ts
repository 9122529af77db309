import { type DynamicModule, Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { Clock } from './clock.ts';
import { Door } from './door.ts';
import { Gate } from './gate.ts';
import { Records } from './records.ts';
import { Settings } from './settings.ts';
import { Work } from './work.ts';

@Module({})
export class PlatformModule {
  static with(settings: Settings): DynamicModule {
    return {
      module: PlatformModule,
      global: true,
      providers: [
        { provide: Settings, useValue: settings },
        { provide: APP_GUARD, useClass: Gate },
        Clock,
        Work,
        Records,
        Door,
      ],
      exports: [Clock, Settings, Work, Records, Door],
    };
  }
}
