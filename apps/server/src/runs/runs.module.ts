import { Global, Module } from '@nestjs/common';
import { EachPractice } from './eachPractice.ts';
import { RunKinds } from './runKinds.ts';
import { RunsController } from './runs.controller.ts';
import { RunsService } from './runs.service.ts';
import { RunsWorker } from './runsWorker.ts';

@Global()
@Module({
  controllers: [RunsController],
  providers: [EachPractice, RunKinds, RunsService, RunsWorker],
  exports: [EachPractice, RunKinds, RunsService, RunsWorker],
})
export class RunsModule {}
