import { MailAnswer, OutboxAnswer } from '@glenfold/contract';
import { Injectable, Logger } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { Door } from '../platform/door.ts';
import { Problem, notFound } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { MailCarrier } from '../ports/mailCarrier.ts';
import { Mail } from './mail.entity.ts';

export type Message = Pick<Mail, 'practiceId' | 'to' | 'subject'> & { readonly text: string };

/** Messages to people: written with what they are about, carried afterwards, kept in the outbox either way. */
@Injectable()
export class MailService {
  readonly #log = new Logger('Mail');

  constructor(
    private readonly door: Door,
    private readonly records: Records,
    private readonly work: Work,
    private readonly carrier: MailCarrier,
  ) {}

  /** Write a message in the transaction of what it is about. */
  write(manager: EntityManager, message: Message): Promise<Mail> {
    return manager.save(manager.create(Mail, { ...message, sentAt: null, failure: null }));
  }

  /** Hand a written message to the mail server, if there is one. What fails stays in the outbox with the reason. */
  async carry({ id, to, subject, text }: Mail): Promise<void> {
    if (!this.carrier.leaves || text === null) return;
    const outcome = await this.carrier.carry({ to, subject, text }).then(
      () => ({ sentAt: new Date(), text: null, failure: null }),
      (error: unknown) => ({ failure: (error as Error).message }),
    );
    if (outcome.failure) this.#log.warn(`A message to ${to} was not taken: ${outcome.failure}`);
    await this.door.open((manager) => manager.update(Mail, id, outcome));
  }

  async outbox(): Promise<OutboxAnswer> {
    const { practiceId } = this.work;
    const mails = await this.records.scoped((manager) =>
      manager.find(Mail, { where: { practiceId }, order: { createdAt: 'DESC' }, take: 100 }),
    );
    return { carried: this.carrier.leaves, mails: mails.map(mailAnswer) };
  }

  async sendAgain(id: string): Promise<OutboxAnswer> {
    const { practiceId } = this.work;
    const mail = await this.records.scoped((manager) => manager.findOneBy(Mail, { id, practiceId }));
    if (!mail) return notFound();
    if (mail.text === null)
      throw new Problem(422, 'Sent already', 'The mail server took this message. Write a new one: invite them again.');
    await this.carry(mail);
    return this.outbox();
  }
}

function mailAnswer({ id, to, subject, text, createdAt, sentAt, failure }: Mail): MailAnswer {
  return { id, to, subject, text, writtenAt: createdAt.toISOString(), sentAt: sentAt?.toISOString() ?? null, failure };
}
