import {
  type EntryPart,
  type LedgerLine,
  type Material,
  type MixedIn,
  type UnitSystem,
  dayOn,
  entered,
  plannedEntry,
  putDown,
  lastDayOf,
  ledgerLines,
  ledgerOf,
  overCard,
  overWords,
  partsOf,
  partsOfMix,
  present,
  standing,
  wentDown,
  yearCaps,
  yearOf,
} from '@glenfold/agronomy';
import type { EntryAnswer, EntryInput, EntryWrittenAnswer, LogbookAnswer, ZoneLedgerAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { randomUUID } from 'node:crypto';
import { Any } from 'typeorm';
import { EntriesService } from '../entries/entries.service.ts';
import { EntryRecord, entryOf } from '../entries/entry.entity.ts';
import { GroundService, type MeasuredZone } from '../ground/ground.service.ts';
import type { Zone } from '../ground/zone.entity.ts';
import { ZonePhoto } from '../ground/zonePhoto.entity.ts';
import { materialOf } from '../materials/materials.service.ts';
import { ProductRecord } from '../materials/product.entity.ts';
import { Message } from '../messages/message.entity.ts';
import { Clock } from '../platform/clock.ts';
import { notFound, refuse } from '../platform/problem.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { zoneFacts } from '../rates/facts.ts';
import { SeasonBases } from '../season/basis.service.ts';
import type { Job } from '../season/job.entity.ts';
import { JobsService } from '../season/jobs.service.ts';
import { Days } from '../settings/days.service.ts';
import { mendingFaults } from './mending.ts';
import { laterProgramWords } from './laterProgram.ts';
import { twinWords } from './twin.ts';

/** Days after which an entry does not move the store any more. */
const STORE_DAYS = 31;
/** More than this over the plan is told, as a share. */
const OVER = 1.1;

/** What was done: written once, corrected by a later entry, counted by the ledger. */
@Injectable()
export class LogbookService {
  constructor(
    private readonly records: Records,
    private readonly entries: EntriesService,
    private readonly ground: GroundService,
    private readonly jobs: JobsService,
    private readonly bases: SeasonBases,
    private readonly days: Days,
    private readonly clock: Clock,
    private readonly work: Work,
  ) {}

  /** The book of a site for a year. */
  async book(siteId: string, year: number | undefined, units: UnitSystem): Promise<LogbookAnswer> {
    const basis = await this.bases.of(siteId);
    const asked = year ?? Number(basis.today.slice(0, 4));
    const records = await this.#ofSite(siteId);
    const inYear = records.filter(({ on }) => on.startsWith(String(asked)));
    const jobs = await this.jobs.of(siteId);
    const years = new Set([asked, Number(basis.today.slice(0, 4)), ...records.map(({ on }) => Number(on.slice(0, 4)))]);
    return {
      year: asked,
      years: [...years].sort((one, other) => other - one),
      entries: await this.told(inYear, records, basis.zones),
      zones: basis.zones.map((zone) => {
        const own = jobs.filter(({ zoneId }) => zoneId === zone.id);
        const settings = basis.settingsOf(zone.id);
        return this.#ledger(zone, own, asked, basis.material, yearCaps(zoneFacts(zone), settings), units);
      }),
      today: basis.today,
    };
  }

  /** Entries of a site within some days, the oldest first, with what they are told by. */
  async between(siteId: string, from: string, to: string) {
    const site = await this.ground.site(siteId);
    const zones = await this.ground.zones(siteId);
    const records = await this.#ofSite(siteId);
    const inside = records.filter(({ on }) => lastDayOf(on) >= from && lastDayOf(on) <= to);
    return { site, zones, entries: await this.told(inside, records, zones) };
  }

  /**
   * Write down what was done. Sent twice it is written once; what is odd about it is kept, and told.
   */
  async write(input: EntryInput): Promise<EntryWrittenAnswer> {
    const [known] = await this.records.of(EntryRecord).findEver({ id: input.id });
    if (known) return this.#written(known);
    const [zone] = await this.ground.zonesEver([input.zoneId]);
    if (!zone) notFound();
    const { state, reason = null, correctsId = null, jobId = null } = input;
    const corrected =
      correctsId === null ? undefined : (await this.records.of(EntryRecord).findEver({ id: correctsId }))[0];
    const today = await this.days.on(zone.siteId);
    const writtenOn = corrected && (await this.days.on(zone.siteId, corrected.recordedAt));
    const faults = [
      ...(state === 'not done' && !reason ? [{ field: 'reason', message: 'Say why it was not done.' }] : []),
      ...(state === 'partly done' && input.area == null
        ? [{ field: 'area', message: 'Say how much of the zone was done: the rest stays to be done.' }]
        : []),
      ...mendingFaults(input, corrected, this.work.worker, writtenOn === today),
    ];
    if (faults.length > 0) refuse(faults);
    const [product] = input.productId ? await this.records.of(ProductRecord).findEver({ id: input.productId }) : [];
    if (input.productId && !product) refuse([{ field: 'productId', message: 'Choose a product of the list.' }]);
    return this.records.together(async (of) => {
      const [job] = corrected?.jobId ? await this.jobs.some([corrected.jobId]) : [await this.jobs.inPlaceOf(jobId)];
      const material = product && materialOf(product);
      const amount = putDown(input, zone.area, material);
      const mixed = await this.#mixed(of, input, zone, job, corrected);
      const earlier = job ? await of(EntryRecord).find({ jobId: job.id }, { recordedAt: 'ASC' }) : [];
      const twin = twinWords(earlier, input);
      const notes = [
        ...(jobId !== null && !job ? ['The job of this card is not there any more: the entry stands by itself.'] : []),
        ...(twin === undefined ? [] : [twin]),
        ...this.#oddities(input, zone, job, today, amount.rate),
        ...(await this.#stock(of, { ...input, quantity: input.quantity ?? null, mixed }, corrected, today)),
      ];
      const record = await of(EntryRecord).add({
        ...{
          id: input.id,
          siteId: zone.siteId,
          zoneId: zone.id,
          jobId: job?.id ?? null,
          on: input.on,
          kind: input.kind,
        },
        ...{
          state,
          words: input.words ?? (wordsOfMix(product?.name, mixed) || input.kind),
          productId: product?.id ?? null,
          mixed,
        },
        material: material ? entered(material) : null,
        ...{
          quantity: input.quantity ?? null,
          quantityUnit: amount.quantityUnit,
          rate: amount.rate,
          unit: amount.unit,
        },
        ...{ area: input.area ?? null, cce: input.cce ?? null, reason, doneBy: input.doneBy ?? null },
        ...{ writtenBy: this.work.worker.person?.name ?? null, day: input.day ?? null, correctsId, notes },
        recordedAt: this.clock.now(),
      });
      if (job) await this.#follow(job, record, zone);
      if (twin !== undefined) await this.#tellOffice(of, record, `${job!.name}, ${zone.name}: ${twin}`);
      return this.#written(record);
    });
  }

  /** What only the office can decide stands in Rounds until somebody has read it. */
  async #tellOffice(of: RecordsOf, { siteId, recordedAt: at }: EntryRecord, words: string): Promise<void> {
    const { person } = this.work.worker;
    const by = { personId: person?.id ?? null, author: person?.name ?? 'Glenfold' };
    await of(Message).add({ id: randomUUID(), siteId, ...by, side: 'field', words, at, doneAt: null });
  }

  /** Records as they are told. @param all of the site, which say what stands */
  async told(
    records: readonly EntryRecord[],
    all: readonly EntryRecord[],
    zones: ReadonlyArray<{ readonly id: string; readonly name: string }>,
  ): Promise<EntryAnswer[]> {
    const names = new Map(zones.map(({ id, name }) => [id, name]));
    const missing = records.map(({ zoneId }) => zoneId).filter((id) => !names.has(id));
    if (missing.length > 0) for (const { id, name } of await this.ground.zonesEver(missing)) names.set(id, name);
    const stand = new Set(standing(all.map(entryOf)).map(({ id }) => id));
    const photos = records.length
      ? await this.records
          .of(ZonePhoto)
          .findWithout(['image'], { entryId: Any(records.map(({ id }) => id)) }, { createdAt: 'ASC' })
      : [];
    return records.map((record) => ({
      ...{ id: record.id, zoneId: record.zoneId, zone: names.get(record.zoneId) ?? '', jobId: record.jobId },
      ...{ on: record.on, kind: record.kind, state: record.state, words: record.words, productId: record.productId },
      ...{ quantity: record.quantity, quantityUnit: record.quantityUnit, rate: record.rate, unit: record.unit },
      mixed: record.mixed.map(({ material: _material, ...part }) => part),
      ...{ area: record.area, cce: record.cce, reason: record.reason, doneBy: record.doneBy },
      ...{ writtenBy: record.writtenBy, recordedAt: record.recordedAt.toISOString(), day: record.day },
      ...{ correctsId: record.correctsId, stands: stand.has(record.id), notes: [...record.notes] },
      photos: photos
        .filter(({ entryId }) => entryId === record.id)
        .map(({ id, caption }) => ({ id, caption, url: `/api/photos/${id}` })),
    }));
  }

  #ofSite(siteId: string): Promise<EntryRecord[]> {
    return this.records.of(EntryRecord).find({ siteId }, { recordedAt: 'ASC' });
  }

  async #written(record: EntryRecord): Promise<EntryWrittenAnswer> {
    const all = await this.entries.ofZones([record.zoneId]);
    const [entry] = await this.told([record], all, []);
    return { entry: entry!, notes: [...record.notes] };
  }

  /** What is odd about an entry and kept all the same, with how it is mended. */
  #oddities(input: EntryInput, zone: Zone, job: Job | undefined, today: string, rate: number | null): string[] {
    const share = job && overCard({ ...input, rate }, job, zone.area);
    return [
      ...laterProgramWords(input.correctsId ? null : (input.jobId ?? null), job, share),
      ...(lastDayOf(input.on) > today && input.on.length === 10
        ? [`${input.on} has not come yet: if that is a slip, correct the day.`]
        : []),
      ...(input.area != null && input.area > zone.area * 1.02
        ? [
            `More was treated than the zone has (${Math.round(zone.area)} m²): mend the area here, or measure the zone on the Ground step.`,
          ]
        : []),
      ...(share !== undefined && share > OVER
        ? [`${Math.round((share - 1) * 100)} % more than the card asked for: ${overWords(input.kind)}.`]
        : []),
    ];
  }

  /** What else was in the mix: as it was told, else in the shares of the card, or of the entry that is mended. */
  async #mixed(
    of: RecordsOf,
    { state, quantity = null, area = null, mixed }: EntryInput,
    zone: Zone,
    job: Job | undefined,
    corrected: EntryRecord | undefined,
  ): Promise<EntryPart[]> {
    if (!isUsed(state)) return [];
    const over = area ?? zone.area;
    const told = mixed?.map((part) => ({ ...part, name: '', unit: 'kg' as const }));
    const whole = corrected ?? job;
    const share =
      whole?.quantity && quantity !== null ? quantity / whole.quantity : over / (corrected?.area ?? zone.area);
    const shares = corrected
      ? corrected.mixed.flatMap(({ words: name, quantity: own, quantityUnit: unit, productId }) =>
          own === null || unit === null ? [] : [{ productId, name, quantity: own, unit }],
        )
      : (job?.mixed ?? []);
    const parts: readonly MixedIn[] = told ?? shares.map((part) => ({ ...part, quantity: part.quantity * share }));
    const ids = parts.flatMap(({ productId }) => productId ?? []);
    const products = ids.length > 0 ? await of(ProductRecord).findEver({ id: Any(ids) }) : [];
    const materials = new Map(products.map((product) => [product.id, materialOf(product)]));
    if (told?.some(({ productId }) => !materials.has(productId)))
      refuse([{ field: 'mixed', message: 'Choose products of the list for what was in the mix.' }]);
    return partsOfMix(
      parts.map((part) => ({ ...part, unit: materials.get(part.productId ?? '')?.packUnit ?? part.unit })),
      over,
      (id) => (id === null ? undefined : materials.get(id)),
    );
  }

  /** What is used leaves the store; what a correction gives back comes in again. */
  async #stock(
    of: RecordsOf,
    entry: Parameters<typeof usedOf>[0] & Pick<EntryInput, 'on'>,
    corrected: EntryRecord | undefined,
    today: string,
  ): Promise<string[]> {
    const used = usedOf(entry);
    const back = corrected ? usedOf(corrected) : new Map<string, number>();
    // What is written down of long ago had left the store before it was counted.
    const counts = lastDayOf(entry.on) >= dayOn(today, -STORE_DAYS);
    const moved = [...new Set([...used.keys(), ...back.keys()])].flatMap((id) => {
      const amount = (used.get(id) ?? 0) - (back.get(id) ?? 0);
      return amount === 0 || (used.has(id) && !counts) ? [] : [{ id, amount }];
    });
    const products = moved.length > 0 ? await of(ProductRecord).findEver({ id: Any(moved.map(({ id }) => id)) }) : [];
    const notes: string[] = [];
    for (const { id, amount } of moved) {
      const product = products.find((one) => one.id === id);
      if (product?.stock == null) continue;
      const left = product.stock - amount / product.packSize;
      await of(ProductRecord).change(id, { stock: round(Math.max(0, left)) });
      if (left < -0.005)
        notes.push(
          `More ${product.name} was used than the store had (${round(product.stock)} packs): the store stands at none. Count it, or mend the amount.`,
        );
    }
    return notes;
  }

  /** The job goes as its entries say; what is left of one that was done in part stays to be done. */
  async #follow(job: Job, record: EntryRecord, zone: Zone): Promise<void> {
    const all = await this.records.of(EntryRecord).find({ jobId: job.id }, { recordedAt: 'ASC' });
    const before = partOf(
      all.filter(({ id }) => id !== record.id),
      zone,
    );
    const after = partOf(all, zone);
    const open = Math.max(0.01, 1 - before.part);
    const whole = job.quantity === null ? null : job.quantity / open;
    const state = after.state === 'partly done' && after.part > ALL_OF ? 'done' : after.state;
    const left = state === 'partly done' ? 1 - after.part : 1;
    await this.jobs.follow(job.id, state, {
      quantity: whole === null ? null : whole * left,
      mixed: job.mixed.map((part) => ({ ...part, quantity: (part.quantity / open) * left })),
    });
  }

  #ledger(
    zone: MeasuredZone,
    jobs: readonly Job[],
    year: number,
    material: (productId: string | null) => Material | undefined,
    caps: ReturnType<typeof yearCaps>,
    units: UnitSystem,
  ): ZoneLedgerAnswer {
    const period = yearOf(year);
    const { parts, limeOpen, unknown } = ledgerOf(zone.entries, zone.area, period);
    const toCome = jobs
      .filter(({ state, day, earliest, from }) => {
        const on = day ?? earliest ?? from;
        return (state === 'open' || state === 'partly done') && (on === null || on.startsWith(String(year)));
      })
      .map((job) => plannedEntry(job, job.day ?? job.from ?? '', zone.area, material));
    const lines = ledgerLines(parts, partsOf(wentDown(toCome), zone.area), limeOpen, caps);
    return {
      zoneId: zone.id,
      zone: zone.name,
      area: zone.area,
      lines,
      unknown: [...unknown],
      warnings: warningsOf(lines, units),
    };
  }
}

/** Share of a zone from which a job counts as done. */
const ALL_OF = 0.98;

/** How far a job is by the entries of it that stand, and which share of the zone was done in parts. */
function partOf(records: readonly EntryRecord[], zone: Zone): { readonly state: Job['state']; readonly part: number } {
  const stand = standing(records.map(entryOf));
  const parts = stand.filter(({ state }) => state === 'partly done');
  const part = Math.min(1, parts.reduce((sum, { area }) => sum + (area ?? 0), 0) / zone.area);
  if (stand.some(({ state }) => state === 'done')) return { state: 'done', part };
  if (stand.at(-1)?.state === 'not done') return { state: 'not done', part };
  return parts.length > 0 ? { state: 'partly done', part } : { state: 'open', part: 0 };
}

const isUsed = (state: EntryInput['state']): boolean => state === 'done' || state === 'partly done';

/** "Topdressing sand with sphagnum peat". */
const wordsOfMix = (name: string | undefined, mixed: readonly EntryPart[]): string =>
  [name, mixed.length > 0 ? `with ${mixed.map(({ words }) => words).join(', ')}` : ''].filter(Boolean).join(' ');

/** What an entry used of each product of the store, in the unit of its pack. */
function usedOf({
  state,
  productId = null,
  quantity,
  mixed,
}: Pick<EntryRecord, 'quantity' | 'mixed' | 'state'> & Pick<EntryInput, 'productId'>): Map<string, number> {
  const used = new Map<string, number>();
  if (!isUsed(state)) return used;
  for (const part of [{ productId, quantity }, ...mixed])
    if (part.productId !== null && part.quantity !== null)
      used.set(part.productId, (used.get(part.productId) ?? 0) + part.quantity);
  return used;
}

const round = (packs: number): number => Math.round(packs * 100) / 100;

/** What is over, and what is to be done about it. */
function warningsOf(lines: readonly LedgerLine[], units: UnitSystem): string[] {
  return lines.flatMap(({ label, sense, done, planned, most, by }) => {
    if (most === null) return [];
    const say = (of: number): string => present(sense, of, units).text;
    if (done > most * 1.001 + 1e-6)
      return [
        `${label}: ${say(done)} is down, over the ${say(most)} of the year (${by}). Nothing more this year; hold what is planned.`,
      ];
    if (done + planned > most * 1.001 + 1e-6)
      return [
        `${label}: with the ${say(planned)} that is planned it comes to ${say(done + planned)}, over the ${say(most)} of the year (${by}). Hand the program over anew: it counts what is down.`,
      ];
    return [];
  });
}
