import {
  type BufferMethod,
  type SoilTest,
  type Stocked,
  type ZoneFacts,
  fizzes,
  lightOf,
  soilOf,
  soilTestOf,
} from '@glenfold/agronomy';
import type { MeasuredZone } from '../ground/ground.service.ts';
import type { ReadResult } from '../lab/lab.service.ts';
import { materialOf } from '../materials/materials.service.ts';
import type { ProductRecord } from '../materials/product.entity.ts';

/** Nothing instead of null, as the core has it. */
const known = <T>(value: T | null | undefined): T | undefined => value ?? undefined;

/** A zone as the core reads it. */
export function zoneFacts(zone: MeasuredZone): ZoneFacts {
  const { name, area, grass, surface, intensity, shade, clippings } = zone;
  const facts = zone.facts ?? {};
  return {
    name,
    area,
    grass: known(grass),
    // A bed is tilled as a seedbed is.
    ...(surface === 'garden bed' ? { surface: 'seedbed', garden: true } : { surface }),
    mix: surface === 'garden bed' ? undefined : known(facts.mix),
    intensity,
    ...lightOf(shade, facts.sunHours, grass),
    sunHours: known(facts.sunHours),
    clippings,
    soilGroup: soilOf(zone)?.group,
    aimPh: known(zone.aimPh),
    aimReason: known(zone.aimReason),
    slope: known(facts.slope),
    seaside: known(facts.seaside),
    use: known(facts.use),
    irrigation: known(facts.irrigation),
    measured: {
      thatch: known(zone.thatch),
      rootDepth: known(zone.rootDepth),
      probeStop: known(zone.probeStop),
      percolationSlowest: zone.measured.percolationSlowest?.value,
      percolationOverall: zone.measured.percolationOverall?.value,
      waterDrop: zone.measured.waterDrop?.value,
      infiltration: zone.measured.infiltration?.value,
      fizz: zone.measured.fizz && fizzes[zone.measured.fizz.value],
    },
    signs: facts.signs?.map(({ sign }) => sign),
    applied: zone.applied,
  };
}

/** A result as the core reads it; nothing where it has no pH. */
export function soilTest({ values, extractant, limeFactor, sample }: ReadResult): SoilTest | undefined {
  return soilTestOf({
    values,
    extractant,
    bufferMethod: values.bufferPh?.method as BufferMethod | undefined,
    limeFactor: known(limeFactor),
    depth: sample.depth,
    sampledOn: known(sample.sampledOn),
  });
}

/** A product of the list as the core takes it. */
export const stocked = (record: ProductRecord): Stocked => ({
  id: record.id,
  material: materialOf(record),
  price: record.packPrice,
  ...(record.deliveryPrice === null ? {} : { delivery: { price: record.deliveryPrice, load: record.loadSize } }),
});
