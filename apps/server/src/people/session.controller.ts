import { isIP } from 'node:net';
import {
  AcceptInput,
  ChangePasswordInput,
  ChoosePracticeInput,
  type DemoPersonAnswer,
  ForgotInput,
  InvitationOfferAnswer,
  PersonalInput,
  ResetInput,
  ResetOfferAnswer,
  SessionAnswer,
  SignInInput,
} from '@glenfold/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, Req, Res } from '@nestjs/common';
import { ApiNoContentResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { Door } from '../platform/door.ts';
import { Installation } from '../platform/installation.ts';
import { COOKIE, For } from '../platform/gate.ts';
import { InSeveralSteps } from '../platform/onceOnly.ts';
import { notFound } from '../platform/problem.ts';
import { DemoPeople } from './demoPeople.ts';
import { InvitationService } from './invitation.service.ts';
import { Practice } from './practice.entity.ts';
import { practiceAnswer } from './practice.service.ts';
import { ResetService } from './reset.service.ts';
import { SessionService } from './session.service.ts';
import { type From, SignInService } from './signIn.service.ts';

/** Keeps a device known on which somebody has signed in, for a year. */
const DEVICE = 'glenfold_device';
const YEAR = 365 * 24 * 3_600_000;
const TOKEN = /^[\w-]{43}$/;

/** Where a request came from, for counting tries: what a proxy says is taken only where it is a network address. */
function fromOf({ ip, socket, cookies }: Request): From {
  const device = (cookies as Partial<Record<string, unknown>>)[DEVICE];
  const origin = [ip, socket.remoteAddress].find((address) => address !== undefined && isIP(address) > 0) ?? 'unknown';
  return { origin, device: typeof device === 'string' && TOKEN.test(device) ? device : null };
}

/** Signing in and out, and the one-time links that lead in. */
@ApiTags('session')
@InSeveralSteps()
@Controller()
export class SessionController {
  constructor(
    private readonly door: Door,
    private readonly sessions: SessionService,
    private readonly signIn: SignInService,
    private readonly resets: ResetService,
    private readonly invitations: InvitationService,
    private readonly demo: DemoPeople,
    private readonly installation: Installation,
  ) {}

  /** Who is signed in, and what this installation offers. */
  @Get('session')
  @For('anyone')
  @ApiOkResponse({ type: SessionAnswer })
  async session(@Req() { access }: Request): Promise<SessionAnswer> {
    if (access) {
      const { csrf, person, practice, role } = access;
      const places = await this.sessions.places(person.id);
      return {
        state: 'signed in',
        csrf,
        person,
        practice: practice && role ? practiceAnswer(practice) : null,
        role,
        practices: places.map(({ practice: { id, name }, role }) => ({ practiceId: id, practiceName: name, role })),
        demoPeople: [],
        ...(practice && role ? {} : { former: await this.sessions.former(person.id) }),
        tiles: this.installation.tiles ?? null,
      };
    }
    const any = await this.door.open((manager) => manager.existsBy(Practice, {}));
    const demoPeople: DemoPersonAnswer[] = any ? await this.demo.people() : [];
    const nobody = { csrf: '', person: null, practice: null, role: null, practices: [] };
    return { state: any ? 'signed out' : 'first run', ...nobody, demoPeople, tiles: null };
  }

  /** Sign in. */
  @Post('session')
  @For('anyone')
  @HttpCode(204)
  @ApiNoContentResponse()
  async begin(@Body() input: SignInInput, @Req() request: Request, @Res({ passthrough: true }) response: Response) {
    const { session, device } = await this.signIn.signIn(input, fromOf(request));
    // A session that the browser had before ends: a cookie never changes hands.
    if (request.access) await this.sessions.end(request.access.sessionId);
    response.cookie(COOKIE, session, this.sessions.cookie);
    response.cookie(DEVICE, device, { ...this.sessions.cookie, maxAge: YEAR });
  }

  /** Sign out. */
  @Delete('session')
  @For('signed in')
  @HttpCode(204)
  @ApiNoContentResponse()
  async end(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    await this.sessions.end(request.access!.sessionId);
    response.clearCookie(COOKIE, { path: '/' });
  }

  /** Sign out everywhere. */
  @Delete('sessions')
  @For('signed in')
  @HttpCode(204)
  @ApiNoContentResponse()
  async endAll(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    await this.signIn.signOutEverywhere(request.access!.person.id);
    response.clearCookie(COOKIE, { path: '/' });
  }

  /** Open another practice. */
  @Put('session/practice')
  @For('signed in')
  @HttpCode(204)
  @ApiNoContentResponse()
  async choose(@Body() { practiceId }: ChoosePracticeInput, @Req() request: Request): Promise<void> {
    const { person, sessionId } = request.access!;
    const places = await this.sessions.places(person.id);
    if (!places.some(({ practice }) => practice.id === practiceId)) notFound();
    await this.sessions.choose(sessionId, practiceId);
  }

  /** Change one's own name and units. */
  @Put('session/personal')
  @For('signed in')
  @HttpCode(204)
  @ApiNoContentResponse()
  async personal(@Body() input: PersonalInput, @Req() request: Request): Promise<void> {
    await this.sessions.personal(request.access!.person.id, input);
  }

  /** Change one's password. */
  @Put('session/password')
  @For('signed in')
  @HttpCode(204)
  @ApiNoContentResponse()
  async changePassword(@Body() input: ChangePasswordInput, @Req() request: Request): Promise<void> {
    const { person, sessionId } = request.access!;
    await this.signIn.changePassword(person, sessionId, input, fromOf(request));
  }

  /** Ask for a link to choose a password. */
  @Post('password-resets')
  @For('anyone')
  @HttpCode(204)
  @ApiNoContentResponse()
  async forgot(@Body() { email }: ForgotInput, @Req() request: Request): Promise<void> {
    await this.resets.ask(email, fromOf(request));
  }

  /** Whom a link to choose a password is for. */
  @Get('password-resets/:token')
  @For('anyone')
  @ApiOkResponse({ type: ResetOfferAnswer })
  resetOffer(@Param('token') token: string): Promise<ResetOfferAnswer> {
    return this.resets.offer(token);
  }

  /** Choose a password by a link. */
  @Put('password-resets/:token')
  @For('anyone')
  @HttpCode(204)
  @ApiNoContentResponse()
  async reset(
    @Param('token') token: string,
    @Body() { password }: ResetInput,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    response.cookie(COOKIE, await this.resets.choose(token, password), this.sessions.cookie);
  }

  /** What an invitation offers. */
  @Get('invitations/:token/offer')
  @For('anyone')
  @ApiOkResponse({ type: InvitationOfferAnswer })
  offer(@Param('token') token: string): Promise<InvitationOfferAnswer> {
    return this.invitations.offer(token);
  }

  /** Accept an invitation. */
  @Put('invitations/:token/offer')
  @For('anyone')
  @HttpCode(204)
  @ApiNoContentResponse()
  async accept(
    @Param('token') token: string,
    @Body() input: AcceptInput,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const cookie = await this.invitations.accept(token, input, fromOf(request));
    response.cookie(COOKIE, cookie, this.sessions.cookie);
  }
}
