import {
  type BegunAnswer,
  type HoldingsAnswer,
  type MemberAnswer,
  type MemberInput,
  type PasswordLinkAnswer,
  type Role,
  roles,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Not } from 'typeorm';
import { Site } from '../sites/site.entity.ts';
import { Door } from '../platform/door.ts';
import { Problem, notFound, refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Person } from './person.entity.ts';
import { MailService } from './mail.service.ts';
import { Membership } from './membership.entity.ts';
import { MailCarrier } from '../ports/mailCarrier.ts';
import { PracticeService } from './practice.service.ts';
import { ResetService } from './reset.service.ts';
import { SecretAddresses } from './secretAddresses.ts';

/** What a person was the last to change and is not finished: drafts of programs and of reports, tests that go on. */
const BEGUN = `
  SELECT b."what", s."id" AS "siteId", s."name" AS "siteName" FROM (
    SELECT 'program' AS "what", p."siteId", t."id",
      (SELECT max(h."handedOverAt") FROM program h WHERE h."siteId" = p."siteId") AS "finished"
    FROM treatment t JOIN program p ON p."id" = t."programId"
    WHERE t."practiceId" = $1 AND t."deletedAt" IS NULL AND p."state" = 'draft' AND p."deletedAt" IS NULL
    UNION ALL SELECT 'report', r."siteId", r."id", NULL FROM owner_report r
    WHERE r."practiceId" = $1 AND r."state" = 'draft' AND r."deletedAt" IS NULL
    UNION ALL SELECT 'test', f."siteId", f."id", NULL FROM field_test f
    WHERE f."practiceId" = $1 AND NOT f."closed" AND f."deletedAt" IS NULL
  ) b JOIN site s ON s."id" = b."siteId" AND s."deletedAt" IS NULL CROSS JOIN LATERAL (
    SELECT a."personId", a."at" FROM audit a WHERE a."recordId" = b."id" ORDER BY a."number" DESC LIMIT 1
  ) l
  WHERE l."personId" = $2 AND (b."finished" IS NULL OR l."at" > b."finished")
  GROUP BY b."what", s."id" ORDER BY s."name", s."id", b."what"`;

/** How many secret addresses of each person are open. */
const ADDRESSES = `
  SELECT o."personId", count(*)::int AS "count" FROM (
    SELECT c."personId" FROM calendar_link c WHERE c."practiceId" = $1 AND c."deletedAt" IS NULL AND c."createdAt" > now() - interval '400 days'
    UNION ALL SELECT l."clientId" FROM share_link l
    WHERE l."practiceId" = $1 AND l."clientId" IS NOT NULL AND l."deletedAt" IS NULL AND l."expiresAt" > now()
  ) o GROUP BY o."personId"`;

/** The people of a practice and what each is there. */
@Injectable()
export class MemberService {
  constructor(
    private readonly records: Records,
    private readonly work: Work,
    private readonly door: Door,
    private readonly mail: MailService,
    private readonly resets: ResetService,
    private readonly carrier: MailCarrier,
    private readonly practices: PracticeService,
    private readonly addresses: SecretAddresses,
  ) {}

  async members(): Promise<MemberAnswer[]> {
    const memberships = await this.records.scoped((manager) =>
      manager.find(Membership, {
        where: { practiceId: this.work.practiceId },
        relations: { person: true },
      }),
    );
    const found = await this.records.ask<{ personId: string; count: number }>(ADDRESSES);
    const counts = new Map(found.map(({ personId, count }) => [personId, count]));
    return memberships
      .sort((a, b) => roles.indexOf(a.role) - roles.indexOf(b.role) || a.person.name.localeCompare(b.person.name))
      .map((membership) => this.#answer(membership, counts.get(membership.personId) ?? 0));
  }

  /** A role change counts from the person's next request on. */
  async change(id: string, { role, siteIds }: MemberInput, version: number): Promise<MemberAnswer> {
    await this.checkSites(role, siteIds);
    await this.records.together(async (of) => {
      if (role !== 'owner') await this.#keepAnOwner(id);
      await of(Membership).change(
        id,
        { role, siteIds: role === 'client' ? siteIds : [] },
        {
          version,
          tell: ({ id, role, siteIds, version }) => ({ id, role, siteIds, version }),
        },
      );
    });
    return this.#one(id);
  }

  /** What somebody holds that others have to know of before they are removed. */
  async holds(id: string): Promise<HoldingsAnswer> {
    const { personId } = await this.records.of(Membership).one(id);
    const [found] = await this.records.ask<{ jobs: number }>(
      `SELECT count(*)::int AS "jobs" FROM job WHERE "practiceId" = $1 AND "personId" = $2 AND "deletedAt" IS NULL
         AND "state" IN ('open', 'partly done')`,
      [personId],
    );
    return { jobs: found?.jobs ?? 0, begun: await this.records.ask<BegunAnswer>(BEGUN, [personId]) };
  }

  /** @param jobsTo who gets the jobs ahead of them; nobody where it is not said */
  remove(id: string, jobsTo: string | null = null): Promise<void> {
    return this.records.together(async (of) => {
      await this.#keepAnOwner(id);
      const { personId } = await of(Membership).one(id);
      if (jobsTo !== null && (await of(Membership).find({ personId: jobsTo })).length === 0)
        refuse([{ field: 'jobsTo', message: 'Choose somebody of the practice.' }]);
      const jobs = await this.records.ask<{ id: string }>(
        `SELECT "id" FROM job WHERE "practiceId" = $1 AND "personId" = $2 AND "deletedAt" IS NULL
           AND "state" IN ('open', 'partly done') ORDER BY "id" FOR UPDATE`,
        [personId],
      );
      const jobIds = jobs.map((job) => job.id);
      await this.#give(jobIds, personId, jobsTo);
      if (jobIds.length > 0) await of(Membership).change(id, { handedOn: { jobIds, to: jobsTo } });
      await of(Membership).remove(id);
    });
  }

  async restore(id: string): Promise<MemberAnswer> {
    return this.records.together(async (of) => {
      const { personId, handedOn } = await of(Membership).restore(id);
      // What nobody else has decided since, and is still to be done, is theirs again.
      if (handedOn) {
        await this.#give(handedOn.jobIds, handedOn.to, personId);
        await of(Membership).change(id, { handedOn: null });
      }
      return this.#one(id);
    });
  }

  /** Jobs that are to be done and are somebody’s, or nobody’s, become another’s. */
  async #give(jobIds: readonly string[], from: string | null, to: string | null): Promise<void> {
    await this.records.ask(
      `UPDATE job SET "personId" = $4, "version" = "version" + 1 WHERE "practiceId" = $1 AND "id" = ANY($2)
         AND "personId" IS NOT DISTINCT FROM $3 AND "deletedAt" IS NULL AND "state" IN ('open', 'partly done')`,
      [[...jobIds], from, to],
    );
  }

  /**
   * Have the member sent a link to choose a password: told to them with who asked, and written down. Where no message
   * leaves, an owner is given the link to hand over; nobody reads the password that is chosen by it.
   *
   * @throws a 422 problem for somebody of other practices too, where no message leaves: an owner of this one has no hand
   *   in those
   */
  async sendReset(id: string): Promise<PasswordLinkAnswer> {
    const { personId } = await this.records.of(Membership).one(id);
    const given = !this.carrier.leaves;
    if (given && (await this.#elsewhere(personId)))
      throw new Problem(
        422,
        'No message leaves',
        'No mail server is set up here, and this person belongs to other practices too. Ask whoever runs the server: “npm run reset-link -- ADDRESS” makes a link for that person alone.',
      );
    await this.records.of(Membership).change(id, { resetAskedAt: new Date() });
    const asker = `${this.work.worker.person?.name ?? 'an owner'} of ${(await this.practices.current()).name}`;
    const { mail, link } = await this.door.open(async (manager) =>
      this.resets.write(manager, await manager.findOneByOrFail(Person, { id: personId }), asker),
    );
    await this.mail.carry(mail);
    return { link: given ? link : null };
  }

  /** End what somebody opened by secret addresses here: calendars, links to reports. */
  async endAddresses(id: string): Promise<void> {
    const { personId } = await this.records.of(Membership).one(id);
    await this.records.together(() => this.addresses.end(personId));
  }

  async #elsewhere(personId: string): Promise<boolean> {
    const { practiceId } = this.work;
    return this.door.open((manager) => manager.existsBy(Membership, { personId, practiceId: Not(practiceId) }));
  }

  /**
   * @param invited somebody who is only invited, before there is a site
   * @throws a 422 problem for sites that are not the practice's, or a member who is a client without any
   */
  async checkSites(role: Role, siteIds: readonly string[], invited = false): Promise<void> {
    if (role !== 'client') return;
    if (siteIds.length === 0 && !invited)
      refuse([{ field: 'siteIds', message: 'Choose at least one site whose report the client reads.' }]);
    const own = new Set((await this.records.of(Site).find()).map(({ id }) => id));
    if (siteIds.some((id) => !own.has(id)))
      refuse([{ field: 'siteIds', message: 'One of the sites is not there any more: choose again.' }]);
  }

  async #one(id: string): Promise<MemberAnswer> {
    return (await this.members()).find((member) => member.id === id) ?? notFound();
  }

  /** The rows are locked: two owners cannot take each other out at once. */
  async #keepAnOwner(leaving: string): Promise<void> {
    const owners = await this.work
      .manager!.createQueryBuilder(Membership, 'member')
      .where({ practiceId: this.work.practiceId, role: 'owner' })
      .setLock('pessimistic_write')
      .getMany();
    if (owners.length === 1 && owners[0]!.id === leaving)
      refuse([{ field: 'role', message: 'A practice needs an owner: make somebody else an owner first.' }]);
  }

  #answer({ id, version, role, siteIds, person }: Membership, addresses: number): MemberAnswer {
    return {
      id,
      version,
      role,
      siteIds,
      person: { id: person.id, name: person.name, email: person.email },
      you: person.id === this.work.worker.person?.id,
      cannotSignIn: !person.hasPassword,
      addresses,
    };
  }
}
