import { Module } from '@nestjs/common';
import { EntriesService } from './entries.service.ts';

@Module({ providers: [EntriesService], exports: [EntriesService] })
export class EntriesModule {}
