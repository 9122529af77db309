import type { Job } from '../season/job.entity.ts';

/** Share of what the job asks for below which something is left. */
const ALL_OF = 0.98;

/**
 * What is said of an entry whose card was taken along before the program was handed over anew.
 * @param asked the job whose card it was; nothing for a correction, which is of no card; @param job what it counts for
 * @param share of what that asks for, where amounts are told
 */
export function laterProgramWords(
  asked: string | null,
  job: Pick<Job, 'id' | 'state'> | undefined,
  share: number | undefined,
): string[] {
  if (asked === null || !job) return [];
  if (job.state === 'superseded')
    return [
      'The program of this job was handed over anew meanwhile, and this work is not in it any more: what was done counts, and the rates take it off.',
    ];
  if (asked === job.id) return [];
  const counts =
    'Another program was handed over after this card was taken along: the entry counts for the job that took its place';
  return share !== undefined && share < ALL_OF
    ? [`${counts}, and is ${Math.round(share * 100)} % of what that asks for. Rates shows what is left.`]
    : [`${counts}.`];
}
