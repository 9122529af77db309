import { randomUUID } from 'node:crypto';
import { entryKindOf } from '@glenfold/agronomy';
import type { EntryInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { GroundService } from '../ground/ground.service.ts';
import { LabReportService } from '../lab/labReport.service.ts';
import { LogbookService } from '../logbook/logbook.service.ts';
import { MachinesService } from '../machines/machines.service.ts';
import { ProductRecord } from '../materials/product.entity.ts';
import { Clock } from '../platform/clock.ts';
import { HandingOver } from '../rates/handingOver.service.ts';
import { JobsService } from '../season/jobs.service.ts';
import { Days } from '../settings/days.service.ts';
import { Records } from '../platform/records.ts';
import { Job } from '../season/job.entity.ts';

/** One thing of a past year: a report that came, a program handed over, a job done. */
export type DemoStep = { readonly on: string } & (
  | { readonly report: string }
  | { readonly handOver: readonly string[] }
  | {
      readonly done: string;
      /** Label of the zone. */
      readonly zone: string;
      readonly position?: number;
      /** Of what the card asked for. */
      readonly share?: number;
      readonly by?: string;
      readonly reason?: string;
      readonly state?: 'done' | 'not done';
    }
);

/** What was put down this year without a card, as somebody wrote it into the logbook. */
export interface DemoEntry extends Pick<EntryInput, 'on' | 'kind' | 'rate' | 'unit' | 'quantity'> {
  /** Label of the zone. */
  readonly zone: string;
  readonly product: string;
  readonly by: string;
}

/** A job that is done today, where the day allows it. */
export interface DemoJob {
  readonly job: string;
  readonly zone: string;
  readonly machine?: string;
  readonly hold?: { readonly reason: string; readonly words?: string };
}

/** Plays the demo's past years through the same services as a person would, each step as of its day. */
@Injectable()
export class DemoYears {
  constructor(
    private readonly clock: Clock,
    private readonly ground: GroundService,
    private readonly imports: LabReportService,
    private readonly handing: HandingOver,
    private readonly jobs: JobsService,
    private readonly logbook: LogbookService,
    private readonly machines: MachinesService,
    private readonly days: Days,
    private readonly records: Records,
  ) {}

  async play(siteId: string, steps: readonly DemoStep[], read: (file: string) => string): Promise<void> {
    // The store is counted as of today: past years have left it long ago.
    const store = await this.records.of(ProductRecord).find();
    for (const step of steps) await this.clock.asOf(new Date(`${step.on}T11:00:00Z`), () => this.#one(siteId, step, read));
    for (const { id, stock } of store) await this.records.of(ProductRecord).change(id, { stock });
  }

  async write(siteId: string, entries: readonly DemoEntry[]): Promise<void> {
    if (entries.length === 0) return;
    const zones = await this.ground.zones(siteId);
    const products = await this.records.of(ProductRecord).find();
    for (const { zone: label, product: name, by: doneBy, ...entry } of entries) {
      const zone = zones.find((one) => one.label === label);
      const product = products.find((one) => one.name === name);
      if (!zone || !product) throw new Error(`The demo has no ${zone ? name : label}.`);
      await this.clock.asOf(new Date(`${entry.on}T17:00:00Z`), () =>
        this.logbook.write({ ...entry, doneBy, id: randomUUID(), zoneId: zone.id, productId: product.id, state: 'done' }),
      );
    }
    // The store is counted as of today.
    for (const { id, stock } of products) await this.records.of(ProductRecord).change(id, { stock });
  }

  /** Set jobs to today that the day allows, give them their machines, and hold what waits. */
  async today(siteId: string, wanted: readonly DemoJob[]): Promise<void> {
    const machines = await this.machines.list();
    const today = await this.days.on(siteId);
    for (const { job: key, zone, machine, hold } of wanted) {
      const job = await this.#job(siteId, key, zone, 0);
      const { breaks } = await this.jobs.breaks(job.id, today, 'us');
      if (breaks.length === 0) await this.records.of(Job).change(job.id, { day: today, moved: true, dated: true });
      const found = machines.find(({ name }) => name === machine);
      if (found) await this.jobs.crew(job.id, { machineId: found.id }, (await this.jobs.one(job.id)).version);
      if (hold) await this.jobs.hold(job.id, hold, (await this.jobs.one(job.id)).version);
    }
  }

  async #one(siteId: string, step: DemoStep, read: (file: string) => string): Promise<void> {
    if ('report' in step) {
      const { id } = await this.imports.preview(siteId, { fileName: step.report, content: read(step.report) });
      await this.imports.confirm(id);
      return;
    }
    if ('handOver' in step) {
      const zones = await this.ground.zones(siteId);
      const zoneIds = zones.filter(({ label }) => step.handOver.includes(label)).map(({ id }) => id);
      await this.handing.issue(siteId, 'us', { zoneIds });
      return;
    }
    const { on, done, zone, position = 0, share = 1, by, reason, state = 'done' } = step;
    const job = await this.#job(siteId, done, zone, position);
    const entry: EntryInput = {
      ...{ id: randomUUID(), zoneId: job.zoneId, jobId: job.id, on, kind: entryKindOf(job.remedy), state },
      ...{ productId: job.productId, doneBy: by ?? null, reason: reason ?? null },
      quantity: state === 'done' && job.quantity !== null ? Math.round(job.quantity * share * 10) / 10 : null,
    };
    await this.logbook.write(entry);
  }

  async #job(siteId: string, key: string, label: string, position: number): Promise<Job> {
    const zone = (await this.ground.zones(siteId)).find((one) => one.label === label);
    const job = (await this.jobs.of(siteId)).find(
      (one) => one.zoneId === zone?.id && one.key === key && one.position === position && one.state === 'open',
    );
    if (!job) throw new Error(`The demo has no open ${key} ${position + 1} in ${label}.`);
    return job;
  }
}
