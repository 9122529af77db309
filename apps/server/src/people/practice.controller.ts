import {
  AuditPageAnswer,
  HoldingsAnswer,
  InvitationAnswer,
  InvitationInput,
  MemberAnswer,
  MemberInput,
  OutboxAnswer,
  PasswordLinkAnswer,
  PracticeAnswer,
  PracticeInput,
} from '@glenfold/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseUUIDPipe, Post, Put, Query } from '@nestjs/common';
import { ApiCreatedResponse, ApiNoContentResponse, ApiOkResponse, ApiQuery, ApiTags } from '@nestjs/swagger';
import { AuditService } from '../audit/audit.service.ts';
import { For } from '../platform/gate.ts';
import { InSeveralSteps } from '../platform/onceOnly.ts';
import { SeenVersion } from '../platform/version.ts';
import { InvitationService } from './invitation.service.ts';
import { MailService } from './mail.service.ts';
import { MemberService } from './member.service.ts';
import { PracticeService, practiceAnswer } from './practice.service.ts';

/** People and settings of a practice: its owners' business. */
@ApiTags('practice')
@For('practice.manage')
@InSeveralSteps()
@Controller()
export class PracticeController {
  constructor(
    private readonly practices: PracticeService,
    private readonly members: MemberService,
    private readonly invitations: InvitationService,
    private readonly mail: MailService,
    private readonly audit: AuditService,
  ) {}

  /** The practice that is open. */
  @Get('practice')
  @ApiOkResponse({ type: PracticeAnswer })
  async read(): Promise<PracticeAnswer> {
    return practiceAnswer(await this.practices.current());
  }

  /** Change the practice's name, time zone and currency. */
  @Put('practice')
  @ApiOkResponse({ type: PracticeAnswer })
  async change(@Body() input: PracticeInput, @SeenVersion() version: number): Promise<PracticeAnswer> {
    return practiceAnswer(await this.practices.change(input, version));
  }

  /** People of the practice. */
  @Get('members')
  @ApiOkResponse({ type: MemberAnswer, isArray: true })
  people(): Promise<MemberAnswer[]> {
    return this.members.members();
  }

  /** Change somebody's role, or what a client reads. */
  @Put('members/:id')
  @ApiOkResponse({ type: MemberAnswer })
  changeMember(
    @Param('id', ParseUUIDPipe) id: string,
    @Body() input: MemberInput,
    @SeenVersion() version: number,
  ): Promise<MemberAnswer> {
    return this.members.change(id, input, version);
  }

  /** Take somebody off the practice; they can be taken back. */
  @Delete('members/:id')
  @ApiQuery({ name: 'jobsTo', required: false })
  @HttpCode(204)
  @ApiNoContentResponse()
  removeMember(
    @Param('id', ParseUUIDPipe) id: string,
    @Query('jobsTo', new ParseUUIDPipe({ optional: true })) jobsTo?: string,
  ): Promise<void> {
    return this.members.remove(id, jobsTo);
  }

  /** What somebody holds that others have to know of first. */
  @Get('members/:memberId/holdings')
  @ApiOkResponse({ type: HoldingsAnswer })
  holdings(@Param('memberId', ParseUUIDPipe) id: string): Promise<HoldingsAnswer> {
    return this.members.holds(id);
  }

  /** Take somebody back. */
  @Post('members/:id/restore')
  @ApiCreatedResponse({ type: MemberAnswer })
  restoreMember(@Param('id', ParseUUIDPipe) id: string): Promise<MemberAnswer> {
    return this.members.restore(id);
  }

  /** End the secret addresses that somebody made: calendars, links to reports. */
  @Delete('members/:memberId/addresses')
  @HttpCode(204)
  @ApiNoContentResponse()
  endAddresses(@Param('memberId', ParseUUIDPipe) id: string): Promise<void> {
    return this.members.endAddresses(id);
  }

  /** Send somebody a link to choose a password. */
  @Post('members/:id/password-reset')
  @HttpCode(200)
  @ApiOkResponse({ type: PasswordLinkAnswer })
  sendReset(@Param('id', ParseUUIDPipe) id: string): Promise<PasswordLinkAnswer> {
    return this.members.sendReset(id);
  }

  /** Invitations that wait. */
  @Get('invitations')
  @ApiOkResponse({ type: InvitationAnswer, isArray: true })
  invited(): Promise<InvitationAnswer[]> {
    return this.invitations.open();
  }

  /** Invite somebody. */
  @Post('invitations')
  @ApiCreatedResponse({ type: InvitationAnswer })
  invite(@Body() input: InvitationInput): Promise<InvitationAnswer> {
    return this.invitations.invite(input);
  }

  /** Take an invitation back. */
  @Delete('invitations/:id')
  @HttpCode(204)
  @ApiNoContentResponse()
  revoke(@Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.invitations.revoke(id);
  }

  /** Messages, and what became of them. */
  @Get('outbox')
  @ApiOkResponse({ type: OutboxAnswer })
  outbox(): Promise<OutboxAnswer> {
    return this.mail.outbox();
  }

  /** Send a message again. */
  @Post('outbox/:id/send')
  @HttpCode(200)
  @ApiOkResponse({ type: OutboxAnswer })
  sendAgain(@Param('id', ParseUUIDPipe) id: string): Promise<OutboxAnswer> {
    return this.mail.sendAgain(id);
  }

  /** The record of changes, a page at a time. */
  @Get('audit')
  @ApiQuery({ name: 'before', required: false })
  @ApiOkResponse({ type: AuditPageAnswer })
  changes(@Query('before') before?: string): Promise<AuditPageAnswer> {
    return this.audit.page(before);
  }
}
