import { Module } from '@nestjs/common';
import { GroundModule } from '../ground/ground.module.ts';
import { LabModule } from '../lab/lab.module.ts';
import { RatesModule } from '../rates/rates.module.ts';
import { SeasonModule } from '../season/season.module.ts';
import { ProofController } from './proof.controller.ts';
import { ProofReporter } from './proof.reporter.ts';
import { ProofService } from './proof.service.ts';

@Module({
  imports: [GroundModule, LabModule, RatesModule, SeasonModule],
  controllers: [ProofController],
  providers: [ProofReporter, ProofService],
  exports: [ProofService],
})
export class ProofModule {}
