import { type DynamicModule, Module } from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { Clock } from './clock.ts';
import { Door } from './door.ts';
import { Gate } from './gate.ts';
import { Records } from './records.ts';
import { Installation } from './installation.ts';
import { Work } from './work.ts';

@Module({})
export class PlatformModule {
  static with(installation: Installation): DynamicModule {
    return {
      module: PlatformModule,
      global: true,
      providers: [
        { provide: Installation, useValue: installation },
        { provide: APP_GUARD, useClass: Gate },
        Clock,
        Work,
        Records,
        Door,
      ],
      exports: [Clock, Installation, Work, Records, Door],
    };
  }
}
