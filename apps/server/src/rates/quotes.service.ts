import { type UnitSystem, yearSum } from '@glenfold/agronomy';
import { type QuoteAnswer, type QuoteAnswersInput, type QuoteInput, allows, dayIn } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { In } from 'typeorm';
import { GroundService } from '../ground/ground.service.ts';
import { SiteMail } from '../people/siteMail.service.ts';
import { Clock } from '../platform/clock.ts';
import { Problem, refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Days } from '../settings/days.service.ts';
import { Programs } from './programs.service.ts';
import { Quote, QuoteLine } from './quote.entity.ts';
import { RatesService } from './rates.service.ts';

const STANDING = ['open', 'answered'] as const;
const DAY = 86_400_000;

/** A site’s program offered line by line, and what its owner says to it. */
@Injectable()
export class Quotes {
  constructor(
    private readonly records: Records,
    private readonly rates: RatesService,
    private readonly ground: GroundService,
    private readonly programs: Programs,
    private readonly work: Work,
    private readonly clock: Clock,
    private readonly days: Days,
    private readonly mail: SiteMail,
  ) {}

  /** Offer what the program says now; what was offered before is withdrawn. */
  async offer(siteId: string, units: UnitSystem, input: QuoteInput): Promise<QuoteAnswer> {
    const quote = await this.#offer(siteId, units, input);
    const { name } = await this.ground.site(siteId);
    const words = `There is a quote for the work at ${name}. It stands until ${quote.validUntil}: say yes or no to each line.`;
    await this.mail.tell({ to: 'clients', siteId, subject: `A quote for ${name}`, words });
    return quote;
  }

  async #offer(siteId: string, units: UnitSystem, { days, note = null }: QuoteInput): Promise<QuoteAnswer> {
    const { zones, offered, settings, timeZone } = await this.rates.toOffer(siteId, units);
    const { lines, visits } = offered;
    if (lines.length === 0)
      throw new Problem(
        409,
        'Nothing to offer',
        'The program of this site has nothing in it yet. Enter a test, or add a treatment.',
      );
    const remedies = new Map(
      zones.flatMap(({ zoneId, program: { treatments } }) =>
        treatments.map(({ key, remedy }) => [`${zoneId} ${key}`, remedy] as const),
      ),
    );
    const offeredAt = this.clock.now();
    const validUntil = dayIn(new Date(offeredAt.getTime() + days * DAY), timeZone);
    return this.records.together(async (of) => {
      // Of two that are offered at once one stands.
      await this.records.alone(`quotes of ${siteId}`);
      await this.#withdrawStanding(siteId);
      const quote = await of(Quote).add({
        ...{ siteId, state: 'open', offeredAt, validUntil, note, units, currency: settings.currency },
        visits: visits > 0 ? visits : null,
      });
      await of(QuoteLine).addAll(
        lines.map(({ when, ...line }, position) => ({
          ...{ ...line, quoteId: quote.id, position, doneIn: when },
          remedy: remedies.get(`${line.zoneId} ${line.key}`)!,
        })),
      );
      return this.#answer(quote);
    });
  }

  /** The quote of a site that was offered last; nothing where none was, or it was withdrawn. */
  async last(siteId: string): Promise<QuoteAnswer | null> {
    await this.ground.site(siteId);
    const [quote] = await this.records.of(Quote).find({ siteId }, { offeredAt: 'DESC' });
    return quote && quote.state !== 'withdrawn' ? this.#answer(quote) : null;
  }

  /** A quote with its lines, as it is printed. */
  async whole(id: string): Promise<QuoteAnswer & Pick<Quote, 'siteId' | 'units'>> {
    const quote = await this.records.of(Quote).one(id);
    return { ...(await this.#answer(quote)), siteId: quote.siteId, units: quote.units };
  }

  /**
   * Keep what an owner says to some lines.
   * @param siteId of the report in which it was read: a quote of another site is not found
   */
  async say(
    siteId: string | null,
    id: string,
    { lines, by, words = null, version }: QuoteAnswersInput,
  ): Promise<QuoteAnswer> {
    return this.records.together(async (of) => {
      // Until this is kept nobody else answers, takes over or withdraws.
      const quote = await of(Quote).locked(id);
      if (siteId !== null && quote.siteId !== siteId)
        throw new Problem(404, 'Not found', 'This quote belongs to another site.');
      await this.#mayBeAnswered(quote);
      const known = await of(QuoteLine).find({ quoteId: id }, { position: 'ASC' });
      const strange = lines.findIndex((line) => !known.some((one) => one.id === line.id));
      if (strange >= 0)
        return refuse([{ field: `lines.${strange}.id`, message: 'This line is not in the quote: load it again.' }]);
      const open = lines.findIndex(
        ({ id: lineId, answer, ceiling = null }) =>
          answer === 'accepted' && ceiling === null && known.find((one) => one.id === lineId)!.price === null,
      );
      if (open >= 0) {
        const { name, zone } = known.find((one) => one.id === lines[open]!.id)!;
        const message = `The price of ${name}, ${zone}, is open: say what it may cost at most, or ask before you say yes.`;
        return refuse([{ field: `lines.${open}.ceiling`, message }]);
      }
      const contrary = lines.some(({ id: lineId, answer }) => {
        const before = known.find((one) => one.id === lineId)!.answer;
        return before !== null && before !== answer;
      });
      if (contrary && version !== undefined && version !== quote.version)
        throw new Problem(
          409,
          'Answered meanwhile',
          `${quote.answeredBy ?? 'Somebody'} answered this otherwise after you opened it, so nothing was changed here. Look at what stands now, and answer again if you still want to.`,
        );
      for (const { id: lineId, answer, ceiling = null } of lines) {
        const { price } = known.find((one) => one.id === lineId)!;
        await of(QuoteLine).change(lineId, {
          answer,
          ceiling: answer === 'accepted' && price === null ? ceiling : null,
        });
      }
      const said = new Map(lines.map((line) => [line.id, line.answer]));
      const whole = known.every((line) => (said.get(line.id) ?? line.answer) !== null);
      return this.#answer(
        await of(Quote).change(id, {
          ...{ answeredAt: this.clock.now(), answeredBy: by, answerWords: words },
          state: whole ? 'answered' : 'open',
        }),
      );
    });
  }

  /** Take the answers over into the program: what was declined is left out, with who said so. */
  async takeOver(id: string): Promise<QuoteAnswer> {
    return this.records.together(async (of) => {
      const quote = await of(Quote).locked(id);
      if (quote.state === 'taken over') return this.#answer(quote);
      if (quote.answeredAt === null)
        throw new Problem(409, 'Not answered', 'Nobody has answered this quote yet. Enter what its owner says first.');
      const day = await this.days.on(quote.siteId, quote.answeredAt);
      const declined = await of(QuoteLine).find({ quoteId: id, answer: 'declined' });
      for (const { zoneId, key, remedy } of declined)
        await this.programs.leaveOut(
          quote.siteId,
          zoneId,
          { key, remedy },
          `${quote.answeredBy} declined it on ${day}.`,
        );
      return this.#answer(await of(Quote).change(id, { state: 'taken over' }));
    });
  }

  async withdraw(id: string): Promise<void> {
    await this.records.together(async (of) => {
      const { state } = await of(Quote).locked(id);
      if (state === 'taken over')
        throw new Problem(409, 'Taken over', 'Its answers are in the program already. Offer a new one instead.');
      await of(Quote).change(id, { state: 'withdrawn' });
    });
  }

  async #withdrawStanding(siteId: string): Promise<void> {
    const standing = await this.records.of(Quote).find({ siteId, state: In([...STANDING]) });
    for (const { id } of standing) await this.records.of(Quote).change(id, { state: 'withdrawn' });
  }

  async #mayBeAnswered(quote: Quote): Promise<void> {
    if (quote.state === 'withdrawn')
      throw new Problem(409, 'Withdrawn', 'The practice has withdrawn this quote. Look for a newer one, or ask.');
    if (quote.state === 'taken over')
      throw new Problem(
        409,
        'Settled',
        'This quote was answered and the work is being planned. Ask the practice for changes.',
      );
    if (await this.#isOver(quote))
      throw new Problem(409, 'Over', `This quote stood until ${quote.validUntil}. Ask the practice for a new one.`);
  }

  async #isOver({ siteId, validUntil }: Quote): Promise<boolean> {
    return (await this.days.on(siteId)) > validUntil;
  }

  async #answer(quote: Quote): Promise<QuoteAnswer> {
    const lines = await this.records.of(QuoteLine).find({ quoteId: quote.id }, { position: 'ASC' });
    const { role } = this.work.worker;
    const priced = role === null || allows(role, 'costs.read');
    const sum = (of: readonly QuoteLine[]): number | null =>
      priced ? yearSum({ lines: of, visits: of.length > 0 ? (quote.visits ?? 0) : 0 }) : null;
    const agreed = lines.filter(({ answer, ceiling }) => answer === 'accepted' && ceiling !== null);
    const over = STANDING.some((state) => state === quote.state) && (await this.#isOver(quote));
    return {
      ...{ id: quote.id, version: quote.version, note: quote.note, currency: quote.currency },
      state: over ? 'expired' : quote.state,
      offeredAt: quote.offeredAt.toISOString(),
      validUntil: quote.validUntil,
      lines: lines.map(({ id, zone, name, words, amount, doneIn, caution, price, answer, ceiling }) => ({
        ...{ id, zone, name, words, amount, when: doneIn, caution, answer },
        ...{ price: priced ? price : null, ceiling: priced ? ceiling : null, priceOpen: price === null },
      })),
      visits: priced ? quote.visits : null,
      total: sum(lines),
      unpriced: priced ? lines.filter(({ price }) => price === null).length : 0,
      accepted: lines.some(({ answer }) => answer !== null)
        ? sum(lines.filter(({ answer }) => answer === 'accepted'))
        : null,
      ceilings: priced && agreed.length > 0 ? agreed.reduce((all, { ceiling }) => all + ceiling!, 0) : null,
      ...{ answeredBy: quote.answeredBy, answerWords: quote.answerWords },
      answeredAt: quote.answeredAt?.toISOString() ?? null,
      open: !over && STANDING.some((state) => state === quote.state),
      pdf: `/api/quotes/${quote.id}/quote.pdf`,
    };
  }
}
