import { Module } from '@nestjs/common';
import { CatalogueModule } from '../catalogue/catalogue.module.ts';
import { ExchangeService } from './exchange.service.ts';
import { ExchangeController } from './exchange.controller.ts';
import { FirstPractice } from './firstPractice.service.ts';

@Module({
  imports: [CatalogueModule],
  controllers: [ExchangeController],
  providers: [FirstPractice, ExchangeService],
})
export class ExchangeModule {}
