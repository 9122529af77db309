import { Global, Module } from '@nestjs/common';
import { PracticeContext } from './practiceContext.ts';
import { Records } from './records.ts';

@Global()
@Module({ providers: [PracticeContext, Records], exports: [PracticeContext, Records] })
export class PlatformModule {}
