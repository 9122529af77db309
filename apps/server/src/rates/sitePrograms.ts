import {
  type AdviceSettings,
  type ProgramInput,
  type Reading,
  type SchoolsRead,
  type ShoppingList,
  type TestedZone,
  type Worth,
  type ZoneProgram,
  programZone,
  schoolsOf,
  shoppingList,
  type AskedFees,
  type OfferedYear,
  offeredYear,
  worthOfMeasuring,
} from '@glenfold/agronomy';
import { threaded } from '../platform/threaded.ts';

/** A zone as its program is worked out. */
export interface ZoneToPlan {
  readonly zoneId: string;
  readonly input: Omit<ProgramInput, 'materials' | 'system' | 'from' | 'climate'>;
}

/** Everything that is the same for all zones of a site. */
export interface Shared extends Pick<ProgramInput, 'materials' | 'system' | 'from' | 'climate'> {
  /** Packs that are there already, by material. */
  readonly stock: ReadonlyMap<string, number>;
  readonly currency: string;
  readonly work: AdviceSettings['work'];
}

export interface SitePrograms {
  readonly zones: ReadonlyArray<{
    readonly zoneId: string;
    readonly name: string;
    readonly reading: Reading;
    readonly program: ZoneProgram;
  }>;
  readonly list: ShoppingList;
  /** What each of them comes to, to the cent. */
  readonly offered: OfferedYear;
}

/** What each measurement that was not made is worth in a zone. */
export const zoneWorth = threaded(
  import.meta.url,
  'zoneWorth',
  (
    { input }: ZoneToPlan,
    { stock: _stock, currency: _currency, work: _work, ...shared }: Shared,
    asked: AskedFees | undefined,
  ): Worth[] => worthOfMeasuring({ ...input, ...shared }, asked ? { asked } : {}),
);

/** The report of a zone read by every school. */
export const zoneSchools = threaded(
  import.meta.url,
  'zoneSchools',
  ({ input }: ZoneToPlan, { stock: _stock, currency: _currency, work: _work, ...shared }: Shared): SchoolsRead =>
    schoolsOf({ ...input, ...shared }),
);

/** The programs of a site’s zones, and one list to buy for them. */
export const sitePrograms = threaded(
  import.meta.url,
  'sitePrograms',
  (zones: readonly ZoneToPlan[], { stock, currency, work, ...shared }: Shared): SitePrograms => {
    const prices = new Map(shared.materials.map(({ id, price }) => [id, price]));
    const tested = zones.flatMap(({ zoneId, input: { zone, test } }) => (test ? [{ zoneId, of: { zone, test } }] : []));
    const programs = zones.map(({ zoneId, input }) => {
      const others = tested.flatMap((other): TestedZone[] => (other.zoneId === zoneId ? [] : [other.of]));
      return { zoneId, name: input.zone.name, ...programZone({ ...input, ...shared, others }) };
    });
    const own = programs.map(({ zoneId, name, program }) => ({ zoneId, zone: name, treatments: program.treatments }));
    const list = shoppingList(
      own,
      (id) => stock.get(id) ?? 0,
      (id) => prices.get(id) ?? null,
      shared.system,
      currency,
      work,
    );
    return { zones: programs, list, offered: offeredYear(own, list, shared.system) };
  },
);
