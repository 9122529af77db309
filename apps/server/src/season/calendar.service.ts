import { cardOf, dayOn } from '@glenfold/agronomy';
import { type CalendarLinkAnswer, type Role, withReadableDays } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import ical, { ICalAlarmType, ICalCalendarMethod, ICalEventStatus, ICalEventTransparency } from 'ical-generator';
import { Any, In, MoreThanOrEqual, Not } from 'typeorm';
import { hashToken, newToken } from '../people/secrets.ts';
import { SecretAddresses } from '../people/secretAddresses.ts';
import { Door } from '../platform/door.ts';
import { Installation } from '../platform/installation.ts';
import { Problem } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Days } from '../settings/days.service.ts';
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
    private readonly days: Days,
    addresses: SecretAddresses,
  ) {
    addresses.register((personId) => this.#end(personId));
  }

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

  async #end(personId: string): Promise<void> {
    const links = this.records.of(CalendarLink);
    for (const { id } of await links.find({ personId })) await links.remove(id);
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
    if (untilOf(link) < new Date())
      throw new Problem(410, 'Expired', `This address has been read for as long as it may be. ${ask}`);
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
    const from = dayOn(await this.days.on(null), -TOLD_DAYS);
    const all = await this.records
      .of(Job)
      .find({ state: Not(In(['superseded', 'not done'])), day: MoreThanOrEqual(from) }, { day: 'ASC' });
    const isClient = person.role === 'client';
    const jobs = all.filter(
      (job) =>
        job.day !== null &&
        (isClient ? person.siteIds.includes(job.siteId) : job.personId === null || job.personId === personId),
    );
    const [siteIds, zoneIds] = [jobs.map(({ siteId }) => siteId), jobs.map(({ zoneId }) => zoneId)];
    const sites = await this.records.of(Site).findEver({ id: Any([...new Set(siteIds)]) });
    const zones = await this.records.of(Zone).findEver({ id: Any([...new Set(zoneIds)]) });
    const namesOf = (all: ReadonlyArray<{ readonly id: string; readonly name: string }>) =>
      new Map(all.map(({ id, name }) => [id, name]));
    const places = new Map(sites.map(({ id, name, place }) => [id, [name, place].filter(Boolean).join(', ')]));
    const told = await this.jobs.told(jobs, 'metric', namesOf(sites), namesOf(zones));
    const calendar = ical({ name: `Glenfold, ${person.name}`, prodId: { company: 'Glenfold', product: 'Season' } });
    calendar.method(ICalCalendarMethod.PUBLISH);
    calendar.ttl(60 * 60);
    for (const job of told) {
      if (job.day === null) continue;
      const event = calendar.createEvent({
        id: job.id,
        start: new Date(`${job.day}T00:00:00Z`),
        end: new Date(`${dayOn(job.day, 1)}T00:00:00Z`),
        allDay: true,
        timezone: 'UTC',
        status: job.hold ? ICalEventStatus.TENTATIVE : ICalEventStatus.CONFIRMED,
        summary: `${job.hold ? 'On hold: ' : job.state === 'done' ? 'Done: ' : ''}${job.name}, ${job.zone}, ${job.siteName}${job.part ? `, ${job.part}` : ''}`,
        location: places.get(job.siteId) ?? job.siteName,
        // A day with work in it is no day that is taken.
        transparency: ICalEventTransparency.TRANSPARENT,
        description: [
          [job.dose, job.amount].filter(Boolean).join(', '),
          job.hold ? withReadableDays(`On hold since ${job.hold.since}: ${job.hold.reason}.`) : '',
          // What is made ready the evening before is the crew’s own.
          ...(isClient ? [] : cardOf(job.remedy).evening.map((line) => `The evening before: ${line}`)),
        ]
          .filter(Boolean)
          .join('\n'),
        url: `${this.installation.address}${isClient ? `/reports/${job.siteId}` : `/cards/${job.id}`}`,
      });
      if (job.state !== 'done' && !job.hold) event.createAlarm({ type: ICalAlarmType.display, trigger: EVENING });
    }
    return calendar.toString();
  }

  #person(): string {
    const { person } = this.work.worker;
    if (!person) throw new Problem(403, 'Sign in', 'A calendar belongs to somebody: sign in first.');
    return person.id;
  }
}

/** Days back for which work is told. */
const TOLD_DAYS = 366;
/** s before a day begins: six in the evening of the day before. */
const EVENING = 6 * 3600;
/** Days for which an address is read: it is made anew once a year, by who still wants it. */
const READ_FOR = 400;
const untilOf = ({ createdAt }: CalendarLink): Date => new Date(createdAt.getTime() + READ_FOR * 86_400_000);

function answer(link: CalendarLink, address: string | null): CalendarLinkAnswer {
  const until = untilOf(link);
  const state = link.deletedAt ? 'revoked' : until < new Date() ? 'expired' : 'open';
  return { id: link.id, madeAt: link.createdAt.toISOString(), until: until.toISOString(), state, address };
}
