import { type FieldTest, analytes, fieldTests } from '@glenfold/agronomy';
import type { Measured } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Any, In, IsNull } from 'typeorm';
import { grouped } from '../platform/grouped.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Measurement } from './measurement.entity.ts';

/** Tests with a knife or a probe that a zone's form asks for. */
export const zoneTests = ['thatch', 'rootDepth', 'probeStop'] as const satisfies readonly FieldTest[];
/** The newest of each, cm; nothing where it was never measured. */
export type ZoneTests = Record<(typeof zoneTests)[number], number | null>;

/** What hands measure of a zone, with the texture of a jar. */
const byHand = [...fieldTests, 'sand', 'silt', 'clay'] as const;

interface Recorded {
  /** The day of the measuring; nothing where nobody knows. */
  readonly takenOn: string | null;
  /** The zone that this one is parted from. */
  readonly inheritedFrom?: string | undefined;
}

const toldOf = ({ value, takenOn, depthFrom, depthTo }: Measurement): NonNullable<Measured[FieldTest]> => ({
  ...{ value, on: takenOn, depthFrom, depthTo },
});

const newestFirst = (a: Measurement, b: Measurement): number =>
  (b.takenOn ?? '').localeCompare(a.takenOn ?? '') || b.createdAt.getTime() - a.createdAt.getTime();

/** What was measured on the ground itself: each day keeps its own value. */
@Injectable()
export class FieldTestsService {
  constructor(
    private readonly records: Records,
    private readonly work: Work,
  ) {}

  /** The zones with what was measured on them last. */
  async with<T extends { readonly id: string }>(
    zones: readonly T[],
  ): Promise<Array<T & ZoneTests & { readonly measured: Measured }>> {
    const found = grouped(await this.#of(zones.map(({ id }) => id)), ({ zoneId }) => zoneId);
    return zones.map((zone) => {
      const own = found.get(zone.id) ?? [];
      const newest = zoneTests.map((test) => [test, own.find(({ analyte }) => analyte === test)?.value ?? null]);
      const measured = byHand.flatMap((analyte) => {
        const one = own.find((each) => each.analyte === analyte);
        return one ? [[analyte, toldOf(one)] as const] : [];
      });
      return { ...zone, ...(Object.fromEntries(newest) as ZoneTests), measured: Object.fromEntries(measured) };
    });
  }

  /**
   * Write down what was measured on a zone on a day of its place. What did not change is not measured anew; what was emptied is not known
   * any more, and its earlier values go too.
   */
  async record(
    of: RecordsOf,
    zoneId: string,
    tests: Partial<ZoneTests>,
    { takenOn, inheritedFrom }: Recorded,
  ): Promise<void> {
    const before = await this.#of([zoneId]);
    const inherited = inheritedFrom ? await this.#of([inheritedFrom]) : [];
    for (const test of zoneTests) {
      const value = tests[test];
      if (value === undefined) continue;
      const own = before.filter(({ analyte }) => analyte === test);
      // What a part brings along of the whole was measured when the whole was.
      const same = inherited.find(({ analyte, value: known }) => analyte === test && known === value);
      const day = same ? same.takenOn : takenOn;
      const [newest] = own;
      if (value === null) for (const { id } of own) await of(Measurement).remove(id);
      else if (newest?.value === value) continue;
      else if (newest?.takenOn === day) await of(Measurement).change(newest.id, { value });
      else await of(Measurement).add(this.#measured(zoneId, test, value, day));
    }
  }

  #measured(zoneId: string, analyte: FieldTest, value: number, takenOn: string | null): Partial<Measurement> {
    const unit = analytes[analyte].units[0] || null;
    const source = this.work.worker.person?.name ?? null;
    return { zoneId, analyte, value, unit, basis: 'element', takenOn, source };
  }

  /** Newest first. */
  async #of(zoneIds: readonly string[]): Promise<Measurement[]> {
    if (zoneIds.length === 0) return [];
    const found = await this.records.of(Measurement).find({
      zoneId: Any([...zoneIds]),
      resultId: IsNull(),
      analyte: In([...byHand]),
    });
    return found.sort(newestFirst);
  }
}
