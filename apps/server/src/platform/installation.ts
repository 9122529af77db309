/** How this installation runs; decided once at the start. */
export abstract class Installation {
  /** Address that people open, without a slash at the end; links in messages begin with it. */
  readonly address: string;
  /** The demo people may be entered with one click. */
  readonly demo: boolean;
  /** Whether this server keeps the clock going by which work is done each minute. */
  readonly clock: boolean;
  /** Whether heavy work has threads of its own; without, as in tests of what is not built, it is done at once. */
  readonly threads: boolean;
  /** smtp://… or smtps://…; without it messages stay in the outbox. */
  readonly smtp: string | undefined;
  /** Sender of messages that leave. */
  readonly mailFrom: string;
  /** Folder of photos and laboratories’ files; servers of one database share it. */
  readonly files: string;
  /** Address of map tiles with {z}, {x} and {y}, and whose they are; without it no page asks for any. */
  readonly tiles: { readonly address: string; readonly attribution: string } | undefined;
}

export function isSecure({ address }: Installation): boolean {
  return address.startsWith('https:');
}
