import { ORDINARY_LIME, limeLeft } from './brought.ts';
import type { Applied } from '../ground/applied.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { WorkingBook, figure, type Working } from '../working/working.ts';

const SOURCE =
  'This application’s own rates of dissolving by mesh class (finer than 60 mesh, 20–60, 8–20), at 15 °C and pH 5.5; strength 90 % and mesh 60/30/10 where none is told';
/** Lime older than this at the day of sampling has shown in the test. */
const MONTHS_BACK = 24;
const MONTH = 30.44 * 86_400_000;

/** The last day that a date as it is remembered can mean. */
function lastDay(on: string): number {
  const [year = 0, month = 12, day] = on.split('-').map(Number);
  return day === undefined ? Date.UTC(year, month, 0) : Date.UTC(year, month - 1, day);
}

export interface AlreadyDown {
  /** g/m² of pure lime that still works, or has worked since the sample. */
  readonly pure: number;
  /** What was counted and what was not, one sentence each. */
  readonly words: readonly string[];
  readonly working: Working;
}

/**
 * Lime that the test has not seen: put down after the sample whole; of the 24 months before it, the share that had not
 * reacted on the day of sampling. What has no amount is said, not subtracted.
 *
 * @param sampledOn the day of the sample; nothing where it is not known, and then nothing is subtracted.
 */
export function limeAlreadyDown(
  applied: readonly Applied[],
  sampledOn: string | undefined,
  system: UnitSystem,
): AlreadyDown {
  const book = new WorkingBook();
  const words: string[] = [];
  let pure = 0;
  for (const { kind, on, rate, cce = ORDINARY_LIME.cce, mesh = ORDINARY_LIME.mesh } of applied) {
    if (kind !== 'lime') continue;
    const sampled = sampledOn === undefined ? undefined : lastDay(sampledOn);
    const months = sampled === undefined ? 0 : (sampled - lastDay(on)) / MONTH;
    if (months > MONTHS_BACK) continue;
    if (rate === undefined) {
      words.push(
        `Lime went down ${on}, how much is not told: it is not taken off. Give its amount under what was put down.`,
      );
      continue;
    }
    if (sampled === undefined) {
      words.push(`Lime went down ${on}, but the day of the sample is not told: it is not taken off. Give the day.`);
      continue;
    }
    const after = months < 0;
    const left = after ? 1 : limeLeft(mesh, months);
    const counted = (rate * cce * left) / 100;
    pure += counted;
    const told = present('limeRate', rate, system).text;
    words.push(
      after
        ? `${told} of lime put down ${on}, after the sample, is taken off.`
        : `Of the ${told} of lime put down ${on}, ${Math.round(left * 100)} % had not reacted when the sample was taken: that is taken off.`,
    );
    book.step({
      label: `Lime of ${on}`,
      formula: after
        ? 'rate × strength'
        : `rate × strength × share not yet reacted, ${mesh.fine} % fine, ${mesh.medium} % medium, ${mesh.coarse} % coarse`,
      numbers: `${figure(rate)} g/m² × ${figure(cce)} %${after ? '' : ` × ${figure(left)} after ${figure(months)} months`}`,
      result: counted,
      unit: 'g/m2',
      source: SOURCE,
    });
  }
  return { pure, words, working: book.entries };
}
