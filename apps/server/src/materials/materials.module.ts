import { Module } from '@nestjs/common';
import { MaterialsController } from './materials.controller.ts';
import { MaterialsService } from './materials.service.ts';

@Module({
  controllers: [MaterialsController],
  providers: [MaterialsService],
  exports: [MaterialsService],
})
export class MaterialsModule {}
