import type { LabQuestionAnswer, LabQuestionInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { GroundService } from '../ground/ground.service.ts';
import { refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Days } from '../settings/days.service.ts';
import { LabQuestion } from './labQuestion.entity.ts';
import { LabResult } from './labResult.entity.ts';

/** Questions put to laboratories' soil scientists, kept with the zone they are about. */
@Injectable()
export class LabQuestionsService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly work: Work,
    private readonly days: Days,
  ) {}

  async of(siteId: string): Promise<LabQuestionAnswer[]> {
    await this.ground.site(siteId);
    return (await this.records.of(LabQuestion).find({ siteId }, { askedOn: 'DESC', createdAt: 'DESC' })).map(told);
  }

  async add(input: LabQuestionInput): Promise<LabQuestionAnswer> {
    const { siteId } = await this.#checked(input);
    const askedBy = this.work.worker.person?.name ?? null;
    return told(await this.records.of(LabQuestion).add({ ...valuesOf(input), siteId, askedBy }));
  }

  async change(id: string, input: LabQuestionInput, version: number): Promise<LabQuestionAnswer> {
    const { siteId } = await this.#checked(input);
    return told(await this.records.of(LabQuestion).change(id, { ...valuesOf(input), siteId }, { version, tell: told }));
  }

  remove(id: string): Promise<void> {
    return this.records.of(LabQuestion).remove(id);
  }

  async restore(id: string): Promise<LabQuestionAnswer> {
    return told(await this.records.of(LabQuestion).restore(id));
  }

  async #checked({ zoneId, resultId, askedOn, answer, answeredBy, answeredOn }: LabQuestionInput) {
    const zone = await this.ground.zone(zoneId);
    const today = await this.days.on(zone.siteId);
    const faults = [
      ...(askedOn > today ? [{ field: 'askedOn', message: 'That day has not come yet: check the date.' }] : []),
      ...(answeredOn && answeredOn > today
        ? [{ field: 'answeredOn', message: 'That day has not come yet: check the date.' }]
        : []),
      ...(answeredOn && answeredOn < askedOn
        ? [{ field: 'answeredOn', message: 'It was answered before it was asked: check the two dates.' }]
        : []),
      ...(answer && !answeredBy
        ? [{ field: 'answeredBy', message: 'Say who gave the answer: it is worth as much as the one who gave it.' }]
        : []),
      ...(resultId != null && (await this.records.of(LabResult).find({ id: resultId })).length === 0
        ? [{ field: 'resultId', message: 'The result that it is about is not there any more: choose another, or none.' }]
        : []),
    ]; // prettier-ignore
    if (faults.length > 0) refuse(faults);
    return zone;
  }
}

function valuesOf(input: LabQuestionInput) {
  const { zoneId, resultId, laboratory, askedOf, askedOn, question, answer, answeredBy, answeredOn } = input;
  const none = (text: string | null | undefined): string | null => text ?? null;
  return {
    ...{ zoneId, resultId: none(resultId), laboratory: none(laboratory), askedOf: none(askedOf), askedOn, question },
    ...{ answer: none(answer), answeredBy: none(answeredBy), answeredOn: none(answeredOn) },
  };
}

const told = (found: LabQuestion): LabQuestionAnswer => {
  const { id, version, siteId, zoneId, resultId, laboratory, askedOf, askedOn, askedBy } = found;
  const { question, answer, answeredBy, answeredOn } = found;
  return {
    ...{ id, version, siteId, zoneId, resultId, laboratory, askedOf, askedOn, askedBy },
    ...{ question, answer, answeredBy, answeredOn },
  };
};
