import type { ResetOfferAnswer } from '@glenfold/contract';
import { Injectable, Logger } from '@nestjs/common';
import { type EntityManager, IsNull, Not } from 'typeorm';
import { Door } from '../platform/door.ts';
import { Problem } from '../platform/problem.ts';
import { Installation } from '../platform/installation.ts';
import { PasswordReset } from './passwordReset.entity.ts';
import { Person } from './person.entity.ts';
import { Session } from './session.entity.ts';
import type { Mail } from './mail.entity.ts';
import { MailService } from './mail.service.ts';
import { hashToken, newToken } from './secrets.ts';
import { SecretAddresses } from './secretAddresses.ts';
import { SessionService } from './session.service.ts';
import { type From, SignInService, findPerson, newPasswordHash } from './signIn.service.ts';

const HOUR = 3_600_000;

/** Choosing a new password by a one-time link. */
@Injectable()
export class ResetService {
  readonly #log = new Logger('Reset');

  constructor(
    private readonly door: Door,
    private readonly installation: Installation,
    private readonly mail: MailService,
    private readonly signIn: SignInService,
    private readonly sessions: SessionService,
    private readonly addresses: SecretAddresses,
  ) {}

  /** Answers the same whether or not the address is known, and as soon: the message is written afterwards. */
  async ask(email: string, from: From): Promise<void> {
    await this.signIn.count('reset', email, from);
    this.#writeTo(email).catch((error: unknown) => this.#log.error(error));
  }

  async #writeTo(email: string): Promise<void> {
    const written = await this.door.open(async (manager) => {
      const person = await findPerson(manager, email);
      return person && this.write(manager, person);
    });
    if (written) await this.mail.carry(written.mail);
  }

  /**
   * Write the message with the link. It stands in nobody's outbox: whoever reads it holds what is somebody else's.
   *
   * @param asker who had it sent; the person themselves where nothing is said
   */
  async write(
    manager: EntityManager,
    person: Person,
    asker?: string,
  ): Promise<{ readonly mail: Mail; readonly link: string }> {
    const token = newToken();
    await manager.save(
      manager.create(PasswordReset, {
        tokenHash: hashToken(token),
        personId: person.id,
        expiresAt: new Date(Date.now() + HOUR),
        usedAt: null,
      }),
    );
    const link = `${this.installation.address}/reset/${token}`;
    const mail = await this.mail.write(manager, {
      practiceId: null,
      to: person.email,
      subject: 'Choose a new password for Glenfold',
      text: `${person.name},\n\n${asker ?? 'somebody'} asked for you to choose a new password for this address. If it was you, open\n\n${link}\n\nwithin the hour. It works once. If it was not you, leave it: nothing has changed.\n`,
    });
    return { mail, link };
  }

  async offer(token: string): Promise<ResetOfferAnswer> {
    return this.door.open(async (manager) => {
      const reset = await this.#open(manager, token);
      const { email } = await manager.findOneByOrFail(Person, { id: reset.personId });
      return { email };
    });
  }

  /** Set the password, sign out everywhere, sign in here. @returns the cookie */
  async choose(token: string, password: string): Promise<string> {
    const { email } = await this.offer(token);
    const passwordHash = await newPasswordHash(password, email);
    const { cookie, personId } = await this.door.open(async (manager) => {
      const { id, personId } = await this.#open(manager, token, true);
      await manager.update(PasswordReset, { personId, usedAt: IsNull(), id: Not(id) }, { usedAt: new Date() });
      await manager.update(PasswordReset, id, { usedAt: new Date() });
      await manager.update(Person, personId, { passwordHash });
      await manager.delete(Session, { personId });
      return { cookie: await this.sessions.begin(manager, personId), personId };
    });
    await this.addresses.endEverywhere(personId);
    return cookie;
  }

  async #open(manager: EntityManager, token: string, lock = false): Promise<PasswordReset> {
    const found = await manager.findOne(PasswordReset, {
      where: { tokenHash: hashToken(token) },
      ...(lock ? { lock: { mode: 'pessimistic_write' as const } } : {}),
    });
    if (!found)
      throw new Problem(
        404,
        'No such link',
        'This link is not complete, or was never made. Copy all of it, or ask for a new one.',
      );
    if (found.usedAt)
      throw new Problem(410, 'Used already', 'This link was used, or replaced by a later one. Ask for a new one.');
    if (found.expiresAt.getTime() < Date.now())
      throw new Problem(410, 'Expired', 'This link was good for an hour, which is over. Ask for a new one.');
    return found;
  }
}
