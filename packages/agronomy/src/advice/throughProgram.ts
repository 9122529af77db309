import { planned } from '../program/balance.ts';
import { programZone } from '../program/zoneProgram.ts';
import type { Stocked } from '../remedies/remedy.ts';
import type { Treatment } from '../remedies/treatment.ts';
import { climateOf } from '../season/climate.ts';
import { type Report, readReport } from './report.ts';

/** A year in which every job of every grass finds its months. */
const FROM = '2026-01-10';
const CLIMATE = 'temperate inland';

const unworked = ({ rate, supply, facts }: Treatment): boolean =>
  [rate, supply?.quantity, supply?.packs, ...facts.map(({ figure }) => figure)].some(
    (figure) => figure?.working.length === 0,
  );

/** What is wrong with the program of a report: doses that do not add up, more than the year takes, numbers without a working. */
export function programFaults(raw: unknown, materials: readonly Stocked[]): string[] {
  const { products: _own, ...report }: Report = readReport(raw);
  const { program } = programZone({ ...report, materials, from: FROM, climate: climateOf({ climate: CLIMATE }) });
  return planned(program.treatments)
    .flatMap((treatment) => {
      const { name, rate, doses, sense } = treatment;
      const sum = doses.reduce((all, dose) => all + dose.rate, 0);
      const adds = !rate || sense === 'count' || Math.abs(sum - rate.value) <= 1e-6 * Math.max(1, rate.value);
      return [
        ...(adds ? [] : [`the doses of ${name} come to ${sum}, its rate is ${rate.value}`]),
        ...(unworked(treatment) ? [`a number of ${name} has no working`] : []),
      ];
    })
    .concat(
      program.balance.flatMap(({ verdict, symbol, total }) =>
        verdict === 'over' ? [`${symbol} is over: ${total} g/m²`] : [],
      ),
    );
}
