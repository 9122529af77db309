/** A push that went less deep than this share of what was wanted was stopped. */
const STOPPED = 0.9;
/** A core shorter than this share of its push was lost or pressed together. */
const SHORT = 0.75;

export type CoreFinding = 'whole' | 'stopped' | 'short';

export interface CorePush {
  readonly finding: CoreFinding;
  /** For the person with the probe in the hand. */
  readonly words: string;
}

/**
 * What one push of the probe tells. How deep it went and how long the core is are two numbers: a push that stops reads
 * compaction, stones or roots; a short core out of soft ground reads a jammed tube.
 *
 * @param wanted depth of sampling, cm; `pushed` depth reached, cm; `recovered` length of the core, cm.
 */
export function corePush(wanted: number, pushed: number, recovered: number): CorePush {
  if (recovered > pushed * 1.15)
    return { finding: 'short', words: 'The core is longer than the push was deep: measure both again.' };
  const stopped = pushed < wanted * STOPPED;
  const short = recovered < pushed * SHORT;
  if (stopped && !short)
    return {
      finding: 'stopped',
      words:
        'The push stopped early: compaction, a stone or a root. Try a step aside; if it stops there too, it is compaction, and this depth is worth keeping.',
    };
  if (short)
    return {
      finding: 'short',
      words:
        'The core is short of the push: the tube is jammed, or soft ground was pressed together. Clear the tube, wipe it with cooking oil, never with a penetrating oil, and push again close by.',
    };
  return { finding: 'whole', words: 'A whole core.' };
}

/** The depth at which pushes stop, cm: the middle of those that were stopped, once there are three; else nothing. */
export function probeStop(
  wanted: number,
  pushes: ReadonlyArray<{ readonly pushed: number; readonly recovered: number }>,
): number | undefined {
  const stopped = pushes
    .filter(({ pushed, recovered }) => corePush(wanted, pushed, recovered).finding === 'stopped')
    .map(({ pushed }) => pushed)
    .sort((one, other) => one - other);
  return stopped.length < 3 ? undefined : stopped[Math.floor(stopped.length / 2)];
}
