import { MailCarrier } from '../ports/mailCarrier.ts';

/** Stands in for a mail server: nothing leaves the machine, the outbox shows every message. */
export class OutboxOnly extends MailCarrier {
  readonly leaves = false;

  carry(): Promise<void> {
    return Promise.resolve();
  }
}
