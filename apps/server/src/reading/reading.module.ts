import { Module } from '@nestjs/common';
import { GroundModule } from '../ground/ground.module.ts';
import { LabModule } from '../lab/lab.module.ts';
import { ReadingController } from './reading.controller.ts';
import { ReadingReporter } from './reading.reporter.ts';
import { ReadingService } from './reading.service.ts';

@Module({
  imports: [GroundModule, LabModule],
  controllers: [ReadingController],
  providers: [ReadingReporter, ReadingService],
  exports: [ReadingService],
})
export class ReadingModule {}
