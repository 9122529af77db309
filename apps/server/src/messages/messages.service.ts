import type { MessageAnswer, MessageInput, MessageSide, MessagesAnswer, NoteInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { IsNull, In } from 'typeorm';
import { GroundService } from '../ground/ground.service.ts';
import type { Mail } from '../people/mail.entity.ts';
import { MailService } from '../people/mail.service.ts';
import { MemberService } from '../people/member.service.ts';
import { Clock } from '../platform/clock.ts';
import { Installation } from '../platform/installation.ts';
import { refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Message } from './message.entity.ts';

/** What is written about a site: a client's question and its answer, and notes from the field. */
@Injectable()
export class MessagesService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly mail: MailService,
    private readonly members: MemberService,
    private readonly work: Work,
    private readonly clock: Clock,
    private readonly installation: Installation,
  ) {}

  /** What was written about a site, as who asks may read it: a client reads nothing of the field. */
  async of(siteId: string): Promise<MessagesAnswer> {
    await this.ground.site(siteId);
    const sides: MessageSide[] =
      this.work.worker.role === 'client' ? ['office', 'client'] : ['office', 'client', 'field'];
    const found = await this.records.of(Message).find({ siteId, side: In(sides) }, { at: 'ASC' });
    return { messages: found.map((one) => this.#told(one)) };
  }

  /** Write about a site: as its client, or as the practice. What is answered is done with; the other side gets a mail. */
  async write(siteId: string, { id, words }: MessageInput): Promise<MessageAnswer> {
    const { name } = await this.ground.site(siteId);
    const { role } = this.work.worker;
    const side: MessageSide = role === 'client' ? 'client' : role === 'technician' ? 'field' : 'office';
    const { message, mails } = await this.records.together(async (of) => {
      const [known] = await of(Message).findEver({ id });
      if (known) return { message: known, mails: [] };
      const now = this.clock.now();
      if (side === 'office')
        for (const asked of await of(Message).find({ siteId, side: 'client', doneAt: IsNull() }))
          await of(Message).change(asked.id, { doneAt: now });
      const { person } = this.work.worker;
      const values = { siteId, personId: person?.id ?? null, author: person?.name ?? 'The practice', side, words };
      const made = await of(Message).add({ id, ...values, at: now, doneAt: side === 'office' ? now : null });
      return { message: made, mails: side === 'field' ? [] : await this.#mails(made, name) };
    });
    for (const mail of mails) await this.mail.carry(mail);
    return this.#told(message);
  }

  /** A note from the field, of a site or of a zone of it. */
  async note({ siteId, zoneId, ...input }: NoteInput): Promise<MessageAnswer> {
    const [zone] = zoneId ? await this.ground.zonesEver([zoneId]) : [];
    const of = siteId ?? zone?.siteId;
    if (!of) return refuse([{ field: 'siteId', message: 'Say of which site it is.' }]);
    const { role } = this.work.worker;
    return role === 'technician' ? this.write(of, input) : this.#noteOf(of, input);
  }

  /** Have done with what was written: it is read, and wants no answer. */
  async done(id: string): Promise<void> {
    const message = await this.records.of(Message).one(id);
    if (message.doneAt === null) await this.records.of(Message).change(id, { doneAt: this.clock.now() });
  }

  async #noteOf(siteId: string, { id, words }: MessageInput): Promise<MessageAnswer> {
    await this.ground.site(siteId);
    const { person } = this.work.worker;
    const made = await this.records.together(async (of) => {
      const [known] = await of(Message).findEver({ id });
      const values = {
        siteId,
        personId: person?.id ?? null,
        author: person?.name ?? '',
        side: 'field' as const,
        words,
      };
      return known ?? of(Message).add({ id, ...values, at: this.clock.now(), doneAt: null });
    });
    return this.#told(made);
  }

  /** A mail to each of the other side: the client's words to the owners, the practice's to the clients of the site. */
  async #mails({ side, author, words, siteId }: Message, site: string): Promise<Mail[]> {
    const { practiceId } = this.work;
    const to = (await this.members.members()).filter(({ role, siteIds }) =>
      side === 'client' ? role === 'owner' : role === 'client' && siteIds.includes(siteId),
    );
    const at = side === 'client' ? `/sites/${siteId}/logbook` : `/reports/${siteId}`;
    return Promise.all(
      to.map(({ person }) =>
        this.mail.write(this.work.manager!, {
          ...{ practiceId, to: person.email, subject: `${author} writes about ${site}` },
          text: `${author} writes about ${site}:\n\n${words}\n\nRead it and answer:\n${this.installation.address}${at}\n`,
        }),
      ),
    );
  }

  #told({ id, siteId, side, author, words, at, doneAt, personId }: Message): MessageAnswer {
    const own = personId !== null && personId === this.work.worker.person?.id;
    return { id, siteId, side, author, words, at: at.toISOString(), done: doneAt !== null, own };
  }
}
