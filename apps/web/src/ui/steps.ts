import { type Step, steps } from '@glenfold/contract';

export const stepNames: Readonly<Record<Step, string>> = {
  ground: 'Ground',
  sampling: 'Sampling',
  lab: 'Lab',
  reading: 'Reading',
  rates: 'Rates',
  season: 'Season',
  logbook: 'Logbook',
  proof: 'Proof',
};

export function isStep(text: string | undefined): text is Step {
  return steps.includes(text as Step);
}

export function stepPath(siteId: string, step: Step, zoneId?: string | null): string {
  return `/sites/${siteId}/${step}${zoneId ? `/${zoneId}` : ''}`;
}
