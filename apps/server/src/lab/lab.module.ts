import { Module } from '@nestjs/common';
import { GroundModule } from '../ground/ground.module.ts';
import { LabReportService } from './labReport.service.ts';
import { LabService } from './lab.service.ts';
import { LabPost } from './labPost.ts';
import { LaboratoriesService } from './laboratories.service.ts';
import { SamplingModule } from '../sampling/sampling.module.ts';
import { RereadingService } from './rereading.service.ts';
import { LabController } from './lab.controller.ts';
import { LabReporter } from './lab.reporter.ts';
import { HistoriesService } from './histories.service.ts';
import { LabProfilesService } from './labProfiles.service.ts';
import { LabQuestionsController } from './labQuestions.controller.ts';
import { LabQuestionsService } from './labQuestions.service.ts';

@Module({
  imports: [GroundModule, SamplingModule],
  controllers: [LabController, LabQuestionsController],
  providers: [
    LabReporter,
    LabService,
    RereadingService,
    LabReportService,
    LaboratoriesService,
    LabPost,
    LabProfilesService,
    LabQuestionsService,
    HistoriesService,
  ],
  exports: [LabService, LabReportService, LaboratoriesService, LabQuestionsService],
})
export class LabModule {}
