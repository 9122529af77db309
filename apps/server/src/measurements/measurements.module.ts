import { Module } from '@nestjs/common';
import { FieldTestsService } from './fieldTests.service.ts';

@Module({ providers: [FieldTestsService], exports: [FieldTestsService] })
export class MeasurementsModule {}
