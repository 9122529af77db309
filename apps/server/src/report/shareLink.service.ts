import type { ShareLinkAnswer, ShareLinkInput } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { GroundService } from '../ground/ground.service.ts';
import { Membership } from '../people/membership.entity.ts';
import { PracticeService } from '../people/practice.service.ts';
import { SecretAddresses } from '../people/secretAddresses.ts';
import { hashToken, newToken } from '../people/secrets.ts';
import { Door } from '../platform/door.ts';
import { Problem } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Installation } from '../platform/installation.ts';
import { Work } from '../platform/work.ts';
import { ShareLink } from './shareLink.entity.ts';
import { Days } from '../settings/days.service.ts';

/** Addresses that show one site's report to whoever holds them. */
@Injectable()
export class ShareLinkService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly work: Work,
    private readonly days: Days,
    private readonly door: Door,
    private readonly installation: Installation,
    private readonly practices: PracticeService,
    addresses: SecretAddresses,
  ) {
    addresses.register((personId) => this.#end(personId));
  }

  /** Newest first; revoked ones stay in the list. */
  async links(siteId: string): Promise<ShareLinkAnswer[]> {
    await this.#mayShare(siteId);
    const { practiceId } = this.work;
    const clientId = this.#client();
    const links = await this.records.scoped((manager) =>
      manager.find(ShareLink, {
        where: { siteId, practiceId, ...(clientId ? { clientId } : {}) },
        order: { createdAt: 'DESC' },
        withDeleted: true,
      }),
    );
    return links.map((link) => answer(link, null));
  }

  /** The address stands in this answer only: the database keeps what it needs to recognise it, not the address. */
  async make(siteId: string, { purpose, days }: ShareLinkInput): Promise<ShareLinkAnswer> {
    await this.#mayShare(siteId);
    const token = newToken();
    const link = await this.records.of(ShareLink).add({
      siteId,
      purpose,
      madeBy: this.work.worker.person?.name ?? '',
      clientId: this.#client(),
      tokenHash: hashToken(token),
      expiresAt: new Date(Date.now() + days * 86_400_000),
    });
    return answer(link, `${this.installation.address}/shared/${token}`);
  }

  /** A client ends the links that they made. */
  async revoke(id: string): Promise<void> {
    const clientId = this.#client();
    if (clientId && (await this.records.of(ShareLink).one(id)).clientId !== clientId)
      throw new Problem(409, 'Somebody else’s', 'A link is taken back by whoever made it, or by the practice.');
    return this.records.of(ShareLink).remove(id);
  }

  /** What a client has shared ends as their sessions do. */
  async #end(clientId: string): Promise<void> {
    const links = this.records.of(ShareLink);
    for (const { id } of await links.find({ clientId })) await links.remove(id);
  }

  /** Do something for whoever holds a link, in the practice and with the site it is for. */
  async open<T>(token: string, work: (siteId: string) => Promise<T>): Promise<T> {
    const link = await this.door.open((manager) =>
      manager.findOne(ShareLink, { where: { tokenHash: hashToken(token) }, withDeleted: true }),
    );
    const ask = 'Ask the practice for a new one.';
    if (!link)
      throw new Problem(404, 'No such link', `This link is not complete, or was never made. Copy all of it. ${ask}`);
    if (link.deletedAt) throw new Problem(410, 'Revoked', `The practice took this link back. ${ask}`);
    if (link.expiresAt.getTime() < Date.now())
      throw new Problem(410, 'Expired', `This link was open until ${await this.#dayOf(link)}. ${ask}`);
    return this.work.run({ practiceId: link.practiceId, person: null, role: null }, async () => {
      await this.#stillShared(link);
      return work(link.siteId);
    });
  }

  /** Whoever is at work, where that is a client. */
  #client(): string | null {
    const { role, person } = this.work.worker;
    return role === 'client' ? (person?.id ?? null) : null;
  }

  async #mayShare(siteId: string): Promise<void> {
    await this.ground.site(siteId);
    if (this.#client() === null || (await this.practices.current()).clientsShare) return;
    throw new Problem(403, 'Not shared by clients', 'The practice makes such links itself: ask it for one.');
  }

  /** A client’s link ends with their access, and where the practice does not allow it any more. */
  async #stillShared({ clientId, siteId }: ShareLink): Promise<void> {
    if (clientId === null) return;
    const [member] = await this.records.of(Membership).find({ personId: clientId });
    if (member && !(member.role === 'client' && !member.siteIds.includes(siteId)))
      if ((await this.practices.current()).clientsShare) return;
    throw new Problem(
      410,
      'Ended',
      'Whoever shared this report does not share it any more. Ask them, or the practice.',
    );
  }

  /** The last day of a link, where its site lies. */
  #dayOf({ practiceId, siteId, expiresAt }: ShareLink): Promise<string> {
    return this.work.run({ practiceId, person: null, role: null }, () => this.days.on(siteId, expiresAt));
  }
}

function answer({ id, purpose, madeBy, expiresAt, deletedAt }: ShareLink, address: string | null): ShareLinkAnswer {
  const state = deletedAt ? 'revoked' : expiresAt.getTime() < Date.now() ? 'expired' : 'open';
  return { id, purpose, madeBy, expiresAt: expiresAt.toISOString(), state, address };
}
