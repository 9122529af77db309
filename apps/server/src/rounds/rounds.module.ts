import { Module } from '@nestjs/common';
import { GroundModule } from '../ground/ground.module.ts';
import { LabModule } from '../lab/lab.module.ts';
import { SamplingModule } from '../sampling/sampling.module.ts';
import { RatesModule } from '../rates/rates.module.ts';
import { RoundsController } from './rounds.controller.ts';
import { RoundsService } from './rounds.service.ts';

@Module({
  imports: [GroundModule, SamplingModule, LabModule, RatesModule],
  controllers: [RoundsController],
  providers: [RoundsService],
})
export class RoundsModule {}
