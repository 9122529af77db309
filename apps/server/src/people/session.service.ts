import type { FormerPracticeAnswer, PersonalInput, Role } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import type { CookieOptions } from 'express';
import { DataSource, type EntityManager, LessThan } from 'typeorm';
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

/** What the database says of a cookie. */
interface Asking extends Pick<Access, 'sessionId' | 'person' | 'practice' | 'role'> {
  readonly seenAt: Date;
  readonly createdAt: Date;
  readonly siteIds: readonly string[] | null;
}

/** The browsers that are signed in. Kept in the database, so that a second server knows them too. */
@Injectable()
export class SessionService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly door: Door,
    private readonly installation: Installation,
  ) {}

  get cookie(): CookieOptions {
    return { httpOnly: true, sameSite: 'lax', secure: isSecure(this.installation), path: '/', maxAge: ABSOLUTE_END };
  }

  /**
   * Who holds the cookie; nothing when the session is over. Roles are read anew each time: a change counts at once.
   * One statement, since every request begins with it.
   */
  async access(token: string): Promise<Access | undefined> {
    const [found] = await this.dataSource.query<Asking[]>('SELECT * FROM who_asks($1)', [hashToken(token)]);
    if (!found) return undefined;
    const { sessionId, seenAt, createdAt, person, practice, role, siteIds } = found;
    const now = Date.now();
    if (now - seenAt.getTime() > IDLE_END || now - createdAt.getTime() > ABSOLUTE_END) {
      await this.end(sessionId);
      return undefined;
    }
    if (now - seenAt.getTime() > SEEN_STEP)
      await this.door.open((manager) => manager.update(Session, sessionId, { seenAt: new Date() }));
    return { sessionId, csrf: csrfOf(token), person, practice, role, siteIds: siteIds ?? [] };
  }

  /** Where the person belongs, by the practice's name. */
  places(personId: string): Promise<Place[]> {
    return this.door.open((manager) => this.#places(manager, personId));
  }

  /** Where somebody belonged last, and whom to ask there. */
  async former(personId: string): Promise<FormerPracticeAnswer | null> {
    const [found] = await this.door.open((manager) =>
      manager.query<FormerPracticeAnswer[]>(
        `SELECT q."name", q."phone", q."email", ARRAY(
           SELECT o."name" FROM membership n JOIN person o ON o."id" = n."personId"
           WHERE n."practiceId" = q."id" AND n."role" = 'owner' AND n."deletedAt" IS NULL ORDER BY o."name") AS "owners"
         FROM membership m JOIN practice q ON q."id" = m."practiceId"
         WHERE m."personId" = $1 AND m."deletedAt" IS NOT NULL ORDER BY m."deletedAt" DESC LIMIT 1`,
        [personId],
      ),
    );
    return found ?? null;
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

  /** What a person has chosen for themselves, on every device. */
  async personal(personId: string, { units }: PersonalInput): Promise<void> {
    await this.door.open((manager) => manager.update(Person, personId, { units }));
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
