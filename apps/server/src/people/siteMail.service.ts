import { Injectable } from '@nestjs/common';
import { Installation } from '../platform/installation.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import type { Mail } from './mail.entity.ts';
import { MailService } from './mail.service.ts';
import { MemberService } from './member.service.ts';

/** What the people of a site are told by mail. */
export interface SiteNews {
  /** Those who read its report, or those who run the practice. */
  readonly to: 'clients' | 'owners';
  readonly siteId: string;
  readonly subject: string;
  /** What there is to know, in sentences. */
  readonly words: string;
}

/** Tells the clients of a site, or the practice's owners, what is new there; every message stands in the outbox. */
@Injectable()
export class SiteMail {
  constructor(
    private readonly records: Records,
    private readonly work: Work,
    private readonly installation: Installation,
    private readonly mail: MailService,
    private readonly members: MemberService,
  ) {}

  async tell({ to, siteId, subject, words }: SiteNews): Promise<void> {
    const { practiceId } = this.work;
    const people = (await this.members.members()).filter(({ role, siteIds }) =>
      to === 'owners' ? role === 'owner' : role === 'client' && siteIds.includes(siteId),
    );
    const page = `${this.installation.address}${to === 'owners' ? `/sites/${siteId}/logbook` : `/reports/${siteId}`}`;
    const mails = await this.records.scoped(async (manager) => {
      const written: Mail[] = [];
      for (const { person } of people)
        written.push(
          await this.mail.write(manager, {
            ...{ practiceId, to: person.email, subject },
            text: `${person.name},\n\n${words}\n\nRead it, and write back:\n${page}\n`,
          }),
        );
      return written;
    });
    for (const mail of mails) await this.mail.carry(mail);
  }
}
