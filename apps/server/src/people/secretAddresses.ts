import { Injectable } from '@nestjs/common';
import { Door } from '../platform/door.ts';
import { Work } from '../platform/work.ts';
import { Membership } from './membership.entity.ts';

/** Ends what somebody made of a kind, in the practice in which it is called. */
type End = (personId: string) => Promise<void>;

/**
 * Addresses that open something to whoever holds them, made by one person: they end as the sessions of that person do,
 * wherever they are kept.
 */
@Injectable()
export class SecretAddresses {
  readonly #ends: End[] = [];

  constructor(
    private readonly door: Door,
    private readonly work: Work,
  ) {}

  /** Say how those of a kind are ended. */
  register(end: End): void {
    this.#ends.push(end);
  }

  /** In the practice that is open. */
  async end(personId: string): Promise<void> {
    for (const end of this.#ends) await end(personId);
  }

  /** In every practice: nobody who once held one reads on. */
  async endEverywhere(personId: string): Promise<void> {
    const places = await this.door.open((manager) => manager.findBy(Membership, { personId }));
    for (const { practiceId } of places)
      await this.work.run({ practiceId, person: null, role: null }, () => this.end(personId));
  }
}
