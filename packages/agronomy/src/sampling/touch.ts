/** What a walker says of a place where a core is to be taken. */
export interface CoreTouch {
  readonly state: 'waiting' | 'cored' | 'skipped';
  /** Depth that the probe reached, cm. */
  readonly pushed?: number | null | undefined;
  /** Length of the core that came up, cm. */
  readonly recovered?: number | null | undefined;
  readonly moisture?: string | null | undefined;
  /** Why it was skipped. */
  readonly reason?: string | null | undefined;
  readonly note?: string | null | undefined;
}

/** A core as a touch leaves it. */
export interface TouchedCore {
  readonly state: CoreTouch['state'];
  readonly pushed: number | null;
  readonly recovered: number | null;
  readonly moisture: string | null;
  readonly reason: string | null;
  readonly note: string | null;
}

/**
 * A core with a touch laid over it: what was measured belongs to a core that was taken, a reason to one that was not.
 * The device does this before there is a connection, the server once there is: both by this.
 */
export function touchCore({ state, pushed, recovered, moisture, reason, note }: CoreTouch): TouchedCore {
  const cored = state === 'cored';
  return {
    state,
    pushed: cored ? (pushed ?? null) : null,
    recovered: cored ? (recovered ?? null) : null,
    moisture: cored ? (moisture ?? null) : null,
    reason: state === 'skipped' ? (reason ?? null) : null,
    note: note ?? null,
  };
}

/** Whether a bag is full: none of its cores waits, and at least one is in it. */
export function isFilled(cores: ReadonlyArray<Pick<TouchedCore, 'state'>>): boolean {
  return cores.every(({ state }) => state !== 'waiting') && cores.some(({ state }) => state === 'cored');
}
