import { isExclusion } from '@glenfold/agronomy';
import type { Outline } from '@glenfold/agronomy/geometry';
import type {
  GroundFeatureAnswer,
  DrawingAnswer,
  DrawnThingsAnswer,
  DrawingChangesInput,
  DrawnRecord,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { notFound, refuse } from '../platform/problem.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { Threads } from '../platform/threads.ts';
import { GroundService, zoneAnswer } from './ground.service.ts';
import { PicturesService } from './pictures.service.ts';
import { GroundFeature, featureValues } from './groundFeature.entity.ts';
import { treatedAreas } from './treatedAreas.ts';
import { Zone } from './zone.entity.ts';

const entityOf = { zone: Zone, feature: GroundFeature } as const;

/** The plan of a site: outlines, and the things on the ground. Areas of drawn zones follow from it. */
@Injectable()
export class DrawingService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly pictures: PicturesService,
    private readonly threads: Threads,
  ) {}

  async plan(siteId: string): Promise<DrawingAnswer> {
    const zones = await this.ground.zones(siteId);
    return { zones: zones.map(zoneAnswer), ...(await this.things(siteId)) };
  }

  async things(siteId: string): Promise<DrawnThingsAnswer> {
    await this.ground.site(siteId);
    const features = await this.records.of(GroundFeature).find({ siteId }, { createdAt: 'ASC' });
    const underlay = await this.pictures.underlay(siteId);
    return { features: features.map(featureAnswer), underlay };
  }

  /**
   * Change the plan, all of it or nothing, and measure what changed anew.
   * @throws a stale problem when something was saved meanwhile, a refusal when a zone would be left without ground
   */
  change(siteId: string, changes: DrawingChangesInput): Promise<DrawingAnswer> {
    const { outlines = [], newZones = [], newFeatures = [], features = [], remove = [], restore = [] } = changes;
    return this.records.together(async (of) => {
      await this.ground.site(siteId);
      for (const record of remove) {
        await ofSite(of, record, siteId);
        if (record.what === 'zone' && record.into) {
          await ofSite(of, { what: 'zone', id: record.into }, siteId);
          await of(Zone).change(record.id, { joinedInto: record.into });
        }
        await of<Zone | GroundFeature>(entityOf[record.what]).remove(record.id);
      }
      for (const record of restore) {
        await ofSite(of, record, siteId);
        await (record.what === 'zone' ? this.ground.restoreZone(record.id) : of(GroundFeature).restore(record.id));
      }
      for (const feature of newFeatures) await of(GroundFeature).add({ ...featureValues(feature), siteId });
      for (const { id, version, ...feature } of features) {
        await ofSite(of, { what: 'feature', id }, siteId);
        await of(GroundFeature).change(id, featureValues(feature), { version, tell: featureAnswer });
      }
      const added = await this.ground.addZones(siteId, newZones);
      for (const { id, version, geometry = null, area } of outlines) {
        await ofSite(of, { what: 'zone', id }, siteId);
        const values = geometry === null && area !== undefined ? { geometry, area } : { geometry };
        const before = await this.ground.zone(id);
        const tell = (zone: Zone) => zoneAnswer({ ...before, ...zone });
        await of(Zone).change(id, values, { version, tell });
      }
      const zonesOnly = (records: readonly DrawnRecord[]) => records.filter(({ what }) => what === 'zone');
      const touched = [...added, ...outlines, ...zonesOnly(restore)].map(({ id }) => id);
      const things = [...newFeatures, ...features, ...[...remove, ...restore].filter(({ what }) => what === 'feature')];
      await this.#measure(of, siteId, things.length > 0 ? undefined : new Set(touched));
      return this.plan(siteId);
    });
  }

  /**
   * Areas follow the outlines less what is not treated; typed areas stay.
   * @param only the zones whose outlines changed; all, where things on the ground did
   */
  async #measure(of: RecordsOf, siteId: string, only?: ReadonlySet<string>): Promise<void> {
    const drawn = await of(GroundFeature).find({ siteId });
    const exclusions = drawn.flatMap(({ kind, geometry }) => (isExclusion(kind) ? [geometry as Outline] : []));
    const zones = (await this.ground.zones(siteId)).flatMap(({ id, name, area, geometry }) =>
      geometry && (!only || only.has(id)) ? [{ id, name, known: area, geometry }] : [],
    );
    const areas = await this.threads.run(treatedAreas, zones, exclusions);
    for (const [index, { id, name, known }] of zones.entries()) {
      const area = areas[index]!;
      if (area < 1)
        refuse([
          {
            field: 'outlines',
            message: `${name} would be left with ${area} m² to treat: move its outline or what lies on it, or delete the zone.`,
          },
        ]);
      if (Math.abs(area - known) > 0.05) await of(Zone).change(id, { area });
    }
  }
}

/** @throws a 404 problem for a record of another site */
async function ofSite(of: RecordsOf, { what, id }: DrawnRecord, siteId: string): Promise<void> {
  const found = await of<Zone | GroundFeature>(entityOf[what]).deleted(id);
  if (found.siteId !== siteId) notFound();
}

export function featureAnswer({
  id,
  version,
  siteId,
  kind,
  name,
  geometry,
  canopyRadius,
  height,
  properties,
}: GroundFeature): GroundFeatureAnswer {
  return { id, version, siteId, kind, name, geometry, canopyRadius, height, properties };
}
