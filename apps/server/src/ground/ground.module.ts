import { Module } from '@nestjs/common';
import { EntriesModule } from '../entries/entries.module.ts';
import { MeasurementsModule } from '../measurements/measurements.module.ts';
import { DrawingService } from './drawing.service.ts';
import { GroundService } from './ground.service.ts';
import { PicturesController } from './pictures.controller.ts';
import { PhotoFiles } from './photoFiles.service.ts';
import { PicturesService } from './pictures.service.ts';
import { DrawingSheetController } from './drawingSheet.controller.ts';
import { DrawingSheetService } from './drawingSheet.service.ts';
import { GroundController } from './ground.controller.ts';
import { GroundReporter } from './ground.reporter.ts';

@Module({
  imports: [MeasurementsModule, EntriesModule],
  controllers: [GroundController, PicturesController, DrawingSheetController],
  providers: [GroundReporter, GroundService, DrawingService, PicturesService, PhotoFiles, DrawingSheetService],
  exports: [GroundService, DrawingService],
})
export class GroundModule {}
