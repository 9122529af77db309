import { type UnitSystem, present } from '../units/present.ts';
import { type Bar, tellBar } from '../reading/bars.ts';
import { type ReadingGroup, type ReadingLine, readingGroups, wordOf } from './lines.ts';
import { compareTests } from '../reading/testDifference.ts';

/** A value of a zone against that of the one it is laid beside. */
export interface Difference {
  /** "+0.4" */
  readonly told: string;
  /** By more than chance; nothing where nobody can say. */
  readonly differs: boolean | null;
}

/** One zone's value of a measure. */
export interface BesideCell {
  readonly zoneId: string;
  readonly bar: Bar;
  readonly told: string;
  /** The word of its bar: one of the five, or its own. */
  readonly word: string | null;
  /** Nine of ten such tests lie within. */
  readonly spread: { readonly low: number; readonly high: number } | null;
  readonly difference: Difference | null;
}

/** One measure of all zones. */
export interface BesideRow {
  readonly key: Bar['key'];
  readonly name: string;
  readonly group: ReadingGroup;
  /** In the order of the zones; nothing where it was not measured. */
  readonly cells: ReadonlyArray<BesideCell | null>;
}

/** A zone as it is laid beside the others. */
export interface BesideZone {
  readonly zoneId: string;
  readonly lines: readonly ReadingLine[];
  /** Of its newest test. */
  readonly cores?: number | undefined;
}

/** "+0.4", "−12 ppm" */
function change(sense: Bar['sense'], by: number, system: UnitSystem): string {
  const text = present(sense, Math.abs(by), system).text.replace(/^pH /, '');
  return `${by < 0 ? '−' : '+'}${text}`;
}

/**
 * All zones of a site side by side, measure by measure in the order of a reading.
 *
 * @param zones in walking order
 * @param against the zone whose values the others are laid beside; none when absent
 */
export function besideOf(zones: readonly BesideZone[], system: UnitSystem, against?: string): BesideRow[] {
  const keys = [
    ...new Map(
      zones.flatMap(({ lines }) =>
        lines.map(({ bar, group }) => [bar.key, { key: bar.key, name: bar.name, group }] as const),
      ),
    ).values(),
  ];
  const chosen = zones.find(({ zoneId }) => zoneId === against);
  const rows = keys.map(({ key, name, group }): BesideRow => {
    const own = chosen?.lines.find(({ bar }) => bar.key === key)?.bar;
    const cells = zones.map(({ zoneId, lines, cores }): BesideCell | null => {
      const line = lines.find(({ bar }) => bar.key === key);
      if (!line) return null;
      const { bar, spread } = line;
      const compared =
        chosen && own && !own.belowDetection && !bar.belowDetection && !own.word && !bar.word
          ? compareTests(key, { value: own.figure.value, cores: chosen.cores }, { value: bar.figure.value, cores })
          : undefined;
      return {
        ...{ zoneId, bar, told: tellBar(bar, system), word: wordOf(bar) },
        spread: spread && { low: spread.low, high: spread.high },
        difference:
          own && zoneId !== against && !own.word && !bar.word
            ? {
                told: change(bar.sense, bar.figure.value - own.figure.value, system),
                differs: compared?.result.differs ?? null,
              }
            : null,
      };
    });
    return { key, name, group, cells };
  });
  return readingGroups.flatMap((group) => rows.filter((row) => row.group === group));
}
