import { Module } from '@nestjs/common';
import { OwnLaboratoriesController } from './ownLaboratories.controller.ts';
import { OwnLaboratoriesService } from './ownLaboratories.service.ts';

@Module({
  controllers: [OwnLaboratoriesController],
  providers: [OwnLaboratoriesService],
  exports: [OwnLaboratoriesService],
})
export class OwnLaboratoriesModule {}
