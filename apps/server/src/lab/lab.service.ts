import { type PanelNutrient, panel, questionPlausibility, toElement } from '@glenfold/agronomy';
import { LabResultAnswer, type LabResultInput, type ReportedValueInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { GroundService } from '../ground/ground.service.ts';
import { refuse } from '../platform/problem.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { LabResult } from './labResult.entity.ts';
import { Sample } from './sample.entity.ts';
import { dayOf } from '../platform/clock.ts';

/** What a file brings of a result beside its numbers. */
interface ResultOrigin {
  /** The bag it came in. */
  readonly bagId?: string | null;
  /** What else its line said. */
  readonly beside?: string | null;
}

@Injectable()
export class LabService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
  ) {}

  /** Results of a site, newest first. */
  async results(siteId: string): Promise<LabResult[]> {
    await this.ground.site(siteId);
    const zones = await this.ground.undrawnZones(siteId);
    const ofSite = new Set(zones.map(({ id }) => id));
    return (await this.newestFirst()).filter(({ zoneId }) => ofSite.has(zoneId));
  }

  /** Results that came of these bags. */
  async ofBags(bagIds: ReadonlySet<string>): Promise<LabResult[]> {
    if (bagIds.size === 0) return [];
    return (await this.records.of(LabResult).find()).filter(({ sample }) => sample.bagId && bagIds.has(sample.bagId));
  }

  async newestFirst(): Promise<LabResult[]> {
    const results = await this.records.of(LabResult).find({}, { createdAt: 'DESC' });
    const when = ({ sample, createdAt }: LabResult): string =>
      `${sample.sampledOn ?? dayOf(createdAt)} ${createdAt.toISOString()}`;
    return results.sort((a, b) => when(b).localeCompare(when(a)));
  }

  async add(input: LabResultInput, origin = 'typed'): Promise<LabResult> {
    return this.records.together((of) => this.write(of, input, origin));
  }

  /** Write a sample with its result. */
  async write(
    of: RecordsOf,
    input: LabResultInput,
    origin: string,
    { bagId = null, beside = null }: ResultOrigin = {},
  ): Promise<LabResult> {
    const zone = await this.ground.zone(input.zoneId);
    this.#refuseUnreadableDate(input);
    const sample = await of(Sample).add({
      siteId: zone.siteId,
      zoneId: zone.id,
      bagId,
      label: input.label,
      sampledOn: input.sampledOn?.slice(0, 10) ?? null,
      depth: input.depth,
    });
    const values = this.#values(input);
    return of(LabResult).add({ ...values, sampleId: sample.id, sample, zoneId: zone.id, origin, beside });
  }

  async change(id: string, input: LabResultInput, version: number, more: Partial<LabResult> = {}): Promise<LabResult> {
    const zone = await this.ground.zone(input.zoneId);
    this.#refuseUnreadableDate(input);
    return this.records.together(async (of) => {
      const values = { ...this.#values(input), ...more, zoneId: zone.id };
      const found = await of(LabResult).change(id, values, { version, tell: labResultAnswer });
      const sample = await of(Sample).change(found.sampleId, {
        siteId: zone.siteId,
        zoneId: zone.id,
        label: input.label,
        sampledOn: input.sampledOn?.slice(0, 10) ?? null,
        depth: input.depth,
      });
      return Object.assign(found, { sample });
    });
  }

  async remove(id: string): Promise<void> {
    await this.records.of(LabResult).remove(id);
  }

  async restore(id: string): Promise<LabResult> {
    return this.records.of(LabResult).restore(id);
  }

  #values(
    input: LabResultInput,
  ): Pick<
    LabResult,
    'labNumber' | 'extractant' | 'bufferMethod' | 'soilPh' | 'bufferPh' | 'limeFactor' | 'organicMatter' | 'nutrients'
  > {
    return {
      labNumber: input.labNumber ?? null,
      extractant: input.extractant,
      bufferMethod: input.bufferPh == null ? null : (input.bufferMethod ?? null),
      soilPh: input.soilPh,
      bufferPh: input.bufferPh ?? null,
      limeFactor: input.bufferMethod === 'adams-evans' && input.bufferPh != null ? (input.limeFactor ?? null) : null,
      organicMatter: input.organicMatter ?? null,
      nutrients: input.nutrients,
    };
  }

  #refuseUnreadableDate({ sampledOn }: LabResultInput): void {
    if (sampledOn && new Date(sampledOn).getTime() > Date.now() + 86_400_000) {
      refuse([{ field: 'sampledOn', message: `The sampling date ${sampledOn} lies in the future: check the year.` }]);
    }
  }
}

/** Values that look like a slip, for a result or a row of a file. */
export function questionsAbout(given: {
  readonly depth?: number | undefined;
  readonly organicMatter?: number | null | undefined;
  readonly nutrients: Partial<Record<PanelNutrient, ReportedValueInput>>;
}): string[] {
  const asked = [
    given.depth === undefined ? undefined : questionPlausibility('depth', given.depth),
    given.organicMatter == null ? undefined : questionPlausibility('organicMatter', given.organicMatter),
    ...panel.map((nutrient) => {
      const reported = given.nutrients[nutrient];
      return reported && !reported.belowDetection
        ? questionPlausibility(nutrient, toElement(nutrient, reported).value)
        : undefined;
    }),
  ];
  return asked.filter((question) => question !== undefined);
}

export function labResultAnswer(result: LabResult): LabResultAnswer {
  const { practiceId: _practiceId, deletedAt: _deletedAt, sampleId: _sampleId, sample, createdAt, ...printed } = result;
  const { siteId, label, sampledOn, depth } = sample;
  const questions = questionsAbout({ depth, organicMatter: printed.organicMatter, nutrients: printed.nutrients });
  return { ...printed, siteId, label, sampledOn, depth, recordedAt: createdAt.toISOString(), questions };
}
