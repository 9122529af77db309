import { type PlanGeometry, grassNames, soilGroups } from '@glenfold/agronomy';
import { Type } from 'class-transformer';
import { IsIn, IsInt, IsObject, IsOptional, IsString, Length, MaxLength, ValidateNested } from 'class-validator';
import { Amount, Taped, type TapedShape, oneOf, trim, trimOrNone } from './checks.ts';
import { ZoneFactsInput } from './facts.ts';

export const surfaces = ['turf', 'fine turf', 'seedbed'] as const;
export const intensities = ['low', 'medium', 'high'] as const;
export const shades = ['full sun', 'part', 'deep'] as const;
export const clippingsHabits = ['returned', 'removed'] as const;

/** An outline drawn in WGS84, when the zone is on the plan. */
export type ZoneGeometry = Extract<PlanGeometry, { readonly type: 'Polygon' | 'MultiPolygon' }>;

/** A property that is looked after. */
export class SiteInput {
  @trim
  @IsString({ message: 'Give the site a name.' })
  @Length(1, 120, { message: 'Give the site a name of 1 to 120 letters.' })
  name: string;

  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the place as text.' })
  @MaxLength(200, { message: 'Keep the place under 200 letters.' })
  place?: string | null;
}

/** What is measured in the field with a knife or a probe. */
export class MeasurementsInput {
  /** Thickness of the spongy layer over the soil. */
  @IsOptional()
  @Amount('Thatch', { min: 0, max: 15, unit: 'cm' })
  thatch?: number | null;

  @IsOptional()
  @Amount('Root depth', { min: 0, max: 100, unit: 'cm' })
  rootDepth?: number | null;

  /** Depth at which a probe stops, pushed with both hands. */
  @IsOptional()
  @Amount('Probe depth', { min: 0, max: 100, unit: 'cm' })
  probeStop?: number | null;
}

/** A part of a site that is sampled and treated as one. Areas in m², depths in cm. */
export class ZoneInput extends MeasurementsInput {
  @trim
  @IsString({ message: 'Give the zone a name.' })
  @Length(1, 80, { message: 'Give the zone a name of 1 to 80 letters.' })
  name: string;

  /** What is written on the bag; the laboratory sends it back. */
  @trim
  @IsString({ message: 'Give the zone a bag label.' })
  @Length(1, 24, { message: 'Give the zone a bag label of 1 to 24 letters, as it will stand on the bag.' })
  label: string;

  @Amount('Area', { min: 1, max: 1_000_000, unit: 'm²', remedy: 'Every rate is multiplied by it: measure it.' })
  area: number;

  /** How the area was found without a plan; the area then follows from it. */
  @IsOptional()
  @Taped()
  taped?: TapedShape | null;

  @IsIn(grassNames, oneOf('Grass', grassNames))
  grass: string;

  @IsIn(surfaces, oneOf('Surface', surfaces))
  surface: (typeof surfaces)[number];

  @IsIn(intensities, oneOf('Intensity', intensities))
  intensity: (typeof intensities)[number];

  @IsIn(shades, oneOf('Shade', shades))
  shade: (typeof shades)[number];

  @IsIn(clippingsHabits, oneOf('Clippings', clippingsHabits))
  clippings: (typeof clippingsHabits)[number];

  @IsOptional()
  @IsIn(soilGroups, oneOf('Soil', soilGroups))
  soilGroup?: (typeof soilGroups)[number] | null;

  @IsOptional()
  @Amount('Aim', { min: 4.5, max: 8, unit: 'pH' })
  aimPh?: number | null;

  /** Why the aim lies where it does; wanted for one outside the grass’s band. */
  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the reason as text.' })
  @MaxLength(200, { message: 'Keep the reason under 200 letters.' })
  aimReason?: string | null;
}

export class SiteAnswer extends SiteInput {
  @IsString() id: string;
  @IsInt() version: number;
}

export class ZoneAnswer extends ZoneInput {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() siteId: string;
  @IsOptional() @IsObject() geometry: ZoneGeometry | null;
  @ValidateNested() @Type(() => ZoneFactsInput) facts: ZoneFactsInput;
  @IsOptional() @IsObject() properties: Record<string, unknown> | null;
}

/** What of a zone a person changes, out of all that is told of it. */
export function zoneInput(zone: ZoneAnswer): ZoneInput {
  const { id: _id, version: _version, siteId: _siteId, geometry: _geometry, facts: _facts, ...rest } = zone;
  const { properties: _properties, ...input } = rest;
  return input;
}
