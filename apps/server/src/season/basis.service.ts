import {
  type DatedGround,
  type AdviceSettings,
  type Blackout,
  type JobDose,
  type JobGround,
  type Material,
  type NormalYear,
  type PlaceClimate,
  type UnitSystem,
  type WateredZone,
  climateOf,
  findGrass,
  emergenceOf,
  jobProductOfMix,
  lightOf,
  soilOf,
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
import { yearsOf } from './ordinaryYears.ts';
import type { SeasonPlace, SeasonZone } from './siteSeason.ts';

/** All that the days of a site’s jobs rest on. */
export interface SeasonBasis {
  readonly site: Site;
  readonly zones: readonly MeasuredZone[];
  readonly today: string;
  readonly climate: PlaceClimate | undefined;
  readonly latitude: number | undefined;
  readonly zoneOf: (zoneId: string) => MeasuredZone | undefined;
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
    const zonesById = new Map(zones.map((zone) => [zone.id, zone]));
    const latitude = whereLies(site, zones)?.[1];
    const climate = climateOf({ climate: site.climate, normals: site.normals, latitude });
    const years = yearsOf({ climate, latitude });
    const yearOf = (zone: MeasuredZone): NormalYear | undefined => years(seasonOfZone(zone));
    const today = dayIn(this.clock.now(), site.timeZone ?? timeZone);
    return {
      ...{ site, zones, today, climate, latitude, settingsOf, yearOf },
      zoneOf: (id) => zonesById.get(id),
      material: (id) => (id === null ? undefined : materials.get(id)),
      groundOf: (zoneId, system) => {
        const zone = zonesById.get(zoneId);
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

/** A zone as it is watered. */
export const wateredZone = (zone: MeasuredZone): WateredZone => ({
  season: seasonOfZone(zone),
  soilGroup: soilOf(zone)?.group,
  slope: zone.facts?.slope ?? undefined,
  rootDepth: zone.rootDepth ?? undefined,
  deepShade: lightOf(zone.shade, zone.facts?.sunHours, zone.grass).shade === 'deep',
  irrigation: zone.facts?.irrigation ?? undefined,
  // By cups and a ring, where they were out; dry cups would say that it never ends.
  precipitation: zone.measured.sprinklerRate?.value || undefined,
  infiltration: zone.measured.infiltration?.value || undefined,
});

/** Where and when a site is worked, for a thread. */
export const placeOf = ({ climate, latitude, today }: SeasonBasis, units: UnitSystem): SeasonPlace => ({
  ...{ climate, latitude, today, units },
});

/** All grasses of a zone. */
const grassesOf = ({ facts, grass }: MeasuredZone): readonly string[] =>
  facts?.mix?.map((part) => part.grass) ?? (grass ? [grass] : []);

/** A zone as its days are worked out, for a thread. */
export function seasonZone(zone: MeasuredZone, { settingsOf }: Pick<SeasonBasis, 'settingsOf'>): SeasonZone {
  const { id, facts, grass, shade, surface, clippings } = zone;
  const dry = facts?.drySpell === 'browned' || facts?.drySpell === 'died';
  return {
    ...{ zoneId: id, watered: wateredZone(zone), blackouts: settingsOf(id).rules?.blackouts ?? [] },
    grasses: grassesOf(zone),
    bare: isBare(zone),
    mown: grass
      ? {
          grass,
          top: lightOf(shade, facts?.sunHours, grass).shade === 'deep' || dry,
          fineTurf: surface === 'fine turf',
          clippings,
        }
      : null,
  };
}

/** A job as the core places it. */
export function doseOf(job: Job, { zoneOf, material }: Pick<SeasonBasis, 'zoneOf' | 'material'>): JobDose {
  const zone = zoneOf(job.zoneId);
  const materials = [job.productId, ...job.mixed.map(({ productId }) => productId)].flatMap((id) => material(id) ?? []);
  return {
    ...{ id: job.id, zoneId: job.zoneId, key: job.key, remedy: job.remedy, name: job.name, position: job.position },
    ...{ from: job.from, to: job.to, own: job.own },
    product: jobProductOfMix(materials),
    bare: zone ? isBare(zone) : false,
  };
}

/** The same before a fixed date: when what is sown is up, and how steep it lies. */
export function datedOf(job: Job, basis: Pick<SeasonBasis, 'zoneOf' | 'material'>): JobDose & DatedGround {
  const zone = basis.zoneOf(job.zoneId);
  const bags = [job.productId, ...job.mixed.map(({ productId }) => productId)];
  const seeds = bags.flatMap((id) => basis.material(id)?.seeds?.map(({ grass }) => grass) ?? []);
  return {
    ...doseOf(job, basis),
    emerge: emergenceOf(seeds.length > 0 ? seeds : zone ? grassesOf(zone) : []),
    slope: zone?.facts?.slope ?? undefined,
  };
}
