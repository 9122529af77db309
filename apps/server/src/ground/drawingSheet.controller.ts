import type { UnitSystem } from '@glenfold/agronomy';
import { Controller, Get, Header, Param, ParseUUIDPipe, Query, StreamableFile } from '@nestjs/common';
import { ApiOkResponse, ApiProduces, ApiQuery, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { systems, unitsPipe } from '../platform/units.ts';
import { DrawingSheetService } from './drawingSheet.service.ts';

@ApiTags('ground')
@Controller('sites/:siteId')
export class DrawingSheetController {
  constructor(private readonly sheets: DrawingSheetService) {}

  /** The plan to scale on a sheet of paper. */
  @Get('drawing.pdf')
  @For('work.read')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiProduces('application/pdf')
  @ApiOkResponse({ schema: { type: 'string', format: 'binary' } })
  async pdf(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Query('units', unitsPipe) units: UnitSystem,
  ): Promise<StreamableFile> {
    const type = 'application/pdf';
    return new StreamableFile(await this.sheets.pdf(siteId, units), {
      type,
      disposition: 'inline; filename="drawing.pdf"',
    });
  }

  /** The plan to scale as a drawing. */
  @Get('drawing.svg')
  @For('work.read')
  @Header('content-type', 'image/svg+xml; charset=utf-8')
  @ApiQuery({ name: 'units', enum: systems })
  @ApiProduces('image/svg+xml')
  @ApiOkResponse({ schema: { type: 'string' } })
  svg(@Param('siteId', ParseUUIDPipe) siteId: string, @Query('units', unitsPipe) units: UnitSystem): Promise<string> {
    return this.sheets.svg(siteId, units);
  }
}
