import { readdir, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
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

/** Where an export lies while it is read: as large as it is, only the disk limits it. */
const UPLOADS = join(tmpdir(), 'glenfold-uploads');

/** What was sent and then refused for its other fields lies there still: an hour later nobody reads it any more. */
async function sweepUploads(): Promise<void> {
  for (const name of await readdir(UPLOADS).catch(() => [])) {
    const path = join(UPLOADS, name);
    const { mtimeMs } = await stat(path).catch(() => ({ mtimeMs: Infinity }));
    if (mtimeMs < Date.now() - 3_600_000) await rm(path, { force: true });
  }
}

/** Before a file is even received: nobody fills the memory of an installation that is set up. */
@Injectable()
class OnlyOnFirstRun implements CanActivate {
  constructor(private readonly setup: SetupService) {}

  async canActivate(): Promise<boolean> {
    await this.setup.refuseSecond();
    await sweepUploads();
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

  /** Found the first practice of an empty installation, and sign its owner in. */
  @Post('first-run')
  @For('anyone')
  @HttpCode(204)
  @ApiNoContentResponse()
  async begin(@Body() input: FirstRunInput, @Res({ passthrough: true }) response: Response): Promise<void> {
    response.cookie(COOKIE, await this.first.make(input), this.sessions.cookie);
  }

  /** Found the first practice from an export, whole or not at all. */
  @Post('first-run/load')
  @For('anyone')
  @UseGuards(OnlyOnFirstRun)
  @UseInterceptors(FileInterceptor('file', { dest: UPLOADS, limits: { files: 1, fields: 4, parts: 6 } }))
  @HttpCode(204)
  @ApiConsumes('multipart/form-data')
  @ApiNoContentResponse()
  async load(
    @Body() input: LoadExportInput,
    @UploadedFile() file: { readonly path: string } | undefined,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    if (!file) return refuse([{ field: 'file', message: 'Choose the ZIP of the export.' }]);
    try {
      response.cookie(COOKIE, await this.exchange.load(file.path, input), this.sessions.cookie);
    } finally {
      await rm(file.path, { force: true });
    }
  }

  /** Everything of the practice in one ZIP, as JSON, CSV and GeoJSON with its photos and files. */
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
