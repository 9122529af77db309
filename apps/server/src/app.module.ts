import { type MiddlewareConsumer, Module, type NestModule } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { FirstRun } from './demo/firstRun.ts';
import { GroundModule } from './ground/ground.module.ts';
import { Site } from './ground/site.entity.ts';
import { Zone } from './ground/zone.entity.ts';
import { LabModule } from './lab/lab.module.ts';
import { LabImport } from './lab/labImport.entity.ts';
import { LabResult } from './lab/labResult.entity.ts';
import { Sample } from './lab/sample.entity.ts';
import { FirstSlice1795392000000 } from './migrations/1795392000000-firstSlice.ts';
import { PeopleModule, PracticeMiddleware } from './people/people.ts';
import { Practice } from './people/practice.entity.ts';
import { PlatformModule } from './platform/platform.module.ts';
import { Plan } from './rates/plan.entity.ts';
import { ProductRecord } from './rates/product.entity.ts';
import { RatesModule } from './rates/rates.module.ts';
import { RoundsModule } from './rounds/rounds.module.ts';

@Module({
  imports: [
    TypeOrmModule.forRootAsync({
      useFactory: () => ({
        type: 'postgres' as const,
        url: process.env.DATABASE_URL,
        entities: [Practice, Site, Zone, Sample, LabResult, LabImport, ProductRecord, Plan],
        migrations: [FirstSlice1795392000000],
        migrationsRun: true,
        synchronize: false,
        retryAttempts: 3,
      }),
    }),
    PlatformModule,
    PeopleModule,
    GroundModule,
    LabModule,
    RatesModule,
    RoundsModule,
  ],
  providers: [FirstRun],
})
export class AppModule implements NestModule {
  configure(consumer: MiddlewareConsumer): void {
    consumer.apply(PracticeMiddleware).forRoutes('{*path}');
  }
}
