import { type FeatureKind, type DrawnGeometry, featureKinds } from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { Amount, oneOf, trimOrNone } from './checks.ts';
import { Drawn } from './drawnChecks.ts';
import { UnderlayAnswer } from './pictures.ts';
import { ZoneFactsInput } from './facts.ts';
import { ZoneAnswer, type ZoneGeometry, ZoneInput } from './site.ts';

/** A thing on the ground: ground that is not treated, a line not to core through, a tree, a tap. */
export class GroundFeatureInput {
  @IsIn(featureKinds, oneOf('Kind', featureKinds))
  kind: FeatureKind;

  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the name as text.' })
  @MaxLength(80, { message: 'Keep the name under 80 letters.' })
  name?: string | null;

  @Drawn('by kind')
  geometry: DrawnGeometry;

  /** Of a tree, m from the stem. */
  @IsOptional()
  @Amount('Canopy radius', { min: 0.2, max: 40, unit: 'm' })
  canopyRadius?: number | null;

  /** m: of a building, a fence or a tree above the ground; of a spot height above what all are counted from. */
  @IsOptional()
  @Amount('Height', { min: -500, max: 9000, unit: 'm' })
  height?: number | null;

  /** What a file said of it beside what is kept here; it goes out again with it. */
  @IsOptional()
  @IsObject()
  properties?: Record<string, unknown> | null;
}

/** A record as the person saw it. */
class Seen {
  @IsUUID()
  id: string;

  @IsInt({ message: 'Name the version that was seen.' })
  version: number;
}

/** A zone's outline, changed; without one the zone is not drawn any more, and its area is the one given. */
export class OutlineChange extends Seen {
  @IsOptional()
  @Drawn('zone')
  geometry?: ZoneGeometry | null;

  @IsOptional()
  @Amount('Area', { min: 1, max: 1_000_000, unit: 'm²' })
  area?: number;
}

/** A new zone; where it is drawn its area is measured, whatever is given. */
export class NewZone extends ZoneInput {
  @IsOptional()
  @Drawn('zone')
  geometry?: ZoneGeometry | null;

  /** What a file said of it beside what is kept here; it goes out again with it. */
  @IsOptional()
  @IsObject()
  properties?: Record<string, unknown> | null;

  /** What is known of its ground, such as another plan tells it. */
  @IsOptional()
  @ValidateNested()
  @Type(() => ZoneFactsInput)
  facts?: ZoneFactsInput | null;

  /** The zone that it is parted from: its tests speak for the part too. */
  @IsOptional()
  @IsUUID(undefined, { message: 'Name the zone that it is parted from.' })
  partOf?: string | null;
}

/** A thing on the ground, changed. */
export class FeatureChange extends GroundFeatureInput {
  @IsUUID()
  id: string;

  @IsInt({ message: 'Name the version that was seen.' })
  version: number;
}

export class DrawnRecord {
  @IsIn(['zone', 'feature'])
  what: 'zone' | 'feature';

  @IsUUID()
  id: string;

  /** Of a zone that is taken away: the zone that it is joined to, which keeps its tests. */
  @IsOptional()
  @IsUUID(undefined, { message: 'Name the zone that it is joined to.' })
  into?: string | null;
}

const AT_ONCE = 2000;

/** Changes of a plan that stand or fall together: what one stroke of the pen does. */
export class DrawingChangesInput {
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(AT_ONCE)
  @ValidateNested({ each: true })
  @Type(() => OutlineChange)
  outlines?: OutlineChange[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(AT_ONCE)
  @ValidateNested({ each: true })
  @Type(() => NewZone)
  newZones?: NewZone[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(AT_ONCE)
  @ValidateNested({ each: true })
  @Type(() => GroundFeatureInput)
  newFeatures?: GroundFeatureInput[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(AT_ONCE)
  @ValidateNested({ each: true })
  @Type(() => FeatureChange)
  features?: FeatureChange[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(AT_ONCE)
  @ValidateNested({ each: true })
  @Type(() => DrawnRecord)
  remove?: DrawnRecord[];

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(AT_ONCE)
  @ValidateNested({ each: true })
  @Type(() => DrawnRecord)
  restore?: DrawnRecord[];
}

/** A thing on the ground, as it is drawn on the plan. */
export class GroundFeatureAnswer extends GroundFeatureInput {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() siteId: string;
}

/** What lies on the ground of a site, or under its plan, beside the zones. */
export class DrawnThingsAnswer {
  @ValidateNested({ each: true }) @Type(() => GroundFeatureAnswer) features: GroundFeatureAnswer[];
  @IsOptional() @ValidateNested() @Type(() => UnderlayAnswer) underlay: UnderlayAnswer | null;
}

/** Everything that is drawn of a site, and the zones that are not. */
export class DrawingAnswer extends DrawnThingsAnswer {
  @ValidateNested({ each: true }) @Type(() => ZoneAnswer) zones: ZoneAnswer[];
}
