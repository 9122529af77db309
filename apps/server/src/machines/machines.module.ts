import { Module } from '@nestjs/common';
import { MaterialsModule } from '../materials/materials.module.ts';
import { MachinesController } from './machines.controller.ts';
import { MachinesService } from './machines.service.ts';

@Module({
  imports: [MaterialsModule],
  controllers: [MachinesController],
  providers: [MachinesService],
  exports: [MachinesService],
})
export class MachinesModule {}
