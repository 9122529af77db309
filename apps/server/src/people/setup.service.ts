import type { FirstRunInput, Role } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { Door } from '../platform/door.ts';
import { Problem } from '../platform/problem.ts';
import { nameDoer } from '../platform/scope.ts';
import { Person } from './person.entity.ts';
import { Membership } from './membership.entity.ts';
import { Practice } from './practice.entity.ts';
import { hashPassword } from './secrets.ts';
import { findPerson, newPasswordHash } from './signIn.service.ts';

/** Any number will do, as long as nothing else locks it. */
const FIRST_RUN_LOCK = 4600;

export interface MadePractice {
  readonly practiceId: string;
  readonly personId: string;
  /** Work in the new practice as its first person, in the same transaction. */
  readonly enter: <T>(work: () => Promise<T>) => Promise<T>;
}

type NewPerson = Pick<FirstRunInput, 'name' | 'email'>;

/** Making the first practice of an installation. */
@Injectable()
export class SetupService {
  constructor(private readonly door: Door) {}

  /** Work that only an empty installation allows; all of it or nothing, and once, however many ask at a time. */
  first<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    return this.door.open(async (manager) => {
      await manager.query('SELECT pg_advisory_xact_lock($1)', [FIRST_RUN_LOCK]);
      await this.#refuseSecond(manager);
      return work(manager);
    });
  }

  /** @throws a 409 problem once there is a practice */
  refuseSecond(): Promise<void> {
    return this.door.open((manager) => this.#refuseSecond(manager));
  }

  async #refuseSecond(manager: EntityManager): Promise<void> {
    if (await manager.existsBy(Practice, {}))
      throw new Problem(
        409,
        'Set up already',
        'This installation has its practice. Sign in, or ask its owner for an invitation.',
      );
  }

  /** A practice with its owner. */
  async practice(
    manager: EntityManager,
    {
      name,
      demo,
      timeZone,
      currency,
    }: Pick<Practice, 'name' | 'demo'> & Partial<Pick<Practice, 'timeZone' | 'currency'>>,
    owner: NewPerson,
    password: string,
  ): Promise<MadePractice> {
    const { id: practiceId } = await manager.save(
      manager.create(Practice, {
        ...{ name, demo, clientsShare: demo },
        timeZone: timeZone ?? new Intl.DateTimeFormat().resolvedOptions().timeZone,
        ...(currency ? { currency } : {}),
      }),
    );
    const person = await this.member(manager, practiceId, owner, password, 'owner', []);
    const worker = { practiceId, person: { id: person.id, name: person.name }, role: 'owner' as const };
    return { practiceId, personId: person.id, enter: (work) => this.door.enter(manager, worker, work) };
  }

  /** Somebody new, or somebody known, in one more practice. */
  async member(
    manager: EntityManager,
    practiceId: string,
    { name, email }: NewPerson,
    password: string,
    role: Role,
    siteIds: string[],
  ): Promise<Person> {
    const known = await findPerson(manager, email);
    const person =
      known ??
      (await manager.save(manager.create(Person, { name, email, passwordHash: await hashPassword(password) })));
    if (role === 'owner') await nameDoer(manager, person);
    await manager.save(manager.create(Membership, { practiceId, personId: person.id, role, siteIds }));
    return person;
  }

  /** Refused passwords are refused before anything is made. */
  async check({ password, email }: Pick<FirstRunInput, 'password' | 'email'>): Promise<void> {
    await newPasswordHash(password, email);
  }
}
