import { Module } from '@nestjs/common';
import { MaterialsModule } from '../materials/materials.module.ts';
import { GroundModule } from '../ground/ground.module.ts';
import { LabModule } from '../lab/lab.module.ts';
import { ProgramPapers } from './programPapers.service.ts';
import { Programs } from './programs.service.ts';
import { RatesService } from './rates.service.ts';
import { RatesController } from './rates.controller.ts';
import { ReadingReporter } from './reading.reporter.ts';
import { RatesReporter } from './rates.reporter.ts';

@Module({
  imports: [MaterialsModule, GroundModule, LabModule],
  controllers: [RatesController],
  providers: [ReadingReporter, RatesReporter, Programs, RatesService, ProgramPapers],
  exports: [RatesService, ProgramPapers],
})
export class RatesModule {}
