import { Module } from '@nestjs/common';
import { GroundModule } from '../ground/ground.module.ts';
import { LabModule } from '../lab/lab.module.ts';
import { RatesModule } from '../rates/rates.module.ts';
import { SeasonBases } from './basis.service.ts';
import { CalendarService } from './calendar.service.ts';
import { CardsService } from './cards.service.ts';
import { JobsService } from './jobs.service.ts';
import { SeasonController } from './season.controller.ts';
import { SeasonReporter } from './season.reporter.ts';
import { VisitNews } from './visitNews.service.ts';
import { SeasonService } from './season.service.ts';

@Module({
  imports: [GroundModule, LabModule, RatesModule],
  controllers: [SeasonController],
  providers: [SeasonReporter, SeasonBases, JobsService, SeasonService, CardsService, CalendarService, VisitNews],
  exports: [SeasonBases, JobsService, SeasonService],
})
export class SeasonModule {}
