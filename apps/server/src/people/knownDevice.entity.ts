import { CreateDateColumn, Entity, PrimaryColumn } from 'typeorm';

/** A device from which a person has signed in: its cookie, kept as its hash. */
@Entity('known_device')
export class KnownDevice {
  @PrimaryColumn({ type: 'text' })
  tokenHash: string;

  @PrimaryColumn({ type: 'uuid' })
  personId: string;

  @CreateDateColumn({ type: 'timestamptz' })
  createdAt: Date;
}
