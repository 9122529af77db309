import { type DynamicModule, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { LoggerModule } from 'nestjs-pino';
import type { Logger } from 'pino';
import { DemoBags } from './demo/demoBags.ts';
import { DemoTests } from './demo/demoTests.ts';
import { DemoYears } from './demo/demoYears.ts';
import { FirstRun } from './demo/firstRun.ts';
import { ErasureModule } from './erasure/erasure.module.ts';
import { ExchangeModule } from './exchange/exchange.module.ts';
import { GroundModule } from './ground/ground.module.ts';
import { LabModule } from './lab/lab.module.ts';
import { OwnLaboratoriesModule } from './laboratories/ownLaboratories.module.ts';
import { PeopleModule } from './people/people.module.ts';
import { appOptions } from './database.ts';
import { HealthController } from './platform/health.controller.ts';
import { DescriptionController } from './platform/openapi.ts';
import { PlatformModule } from './platform/platform.module.ts';
import type { Installation } from './platform/installation.ts';
import { MachinesModule } from './machines/machines.module.ts';
import { OwnTestsModule } from './ownTests/ownTests.module.ts';
import { MaterialsModule } from './materials/materials.module.ts';
import { SettingsModule } from './settings/settings.module.ts';
import { RatesModule } from './rates/rates.module.ts';
import { ReadingModule } from './reading/reading.module.ts';
import { SeasonModule } from './season/season.module.ts';
import { LogbookModule } from './logbook/logbook.module.ts';
import { ProofModule } from './proof/proof.module.ts';
import { MessagesModule } from './messages/messages.module.ts';
import { ReportModule } from './report/report.module.ts';
import { RunsModule } from './runs/runs.module.ts';
import { RoundsModule } from './rounds/rounds.module.ts';
import { StepsModule } from './steps/steps.module.ts';
import { StandInsModule } from './standins/standIns.module.ts';
import { SamplingModule } from './sampling/sampling.module.ts';

@Module({})
export class AppModule {
  static with(installation: Installation, databaseUrl: string, logger: Logger): DynamicModule {
    return {
      module: AppModule,
      controllers: [DescriptionController, HealthController],
      imports: [
        LoggerModule.forRoot({ pinoHttp: { logger }, useExisting: true }),
        TypeOrmModule.forRoot({ ...appOptions(databaseUrl), retryAttempts: 3 }),
        PlatformModule.with(installation),
        StandInsModule.everywhere(),
        PeopleModule.with(installation),
        StepsModule,
        RunsModule,
        SettingsModule,
        GroundModule,
        OwnLaboratoriesModule,
        SamplingModule,
        LabModule,
        OwnTestsModule,
        MaterialsModule,
        MachinesModule,
        RatesModule,
        ReadingModule,
        SeasonModule,
        LogbookModule,
        ProofModule,
        MessagesModule,
        ReportModule,
        RoundsModule,
        ExchangeModule,
        ErasureModule,
      ],
      providers: [FirstRun, DemoBags, DemoTests, DemoYears],
      exports: [FirstRun],
    };
  }
}
