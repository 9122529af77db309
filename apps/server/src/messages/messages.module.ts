import { Module } from '@nestjs/common';
import { GroundModule } from '../ground/ground.module.ts';
import { MessagesController } from './messages.controller.ts';
import { MessagesService } from './messages.service.ts';

@Module({
  imports: [GroundModule],
  controllers: [MessagesController],
  providers: [MessagesService],
})
export class MessagesModule {}
