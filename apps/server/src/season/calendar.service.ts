import { cardOf, dayOn } from '@glenfold/agronomy';
import type { CalendarLinkAnswer, Role } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import ical, { ICalCalendarMethod, ICalEventStatus } from 'ical-generator';
import { Any, Not, In } from 'typeorm';
import { hashToken, newToken } from '../people/secrets.ts';
import { Door } from '../platform/door.ts';
import { Installation } from '../platform/installation.ts';
import { Problem } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Site } from '../sites/site.entity.ts';
import { Zone } from '../ground/zone.entity.ts';
import { CalendarLink } from './calendarLink.entity.ts';
import { Job } from './job.entity.ts';
import { JobsService } from './jobs.service.ts';

/** A feed of somebody’s jobs for a calendar, behind a secret address that can be taken back. */
@Injectable()
export class CalendarService {
  constructor(
    private readonly records: Records,
    private readonly work: Work,
    private readonly door: Door,
    private readonly jobs: JobsService,
    private readonly installation: Installation,
  ) {}

  /** One’s own links, newest first. */
  async links(): Promise<CalendarLinkAnswer[]> {
    const links = await this.records.of(CalendarLink).findEver({ personId: this.#person() });
    return links
      .sort((one, other) => other.createdAt.getTime() - one.createdAt.getTime())
      .map((link) => answer(link, null));
  }

  /** The address stands in this answer only. */
  async make(): Promise<CalendarLinkAnswer> {
    const token = newToken();
    const link = await this.records.of(CalendarLink).add({ personId: this.#person(), tokenHash: hashToken(token) });
    return answer(link, `${this.installation.address}/api/calendar/${token}.ics`);
  }

  async revoke(id: string): Promise<void> {
    const link = await this.records.of(CalendarLink).one(id);
    if (link.personId !== this.#person())
      throw new Problem(409, 'Somebody else’s', 'A calendar is taken back by whose jobs it shows.');
    await this.records.of(CalendarLink).remove(id);
  }

  /** The feed of whoever holds a link: jobs of that person, and those that nobody was given; of a client what is done on their sites. */
  async feed(token: string): Promise<string> {
    const link = await this.door.open((manager) =>
      manager.findOne(CalendarLink, { where: { tokenHash: hashToken(token) }, withDeleted: true }),
    );
    const ask = 'Make a new one where you made it.';
    if (!link) throw new Problem(404, 'No such calendar', `This address is not complete, or was never made. ${ask}`);
    if (link.deletedAt) throw new Problem(410, 'Revoked', `This address was taken back. ${ask}`);
    return this.work.run({ practiceId: link.practiceId, person: null, role: null }, () => this.#calendar(link));
  }

  async #calendar({ personId, practiceId }: CalendarLink): Promise<string> {
    const [person] = await this.records.scoped((manager) =>
      manager.query<Array<{ name: string; role: Role; siteIds: string[] }>>(
        `SELECT p."name", m."role", m."siteIds" FROM person p JOIN membership m ON m."personId" = p."id" AND m."practiceId" = $2 AND m."deletedAt" IS NULL
         WHERE p."id" = $1`,
        [personId, practiceId],
      ),
    );
    if (!person) throw new Problem(410, 'Revoked', 'This person does not belong to the practice any more.');
    const all = await this.records.of(Job).find({ state: Not(In(['superseded', 'not done'])) }, { day: 'ASC' });
    const isClient = person.role === 'client';
    const jobs = all.filter(
      (job) =>
        job.day !== null &&
        (isClient ? person.siteIds.includes(job.siteId) : job.personId === null || job.personId === personId),
    );
    const names = async (entity: typeof Site | typeof Zone, ids: readonly string[]) =>
      new Map(
        (await this.records.of(entity as typeof Site).findEver({ id: Any([...new Set(ids)]) })).map(({ id, name }) => [
          id,
          name,
        ]),
      );
    const siteNames = await names(
      Site,
      jobs.map(({ siteId }) => siteId),
    );
    const zoneNames = await names(
      Zone,
      jobs.map(({ zoneId }) => zoneId),
    );
    const told = await this.jobs.told(jobs, 'metric', siteNames, zoneNames);
    const calendar = ical({ name: `Glenfold, ${person.name}`, prodId: { company: 'Glenfold', product: 'Season' } });
    calendar.method(ICalCalendarMethod.PUBLISH);
    calendar.ttl(60 * 60);
    for (const job of told) {
      if (job.day === null) continue;
      calendar.createEvent({
        id: job.id,
        start: new Date(`${job.day}T00:00:00Z`),
        end: new Date(`${dayOn(job.day, 1)}T00:00:00Z`),
        allDay: true,
        timezone: 'UTC',
        status: job.hold ? ICalEventStatus.TENTATIVE : ICalEventStatus.CONFIRMED,
        summary: `${job.hold ? 'On hold: ' : job.state === 'done' ? 'Done: ' : ''}${job.name}, ${job.zone}, ${job.siteName}${job.part ? `, ${job.part}` : ''}`,
        location: job.siteName,
        description: [
          [job.dose, job.amount].filter(Boolean).join(', '),
          job.hold ? `On hold since ${job.hold.since}: ${job.hold.reason}.` : '',
          // What is made ready the evening before is the crew’s own.
          ...(isClient ? [] : cardOf(job.remedy).evening.map((line) => `The evening before: ${line}`)),
        ]
          .filter(Boolean)
          .join('\n'),
        url: `${this.installation.address}${isClient ? `/reports/${job.siteId}` : `/cards/${job.id}`}`,
      });
    }
    return calendar.toString();
  }

  #person(): string {
    const { person } = this.work.worker;
    if (!person) throw new Problem(403, 'Sign in', 'A calendar belongs to somebody: sign in first.');
    return person.id;
  }
}

function answer({ id, createdAt, deletedAt }: CalendarLink, address: string | null): CalendarLinkAnswer {
  return { id, madeAt: createdAt.toISOString(), state: deletedAt ? 'revoked' : 'open', address };
}
