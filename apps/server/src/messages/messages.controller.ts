import { MessageAnswer, MessageInput, MessagesAnswer, NoteInput } from '@glenfold/contract';
import { Body, Controller, Get, HttpCode, Param, ParseUUIDPipe, Post, Req } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Request } from 'express';
import { For } from '../platform/gate.ts';
import { notFound } from '../platform/problem.ts';
import { MessagesService } from './messages.service.ts';

/** A client writes about the sites that are shared with them, and no others. */
function refuseForeign({ access }: Request, siteId: string): void {
  if (access!.role === 'client' && !access!.siteIds.includes(siteId)) notFound();
}

@ApiTags('messages')
@Controller()
export class MessagesController {
  constructor(private readonly messages: MessagesService) {}

  /** What was written about a site. */
  @Get('sites/:siteId/messages')
  @For('report.read')
  @ApiOkResponse({ type: MessagesAnswer })
  of(@Param('siteId', ParseUUIDPipe) siteId: string, @Req() request: Request): Promise<MessagesAnswer> {
    refuseForeign(request, siteId);
    return this.messages.of(siteId);
  }

  /** Write about a site; sent again it is the same message. */
  @Post('sites/:siteId/messages')
  @For('report.read')
  @ApiCreatedResponse({ type: MessageAnswer })
  write(
    @Param('siteId', ParseUUIDPipe) siteId: string,
    @Body() input: MessageInput,
    @Req() request: Request,
  ): Promise<MessageAnswer> {
    refuseForeign(request, siteId);
    return this.messages.write(siteId, input);
  }

  /** Words to the office from the field. */
  @Post('notes')
  @For('field.write')
  @ApiCreatedResponse({ type: MessageAnswer })
  note(@Body() input: NoteInput): Promise<MessageAnswer> {
    return this.messages.note(input);
  }

  /** It is read, and wants no answer. */
  @Post('messages/:messageId/done')
  @For('work.write')
  @HttpCode(204)
  @ApiNoContentResponse()
  done(@Param('messageId', ParseUUIDPipe) id: string): Promise<void> {
    return this.messages.done(id);
  }
}
