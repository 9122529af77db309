import { Global, Module } from '@nestjs/common';
import { StepReporters } from './stepReporters.ts';

@Global()
@Module({ providers: [StepReporters], exports: [StepReporters] })
export class StepsModule {}
