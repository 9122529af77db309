// Watching over what was started: it comes back when it is lost, each time after a longer pause. Node alone.

/** ms before the first try again; doubled from loss to loss, up to the longest. */
const FIRST_PAUSE = 1_000;
const LONGEST_PAUSE = 60_000;
/** ms after which what runs has been running well: the next loss is a first one again. */
const STEADY = 60_000;

/** The pauses of one thing that is watched over. */
export function growingPauses(now = Date.now) {
  let losses = 0;
  let since = now();
  return {
    began: () => (since = now()),
    /** @returns ms to wait before it is begun again */
    lost: () => {
      if (now() - since >= STEADY) losses = 0;
      losses += 1;
      return Math.min(LONGEST_PAUSE, FIRST_PAUSE * 2 ** (losses - 1));
    },
  };
}

export const inSeconds = (ms) => `${Math.round(ms / 1000)} s`;
