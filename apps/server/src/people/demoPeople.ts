import { DemoEntryInput, type DemoPersonAnswer, roles } from '@glenfold/contract';
import { Body, Controller, HttpCode, Injectable, Post, Req, Res } from '@nestjs/common';
import { ApiNoContentResponse, ApiTags } from '@nestjs/swagger';
import type { Request, Response } from 'express';
import { In } from 'typeorm';
import { Door } from '../platform/door.ts';
import { COOKIE, For } from '../platform/gate.ts';
import { notFound } from '../platform/problem.ts';
import { Installation } from '../platform/installation.ts';
import { Membership } from './membership.entity.ts';
import { Practice } from './practice.entity.ts';
import { SessionService } from './session.service.ts';

/** The made-up people of the demo practices. */
@Injectable()
export class DemoPeople {
  constructor(
    private readonly door: Door,
    private readonly installation: Installation,
  ) {}

  /** Nobody outside demo mode. */
  async people(): Promise<DemoPersonAnswer[]> {
    if (!this.installation.demo) return [];
    return this.door.open(async (manager) => {
      const practices = await manager.findBy(Practice, { demo: true });
      const memberships = await manager.find(Membership, {
        where: { practiceId: In(practices.map(({ id }) => id)) },
        relations: { person: true },
      });
      memberships.sort(
        (a, b) => roles.indexOf(a.role) - roles.indexOf(b.role) || a.person.name.localeCompare(b.person.name),
      );
      const people = new Map<string, DemoPersonAnswer>();
      for (const { person, practiceId, role } of memberships) {
        const { id, name, email } = person;
        const entry = people.get(id) ?? { personId: id, name, email, at: [] };
        entry.at.push(`${role} at ${practices.find((practice) => practice.id === practiceId)!.name}`);
        people.set(id, entry);
      }
      return [...people.values()];
    });
  }
}

/** Entering as a demo person with one click. Mounted in demo mode only. */
@ApiTags('session')
@Controller('demo')
export class DemoController {
  constructor(
    private readonly door: Door,
    private readonly demo: DemoPeople,
    private readonly sessions: SessionService,
  ) {}

  /** Enter as one of the demo people. */
  @Post('session')
  @For('anyone')
  @HttpCode(204)
  @ApiNoContentResponse()
  async enter(
    @Body() { personId }: DemoEntryInput,
    @Req() { access }: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    if (!(await this.demo.people()).some((person) => person.personId === personId)) notFound();
    const token = await this.door.open((manager) => this.sessions.begin(manager, personId));
    // A session that the browser had before ends: a cookie never changes hands.
    if (access) await this.sessions.end(access.sessionId);
    response.cookie(COOKIE, token, this.sessions.cookie);
  }
}
