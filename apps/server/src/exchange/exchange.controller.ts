import { FirstRunInput, LoadExportInput } from '@glenfold/contract';
import {
  Body,
  type CanActivate,
  Controller,
  Get,
  HttpCode,
  Injectable,
  Post,
  Res,
  StreamableFile,
  UploadedFile,
  UseGuards,
  UseInterceptors,
} from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { ApiConsumes, ApiNoContentResponse, ApiOkResponse, ApiProduces, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { COOKIE, For } from '../platform/gate.ts';
import { refuse } from '../platform/problem.ts';
import { SessionService } from '../people/session.service.ts';
import { SetupService } from '../people/setup.service.ts';
import { ExchangeService } from './exchange.service.ts';
import { Days } from '../settings/days.service.ts';
import { FirstPractice } from './firstPractice.service.ts';

const MOST_UPLOADED = 60_000_000;

/** Before a file is even received: nobody fills the memory of an installation that is set up. */
@Injectable()
class OnlyOnFirstRun implements CanActivate {
  constructor(private readonly setup: SetupService) {}

  async canActivate(): Promise<boolean> {
    await this.setup.refuseSecond();
    return true;
  }
}

@ApiTags('exchange')
@Controller()
export class ExchangeController {
  constructor(
    private readonly first: FirstPractice,
    private readonly exchange: ExchangeService,
    private readonly sessions: SessionService,
    private readonly days: Days,
  ) {}

  @Post('first-run')
  @For('anyone')
  @HttpCode(204)
  @ApiNoContentResponse()
  async begin(@Body() input: FirstRunInput, @Res({ passthrough: true }) response: Response): Promise<void> {
    response.cookie(COOKIE, await this.first.make(input), this.sessions.cookie);
  }

  @Post('first-run/load')
  @For('anyone')
  @UseGuards(OnlyOnFirstRun)
  @UseInterceptors(FileInterceptor('file', { limits: { fileSize: MOST_UPLOADED, files: 1, fields: 4, parts: 6 } }))
  @HttpCode(204)
  @ApiConsumes('multipart/form-data')
  @ApiNoContentResponse()
  async load(
    @Body() input: LoadExportInput,
    @UploadedFile() file: { readonly buffer: Buffer } | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    if (!file) return refuse([{ field: 'file', message: 'Choose the ZIP of the export.' }]);
    response.cookie(COOKIE, await this.exchange.load(file.buffer, input), this.sessions.cookie);
  }

  @Get('practice/export')
  @For('practice.manage')
  @ApiProduces('application/zip')
  @ApiOkResponse({ schema: { type: 'string', format: 'binary' } })
  async export(): Promise<StreamableFile> {
    const { name, stream } = await this.exchange.export();
    const file = `${name} ${await this.days.on(null)}.zip`.replace(/[^\w .-]/g, '');
    return new StreamableFile(stream as never, {
      type: 'application/zip',
      disposition: `attachment; filename="${file}"`,
    });
  }
}
