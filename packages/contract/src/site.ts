import {
  type DrawnGeometry,
  type FieldTest,
  climateNames,
  grassNames,
  soilGroups,
  surfaces as turfSurfaces,
} from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsEmail,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max as MaxNumber,
  MaxLength,
  Min as MinNumber,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import {
  Amount,
  type AmountOptions,
  Held,
  KnownTimeZone,
  Place,
  noneWhenEmpty,
  oneOf,
  trim,
  trimOrNone,
} from './checks.ts';
import { Taped, type TapedShape } from './drawnChecks.ts';
import { AppliedAnswer } from './logbook.ts';
import { ZoneFactsInput } from './facts.ts';

/** What stands on the ground; a garden bed is sampled and read, and given no lawn feed. */
export const surfaces = [...turfSurfaces, 'garden bed'] as const;
export const intensities = ['low', 'medium', 'high'] as const;
export const shades = ['full sun', 'part', 'deep'] as const;
export const clippingsHabits = ['returned', 'removed'] as const;

/** An outline drawn in WGS84, when the zone is on the plan. */
export type ZoneGeometry = Extract<DrawnGeometry, { readonly type: 'Polygon' | 'MultiPolygon' }>;

export const contactRoles = ['owner', 'keeper', 'tenant', 'agent', 'neighbour', 'other'] as const;

/** Somebody to be asked or told about a site. */
export class ContactInput {
  @trim
  @IsString({ message: 'Give the person a name.' })
  @Length(1, 120, { message: 'Give the person a name of 1 to 120 letters.' })
  name: string;

  @IsIn(contactRoles, oneOf('Role', contactRoles))
  role: (typeof contactRoles)[number];

  @trimOrNone
  @IsOptional()
  @Matches(/^\+?[\d\s()/.-]{4,30}$/, { message: 'Write the phone number in digits, such as +44 20 7946 0018.' })
  phone?: string | null;

  @trimOrNone
  @IsOptional()
  @IsEmail({}, { message: 'Give an e-mail address, such as name@practice.example.' })
  email?: string | null;

  @trimOrNone
  @IsOptional()
  @IsString()
  @MaxLength(200, { message: 'Keep the note under 200 letters.' })
  note?: string | null;
}

export const accessWords = {
  address: 'Postal address',
  gate: 'Gate and key',
  dog: 'Dog',
  tip: 'Where a load can be tipped',
  parking: 'Parking',
  water: 'Water point',
  caution: 'Watch out for',
} as const;
export type AccessKey = keyof typeof accessWords;
export const accessKeys = Object.keys(accessWords) as readonly AccessKey[];

/** How to get in, and what to know before one does. */
export class AccessInput implements Readonly<Partial<Record<AccessKey, string | null>>> {
  readonly [key: string]: string | null | undefined;
}
for (const key of accessKeys) {
  MaxLength(300, { message: `Keep it under 300 letters.` })(AccessInput.prototype, key);
  IsString({ message: 'Write it as text.' })(AccessInput.prototype, key);
  IsOptional()(AccessInput.prototype, key);
  trimOrNone(AccessInput.prototype, key);
}

const MONTH_DAY = /^(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/;
const monthDay = { message: 'Write the day as month and day, 04-20 for 20 April.' };

function Months(label: string, { min, max, unit }: AmountOptions & { readonly unit: string }): PropertyDecorator {
  const each = { each: true, message: `${label} is a number of ${min} to ${max} ${unit} in every month.` };
  return (target, key) => {
    MaxNumber(max, each)(target, key);
    MinNumber(min, each)(target, key);
    IsNumber({}, each)(target, key);
    ArrayMaxSize(12, { message: `${label}: give twelve months, January first.` })(target, key);
    ArrayMinSize(12, { message: `${label}: give twelve months, January first.` })(target, key);
    IsArray({ message: `${label}: give twelve months, January first.` })(target, key);
  };
}

/** Normals of a place's own: means by month, January first; °C and mm. */
export class NormalsInput {
  @Months('The mean low', { min: -60, max: 50, unit: '°C' })
  @Held(({ low, high }: NormalsInput) => {
    const at = Array.isArray(low) && Array.isArray(high) ? low.findIndex((value, month) => value > high[month]!) : -1;
    return at < 0
      ? undefined
      : { field: `low.${at}`, message: 'This mean low is above the mean high of its month: change the two about.' };
  })
  low: number[];

  @Months('The mean high', { min: -60, max: 60, unit: '°C' })
  high: number[];

  @Months('Rain', { min: 0, max: 2000, unit: 'mm' })
  rain: number[];

  @trim
  @IsString({ message: 'Say which station or record the normals are of.' })
  @Length(1, 200, { message: 'Say which station or record the normals are of, and of which years.' })
  source: string;

  @IsOptional()
  @Matches(MONTH_DAY, monthDay)
  lastFrost?: string | null;

  @IsOptional()
  @Matches(MONTH_DAY, monthDay)
  firstFrost?: string | null;
}

/** A property that is looked after. */
export class SiteInput {
  @trim
  @IsString({ message: 'Give the site a name.' })
  @Length(1, 120, { message: 'Give the site a name of 1 to 120 letters.' })
  name: string;

  /** Postal address, or directions where there is none. */
  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the place as text.' })
  @MaxLength(200, { message: 'Keep the place under 200 letters.' })
  place?: string | null;

  /** [longitude, latitude]; where the drawing tells it, it need not be given. */
  @IsOptional()
  @Place()
  position?: number[] | null;

  /** That of the practice where it is not given. */
  @IsOptional()
  @KnownTimeZone()
  timeZone?: string | null;

  /** A class that stands in until there are normals. */
  @IsOptional()
  @IsIn(climateNames, oneOf('Climate', climateNames))
  climate?: string | null;

  @IsOptional()
  @ValidateNested()
  @Type(() => NormalsInput)
  normals?: NormalsInput | null;

  @noneWhenEmpty
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(12, { message: 'Give at most twelve people.' })
  @ValidateNested({ each: true })
  @Type(() => ContactInput)
  contacts?: ContactInput[] | null;

  @IsOptional()
  @ValidateNested()
  @Type(() => AccessInput)
  access?: AccessInput | null;
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

  /** Nothing on a garden bed. */
  @ValidateIf(({ surface, grass }: ZoneInput) => surface !== 'garden bed' || grass != null)
  @IsIn(grassNames, oneOf('Grass', grassNames))
  @Held(({ surface, grass }: ZoneInput) =>
    surface === 'garden bed' && grass != null
      ? { field: 'grass', message: 'A garden bed has no grass: leave it out, or choose another surface.' }
      : undefined,
  )
  grass?: string | null;

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

/** A page of sites, by name. */
export class SitesAnswer {
  @ValidateNested({ each: true }) @Type(() => SiteAnswer) sites: SiteAnswer[];
  /** How many there are that match. */
  @IsInt() count: number;
  /** Where the next page begins; nothing behind the last. */
  @IsOptional() @IsString() next: string | null;
}

export class SiteNameAnswer {
  @IsString() id: string;
  @IsString() name: string;
  @IsOptional() @IsString() place: string | null;
}

/** What of a site a person changes, out of all that is told of it. */
export function siteInput({ id: _id, version: _version, ...input }: SiteAnswer): SiteInput {
  return input;
}

/** The newest of what was measured on a zone with one's own hands, in the analytes' own units; depths cm. */
export type Measured = Partial<
  Record<
    FieldTest | 'sand' | 'silt' | 'clay',
    {
      readonly value: number;
      readonly on: string | null;
      readonly depthFrom: number | null;
      readonly depthTo: number | null;
    }
  >
>;

export class ZoneAnswer extends ZoneInput {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() siteId: string;
  @IsOptional() @IsObject() geometry: ZoneGeometry | null;
  @ValidateNested() @Type(() => ZoneFactsInput) facts: ZoneFactsInput;
  @IsOptional() @IsObject() properties: Record<string, unknown> | null;
  /** What was put down, by the logbook. */
  @ValidateNested({ each: true }) @Type(() => AppliedAnswer) applied: AppliedAnswer[];
  /** What was measured with one's own hands, the newest of each. */
  @IsObject() measured: Measured;
}

/** What of a zone a person changes, out of all that is told of it. */
export function zoneInput(zone: ZoneAnswer): ZoneInput {
  const { id: _id, version: _version, siteId: _siteId, geometry: _geometry, facts: _facts, ...rest } = zone;
  const { properties: _properties, applied: _applied, measured: _measured, ...input } = rest;
  return input;
}

/**
 * Where a site lies: its own position, else where its ground is drawn.
 *
 * @returns longitude and latitude, °; nothing where neither is known
 */
export function whereLies(
  { position }: { readonly position?: readonly number[] | null },
  zones: ReadonlyArray<{ readonly geometry: { readonly coordinates: readonly unknown[] } | null }>,
): readonly [number, number] | undefined {
  const drawn = zones.find(({ geometry }) => geometry)?.geometry;
  const [longitude, latitude] = position ?? (drawn ? (drawn.coordinates.flat(3) as number[]) : []);
  return longitude === undefined || latitude === undefined ? undefined : [longitude, latitude];
}
