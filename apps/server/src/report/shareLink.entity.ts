import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** An address that shows one site's report to whoever holds it; deleted when revoked. */
@Entity('share_link')
export class ShareLink extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  /** Who it is for. */
  @Column({ type: 'text' })
  purpose: string;

  @Column({ type: 'text' })
  madeBy: string;

  /** The client who made it: it ends with their access; nothing where the practice made it. */
  @Column({ type: 'uuid', nullable: true })
  clientId: string | null;

  /** SHA-256 of what stands in the address. */
  @Column({ type: 'text' })
  tokenHash: string;

  @Column({ type: 'timestamptz' })
  expiresAt: Date;
}
