import { analyteWord } from '../analytes/analytes.ts';
import type { UnitSystem } from '../units/present.ts';
import type { Working } from '../working/working.ts';
import { type Bar, tellBar } from '../reading/bars.ts';
import { compareTests } from '../reading/testDifference.ts';

/** One analyte of the bad half and of the healthy half of a lawn. */
export interface PairLine {
  readonly key: Bar['key'];
  readonly name: string;
  readonly bad: string;
  readonly healthy: string;
  /** By more than chance; nothing where nobody can say. */
  readonly differs: boolean | null;
  readonly working: Working;
}

/** What the bad and the healthy half of a lawn tell together. */
export interface Pair {
  readonly words: string;
  readonly lines: readonly PairLine[];
}

export interface Half {
  readonly bars: readonly Bar[];
  readonly cores?: number | undefined;
}

/** The bad half of a lawn read against its healthy half: only what differs by more than chance tells. */
export function readPair(bad: Half, healthy: Half, system: UnitSystem): Pair {
  const lines = bad.bars.flatMap((bar): Array<PairLine & { readonly way: string }> => {
    const other = healthy.bars.find(({ key }) => key === bar.key);
    if (!other) return [];
    const compared =
      bar.belowDetection || other.belowDetection || bar.word || other.word
        ? undefined
        : compareTests(
            bar.key,
            { value: healthy.bars.find(({ key }) => key === bar.key)!.figure.value, cores: healthy.cores },
            { value: bar.figure.value, cores: bad.cores },
          );
    const say = (one: Bar): string => tellBar(one, system);
    return [
      {
        ...{ key: bar.key, name: bar.name, bad: say(bar), healthy: say(other) },
        differs: compared?.result.differs ?? null,
        working: compared?.working ?? [],
        way: (compared?.result.change ?? 0) > 0 ? 'higher' : 'lower',
      },
    ];
  });
  const apart = lines.filter(({ differs }) => differs === true);
  const word = (key: Bar['key']): string => (key === 'soilPh' ? 'pH' : analyteWord(key));
  return {
    words:
      apart.length === 0
        ? 'The bad half tests like the healthy half: what is wrong there is not in these numbers. Look at water, air, light and roots.'
        : `Where it fails, ${apart.map(({ key, way }) => `${word(key)} is ${way}`).join(', ')} than where the same lawn is healthy; the rest does not differ by more than chance.`,
    lines: lines.map(({ way: _way, ...line }) => line),
  };
}
