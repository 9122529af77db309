import { Module } from '@nestjs/common';
import { GroundModule } from '../ground/ground.module.ts';
import { OwnLaboratoriesModule } from '../laboratories/ownLaboratories.module.ts';
import { PeopleModule } from '../people/people.module.ts';
import { BagAnswers } from './bagAnswers.service.ts';
import { BoardService } from './board.service.ts';
import { PapersService } from './papers.service.ts';
import { SamplingService } from './sampling.service.ts';
import { WalkService } from './walk.service.ts';
import { SamplingController } from './sampling.controller.ts';
import { SamplingReporter } from './sampling.reporter.ts';

@Module({
  imports: [GroundModule, PeopleModule, OwnLaboratoriesModule],
  controllers: [SamplingController],
  providers: [SamplingReporter, BagAnswers, BoardService, SamplingService, WalkService, PapersService],
  exports: [SamplingService, WalkService],
})
export class SamplingModule {}
