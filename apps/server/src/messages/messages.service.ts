import type { MessageAnswer, MessageInput, MessageSide, MessagesAnswer, NoteInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { IsNull, In } from 'typeorm';
import { GroundService } from '../ground/ground.service.ts';
import { SiteMail } from '../people/siteMail.service.ts';
import { Clock } from '../platform/clock.ts';
import { Problem, refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Message } from './message.entity.ts';

/** What is written about a site: a client's question and its answer, and notes from the field. */
@Injectable()
export class MessagesService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly mail: SiteMail,
    private readonly work: Work,
    private readonly clock: Clock,
  ) {}

  /** What was written about a site, as who asks may read it: a client reads nothing of the field. */
  async of(siteId: string): Promise<MessagesAnswer> {
    await this.ground.site(siteId);
    const sides: MessageSide[] =
      this.work.worker.role === 'client' ? ['office', 'client'] : ['office', 'client', 'field'];
    const found = await this.records.of(Message).find({ siteId, side: In(sides) }, { at: 'ASC' });
    return { messages: found.map((one) => this.#told(one)) };
  }

  /**
   * Write about a site: as its client, as the practice, or from the field. What is answered is done with; client and
   * practice tell each other by mail.
   */
  async write(siteId: string, { id, words }: MessageInput, side = this.#side()): Promise<MessageAnswer> {
    const { name } = await this.ground.site(siteId);
    const { person } = this.work.worker;
    const author = person?.name ?? 'The practice';
    const { message, fresh } = await this.records.together(async (of) => {
      const [known] = await of(Message).findEver({ id });
      if (known && (known.siteId !== siteId || known.personId !== (person?.id ?? null)))
        throw new Problem(409, 'Another message', 'This message is somebody else’s: write a new one.');
      if (known) return { message: known, fresh: false };
      const now = this.clock.now();
      if (side === 'office')
        for (const asked of await of(Message).find({ siteId, side: 'client', doneAt: IsNull() }))
          await of(Message).change(asked.id, { doneAt: now });
      const values = { siteId, personId: person?.id ?? null, author, side, words };
      return { message: await of(Message).add({ id, ...values, at: now, doneAt: side === 'office' ? now : null }), fresh: true }; // prettier-ignore
    });
    if (fresh && side !== 'field')
      await this.mail.tell({
        ...{ to: side === 'client' ? 'owners' : 'clients', siteId },
        ...{ subject: `${author} writes about ${name}`, words: `${author} writes about ${name}:\n\n${words}` },
      });
    return this.#told(message);
  }

  /** A note from the field, of a site or of a zone of it. */
  async note({ siteId, zoneId, ...input }: NoteInput): Promise<MessageAnswer> {
    const [zone] = zoneId ? await this.ground.zonesEver([zoneId]) : [];
    const of = siteId ?? zone?.siteId;
    if (!of) return refuse([{ field: 'siteId', message: 'Say of which site it is.' }]);
    return this.write(of, input, 'field');
  }

  /** Have done with what was written: it is read, and wants no answer. */
  async done(id: string): Promise<void> {
    const message = await this.records.of(Message).one(id);
    if (message.doneAt === null) await this.records.of(Message).change(id, { doneAt: this.clock.now() });
  }

  /** As which side somebody writes. */
  #side(): MessageSide {
    const { role } = this.work.worker;
    return role === 'client' ? 'client' : role === 'technician' ? 'field' : 'office';
  }

  #told({ id, siteId, side, author, words, at, doneAt, personId }: Message): MessageAnswer {
    const own = personId !== null && personId === this.work.worker.person?.id;
    return { id, siteId, side, author, words, at: at.toISOString(), done: doneAt !== null, own };
  }
}
