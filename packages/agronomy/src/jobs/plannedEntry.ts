import type { Entry } from '../ledger/entries.ts';
import { entered } from '../ledger/putDown.ts';
import type { Material } from '../materials/material.ts';
import type { RemedyName } from '../remedies/remedyTable.ts';
import type { Sense } from '../units/present.ts';
import { entryKindOf } from './entryKindOf.ts';

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

/** A job as if it were done on a day. */
export const plannedEntry = (job: JobToDo, on: string, material: Material | undefined): Entry => ({
  ...{ id: job.id, zoneId: job.zoneId, on, kind: entryKindOf(job.remedy), state: 'done', words: job.name },
  rate: job.rate,
  unit: job.sense === 'layer' ? 'cm' : job.sense === 'liquidRate' ? 'mL/m2' : 'g/m2',
  area: areaLeft(job),
  ...{ material: material ? entered(material) : null, cce: null, correctsId: null, recordedAt: '' },
});

/** Grasses whose seed is so small that a breeze carries it. */
const SMALL_SEED: ReadonlySet<string> = new Set([
  ...(['creeping bentgrass', 'kentucky bluegrass', 'bermudagrass', 'centipedegrass', 'zoysiagrass'] as const),
]);

/** Whether half or more of a bag of seed, %, is carried by a breeze. */
export const isFineSeed = (seeds: ReadonlyArray<{ readonly grass: string; readonly share: number }> = []): boolean =>
  seeds.some(({ grass, share }) => share >= 50 && SMALL_SEED.has(grass));
