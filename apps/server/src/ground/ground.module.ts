import { Module } from '@nestjs/common';
import { MeasurementsModule } from '../measurements/measurements.module.ts';
import { DrawingService } from './drawing.service.ts';
import { GroundService } from './ground.service.ts';
import { PicturesController } from './pictures.controller.ts';
import { PicturesService } from './pictures.service.ts';
import { PlanSheetController } from './planSheet.controller.ts';
import { PlanSheetService } from './planSheet.service.ts';
import { GroundController } from './ground.controller.ts';

@Module({
  imports: [MeasurementsModule],
  controllers: [GroundController, PicturesController, PlanSheetController],
  providers: [GroundService, DrawingService, PicturesService, PlanSheetService],
  exports: [GroundService, DrawingService],
})
export class GroundModule {}
