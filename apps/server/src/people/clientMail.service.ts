import { Injectable } from '@nestjs/common';
import { Installation } from '../platform/installation.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import type { Mail } from './mail.entity.ts';
import { MailService } from './mail.service.ts';
import { MemberService } from './member.service.ts';

/** What a client is told by mail, with what it is about. */
export interface ClientNews {
  readonly siteId: string;
  readonly siteName: string;
  /** "A quote for" — before the name of the site. */
  readonly subject: string;
  /** What there is to know, in sentences. */
  readonly words: string;
}

/** Tells the clients of a site what is new for them; every message stands in the practice's outbox. */
@Injectable()
export class ClientMail {
  constructor(
    private readonly records: Records,
    private readonly work: Work,
    private readonly installation: Installation,
    private readonly mail: MailService,
    private readonly members: MemberService,
  ) {}

  async tell({ siteId, siteName, subject, words }: ClientNews): Promise<void> {
    const { practiceId } = this.work;
    const to = (await this.members.members()).filter(
      ({ role, siteIds }) => role === 'client' && siteIds.includes(siteId),
    );
    const mails = await this.records.scoped(async (manager) => {
      const written: Mail[] = [];
      for (const { person } of to)
        written.push(
          await this.mail.write(manager, {
            ...{ practiceId, to: person.email, subject: `${subject} ${siteName}` },
            text: `${person.name},\n\n${words}\n\nRead it, and ask what you want to know:\n${this.installation.address}/reports/${siteId}\n`,
          }),
        );
      return written;
    });
    for (const mail of mails) await this.mail.carry(mail);
  }
}
