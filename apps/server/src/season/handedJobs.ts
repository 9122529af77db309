import { type UnitSystem, present, productIdOf, successors, tellSupply } from '@glenfold/agronomy';
import type { JobAheadAnswer, JobAnswer } from '@glenfold/contract';
import type { HandedDose } from '../rates/handOver.service.ts';
import type { FormerAmount, Job } from './job.entity.ts';

/** A job as it is made of a dose, with the one of before whose place it takes. */
export interface HandedJob {
  readonly job: Partial<Job> & Pick<Job, 'zoneId' | 'name' | 'moved'> & FormerAmount;
  readonly before: Job | undefined;
}

/** Jobs of the doses of a program: what takes the place of one of before keeps what people had decided of it. */
export function handedJobs(
  siteId: string,
  programId: string | null,
  doses: readonly HandedDose[],
  former: readonly Job[],
): HandedJob[] {
  const placeOfFormer = successors(
    former,
    doses.map(({ doseId, zoneId, position, treatment }) => ({
      ...{ id: doseId, zoneId, key: treatment.key, position, from: treatment.doses[position]!.from },
    })),
  );
  return doses.map(({ doseId, zoneId, position, treatment }) => {
    const { key, remedy, name, dose, sense, supply, others, cautions } = treatment;
    const { rate, quantity, from, to, own } = treatment.doses[position]!;
    const job = {
      ...{ siteId, zoneId, programId, doseId, key, remedy, name, dose, position },
      ...{ productId: productIdOf(supply), rate, sense, unit: supply?.unit ?? null, cautions, from, to, own },
      quantity: quantity ?? (supply ? supply.quantity.value / treatment.doses.length : null),
      mixed: others.map((other) => ({
        ...{ productId: productIdOf(other), name: other.name, unit: other.unit },
        quantity: other.quantity.value / treatment.doses.length,
      })),
      ...{ dated: false, moved: false, part: null, words: [], state: 'open' as const },
    };
    const before = placeOfFormer.get(doseId);
    return { job: before ? { ...job, ...decidedOf(before, job) } : job, before };
  });
}

/**
 * What becomes of jobs: those that go, those that are another amount, those that move to another day.
 *
 * @param told the former ones as they are told, by id; `amountOf` how much of a job, in words
 */
export function jobsAhead(
  fresh: readonly HandedJob[],
  former: readonly Job[],
  told: ReadonlyMap<string, JobAnswer>,
  amountOf: (job: FormerAmount) => string,
): JobAheadAnswer[] {
  const nameOf = ({ id, name }: Job): string => {
    const { dose, zone } = told.get(id)!;
    return [name, dose.includes(' of ') ? dose.toLowerCase() : null, zone].filter(Boolean).join(', ');
  };
  const kept = fresh.flatMap(({ job, before }): JobAheadAnswer[] => {
    if (!before) return [];
    const { zone } = told.get(before.id)!;
    const day = job.day ?? null;
    const another = !sameAmount(before, job);
    const moves = day !== before.day && before.day !== null;
    if (!another && !moves) return [];
    return [
      {
        ...{ kind: another ? 'changed' : 'moved', name: nameOf(before), zoneId: job.zoneId, zone },
        ...{ amount: amountOf(job), was: another ? amountOf(before) : null, day, from: moves ? before.day : null },
        decided: decisionsOf(told.get(before.id)!, before),
      },
    ];
  });
  const stay = new Set(fresh.flatMap(({ before }) => before?.id ?? []));
  const gone = former
    .filter(({ id }) => !stay.has(id))
    .map((job): JobAheadAnswer => ({
      ...{ kind: 'gone', name: nameOf(job), zoneId: job.zoneId, zone: told.get(job.id)!.zone },
      ...{ amount: amountOf(job), was: null, day: job.day, from: null },
      decided: decisionsOf(told.get(job.id)!, job),
    }));
  // What is lost comes first, and of it what somebody had decided.
  return [...gone.sort((one, other) => other.decided.length - one.decided.length), ...kept];
}

/** What people had decided of a job, a sentence each. */
function decisionsOf({ hold, person, machine, part }: JobAnswer, { moved }: Job): string[] {
  return [
    ...(hold ? [`on hold: ${hold.words ?? hold.reason}`] : []),
    ...(person ? [`given to ${person}`] : []),
    ...(machine ? [`with ${machine}`] : []),
    ...(part ? [`in the ${part}`] : []),
    ...(moved ? ['its day was set by hand'] : []),
  ];
}

/** What people had decided of a job whose place another takes, and what it was to be where that is another amount. */
function decidedOf(before: Job, job: FormerAmount): Partial<Job> {
  const { hold, personId, machineId, part, moved, day, movedBecause } = before;
  return {
    ...{ replacesId: before.id, hold, personId, machineId, part },
    ...(moved ? { moved, day, movedBecause, dated: true } : {}),
    was: sameAmount(before, job) ? before.was : amountKept(before),
  };
}

const amountKept = ({ rate, sense, quantity, unit, mixed, productId }: FormerAmount): FormerAmount => ({
  ...{ rate, sense, quantity, unit, mixed, productId },
});

/** Share by which an amount may differ and be the same still. */
const SAME = 0.005;
const near = (one: number | null, other: number | null): boolean =>
  one === null || other === null ? one === other : Math.abs(one - other) <= SAME * Math.max(Math.abs(one), 1e-9);

/** Whether two jobs put the same down, thing by thing. */
const sameAmount = (one: FormerAmount, other: FormerAmount): boolean =>
  one.productId === other.productId &&
  near(one.rate, other.rate) &&
  near(one.quantity, other.quantity) &&
  one.mixed.length === other.mixed.length &&
  one.mixed.every(
    ({ name, quantity }, at) => other.mixed[at]!.name === name && near(quantity, other.mixed[at]!.quantity),
  );

/** "Application 2 of 3". */
export function doseWords({ dose, position }: Job, doses: number): string {
  const word = `${dose.charAt(0).toUpperCase()}${dose.slice(1)}`;
  return doses > 1 ? `${word} ${position + 1} of ${doses}` : word;
}

/** "40 lb/1000 ft², 98 lb of Pelletised lime"; of a mix "0.1 in, 6 yd³ of Sand, 0.8 yd³ of peat". */
export function amountOf(
  { rate, sense, quantity, unit, mixed }: FormerAmount,
  product: string | null,
  units: UnitSystem,
): string {
  const used = [
    ...(rate !== null && sense !== 'count' ? [present(sense, rate, units).text] : []),
    ...(quantity !== null && unit !== null ? [tellSupply(quantity, unit, units)] : []),
  ];
  const parts = mixed.map((part) => `${tellSupply(part.quantity, part.unit, units)} of ${part.name}`);
  return [...(used.length > 0 ? [`${used.join(', ')}${product ? ` of ${product}` : ''}`] : []), ...parts].join(', ');
}
