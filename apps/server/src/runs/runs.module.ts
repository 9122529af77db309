import { Global, Module } from '@nestjs/common';
import { RunKinds } from './runKinds.ts';
import { RunsController } from './runs.controller.ts';
import { RunsService } from './runs.service.ts';
import { RunsWorker } from './runsWorker.ts';

@Global()
@Module({
  controllers: [RunsController],
  providers: [RunKinds, RunsService, RunsWorker],
  exports: [RunKinds, RunsService, RunsWorker],
})
export class RunsModule {}
