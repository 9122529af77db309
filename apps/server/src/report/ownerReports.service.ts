import { type OwnerReport, type OwnerZone, type UnitSystem, grassWords } from '@glenfold/agronomy';
import { type EarlierReportAnswer, type OwnerReportAnswer, allows } from '@glenfold/contract';
import { Injectable, StreamableFile } from '@nestjs/common';
import { In, IsNull, Not } from 'typeorm';
import { GroundService } from '../ground/ground.service.ts';
import { ZonePhoto } from '../ground/zonePhoto.entity.ts';
import { SiteMail } from '../people/siteMail.service.ts';
import { PracticeService } from '../people/practice.service.ts';
import { Clock } from '../platform/clock.ts';
import { Problem, notFound } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Threads } from '../platform/threads.ts';
import { Work } from '../platform/work.ts';
import { FileStore } from '../ports/fileStore.ts';
import { wordsWithoutMoney } from '../rates/costs.ts';
import { RatesService } from '../rates/rates.service.ts';
import { ReadingService } from '../reading/reading.service.ts';
import { type RunAtWork, RunKinds } from '../runs/runKinds.ts';
import { RunsService } from '../runs/runs.service.ts';
import { Days } from '../settings/days.service.ts';
import { type MadeReport, type OwnerPhoto, OwnerReportRecord } from './ownerReport.entity.ts';
import { ownerPaper } from './ownerPdf.ts';
import { ownerWhole, ownerZone } from './ownerZones.ts';

const KIND = 'owner reports';

/** Reports for owners: asked for, made as long work, looked over, handed over. */
@Injectable()
export class OwnerReports {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly readings: ReadingService,
    private readonly rates: RatesService,
    private readonly practices: PracticeService,
    private readonly files: FileStore,
    private readonly threads: Threads,
    private readonly days: Days,
    private readonly clock: Clock,
    private readonly runs: RunsService,
    private readonly work: Work,
    private readonly mail: SiteMail,
    kinds: RunKinds,
  ) {
    kinds.register({ name: KIND, work: (run) => this.make(run) });
  }

  /** The newest report of a site; nothing while none was asked for. @param handedOver only one that its owner has, of a site that is known to be there */
  async newest(siteId: string, handedOver: boolean, under: string): Promise<OwnerReportAnswer | null> {
    if (!handedOver) await this.ground.site(siteId);
    const [newest] = await this.records
      .of(OwnerReportRecord)
      .find(
        { siteId, state: handedOver ? 'handed over' : In(['asked', 'draft', 'handed over']) },
        { createdAt: 'DESC' },
      );
    return newest ? this.#told(newest, under) : null;
  }

  /** Those that were handed over before the last, newest first. */
  async earlier(siteId: string, under: string): Promise<EarlierReportAnswer[]> {
    const before = await this.records
      .of(OwnerReportRecord)
      .find({ siteId, state: 'superseded', handedOverAt: Not(IsNull()) }, { handedOverAt: 'DESC' });
    const dayOf = await this.days.at(siteId);
    return before.map(({ id, handedOverAt }) => ({
      on: dayOf(handedOverAt!),
      pdf: `/api${under}/owner-reports/${id}/report.pdf`,
    }));
  }

  /** Ask for a draft, to be made as long work: what was asked for and not handed over before is let go; its letter is kept where it was changed. */
  async ask(siteId: string, units: UnitSystem): Promise<OwnerReportAnswer> {
    const { name } = await this.ground.site(siteId);
    return this.records.together(async () => {
      const asked = await this.#asked(siteId, units);
      await this.runs.start(KIND, `Report for the owner of ${name}`);
      return this.#told(asked, '');
    });
  }

  /** A draft, made at once. */
  async draft(siteId: string, units: UnitSystem): Promise<OwnerReportAnswer> {
    const asked = await this.#asked(siteId, units);
    await this.#make(asked, { at: () => Promise.resolve() });
    return this.#told(await this.records.of(OwnerReportRecord).one(asked.id), '');
  }

  #asked(siteId: string, units: UnitSystem): Promise<OwnerReportRecord> {
    return this.records.together(async (of) => {
      const before = await of(OwnerReportRecord).find({ siteId, state: In(['asked', 'draft']) }, { createdAt: 'DESC' });
      for (const { id } of before) await of(OwnerReportRecord).remove(id);
      return of(OwnerReportRecord).add({
        ...{ siteId, units, state: 'asked', letter: before[0]?.letter ?? null, made: null, madeOn: null },
        handedOverAt: null,
      });
    });
  }

  /** Make what is asked for, zone by zone. What was stopped is made whole another time. */
  async make(run: RunAtWork): Promise<string> {
    const said: string[] = [];
    for (;;) {
      const [asked] = await this.records.of(OwnerReportRecord).find({ state: 'asked' }, { createdAt: 'ASC' });
      if (!asked) return said.join(' ') || 'Nothing waits.';
      said.push(await this.#make(asked, run));
    }
  }

  async #make({ id, siteId, units }: OwnerReportRecord, run: RunAtWork): Promise<string> {
    const site = await this.ground.site(siteId);
    const { site: shown, zones } = await this.readings.grounds(siteId, units);
    const { zones: plans, shared } = await this.rates.siteToPlan(siteId, units);
    const practice = await this.practices.current();
    const told: OwnerZone[] = [];
    await run.at(0, zones.length);
    for (const [index, { zone, ground, borrowed, sampledOn }] of zones.entries()) {
      const about = { name: zone.name, grass: grassWords(zone.grass, zone.facts?.mix), borrowed, sampledOn };
      const plan = plans.find(({ zoneId }) => zoneId === zone.id) ?? notFound();
      told.push(await this.threads.run(ownerZone, about, ground, shown, plan, shared));
      await run.at(index + 1, zones.length);
    }
    const { list } = await this.rates.toOffer(siteId, units);
    const report = await this.threads.run(ownerWhole, {
      list,
      ...{ zones: told, site: site.name, practice: practice.name, on: shown.today, latitude: shown.latitude },
      ...{ system: units, currency: practice.currency, priced: true },
    });
    const made: MadeReport = {
      ...{ report, siteName: site.name, place: site.place, practiceName: practice.name },
      outlines: zones.map(({ zone: { id: zoneId, name, geometry } }) => ({ zoneId, name, geometry })),
      photos: await this.#photos(zones.map(({ zone }) => zone.id)),
    };
    await this.records.together(async (of) => {
      // Asked for anew meanwhile: the newer one is made next.
      const [still] = await of(OwnerReportRecord).find({ id, state: 'asked' });
      if (still) await of(OwnerReportRecord).change(id, { state: 'draft', made, madeOn: shown.today });
    });
    return `The report for ${site.name} is ready: ${zones.length} ${zones.length === 1 ? 'page' : 'pages'}.`;
  }

  /** Change the covering letter of a draft. */
  async write(id: string, letter: string, version: number): Promise<OwnerReportAnswer> {
    const before = await this.#draft(id);
    const tell = (found: OwnerReportRecord): OwnerReportAnswer => ({ ...told(before, [], ''), version: found.version });
    const changed = await this.records.of(OwnerReportRecord).change(id, { letter: letter.trim() }, { version, tell });
    return this.#told(changed, '');
  }

  /** Hand a draft over as it stands; what was handed over before is kept, and superseded. */
  async handOver(id: string): Promise<OwnerReportAnswer> {
    const { siteId } = await this.#draft(id);
    const answer = await this.records.together(async (of) => {
      for (const before of await of(OwnerReportRecord).find({ siteId, state: 'handed over' }))
        await of(OwnerReportRecord).change(before.id, { state: 'superseded' });
      const handed = await of(OwnerReportRecord).change(id, { state: 'handed over', handedOverAt: this.clock.now() });
      return this.#told(handed, '');
    });
    const words = `The report on ${answer.siteName} is there: what stands in the way, and what the year does about it.`;
    await this.mail.tell({ to: 'clients', siteId, subject: `A report on ${answer.siteName}`, words });
    return answer;
  }

  /**
   * On paper.
   * @param siteId of the report in which it is read: there only what was handed over, now or before; nothing for those who work on it
   * @param appendix the workings behind it
   */
  async onPaper(id: string, siteId: string | null, appendix: boolean): Promise<StreamableFile> {
    const record = await this.records.of(OwnerReportRecord).one(id);
    if (siteId !== null && (record.siteId !== siteId || record.handedOverAt === null)) notFound();
    if (!record.made)
      throw new Problem(409, 'Not made yet', 'This report is still being made. Wait until it is ready, then open it.');
    const answer = await this.#told(record, '');
    const papers = appendix ? await this.rates.siteDraft(record.siteId, record.units) : [];
    const day = record.handedOverAt ? await this.days.on(record.siteId, record.handedOverAt) : record.madeOn!;
    const file = `${answer.siteName} report.pdf`.replace(/[^\w .-]/g, '');
    return new StreamableFile(await this.threads.run(ownerPaper, answer, day, papers), {
      type: 'application/pdf',
      disposition: `inline; filename="${file}"`,
    });
  }

  async #draft(id: string): Promise<OwnerReportRecord> {
    const record = await this.records.of(OwnerReportRecord).one(id);
    if (record.state === 'draft') return record;
    throw new Problem(
      409,
      record.state === 'asked' ? 'Not made yet' : 'Handed over',
      record.state === 'asked'
        ? 'This report is still being made. Wait until it is ready.'
        : 'What was handed over stays as it was. Make a new draft to change it.',
    );
  }

  /** The newest photo of each zone, and the first: after and before. */
  async #photos(zoneIds: readonly string[]): Promise<OwnerPhoto[]> {
    const photos = await this.records
      .of(ZonePhoto)
      .find({ zoneId: In([...zoneIds]), thumb: Not(IsNull()) }, { takenOn: 'DESC', createdAt: 'DESC' });
    return zoneIds.flatMap((zoneId) =>
      photos
        .filter((photo) => photo.zoneId === zoneId)
        .filter((_photo, place, own) => place === 0 || place === own.length - 1)
        .map(({ caption, takenOn, thumb }) => ({ zoneId, caption, takenOn, thumb: thumb! })),
    );
  }

  async #told(record: OwnerReportRecord, under: string): Promise<OwnerReportAnswer> {
    const pictures = await Promise.all(
      (record.made?.photos ?? []).map(async ({ zoneId, caption, takenOn, thumb }) => ({
        ...{ zoneId, caption, takenOn },
        src: `data:image/jpeg;base64,${(await this.files.read(thumb)).toString('base64')}`,
      })),
    );
    const answer = told(record, pictures, under);
    const { role } = this.work.worker;
    return role === null || allows(role, 'costs.read')
      ? answer
      : withoutMoney(answer, (await this.practices.current()).currency);
  }
}

function told(record: OwnerReportRecord, photos: OwnerReportAnswer['photos'], under: string): OwnerReportAnswer {
  const { id, version, state, units, letter, made, madeOn, handedOverAt } = record;
  return {
    ...{ id, version, state, units, madeOn, photos },
    ...{ siteName: made?.siteName ?? '', place: made?.place ?? null, practiceName: made?.practiceName ?? '' },
    handedOverAt: handedOverAt?.toISOString() ?? null,
    letter: letter ?? made?.report.letter ?? '',
    report: made?.report ?? null,
    outlines: (made?.outlines ?? []) as OwnerReportAnswer['outlines'],
    pdf: `/api${under}/owner-reports/${id}/report.pdf`,
  };
}

/** The same for somebody who sees no prices. */
function withoutMoney(answer: OwnerReportAnswer, currency: string): OwnerReportAnswer {
  const letter = wordsWithoutMoney(answer.letter, currency);
  if (!answer.report) return { ...answer, letter };
  const { report } = answer;
  return {
    ...answer,
    letter,
    report: {
      ...withoutPrice(report),
      ...{ cost: null, saved: null, letter: wordsWithoutMoney(report.letter, currency) },
      pages: report.pages.map((page) => ({
        ...page,
        ...{ cost: null, saved: null },
        works: page.works.map((work) => ({ ...work, cost: null })),
      })),
    },
  };
}

const withoutPrice = ({ price: _price, ...report }: OwnerReport): OwnerReport => report;
