import { type DynamicModule, Module } from '@nestjs/common';
import { APP_GUARD, APP_INTERCEPTOR } from '@nestjs/core';
import { Clock } from './clock.ts';
import { Door } from './door.ts';
import { Gate } from './gate.ts';
import { OnceOnly } from './onceOnly.ts';
import { OneRead } from './oneRead.ts';
import { Records } from './records.ts';
import { Installation } from './installation.ts';
import { Threads } from './threads.ts';
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
        { provide: APP_INTERCEPTOR, useClass: OneRead },
        { provide: APP_INTERCEPTOR, useClass: OnceOnly },
        Clock,
        Work,
        Records,
        Door,
        Threads,
      ],
      exports: [Clock, Installation, Work, Records, Door, Threads],
    };
  }
}
