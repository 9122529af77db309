import {
  type AcceptInput,
  type InvitationAnswer,
  type InvitationInput,
  type InvitationOfferAnswer,
  PASSWORD_LEAST,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { type EntityManager, IsNull } from 'typeorm';
import { Door } from '../platform/door.ts';
import { Problem, refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { nameDoer } from '../platform/scope.ts';
import { Installation } from '../platform/installation.ts';
import { Work } from '../platform/work.ts';
import { Person } from './person.entity.ts';
import { Invitation } from './invitation.entity.ts';
import { MailService } from './mail.service.ts';
import { MemberService } from './member.service.ts';
import { Membership } from './membership.entity.ts';
import { Practice } from './practice.entity.ts';
import { hashToken, newToken } from './secrets.ts';
import { SessionService } from './session.service.ts';
import { type From, SignInService, findPerson, newPasswordHash } from './signIn.service.ts';

const DAYS = 7;

/** Offering a place in the practice, and taking it up. */
@Injectable()
export class InvitationService {
  constructor(
    private readonly records: Records,
    private readonly work: Work,
    private readonly door: Door,
    private readonly installation: Installation,
    private readonly mail: MailService,
    private readonly members: MemberService,
    private readonly signIn: SignInService,
    private readonly sessions: SessionService,
  ) {}

  async open(): Promise<InvitationAnswer[]> {
    const invitations = await this.records.of(Invitation).find({ usedAt: IsNull() }, { createdAt: 'DESC' });
    return invitations.map(({ id, email, role, siteIds, invitedBy, expiresAt }) => {
      const expired = expiresAt.getTime() < Date.now();
      return { id, email, role, siteIds, invitedBy, expiresAt: expiresAt.toISOString(), expired };
    });
  }

  /** Invite, with a message; an earlier invitation of the same address is replaced. */
  async invite({ email, role, siteIds }: InvitationInput): Promise<InvitationAnswer> {
    await this.members.checkSites(role, siteIds, true);
    const twin = (await this.members.members()).find(({ person }) => person.email === email);
    if (twin)
      refuse([
        { field: 'email', message: `${twin.person.name} is ${twin.role} here already: change the role in the list.` },
      ]);
    const { practiceId, person } = this.work.worker;
    const token = newToken();
    const { mail, id } = await this.records.together(async (of) => {
      for (const earlier of await of(Invitation).find({ email, usedAt: IsNull() }))
        await of(Invitation).remove(earlier.id);
      const invitation = await of(Invitation).add({
        email,
        role,
        siteIds,
        invitedBy: person!.name,
        tokenHash: hashToken(token),
        expiresAt: new Date(Date.now() + DAYS * 86_400_000),
        usedAt: null,
      });
      const manager = this.work.manager!;
      const practice = await manager.findOneByOrFail(Practice, { id: practiceId });
      const mail = await this.mail.write(manager, {
        practiceId,
        to: email,
        subject: `${practice.name} invites you to Glenfold`,
        text: `${person!.name} invites you to work with ${practice.name} as ${role}. Open\n\n${this.installation.address}/invitation/${token}\n\nwithin ${DAYS} days to take it up. It works once.\n`,
      });
      return { mail, id: invitation.id };
    });
    await this.mail.carry(mail);
    return (await this.open()).find((invitation) => invitation.id === id)!;
  }

  revoke(id: string): Promise<void> {
    return this.records.of(Invitation).remove(id);
  }

  offer(token: string): Promise<InvitationOfferAnswer> {
    return this.door.open(async (manager) => {
      const { practiceId, email, role, invitedBy } = await this.#open(manager, token);
      const { name } = await manager.findOneByOrFail(Practice, { id: practiceId });
      const person = await findPerson(manager, email);
      return { practiceName: name, email, role, invitedBy, known: person?.passwordHash != null };
    });
  }

  /** Take the place: with the password one has here, or with a name and a new one. @returns the cookie */
  async accept(token: string, { name, password }: AcceptInput, from: From): Promise<string> {
    const { email, known } = await this.offer(token);
    if (known && !(await this.signIn.prove(email, password, from)))
      refuse([{ field: 'password', message: `This is not the password that ${email} has here.` }]);
    if (!known && !name) refuse([{ field: 'name', message: 'Give your name, as the practice knows you.' }]);
    if (!known && password.length < PASSWORD_LEAST)
      refuse([{ field: 'password', message: `Choose a password of ${PASSWORD_LEAST} to 200 characters.` }]);
    const passwordHash = known ? undefined : await newPasswordHash(password, email);
    return this.door.open(async (manager) => {
      const { id, practiceId, role, siteIds } = await this.#open(manager, token, true);
      const found = await findPerson(manager, email);
      // Another link may have set one meanwhile: a password is never replaced unasked.
      if (passwordHash !== undefined && found?.passwordHash)
        refuse([{ field: 'password', message: `${email} has a password here by now: reload, and join with it.` }]);
      const person =
        passwordHash === undefined
          ? found!
          : await manager.save(manager.create(Person, { ...found, email, name: name ?? '', passwordHash }));
      await nameDoer(manager, person);
      await manager.update(Invitation, id, { usedAt: new Date() });
      const already = await manager.findOneBy(Membership, { practiceId, personId: person.id });
      if (!already) await manager.save(manager.create(Membership, { practiceId, personId: person.id, role, siteIds }));
      return this.sessions.begin(manager, person.id, practiceId);
    });
  }

  async #open(manager: EntityManager, token: string, lock = false): Promise<Invitation> {
    const found = await manager.findOne(Invitation, {
      where: { tokenHash: hashToken(token) },
      withDeleted: true,
      ...(lock ? { lock: { mode: 'pessimistic_write' as const } } : {}),
    });
    const again = 'Ask the practice for a new one.';
    if (!found)
      throw new Problem(
        404,
        'No such invitation',
        `This link is not complete, or was never made. Copy all of it. ${again}`,
      );
    if (found.usedAt)
      throw new Problem(
        410,
        'Used already',
        'This invitation was taken up already. Sign in with the password chosen then.',
      );
    if (found.deletedAt)
      throw new Problem(410, 'Taken back', `This invitation was taken back or replaced by a later one. ${again}`);
    if (found.expiresAt.getTime() < Date.now())
      throw new Problem(410, 'Expired', `This invitation was good for ${DAYS} days, which are over. ${again}`);
    return found;
  }
}
