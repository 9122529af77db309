import { type OwnerReport, type OwnerZone, ownerReport, programZone } from '@glenfold/agronomy';
import { threaded } from '../platform/threaded.ts';
import type { Shared, ZoneToPlan } from '../rates/sitePrograms.ts';
import { type SiteGround, type ZoneGround, readGround } from '../reading/readings.ts';

/** What of a zone no computation gives. */
type About = Pick<OwnerZone, 'name' | 'grass' | 'borrowed' | 'sampledOn'>;

/** One zone read and worked out. */
export const ownerZone = threaded(
  import.meta.url,
  'ownerZone',
  (about: About, ground: ZoneGround, site: SiteGround, plan: ZoneToPlan, shared: Shared): OwnerZone => {
    const { stock: _stock, currency: _currency, work: _work, ...rest } = shared;
    const { program } = programZone({ ...plan.input, ...rest });
    return { ...about, zoneId: ground.zoneId, zone: ground.read.zone, read: readGround(ground, site), program };
  },
);

/** The report of all of them. */
export const ownerWhole = threaded(
  import.meta.url,
  'ownerWhole',
  (input: Parameters<typeof ownerReport>[0]): OwnerReport => ownerReport(input),
);
