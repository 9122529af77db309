import { Module } from '@nestjs/common';
import { CatalogueController } from './catalogue.controller.ts';
import { CatalogueService } from './catalogue.service.ts';

@Module({
  controllers: [CatalogueController],
  providers: [CatalogueService],
  exports: [CatalogueService],
})
export class CatalogueModule {}
