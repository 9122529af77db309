import { type UnitSystem, present } from '../units/present.ts';
import { firstCut, mowing } from '../season/mowing.ts';

const CM = 2.54;
/** Grass is cut before it stands so many times the height. */
const STANDS = 1.5;

/** A sward as it is mown. */
export interface MownSward {
  readonly grass: string;
  /** At the top of its range: shade, drought. */
  readonly top: boolean;
  /** A bowling or putting green, by its surface. */
  readonly fineTurf: boolean;
  readonly clippings: string;
}

/** How high a sward is kept, and when it is cut. */
export function mowingAdvice({ grass, top, fineTurf, clippings }: MownSward, system: UnitSystem) {
  const entry = mowing.heights.find((one) => one.grass === grass);
  if (!entry) return undefined;
  const green = fineTurf ? mowing.greens.find((one) => one.grass === grass) : undefined;
  const [low, high] = (green ?? entry).height;
  const height = (top ? high : fineTurf && !green ? low : (low + high) / 2) * CM;
  const say = (of: number): string => present(green ? 'closeCut' : 'depth', of, system).text;
  return {
    /** cm the mower is set to, and at which the grass is cut. */
    height,
    cutAt: height * STANDS,
    words: `Set the mower to ${say(height)}${top ? ', the top of its range for shade or drought' : ''}; cut before the grass stands ${say(height * STANDS)}, never more than a third off. Not wet on soft ground, not on frost. ${clippings === 'removed' ? 'Take the clippings off.' : 'Leave the clippings.'}${
      green
        ? ` A new or rested green comes down to it from ${say(mowing.greensDownFrom * CM)}, ${say(mowing.greensDownByWeek * CM)} a week.`
        : ''
    }`,
  };
}

/** The first cut of seedlings, in a sentence. */
export const firstCutWords = (grass: string, system: UnitSystem): string =>
  `First cut when it stands ${present('depth', firstCut(grass), system).text}, a third above its height; sharp blade, dry firm ground, and take the clippings off.`;
