import { Module } from '@nestjs/common';
import { MaterialsModule } from '../materials/materials.module.ts';
import { ExchangeService } from './exchange.service.ts';
import { ExchangeController } from './exchange.controller.ts';
import { FirstPractice } from './firstPractice.service.ts';

@Module({
  imports: [MaterialsModule],
  controllers: [ExchangeController],
  providers: [FirstPractice, ExchangeService],
})
export class ExchangeModule {}
