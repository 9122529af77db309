import {
  type StandingPrice,
  type ToldPrice,
  type YearPrice,
  priceSince,
  standingPrice,
  yearSum,
} from '@glenfold/agronomy';
import { type PriceToldAnswer, type SitePriceAnswer, allows } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { In, MoreThanOrEqual } from 'typeorm';
import { PracticeService } from '../people/practice.service.ts';
import { Clock } from '../platform/clock.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Program } from '../rates/program.entity.ts';
import { Quote, QuoteLine } from '../rates/quote.entity.ts';
import type { Job } from '../season/job.entity.ts';
import { JobsService } from '../season/jobs.service.ts';
import { Days } from '../settings/days.service.ts';
import { OwnerReportRecord } from './ownerReport.entity.ts';

const YEAR = 366 * 86_400_000;
/** What is read for other parts of a report too. */
interface Known {
  readonly jobs: readonly Job[];
  readonly currency: string;
}

/** A price, and the moment at which it was told. */
interface Telling {
  readonly at: Date;
  readonly price: YearPrice & { readonly zoneIds: readonly string[] };
}

/** A quote as a price: what was not declined of it. */
interface Offered extends Telling {
  readonly quote: Quote;
  /** As `zoneId key`. */
  readonly declined: ReadonlySet<string>;
  /** What lines with an open price were agreed to at most. */
  readonly ceilings: ReadonlyMap<string, number>;
}

const keyOf = ({ zoneId, key }: { readonly zoneId: string; readonly key: string }): string => `${zoneId} ${key}`;

/**
 * What the year of a site costs, as its owner is told it in a quote, in programs and in reports: one price, and what is
 * another since each of them.
 */
@Injectable()
export class SitePrice {
  constructor(
    private readonly records: Records,
    private readonly practices: PracticeService,
    private readonly days: Days,
    private readonly clock: Clock,
    private readonly work: Work,
    private readonly jobs: JobsService,
  ) {}

  /**
   * The price as it stands; nothing where none was told, and for those who see none.
   * @param known what was read already
   */
  async of(siteId: string, known: Partial<Known> = {}): Promise<SitePriceAnswer | null> {
    const { role } = this.work.worker;
    if (role !== null && !allows(role, 'costs.read')) return null;
    const dayOf = await this.days.at(siteId);
    const quote = await this.#quote(siteId, dayOf(this.clock.now()));
    const since = quote?.at ?? new Date(this.clock.now().getTime() - YEAR);
    const programs = await this.#programs(siteId, since);
    const report = await this.#report(siteId);
    const later = [...programs, ...(report && report.at >= since ? [report] : [])];
    const tellings = [...(quote ? [quote] : []), ...later.sort((one, other) => Number(one.at) - Number(other.at))];
    if (tellings.length === 0) return null;
    const done = doneOf(known.jobs ?? (await this.jobs.of(siteId)), dayOf(since));
    const told: ToldPrice[] = [];
    for (const { at, price } of tellings) {
      const lines = price.lines.filter((line) => !(quote?.declined.has(keyOf(line)) && this.#isBefore(at, quote)));
      told.push({ ...price, lines, on: dayOf(at) });
    }
    const standing = standingPrice(told, done);
    const sum = yearSum(standing);
    return {
      ...{ sum, most: quote ? mostOf(quote, standing, sum) : null },
      currency: quote?.quote.currency ?? known.currency ?? (await this.practices.current()).currency,
      lines: standing.lines.map(({ zone, key, price }) => ({ zone, key, price })),
      unpriced: standing.lines.filter(({ price }) => price === null).map(({ name, zone }) => `${name}, ${zone}`),
      quote: quote?.quote.answeredAt ? sinceTold(quote, dayOf, standing, done) : null,
      report: report && sinceTold(report, dayOf, standing, done),
      over: quote ? overCeiling(quote, standing) : [],
    };
  }

  /** What was declined is not told again before it was answered, and taken over. */
  #isBefore(at: Date, { quote: { answeredAt, state } }: Offered): boolean {
    return state !== 'taken over' || answeredAt === null || at <= answeredAt;
  }

  /** The quote that stands; one whose days are over without an answer tells no price. */
  async #quote(siteId: string, today: string): Promise<Offered | null> {
    const [quote] = await this.records
      .of(Quote)
      .find({ siteId, state: In(['open', 'answered', 'taken over']) }, { offeredAt: 'DESC' });
    if (!quote || (quote.answeredAt === null && today > quote.validUntil)) return null;
    const all = await this.records.of(QuoteLine).find({ quoteId: quote.id }, { position: 'ASC' });
    const lines = all.filter(({ answer }) => answer !== 'declined');
    return {
      ...{ quote, at: quote.offeredAt },
      price: { lines, visits: lines.length > 0 ? (quote.visits ?? 0) : 0, zoneIds: all.map(({ zoneId }) => zoneId) },
      declined: new Set(all.filter(({ answer }) => answer === 'declined').map(keyOf)),
      ceilings: new Map(all.flatMap((line) => (line.ceiling === null ? [] : [[keyOf(line), line.ceiling] as const]))),
    };
  }

  async #programs(siteId: string, since: Date): Promise<Telling[]> {
    const programs = await this.records
      .of(Program)
      .find({ siteId, state: In(['handed over', 'superseded']), handedOverAt: MoreThanOrEqual(since) });
    return programs.flatMap(({ handedOverAt, price }) => (price && handedOverAt ? [{ at: handedOverAt, price }] : []));
  }

  async #report(siteId: string): Promise<Telling | null> {
    const [report] = await this.records
      .of(OwnerReportRecord)
      .find({ siteId, state: 'handed over' }, { createdAt: 'DESC' });
    const told = report?.made?.report;
    if (!told?.price) return null;
    // Its sums are those of the day on which it was made, not of the one on which it was given.
    return { at: report!.createdAt, price: { ...told.price, zoneIds: told.pages.map(({ zoneId }) => zoneId) } };
  }
}

/** What is done or begun of this year. */
const doneOf = (jobs: readonly Job[], from: string): ReadonlySet<string> =>
  new Set(
    jobs
      .filter(
        ({ state, day, latest }) => (state === 'done' || state === 'partly done') && (day ?? latest ?? from) >= from,
      )
      .map(keyOf),
  );

function sinceTold(
  { at, price, ...of }: Telling | Offered,
  dayOf: (at: Date) => string,
  standing: StandingPrice,
  done: ReadonlySet<string>,
): PriceToldAnswer {
  const { answeredAt = null, answeredBy = null } = 'quote' in of ? of.quote : {};
  return {
    on: dayOf(answeredAt ?? at),
    by: answeredBy,
    sum: yearSum(price),
    changes: priceSince(price, standing, done).map(({ zone, words, on, difference }) => ({
      ...{ zone, words, difference },
      on: on || null,
    })),
  };
}

/** What the year costs at most: with the amounts up to which open lines were agreed to, where each of them was. */
function mostOf({ ceilings }: Offered, { lines }: StandingPrice, sum: number): number | null {
  const open = lines.filter(({ price }) => price === null).map((line) => ceilings.get(keyOf(line)) ?? Infinity);
  const most = open.reduce((all, ceiling) => all + ceiling, sum);
  return open.length > 0 && Number.isFinite(most) ? Math.round(most * 100) / 100 : null;
}

/** Lines that were agreed to up to an amount, and cost more now that they have a price. */
function overCeiling({ ceilings }: Offered, { lines }: StandingPrice): string[] {
  return lines.flatMap((line) => {
    const most = ceilings.get(keyOf(line));
    return most !== undefined && line.price !== null && line.price > most ? [`${line.name}, ${line.zone}`] : [];
  });
}
