import type { ChangePasswordInput, SignInInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { type EntityManager, LessThan, MoreThan, Not } from 'typeorm';
import { Door } from '../platform/door.ts';
import { Problem, refuse } from '../platform/problem.ts';
import { Person } from './person.entity.ts';
import { Session } from './session.entity.ts';
import { SignInAttempt } from './signInAttempt.entity.ts';
import { KnownDevice } from './knownDevice.entity.ts';
import { hashPassword, hashToken, newToken, passwordFits } from './secrets.ts';
import { SecretAddresses } from './secretAddresses.ts';
import { SessionService } from './session.service.ts';

const MINUTE = 60_000;
/** How long a failed try counts. */
export const ATTEMPT_WINDOW = 15 * MINUTE;
/** Failed tries for one address from anywhere, and from one place for any address. */
export const ATTEMPT_LIMITS = { email: 20, origin: 100 } as const;
/** Tries for one address from one place that cost no wait: fingers slip. */
export const FREE_TRIES = 3;

/** ms to wait after so many failed tries for one address from one place: doubled from try to try. */
export const waitAfter = (tries: number): number =>
  tries < FREE_TRIES ? 0 : Math.min(ATTEMPT_WINDOW, 1000 * 2 ** (tries - FREE_TRIES + 1));

/** Where a try comes from: a network address, and the cookie of the device where it has one. */
export interface From {
  readonly origin: string;
  readonly device: string | null;
}

/** Cookies of somebody who got in. */
export interface Entered {
  readonly session: string;
  readonly device: string;
}

/** @param wait ms after which a try is taken again */
export function lockedOut(wait: number = ATTEMPT_WINDOW): never {
  const seconds = Math.ceil(wait / 1000);
  const told = seconds < 120 ? `${seconds} ${seconds === 1 ? 'second' : 'seconds'}` : `${Math.ceil(seconds / 60)} minutes`;
  throw new Problem(
    429,
    'Too many tries',
    `Too many tries for this address. Wait ${told} and try again, or have a link sent to choose a new password.`,
    [],
    seconds,
  );
} // prettier-ignore

/** Signing in with e-mail and password. Says the same of an unknown address as of a wrong password. */
@Injectable()
export class SignInService {
  constructor(
    private readonly door: Door,
    private readonly sessions: SessionService,
    private readonly addresses: SecretAddresses,
  ) {}

  /** @returns the cookies of the new session and of the device. @throws a 401 or 429 problem */
  async signIn({ email, password }: SignInInput, from: From): Promise<Entered> {
    const person = await this.prove(email, password, from);
    if (!person)
      throw new Problem(
        401,
        'Not signed in',
        'E-mail and password do not fit together. Check both, or have a link sent to choose a new password.',
      );
    return this.door.open(async (manager) => {
      const session = await this.sessions.begin(manager, person.id);
      const device = from.device ?? newToken();
      await manager
        .createQueryBuilder()
        .insert()
        .into(KnownDevice)
        .values({ tokenHash: hashToken(device), personId: person.id })
        .orIgnore()
        .execute();
      return { session, device };
    });
  }

  /** The person, if the password is theirs. Counts the try first, so that tries side by side count too. */
  async prove(email: string, password: string, from: From): Promise<Person | null> {
    const origin = await this.count('sign in', email, from);
    const person = await this.door.open((manager) => findPerson(manager, email));
    if (!(await passwordFits(password, person?.passwordHash))) return null;
    await this.door.open((manager) => manager.delete(SignInAttempt, { kind: 'sign in', email, origin }));
    return person;
  }

  /**
   * Count a try. Each wrong one makes the next wait longer for who tries, and for nobody else.
   * A device from which that person has signed in before is counted by itself: whoever tries elsewhere, or from behind
   * the same address, does not lock it out.
   *
   * @returns where it is counted as coming from
   * @throws a 429 problem when there were too many tries lately
   */
  async count(kind: SignInAttempt['kind'], email: string, { origin: place, device }: From): Promise<string> {
    const known = device !== null && (await this.#knows(device, email));
    const origin = known ? `device ${hashToken(device).slice(0, 24)}` : place;
    const wait = await this.door.open(async (manager) => {
      // One after the other: tries side by side must not pass the limit together.
      await manager.query('SELECT pg_advisory_xact_lock(hashtext($1))', [email]);
      const recent = MoreThan(new Date(Date.now() - ATTEMPT_WINDOW));
      const tries = (where: Partial<Pick<SignInAttempt, 'email' | 'origin'>>): Promise<number> =>
        manager.countBy(SignInAttempt, { kind, createdAt: recent, ...where });
      await manager.delete(SignInAttempt, { createdAt: LessThan(new Date(Date.now() - ATTEMPT_WINDOW)) });
      const full =
        (!known && (await tries({ email })) >= ATTEMPT_LIMITS.email) ||
        (!known && (await tries({ origin })) >= ATTEMPT_LIMITS.origin);
      if (full) return ATTEMPT_WINDOW;
      const [last] = await manager.find(SignInAttempt, {
        where: { kind, email, origin, createdAt: recent },
        order: { createdAt: 'DESC' },
        take: 1,
      });
      const until = (last?.createdAt.getTime() ?? 0) + waitAfter(await tries({ email, origin }));
      if (until > Date.now()) return until - Date.now();
      await manager.save(manager.create(SignInAttempt, { kind, email, origin }));
      return 0;
    });
    if (wait > 0) lockedOut(wait);
    return origin;
  }

  #knows(device: string, email: string): Promise<boolean> {
    return this.door.open(async (manager) => {
      const person = await findPerson(manager, email);
      return person !== null && manager.existsBy(KnownDevice, { tokenHash: hashToken(device), personId: person.id });
    });
  }

  /** A new password; every other browser of the person is signed out, and their secret addresses end. */
  async changePassword(
    person: { readonly id: string; readonly email: string },
    sessionId: string,
    { current, password }: ChangePasswordInput,
    from: From,
  ): Promise<void> {
    if (!(await this.prove(person.email, current, from)))
      refuse([{ field: 'current', message: 'This is not the password you use now.' }]);
    const passwordHash = await newPasswordHash(password, person.email);
    await this.door.open(async (manager) => {
      await manager.update(Person, person.id, { passwordHash });
      await manager.delete(Session, { personId: person.id, id: Not(sessionId) });
    });
    await this.addresses.endEverywhere(person.id);
  }

  async signOutEverywhere(personId: string): Promise<void> {
    await this.door.open((manager) => manager.delete(Session, { personId }));
    await this.addresses.endEverywhere(personId);
  }
}

/** With the hash of the password, which is left out elsewhere. */
export function findPerson(manager: EntityManager, email: string): Promise<Person | null> {
  return manager
    .createQueryBuilder(Person, 'person')
    .addSelect('person.passwordHash')
    .where('person.email = :email', { email })
    .getOne();
}

/** @throws a 422 problem for a password that repeats the address */
export async function newPasswordHash(password: string, email: string): Promise<string> {
  const [name = ''] = email.split('@');
  const plain = password.toLowerCase();
  if (plain.includes(email) || (name.length > 3 && plain.startsWith(name) && plain.length < name.length + 6))
    refuse([{ field: 'password', message: 'Choose a password that is not the e-mail address.' }]);
  if (new Set(password).size < 5)
    refuse([{ field: 'password', message: 'Choose a password of more than a few signs repeated.' }]);
  return hashPassword(password);
}
