import { Module } from '@nestjs/common';
import { EntriesModule } from '../entries/entries.module.ts';
import { GroundModule } from '../ground/ground.module.ts';
import { SeasonModule } from '../season/season.module.ts';
import { LogbookController } from './logbook.controller.ts';
import { LogbookReporter } from './logbook.reporter.ts';
import { LogbookService } from './logbook.service.ts';

@Module({
  imports: [EntriesModule, GroundModule, SeasonModule],
  controllers: [LogbookController],
  providers: [LogbookReporter, LogbookService],
  exports: [LogbookService],
})
export class LogbookModule {}
