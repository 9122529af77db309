import { Module } from '@nestjs/common';
import { GroundModule } from '../ground/ground.module.ts';
import { BeginningService } from './beginning.service.ts';
import { FindService } from './find.service.ts';
import { RoundsController } from './rounds.controller.ts';
import { RoundsService } from './rounds.service.ts';

@Module({
  imports: [GroundModule],
  controllers: [RoundsController],
  providers: [RoundsService, FindService, BeginningService],
})
export class RoundsModule {}
