import { LaboratoryAnswer, LaboratoryInput } from '@glenfold/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { SeenVersion } from '../platform/version.ts';
import { OwnLaboratoriesService } from './ownLaboratories.service.ts';

@ApiTags('laboratories')
@Controller('laboratories')
export class OwnLaboratoriesController {
  constructor(private readonly laboratories: OwnLaboratoriesService) {}

  /** Laboratories that bags can be sent to from here. */
  @Get()
  @For('work.read')
  @ApiOkResponse({ type: LaboratoryAnswer, isArray: true })
  known(): Promise<LaboratoryAnswer[]> {
    return this.laboratories.list();
  }

  /** Take on a laboratory with its methods and fees. */
  @Post()
  @For('work.write')
  @ApiCreatedResponse({ type: LaboratoryAnswer })
  add(@Body() input: LaboratoryInput): Promise<LaboratoryAnswer> {
    return this.laboratories.add(input);
  }

  /** Change a laboratory. */
  @Put(':id')
  @For('work.write')
  @ApiOkResponse({ type: LaboratoryAnswer })
  change(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: LaboratoryInput,
    @SeenVersion() version: number,
  ): Promise<LaboratoryAnswer> {
    return this.laboratories.change(id, input, version);
  }

  /** Delete a laboratory; it can be restored. */
  @Delete(':id')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.laboratories.remove(id);
  }

  /** Restore a deleted laboratory. */
  @Post(':id/restore')
  @For('work.delete')
  @ApiCreatedResponse({ type: LaboratoryAnswer })
  restore(@Param('id', ParseUUIDPipe) id: string): Promise<LaboratoryAnswer> {
    return this.laboratories.restore(id);
  }
}
