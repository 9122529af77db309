import { Module } from '@nestjs/common';
import { GroundModule } from '../ground/ground.module.ts';
import { LabImportService } from './labImport.service.ts';
import { LabService } from './lab.service.ts';
import { LabPost } from './labPost.ts';
import { LaboratoriesService } from './laboratories.service.ts';
import { SamplingModule } from '../sampling/sampling.module.ts';
import { LabController } from './lab.controller.ts';

@Module({
  imports: [GroundModule, SamplingModule],
  controllers: [LabController],
  providers: [LabService, LabImportService, LaboratoriesService, LabPost],
  exports: [LabService, LabImportService, LaboratoriesService],
})
export class LabModule {}
