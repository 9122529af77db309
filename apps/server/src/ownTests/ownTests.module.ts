import { Module } from '@nestjs/common';
import { GroundModule } from '../ground/ground.module.ts';
import { LabModule } from '../lab/lab.module.ts';
import { LoadsService } from './loads.service.ts';
import { OwnTestsController } from './ownTests.controller.ts';
import { OwnTestsService } from './ownTests.service.ts';
import { ZoneRecordService } from './zoneRecord.service.ts';

@Module({
  imports: [GroundModule, LabModule],
  controllers: [OwnTestsController],
  providers: [OwnTestsService, LoadsService, ZoneRecordService],
  exports: [OwnTestsService, LoadsService],
})
export class OwnTestsModule {}
