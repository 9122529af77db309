import { type UnitSystem, present } from '../units/present.ts';
import { planned } from './balance.ts';
import { monthName } from '../units/monthOf.ts';
import type { Treatment } from '../remedies/treatment.ts';
import type { ZoneProgram } from './zoneProgram.ts';

/** Shares of a rate below which nobody would spread another one. */
const SAME = 0.02;

const rateOf = ({ sense, rate }: Treatment, system: UnitSystem): string =>
  rate ? present(sense, rate.value, system).text : 'no rate';

const monthsOf = ({ doses }: Treatment): string =>
  [...new Set(doses.flatMap(({ from }) => (from ? [monthName(Number(from.slice(5, 7)))] : [])))].join(', ');

/** What of a treatment is another than it was, in pieces of a sentence. */
function changedIn(was: Treatment, is: Treatment, system: UnitSystem): string[] {
  const [before, now] = [was.rate?.value ?? 0, is.rate?.value ?? 0];
  const months = [monthsOf(was), monthsOf(is)] as const;
  return [
    ...(Math.abs(before - now) > SAME * Math.max(before, now)
      ? [`${rateOf(is, system)} instead of ${rateOf(was, system)}`]
      : []),
    ...((was.supply?.name ?? '') !== (is.supply?.name ?? '') && is.supply
      ? [`${is.supply.name}${was.supply ? ` instead of ${was.supply.name}` : ''}`]
      : []),
    ...(was.doses.length !== is.doses.length && is.doses.length > 0
      ? [`in ${is.doses.length} instead of ${was.doses.length}`]
      : []),
    ...(months[0] !== months[1] && months[0] !== '' && months[1] !== ''
      ? [`in ${months[1]} instead of ${months[0]}`]
      : []),
  ];
}

/**
 * What a program says now that it did not when it was handed over, a sentence each.
 * @returns nothing where an owner would do the same by both
 */
export function differencesOf(was: ZoneProgram, is: ZoneProgram, system: UnitSystem): string[] {
  const [before, now] = [planned(was.treatments), planned(is.treatments)];
  return [
    ...now.flatMap((treatment) => {
      const old = before.find(({ key }) => key === treatment.key);
      if (!old)
        return [
          `${treatment.name}: new, ${rateOf(treatment, system)}${treatment.supply ? ` of ${treatment.supply.name}` : ''}.`,
        ];
      const pieces = changedIn(old, treatment, system);
      return pieces.length > 0 ? [`${treatment.name}: ${pieces.join(', ')}.`] : [];
    }),
    ...before
      .filter(({ key }) => !now.some((treatment) => treatment.key === key))
      .map(({ name }) => `${name}: no more.`),
  ];
}
