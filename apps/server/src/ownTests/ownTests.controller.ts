import {
  FieldTestAnswer,
  FieldTestInput,
  LoadCheckAnswer,
  LoadCheckInput,
  OpenTestsAnswer,
  ZoneRecordAnswer,
} from '@glenfold/contract';
import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Post,
  Query,
  StreamableFile,
} from '@nestjs/common';
import {
  ApiCreatedResponse,
  ApiNoContentResponse,
  ApiOkResponse,
  ApiProduces,
  ApiQuery,
  ApiTags,
} from '@nestjs/swagger';
import type { UnitSystem } from '@glenfold/agronomy';
import { For } from '../platform/gate.ts';
import { systems, unitsPipe } from '../platform/units.ts';
import { LoadsService } from './loads.service.ts';
import { OwnTestsService } from './ownTests.service.ts';
import { ZoneRecordService } from './zoneRecord.service.ts';

@ApiTags('own tests')
@Controller()
export class OwnTestsController {
  constructor(
    private readonly tests: OwnTestsService,
    private readonly loads: LoadsService,
    private readonly record: ZoneRecordService,
  ) {}

  /** Tests of our own on a site. */
  @Get('sites/:siteId/field-tests')
  @ApiQuery({ name: 'units', enum: systems })
  @For('work.read')
  @ApiOkResponse({ type: FieldTestAnswer, isArray: true })
  of(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<FieldTestAnswer[]> {
    return this.tests.of(siteId, units);
  }

  /** Sites on which a test goes on, to be taken along. */
  @Get('field-tests/open')
  @For('work.read')
  @ApiOkResponse({ type: OpenTestsAnswer, isArray: true })
  open(): Promise<OpenTestsAnswer[]> {
    return this.tests.openSites();
  }

  /** Keep a test as far as it is done; sent again it is the same test. */
  @Post('field-tests')
  @ApiQuery({ name: 'units', enum: systems })
  @For('field.write')
  @ApiCreatedResponse({ type: FieldTestAnswer })
  keep(@Body() input: FieldTestInput, @Query('units', unitsPipe) units: UnitSystem): Promise<FieldTestAnswer> {
    return this.tests.keep(input, units);
  }

  /** Delete a test of our own; it can be restored. */
  @Delete('field-tests/:id')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.tests.remove(id);
  }

  /** Restore a deleted test of our own. */
  @Post('field-tests/:id/restore')
  @ApiQuery({ name: 'units', enum: systems })
  @For('work.delete')
  @ApiCreatedResponse({ type: FieldTestAnswer })
  restore(
    @Param('id', ParseUUIDPipe) id: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<FieldTestAnswer> {
    return this.tests.restore(id, units);
  }

  /** Every measurement of a zone over time. */
  @Get('zones/:zoneId/record')
  @ApiQuery({ name: 'units', enum: systems })
  @For('work.read')
  @ApiOkResponse({ type: ZoneRecordAnswer })
  zoneRecord(@Param('zoneId', ParseUUIDPipe) zoneId: string, @Query('units', unitsPipe) units: UnitSystem): Promise<ZoneRecordAnswer> {
    return this.record.of(zoneId, units);
  } // prettier-ignore

  /** A zone's record over the years as a table. */
  @Get('zones/:zoneId/record.csv')
  @ApiQuery({ name: 'units', enum: systems })
  @For('work.read')
  @ApiProduces('text/csv')
  @ApiOkResponse({ schema: { type: 'string' } })
  async zoneRecordCsv(
    @Param('zoneId', ParseUUIDPipe) zoneId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<StreamableFile> {
    const { name, text } = await this.record.csv(zoneId, units);
    return new StreamableFile(Buffer.from(text), {
      type: 'text/csv; charset=utf-8',
      disposition: `attachment; filename="${name.replace(/[^\w .-]/g, '')}"`,
    });
  }

  /** Loads that were looked at on a site. */
  @Get('sites/:siteId/load-checks')
  @For('work.read')
  @ApiOkResponse({ type: LoadCheckAnswer, isArray: true })
  loadsOf(@Param('siteId', ParseUUIDPipe) siteId: string): Promise<LoadCheckAnswer[]> {
    return this.loads.of(siteId);
  }

  /** Keep what was seen of a load. */
  @Post('load-checks')
  @For('field.write')
  @ApiCreatedResponse({ type: LoadCheckAnswer })
  keepLoad(@Body() input: LoadCheckInput): Promise<LoadCheckAnswer> {
    return this.loads.keep(input);
  }

  /** Delete a load; it can be restored. */
  @Delete('load-checks/:id')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  removeLoad(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.loads.remove(id);
  }

  /** Restore a deleted load. */
  @Post('load-checks/:id/restore')
  @For('work.delete')
  @ApiCreatedResponse({ type: LoadCheckAnswer })
  restoreLoad(@Param('id', ParseUUIDPipe) id: string): Promise<LoadCheckAnswer> {
    return this.loads.restore(id);
  }
}
