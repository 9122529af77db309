import {
  type AdviceSettings,
  type Blackout,
  type JobDose,
  type JobGround,
  type Material,
  type NormalYear,
  type PlaceClimate,
  type UnitSystem,
  climateOf,
  findGrass,
  jobProductOf,
  normalYear,
} from '@glenfold/agronomy';
import { dayIn, whereLies } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Any } from 'typeorm';
import { GroundService, type MeasuredZone } from '../ground/ground.service.ts';
import { Machine } from '../machines/machine.entity.ts';
import { materialOf } from '../materials/materials.service.ts';
import { ProductRecord } from '../materials/product.entity.ts';
import { PracticeService } from '../people/practice.service.ts';
import { Clock } from '../platform/clock.ts';
import { Records } from '../platform/records.ts';
import { SettingsService } from '../settings/settings.service.ts';
import type { Site } from '../sites/site.entity.ts';
import { Job } from './job.entity.ts';

/** All that the days of a site’s jobs rest on. */
export interface SeasonBasis {
  readonly site: Site;
  readonly zones: readonly MeasuredZone[];
  readonly today: string;
  readonly climate: PlaceClimate | undefined;
  readonly latitude: number | undefined;
  readonly settingsOf: (zoneId?: string) => AdviceSettings;
  readonly material: (productId: string | null) => Material | undefined;
  /** The ordinary year as the grass of a zone lives it. */
  readonly yearOf: (zone: MeasuredZone) => NormalYear | undefined;
  readonly groundOf: (zoneId: string, units: UnitSystem) => JobGround;
}

export const seasonOfZone = ({ grass, facts }: Pick<MeasuredZone, 'grass' | 'facts'>): 'cool' | 'warm' => {
  const largest = [...(facts?.mix ?? [])].sort((one, other) => other.share - one.share)[0]?.grass;
  const name = largest ?? grass;
  return name ? findGrass(name).season : 'cool';
};

/** Ground that is tilled and sown, not turf. */
export const isBare = ({ surface }: Pick<MeasuredZone, 'surface'>): boolean =>
  surface === 'seedbed' || surface === 'garden bed';

/** Reads what a season rests on, a site at a time. */
@Injectable()
export class SeasonBases {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly settings: SettingsService,
    private readonly practices: PracticeService,
    private readonly clock: Clock,
  ) {}

  async of(siteId: string, productIds?: readonly string[]): Promise<SeasonBasis> {
    const site = await this.ground.site(siteId);
    const zones = await this.ground.zones(siteId);
    const settingsOf = await this.settings.advice(siteId);
    const { timeZone } = await this.practices.current();
    const products = await this.records
      .of(ProductRecord)
      .findEver(productIds ? { id: Any([...new Set(productIds)]) } : {});
    const materials = new Map(products.map((product) => [product.id, materialOf(product)]));
    const latitude = whereLies(site, zones)?.[1];
    const climate = climateOf({ climate: site.climate, normals: site.normals, latitude });
    const years = new Map<'cool' | 'warm', NormalYear>();
    const yearOf = (zone: MeasuredZone): NormalYear | undefined => {
      if (!climate) return undefined;
      const season = seasonOfZone(zone);
      const known = years.get(season) ?? normalYear(climate, season, latitude);
      years.set(season, known);
      return known;
    };
    const today = dayIn(this.clock.now(), site.timeZone ?? timeZone);
    return {
      ...{ site, zones, today, climate, latitude, settingsOf, yearOf },
      material: (id) => (id === null ? undefined : materials.get(id)),
      groundOf: (zoneId, system) => {
        const zone = zones.find(({ id }) => id === zoneId);
        const blackouts: readonly Blackout[] = settingsOf(zoneId).rules?.blackouts ?? [];
        return { today, system, blackouts, year: zone && yearOf(zone) };
      },
    };
  }

  /** The machines of a practice, the deleted ones too: a job keeps the name of its own. */
  machines(): Promise<Machine[]> {
    return this.records.of(Machine).findEver({});
  }
}

/** A job as the core places it. */
export function doseOf(job: Job, { zones, material }: Pick<SeasonBasis, 'zones' | 'material'>): JobDose {
  const zone = zones.find(({ id }) => id === job.zoneId);
  const own = material(job.productId);
  return {
    ...{ id: job.id, zoneId: job.zoneId, key: job.key, remedy: job.remedy, name: job.name, position: job.position },
    ...{ from: job.from, to: job.to, own: job.own },
    product: own ? jobProductOf(own) : null,
    bare: zone ? isBare(zone) : false,
  };
}
