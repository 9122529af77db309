import { type UnitSystem, present } from '../units/present.ts';
import { firstCut, mowing } from './mowing.ts';

const CM = 2.54;
/** Grass is cut before it stands so many times the height. */
const STANDS = 1.5;

export interface MowingAdvice {
  /** cm the mower is set to, and at which the grass is cut. */
  readonly height: number;
  readonly cutAt: number;
  readonly words: string;
}

/** How high a sward is kept, and when it is cut. @param top at the top of its range: shade, drought */
export function mowingAdvice(grass: string, top: boolean, system: UnitSystem): MowingAdvice | undefined {
  const entry = mowing.heights.find((one) => one.grass === grass);
  if (!entry) return undefined;
  const [low, high] = entry.height;
  const height = (top ? high : (low + high) / 2) * CM;
  const say = (of: number): string => present('depth', of, system).text;
  return {
    height,
    cutAt: height * STANDS,
    words: `Set the mower to ${say(height)}${top ? ', the top of its range for shade or drought' : ''}; cut before the grass stands ${say(height * STANDS)}, never more than a third off. Not wet on soft ground, not on frost. Leave the clippings.`,
  };
}

/** The first cut of seedlings, in a sentence. */
export const firstCutWords = (grass: string, system: UnitSystem): string =>
  `First cut when it stands ${present('depth', firstCut(grass), system).text}, a third above its height; sharp blade, dry firm ground, and take the clippings off.`;
