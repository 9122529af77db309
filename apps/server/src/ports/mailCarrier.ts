export interface Letter {
  readonly to: string;
  readonly subject: string;
  readonly text: string;
}

/** Takes messages to people. */
export abstract class MailCarrier {
  /** Messages leave the machine; otherwise they stay in the outbox to be handed over by the owner. */
  abstract readonly leaves: boolean;
  /** @throws with the mail server's reason */
  abstract carry(letter: Letter): Promise<void>;
}
