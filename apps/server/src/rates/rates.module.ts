import { Module } from '@nestjs/common';
import { MaterialsModule } from '../materials/materials.module.ts';
import { GroundModule } from '../ground/ground.module.ts';
import { LabModule } from '../lab/lab.module.ts';
import { PlanPapers } from './planPapers.service.ts';
import { RatesService } from './rates.service.ts';
import { RatesController } from './rates.controller.ts';
import { ReadingReporter } from './reading.reporter.ts';
import { RatesReporter } from './rates.reporter.ts';

@Module({
  imports: [MaterialsModule, GroundModule, LabModule],
  controllers: [RatesController],
  providers: [ReadingReporter, RatesReporter, RatesService, PlanPapers],
  exports: [RatesService, PlanPapers],
})
export class RatesModule {}
