import type { Entry, EntryPart } from '../ledger/entries.ts';
import { entered, putDown } from '../ledger/putDown.ts';
import type { Material } from '../materials/material.ts';
import type { RemedyName } from '../remedies/remedyTable.ts';
import type { Sense } from '../units/present.ts';
import { entryKindOf } from '../remedies/entryKindOf.ts';

/** What goes into the same mix as a job’s own product. */
export interface MixedIn {
  readonly productId: string | null;
  readonly name: string;
  /** For the zone, kg, L or m³. */
  readonly quantity: number;
  readonly unit: 'kg' | 'L' | 'm3';
}

type MaterialOf = (productId: string | null) => Material | undefined;

/** What each thing of a mix comes to over an area, as the book keeps it. @param area m² that it went over */
export const partsOfMix = (mixed: readonly MixedIn[], area: number, materialOf: MaterialOf): EntryPart[] =>
  mixed.map(({ productId, name, quantity, unit }) => {
    const material = materialOf(productId);
    const { rate, unit: rateUnit } = putDown(
      { state: 'done', quantity },
      area,
      material ?? { kind: 'seed', packUnit: unit },
    );
    return {
      ...{ words: material?.name ?? name, productId, quantity, quantityUnit: unit, rate, unit: rateUnit },
      material: material ? entered(material) : null,
    };
  });

/** A job with what of it is still to be done. */
export interface JobToDo {
  readonly id: string;
  readonly zoneId: string;
  readonly remedy: RemedyName;
  readonly name: string;
  readonly state: string;
  /** In the unit of the sense. */
  readonly rate: number | null;
  readonly sense: Sense;
  /** What is left of it, in its unit. */
  readonly quantity: number | null;
  readonly unit: 'kg' | 'L' | 'm3' | null;
  readonly mixed?: readonly MixedIn[];
}

/** m² that a job of which a part is done still has to cover; nothing where that is the whole zone, or not known. */
export const areaLeft = ({
  state,
  rate,
  quantity,
  unit,
}: Pick<JobToDo, 'state' | 'rate' | 'quantity' | 'unit'>): number | null =>
  // prettier-ignore
  state === 'partly done' && rate && quantity !== null && unit === 'kg' ? (quantity * 1000) / rate : null;

/** A job as if it were done on a day. @param zoneArea m² */
export const plannedEntry = (
  job: JobToDo & { readonly productId: string | null },
  on: string,
  zoneArea: number,
  materialOf: MaterialOf,
): Entry => {
  const { mixed = [], quantity, sense } = job;
  const [material, area] = [materialOf(job.productId), areaLeft(job)];
  const unit = sense === 'layer' ? 'cm' : sense === 'liquidRate' ? 'mL/m2' : 'g/m2';
  // The rate of a mix is that of all of it: what it is named by goes down by its own amount, as it is booked.
  const own = mixed.length > 0 && material ? putDown({ state: 'done', quantity, area }, zoneArea, material) : undefined;
  return {
    ...{ id: job.id, zoneId: job.zoneId, on, kind: entryKindOf(job.remedy), state: 'done', words: job.name },
    ...(own && own.rate !== null ? { rate: own.rate, unit: own.unit } : { rate: job.rate, unit }),
    ...{ area, material: material ? entered(material) : null },
    mixed: partsOfMix(mixed, area ?? zoneArea, materialOf),
    ...{ cce: null, correctsId: null, recordedAt: '' },
  };
};

/**
 * What went down as a multiple of what the card asked for on as much ground: by what was weighed out where both are known,
 * since the rate of a mix is that of all of it.
 *
 * @param zoneArea m²
 */
export function overCard(
  {
    quantity,
    rate,
    area,
  }: { readonly quantity?: number | null; readonly rate: number | null; readonly area?: number | null },
  job: Pick<JobToDo, 'state' | 'rate' | 'quantity' | 'unit'>,
  zoneArea: number,
): number | undefined {
  const ground = areaLeft(job) ?? (job.state === 'partly done' ? undefined : zoneArea);
  if (quantity != null && job.quantity && ground !== undefined)
    return quantity / (job.quantity * ((area ?? ground) / ground));
  return rate !== null && job.rate ? rate / job.rate : undefined;
}

/** Grasses whose seed is so small that a breeze carries it. */
const SMALL_SEED: ReadonlySet<string> = new Set([
  ...(['creeping bentgrass', 'kentucky bluegrass', 'bermudagrass', 'centipedegrass', 'zoysiagrass'] as const),
]);

/** Whether half or more of a bag of seed, %, is carried by a breeze. */
export const isFineSeed = (seeds: ReadonlyArray<{ readonly grass: string; readonly share: number }> = []): boolean =>
  seeds.some(({ grass, share }) => share >= 50 && SMALL_SEED.has(grass));
