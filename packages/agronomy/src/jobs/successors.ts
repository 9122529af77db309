/** As much of a job as tells which work it is. */
export interface WorkOfJob {
  readonly id: string;
  readonly zoneId: string;
  /** Of its treatment. */
  readonly key: string;
  readonly position: number;
  /** First day that its program gives it, `2027-04-01`; nothing where months are not known. */
  readonly from: string | null;
}

/** Two that have no month, or of which only one has, are as far apart as a year and more. */
const FAR = 400;

function daysBetween(one: string | null, other: string | null): number {
  if (one === null || other === null) return one === other ? 0 : FAR;
  return Math.abs(Date.parse(one) - Date.parse(other)) / 86_400_000;
}

/**
 * Which job of a program before each new one takes the place of: of the same treatment in the same zone the one that is
 * nearest in the year. Each is taken once; as many are taken as both programs have.
 *
 * @returns those of before, by the new ones’ ids
 */
export function successors<Former extends WorkOfJob>(
  former: readonly Former[],
  fresh: readonly WorkOfJob[],
): ReadonlyMap<string, Former> {
  const pairs = fresh
    .flatMap((one) =>
      former
        .filter(({ zoneId, key }) => zoneId === one.zoneId && key === one.key)
        .map((before) => ({
          ...{ id: one.id, before, days: daysBetween(before.from, one.from) },
          places: Math.abs(before.position - one.position),
        })),
    )
    .sort((a, b) => a.days - b.days || a.places - b.places);
  const taken = new Map<string, Former>();
  const gone = new Set<string>();
  for (const { id, before } of pairs)
    if (!taken.has(id) && !gone.has(before.id)) {
      taken.set(id, before);
      gone.add(before.id);
    }
  return taken;
}
