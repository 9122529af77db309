import { Module } from '@nestjs/common';
import { GroundModule } from '../ground/ground.module.ts';
import { ErasureController } from './erasure.controller.ts';
import { ErasureService } from './erasure.service.ts';
import { NamesOfSite } from './namesOfSite.service.ts';

/** Taking a client out of what is kept of their ground. */
@Module({
  imports: [GroundModule],
  controllers: [ErasureController],
  providers: [ErasureService, NamesOfSite],
})
export class ErasureModule {}
