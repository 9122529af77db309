import { writeBagCode } from '@glenfold/agronomy';
import type { LaboratoryNewsAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Records } from '../platform/records.ts';
import { Days } from '../settings/days.service.ts';
import { Work } from '../platform/work.ts';
import { lastOf } from '../sampling/bagPapers.ts';
import { SamplingService } from '../sampling/sampling.service.ts';
import { Laboratories, type Laboratory, type LaboratoryNews, type SubmittedSample } from '../ports/laboratory.ts';
import { LabReportService } from './labReport.service.ts';

/** What goes to the laboratories, and what comes back from them. */
@Injectable()
export class LaboratoriesService {
  constructor(
    private readonly laboratories: Laboratories,
    private readonly sampling: SamplingService,
    private readonly imports: LabReportService,
    private readonly records: Records,
    private readonly work: Work,
    private readonly days: Days,
  ) {}

  /**
   * Hand over the forms of what was sent since, and take in what is new: bags that arrived, and reports, which wait
   * to be read as files do that a person brings in.
   */
  ask(): Promise<LaboratoryNewsAnswer> {
    return this.records.scoped(async (manager) => {
      // The clock and a person may ask at once, also through two copies of the server: one after the other.
      await manager.query('SELECT pg_advisory_xact_lock(hashtextextended($1, 0))', [this.work.practiceId]);
      const answer: LaboratoryNewsAnswer = { arrived: 0, reports: 0, words: [] };
      for (const laboratory of await this.laboratories.all()) {
        await this.#handOver(laboratory);
        for (const news of await laboratory.news()) {
          answer[news.kind === 'arrived' ? 'arrived' : 'reports'] += 1;
          answer.words.push(await this.#take(laboratory.profile.name, news));
        }
      }
      return answer;
    });
  }

  async #handOver(laboratory: Laboratory): Promise<void> {
    const bags = await this.sampling.sentTo(laboratory.profile.name);
    if (bags.length === 0) return;
    const samples: SubmittedSample[] = [];
    for (const { id, code, siteId, siteName, since, depth, panels, places, custody } of bags) {
      const filled = lastOf(places);
      samples.push({
        ...{ bagId: id, code: writeBagCode(code), siteId, siteName, depth, panels },
        sentAt: new Date(custody.findLast(({ state }) => state === 'sent')?.at ?? since),
        sampledOn: filled && (await this.days.on(siteId, filled)),
      });
    }
    await laboratory.submit(samples);
  }

  #take(name: string, news: LaboratoryNews): Promise<string> {
    return this.records.together(async (of) => {
      if (news.kind === 'arrived') {
        await this.sampling.heard(of, news.bagId, 'at the lab', news.at, name, news.labNumber);
        return `${name}: a bag arrived, number ${news.labNumber}.`;
      }
      await this.imports.receive(news.siteId, news.file);
      for (const bagId of news.bagIds) await this.sampling.heard(of, bagId, 'reported', news.at, name);
      return `${name}: ${news.amends ? 'an amended report' : 'a report'} came, ${news.file.fileName}.`;
    });
  }
}
