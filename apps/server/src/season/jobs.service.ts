import { type JobDose, type UnitSystem, breaksOf, remedyEntry } from '@glenfold/agronomy';
import type {
  BreaksAnswer,
  JobAheadAnswer,
  JobAnswer,
  JobCrewInput,
  JobDayInput,
  JobHoldInput,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Any, In } from 'typeorm';
import { EntryRecord } from '../entries/entry.entity.ts';
import { Zone } from '../ground/zone.entity.ts';
import { Machine } from '../machines/machine.entity.ts';
import { SiteMail } from '../people/siteMail.service.ts';
import { Membership } from '../people/membership.entity.ts';
import { grouped } from '../platform/grouped.ts';
import { Problem, refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Threads } from '../platform/threads.ts';
import { Work } from '../platform/work.ts';
import { changedSince } from '../rates/changedSince.ts';
import { HandOver, type Handed, type HandedDose, type HandedZone } from '../rates/handOver.service.ts';
import { Site } from '../sites/site.entity.ts';
import { Days } from '../settings/days.service.ts';
import { type SeasonBasis, SeasonBases, doseOf, placeOf, seasonZone } from './basis.service.ts';
import { amountOf, doseWords, handedJobs, jobsAhead } from './handedJobs.ts';
import { Job } from './job.entity.ts';
import { placedJobs } from './siteSeason.ts';

/** Jobs that are still to be done. */
export const OPEN = ['open', 'partly done'] as const;

/** Doses on their days: made of what is handed over, dated, moved, held and given to somebody. */
@Injectable()
export class JobsService {
  constructor(
    private readonly records: Records,
    private readonly bases: SeasonBases,
    private readonly work: Work,
    private readonly days: Days,
    private readonly threads: Threads,
    private readonly mail: SiteMail,
    handOver: HandOver,
  ) {
    handOver.listen((handed) => this.#from(handed));
    handOver.foresee((...asked) => this.#ahead(...asked));
  }

  /** Jobs of a site that count: open, done and not done; none of a program that another stands for. */
  of(siteId: string): Promise<Job[]> {
    return this.records
      .of(Job)
      .find({ siteId, state: In(['open', 'partly done', 'done', 'not done']) }, { day: 'ASC', createdAt: 'ASC' });
  }

  /** Some jobs, in the order of their ids. */
  async some(ids: readonly string[]): Promise<Job[]> {
    const found = await this.records.of(Job).find({ id: Any([...ids]) });
    return ids.flatMap((id) => found.find((job) => job.id === id) ?? []);
  }

  /** A job, or the one that has taken its place since: a card that was taken along before counts for that. */
  async inPlaceOf(id: string | null): Promise<Job | undefined> {
    let [job] = await this.some(id === null ? [] : [id]);
    while (job?.state === 'superseded') {
      const [next] = await this.records.of(Job).find({ replacesId: job.id }, { createdAt: 'DESC' });
      if (!next) break;
      job = next;
    }
    return job;
  }

  one(id: string): Promise<Job> {
    return this.records.of(Job).one(id);
  }

  /** Look for the days of all jobs of a site that nobody has set by hand. */
  async date(siteId: string): Promise<void> {
    await this.records.together(async () => {
      const all = await this.of(siteId);
      const basis = await this.bases.of(siteId);
      const open = all.filter(({ state, moved, hold }) => state === 'open' && !moved && hold === null);
      await this.#place(open, all, basis);
    });
  }

  /** What setting a job to a day would break. */
  async breaks(id: string, day: string, units: UnitSystem): Promise<BreaksAnswer> {
    const job = await this.one(id);
    const { basis, others } = await this.#beside(job);
    return { breaks: breaksOf(doseOf(job, basis), day, others, basis.groundOf(job.zoneId, units)) };
  }

  /**
   * Set a job to a day by hand.
   * @throws a 422 problem where a law or a cap forbids it, or a reason is wanted and missing
   */
  async move(id: string, { day = null, reason = null }: JobDayInput, version: number, units: UnitSystem): Promise<Job> {
    const job = await this.one(id);
    this.#refuseClosed(job);
    const { basis, others } = await this.#beside(job);
    const broken = day === null ? [] : breaksOf(doseOf(job, basis), day, others, basis.groundOf(job.zoneId, units));
    const never = broken.find((one) => one.never);
    if (never) refuse([{ field: 'day', message: `${never.words} Choose another day.` }]);
    if (broken.length > 0 && !reason)
      refuse([{ field: 'reason', message: `${broken[0]!.words} Say why it is to be done all the same.` }]);
    return this.records
      .of(Job)
      .change(
        id,
        { day, moved: true, dated: true, movedBecause: broken.length > 0 ? reason : null },
        { version, tell: told },
      );
  }

  async hold(id: string, { reason, words = null }: JobHoldInput, version: number): Promise<Job> {
    const job = await this.one(id);
    this.#refuseClosed(job);
    const hold = {
      ...{ reason, words, since: await this.days.on(job.siteId) },
      by: this.work.worker.person?.name ?? null,
    };
    const held = await this.records.of(Job).change(id, { hold }, { version, tell: told });
    const { name: zone } = await this.records.of(Zone).one(job.zoneId);
    const { name: site } = await this.records.of(Site).one(job.siteId);
    const waits = `${job.name} on ${zone} waits: ${reason}.`;
    await this.mail.tell({ to: 'clients', siteId: job.siteId, subject: `Something waits at ${site}`, words: waits });
    return held;
  }

  async letGo(id: string, version: number): Promise<Job> {
    return this.records.of(Job).change(id, { hold: null }, { version, tell: told });
  }

  async crew(
    id: string,
    { personId = null, machineId = null, part = null }: JobCrewInput,
    version: number,
  ): Promise<Job> {
    const faults = [
      ...(personId !== null && !(await this.#belongs(personId))
        ? [{ field: 'personId', message: 'Choose somebody of the practice.' }]
        : []),
      ...(machineId !== null && (await this.records.of(Machine).find({ id: machineId })).length === 0
        ? [{ field: 'machineId', message: 'Choose a machine of the list.' }]
        : []),
    ];
    if (faults.length > 0) refuse(faults);
    return this.records.of(Job).change(id, { personId, machineId, part }, { version, tell: told });
  }

  /** How far a job is, by what was written of it; what is left of one that was done in part stays to be done. */
  async follow(
    jobId: string,
    state: Job['state'],
    left?: { readonly quantity: number | null; readonly mixed: Job['mixed'] },
  ): Promise<void> {
    const job = await this.one(jobId);
    if (job.state === 'superseded') return;
    await this.records.of(Job).change(jobId, {
      state,
      ...(state === 'open' || state === 'partly done' ? {} : { hold: null }),
      ...left,
    });
  }

  /** Jobs as they are told, with the names of those who do them. */
  async told(
    jobs: readonly Job[],
    units: UnitSystem,
    siteNames: ReadonlyMap<string, string>,
    zoneNames: ReadonlyMap<string, string>,
    season?: { readonly today: string; readonly breaks: ReadonlyMap<string, readonly string[]> },
  ): Promise<JobAnswer[]> {
    const people = await this.records.ask<{ id: string; name: string }>(
      `SELECT p."id", p."name" FROM person p WHERE p."id" = ANY($2) AND EXISTS (
         SELECT FROM membership m WHERE m."practiceId" = $1 AND m."personId" = p."id")`,
      [jobs.flatMap(({ personId }) => personId ?? [])],
    );
    const machines = jobs.some(({ machineId }) => machineId !== null) ? await this.bases.machines() : [];
    const products = await this.#products(jobs.flatMap((job) => [job, job.was ?? []].flat()));
    const nameOf = (list: ReadonlyArray<{ id: string; name: string }>, id: string | null): string | null =>
      list.find((one) => one.id === id)?.name ?? null;
    const todayOf = season ? undefined : await this.days.across(jobs.map(({ siteId }) => siteId));
    const doses = grouped(jobs, dosesOf);
    const inPlace = new Map<string, string>();
    for (const { id, state } of jobs) {
      const next = state === 'superseded' ? await this.inPlaceOf(id) : undefined;
      if (next && next.state !== 'superseded') inPlace.set(id, next.id);
    }
    const changed = await changedSince(
      this.records,
      jobs.filter(({ programId }) => programId !== null).map(({ zoneId }) => zoneId),
    );
    return jobs.map((job) => {
      const today = season?.today ?? todayOf!.get(job.siteId)!;
      const open = (OPEN as readonly string[]).includes(job.state);
      return {
        ...{ id: job.id, version: job.version, siteId: job.siteId, siteName: siteNames.get(job.siteId) ?? '' },
        ...{ zoneId: job.zoneId, zone: zoneNames.get(job.zoneId) ?? '', key: job.key, remedy: job.remedy },
        name:
          job.programId !== null && job.name.toLowerCase() === job.remedy ? remedyEntry(job.remedy).label : job.name,
        dose: doseWords(job, doses.get(dosesOf(job))!.length),
        product: nameOf(products, job.productId),
        amount: amountOf(job, nameOf(products, job.productId), units),
        ...{ earliest: job.earliest, latest: job.latest, day: job.day, part: job.part, state: job.state },
        words: [...job.words],
        breaks: [...(season?.breaks.get(job.id) ?? [])],
        movedBecause: job.movedBecause,
        replacedById: inPlace.get(job.id) ?? null,
        changedSince: open && changed.has(`${job.zoneId} ${job.key}`),
        was: job.was && amountOf(job.was, nameOf(products, job.was.productId), units),
        hold: job.hold && { ...job.hold },
        ...{ personId: job.personId, person: nameOf(people, job.personId) },
        ...{ machineId: job.machineId, machine: nameOf(machines, job.machineId) },
        late: open && job.hold === null && (job.day ?? job.latest ?? job.to ?? today) < today,
      };
    });
  }

  /**
   * The doses of a program that was handed over, dated. Open jobs of the same zones are of a program of before: what takes
   * the place of one keeps its hold, its people, its machine and the day that somebody has set.
   */
  async #from({ program, zones, doses }: Handed): Promise<void> {
    const zoneIds = zones.map(({ zoneId }) => zoneId);
    const former = await this.records.of(Job).find({ zoneId: Any([...zoneIds]), state: In([...OPEN]) });
    for (const { id } of former) await this.records.of(Job).change(id, { state: 'superseded' });
    const made = handedJobs(program.siteId, program.id, doses, former).map(({ job }) => job);
    const added = await this.records.of(Job).addAll(made);
    const basis = await this.bases.of(program.siteId);
    const all = await this.of(program.siteId);
    const fresh = new Set(added.map(({ id }) => id));
    await this.#place(
      all.filter(({ id, moved }) => fresh.has(id) && !moved),
      all,
      basis,
    );
  }

  #products(of: ReadonlyArray<{ readonly productId: string | null }>) {
    return this.records.ask<{ id: string; name: string }>(
      `SELECT "id", "name" FROM product WHERE "practiceId" = $1 AND "id" = ANY($2)`,
      [of.flatMap(({ productId }) => productId ?? [])],
    );
  }

  /** What becomes of the open jobs of some zones, were these doses handed over now. */
  async #ahead(
    siteId: string,
    zones: readonly HandedZone[],
    doses: readonly HandedDose[],
    units: UnitSystem,
  ): Promise<JobAheadAnswer[]> {
    const zoneIds = new Set(zones.map(({ zoneId }) => zoneId));
    const all = await this.of(siteId);
    const former = all.filter(
      ({ zoneId, state }) => zoneIds.has(zoneId) && (OPEN as readonly string[]).includes(state),
    );
    if (former.length === 0) return [];
    const basis = await this.bases.of(siteId);
    const fresh = handedJobs(siteId, null, doses, former).map(({ job, before }) => ({
      job: { ...job, id: job.doseId!, day: job.day ?? null } as Job,
      before,
    }));
    const going = new Set(former.map(({ id }) => id));
    const days = await this.#placed(
      fresh.flatMap(({ job }) => (job.moved ? [] : [job])),
      [...all.filter(({ id }) => !going.has(id)), ...fresh.flatMap(({ job }) => (job.moved ? [job] : []))],
      basis,
    );
    const dayOf = new Map(days.map(({ id, day }) => [id, day]));
    const told = await this.told(former, units, new Map(), new Map(basis.zones.map(({ id, name }) => [id, name])));
    const products = new Map(
      (await this.#products([...former, ...fresh.map(({ job }) => job)])).map(({ id, name }) => [id, name]),
    );
    return jobsAhead(
      fresh.map(({ job, before }) => ({
        job: { ...job, day: job.moved ? job.day : (dayOf.get(job.id) ?? null) },
        before,
      })),
      former,
      new Map(told.map((answer) => [answer.id, answer])),
      (job) => amountOf(job, products.get(job.productId ?? '') ?? null, units),
    );
  }

  /** Days for some jobs, beside those that have theirs; what was done lately keeps its distance too. */
  async #place(jobs: readonly Job[], all: readonly Job[], basis: SeasonBasis): Promise<void> {
    if (jobs.length === 0) return;
    const fresh = new Set(jobs.map(({ id }) => id));
    const placed = await this.#placed(
      jobs,
      all.filter(({ id }) => !fresh.has(id)),
      basis,
    );
    await this.records.of(Job).changeAll(
      placed.map(({ id, earliest, latest, day, words }) => ({
        ...{ id, earliest, latest, day, words, dated: true },
      })),
    );
  }

  /** The days that some jobs get beside others; nothing is kept. */
  async #placed(jobs: readonly Job[], beside: readonly Job[], basis: SeasonBasis) {
    const kept = await this.#kept(beside, basis);
    return this.threads.run(
      placedJobs,
      placeOf(basis, 'metric'),
      basis.zones.map((zone) => seasonZone(zone, basis)),
      jobs.map((job) => doseOf(job, basis)),
      kept,
    );
  }

  /** Jobs with their days, those that are done on the day of their entry. */
  async #kept(jobs: readonly Job[], basis: SeasonBasis): Promise<Array<JobDose & { day: string | null }>> {
    const done = jobs.filter(({ state }) => state === 'done' || state === 'partly done');
    const entries = done.length
      ? await this.records.of(EntryRecord).find({ jobId: Any(done.map(({ id }) => id)) }, { recordedAt: 'ASC' })
      : [];
    const onOf = new Map(entries.map(({ jobId, on }) => [jobId, on]));
    return jobs.filter(openOrDone).map((job) => ({
      ...{ ...doseOf(job, basis), done: job.state === 'done' },
      day: onOf.get(job.id)?.slice(0, 10) ?? job.day,
    }));
  }

  async #beside(job: Job) {
    const all = await this.of(job.siteId);
    const basis = await this.bases.of(job.siteId);
    return { basis, others: await this.#kept(all, basis) };
  }

  #refuseClosed({ state }: Job): void {
    if (state === 'superseded')
      throw new Problem(
        409,
        'Of a program of before',
        'Another program was handed over since: its jobs stand for this one. Open the season again.',
      );
    if (state === 'done' || state === 'not done')
      throw new Problem(409, 'Closed', 'What became of this job is in the logbook: mend the entry there.');
  }

  async #belongs(personId: string): Promise<boolean> {
    return (await this.records.of(Membership).find({ personId })).length > 0;
  }
}

export const openOrDone = ({ state }: Job): boolean => state !== 'not done' && state !== 'superseded';

/** What doses of one treatment have in common. */
const dosesOf = ({ zoneId, key, programId }: Job): string => `${zoneId} ${programId} ${key}`;

const told = ({ version, day, part, hold, personId, machineId, state }: Job) => ({
  ...{ version, day, part, hold, personId, machineId, state },
});
