import { Module } from '@nestjs/common';
import { MachinesModule } from '../machines/machines.module.ts';
import { MaterialsModule } from '../materials/materials.module.ts';
import { GroundModule } from '../ground/ground.module.ts';
import { OwnLaboratoriesModule } from '../laboratories/ownLaboratories.module.ts';
import { LabModule } from '../lab/lab.module.ts';
import { HandingOver } from './handingOver.service.ts';
import { HandOver } from './handOver.service.ts';
import { ProgramPapers } from './programPapers.service.ts';
import { Otherwise } from './otherwise.service.ts';
import { Programs } from './programs.service.ts';
import { QuotePapers } from './quotePapers.service.ts';
import { QuotesController } from './quotes.controller.ts';
import { Quotes } from './quotes.service.ts';
import { RatesService } from './rates.service.ts';
import { RatesController } from './rates.controller.ts';
import { RatesReporter } from './rates.reporter.ts';

@Module({
  imports: [MaterialsModule, MachinesModule, GroundModule, OwnLaboratoriesModule, LabModule],
  controllers: [RatesController, QuotesController],
  providers: [
    RatesReporter,
    Programs,
    HandOver,
    HandingOver,
    RatesService,
    Otherwise,
    Quotes,
    QuotePapers,
    ProgramPapers,
  ],
  exports: [RatesService, HandOver, HandingOver, Quotes, QuotePapers, ProgramPapers],
})
export class RatesModule {}
