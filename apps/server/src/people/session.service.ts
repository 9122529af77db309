import type { Role } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import type { CookieOptions } from 'express';
import { type EntityManager, LessThan } from 'typeorm';
import { Door } from '../platform/door.ts';
import type { Access } from '../platform/gate.ts';
import { Installation, isSecure } from '../platform/installation.ts';
import { Person } from './person.entity.ts';
import { Session } from './session.entity.ts';
import { Membership } from './membership.entity.ts';
import { Practice } from './practice.entity.ts';
import { csrfOf, hashToken, newToken } from './secrets.ts';

const HOUR = 3_600_000;
/** A session nobody uses ends after this. */
export const IDLE_END = 12 * HOUR;
/** And every session after this. */
export const ABSOLUTE_END = 30 * 24 * HOUR;
/** How exactly the last use is remembered. */
const SEEN_STEP = 60_000;

export interface Place {
  readonly practice: Practice;
  readonly role: Role;
  readonly siteIds: readonly string[];
}

/** The browsers that are signed in. Kept in the database, so that a second server knows them too. */
@Injectable()
export class SessionService {
  constructor(
    private readonly door: Door,
    private readonly installation: Installation,
  ) {}

  get cookie(): CookieOptions {
    return { httpOnly: true, sameSite: 'lax', secure: isSecure(this.installation), path: '/', maxAge: ABSOLUTE_END };
  }

  /** Who holds the cookie; nothing when the session is over. Roles are read anew each time: a change counts at once. */
  access(token: string): Promise<Access | undefined> {
    return this.door.open(async (manager) => {
      const session = await manager.findOneBy(Session, { tokenHash: hashToken(token) });
      if (!session) return undefined;
      const now = Date.now();
      const over = now - session.seenAt.getTime() > IDLE_END || now - session.createdAt.getTime() > ABSOLUTE_END;
      if (over) {
        await manager.delete(Session, { id: session.id });
        return undefined;
      }
      if (now - session.seenAt.getTime() > SEEN_STEP) await manager.update(Session, session.id, { seenAt: new Date() });
      const person = await manager.findOneByOrFail(Person, { id: session.personId });
      const practice = session.practiceId ? await manager.findOneBy(Practice, { id: session.practiceId }) : null;
      const place = practice && (await manager.findOneBy(Membership, { practiceId: practice.id, personId: person.id }));
      return {
        sessionId: session.id,
        csrf: csrfOf(token),
        person: { id: person.id, name: person.name, email: person.email },
        practice,
        role: place?.role ?? null,
        siteIds: place?.siteIds ?? [],
      };
    });
  }

  /** Where the person belongs, by the practice's name. */
  places(personId: string): Promise<Place[]> {
    return this.door.open((manager) => this.#places(manager, personId));
  }

  /** A new session at the practice the person used last, or at their first. @returns the cookie */
  async begin(manager: EntityManager, personId: string, practiceId?: string): Promise<string> {
    const token = newToken();
    await manager.delete(Session, { createdAt: LessThan(new Date(Date.now() - ABSOLUTE_END)) });
    const last = await manager.findOne(Session, { where: { personId }, order: { seenAt: 'DESC' } });
    const places = await this.#places(manager, personId);
    const open =
      places.find(({ practice }) => practice.id === (practiceId ?? last?.practiceId))?.practice ?? places[0]?.practice;
    await manager.save(
      manager.create(Session, { tokenHash: hashToken(token), personId, practiceId: open?.id ?? null }),
    );
    return token;
  }

  async choose(sessionId: string, practiceId: string): Promise<void> {
    await this.door.open((manager) => manager.update(Session, sessionId, { practiceId }));
  }

  async end(sessionId: string): Promise<void> {
    await this.door.open((manager) => manager.delete(Session, { id: sessionId }));
  }

  async #places(manager: EntityManager, personId: string): Promise<Place[]> {
    const memberships = await manager.findBy(Membership, { personId });
    const places = await Promise.all(
      memberships.map(async ({ practiceId, role, siteIds }) => ({
        practice: await manager.findOneByOrFail(Practice, { id: practiceId }),
        role,
        siteIds,
      })),
    );
    return places.sort((a, b) => a.practice.name.localeCompare(b.practice.name));
  }
}
