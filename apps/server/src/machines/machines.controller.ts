import { MachineAnswer, MachineInput } from '@glenfold/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post, Put } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { For } from '../platform/gate.ts';
import { SeenVersion } from '../platform/version.ts';
import { MachinesService } from './machines.service.ts';

@ApiTags('machines')
@Controller('machines')
export class MachinesController {
  constructor(private readonly machines: MachinesService) {}

  /** Spreaders and sprayers with their settings. */
  @Get()
  @For('work.read')
  @ApiOkResponse({ type: MachineAnswer, isArray: true })
  known(): Promise<MachineAnswer[]> {
    return this.machines.list();
  }

  /** Take on a machine. */
  @Post()
  @For('work.write')
  @ApiCreatedResponse({ type: MachineAnswer })
  add(@Body() input: MachineInput): Promise<MachineAnswer> {
    return this.machines.add(input);
  }

  /** Change a machine. */
  @Put(':id')
  @For('work.write')
  @ApiOkResponse({ type: MachineAnswer })
  change(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: MachineInput,
    @SeenVersion() version: number,
  ): Promise<MachineAnswer> {
    return this.machines.change(id, input, version);
  }

  /** Delete a machine; it can be restored. */
  @Delete(':id')
  @For('work.delete')
  @HttpCode(204)
  @ApiNoContentResponse()
  remove(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.machines.remove(id);
  }

  /** Restore a deleted machine. */
  @Post(':id/restore')
  @For('work.delete')
  @ApiCreatedResponse({ type: MachineAnswer })
  restore(@Param('id', ParseUUIDPipe) id: string): Promise<MachineAnswer> {
    return this.machines.restore(id);
  }
}
