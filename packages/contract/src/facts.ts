import { type SectionName, fillMaterials, grassNames, sectionNames, signs, wordFacts } from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsOptional,
  IsString,
  Length,
  Matches,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { Amount, noneWhenEmpty, oneOf, Place, SharesAddUp, trim, trimOrNone } from './checks.ts';

const { irrigation, use, air, drySpell } = wordFacts;
export const irrigationWays = irrigation;
export const groundUses = use;
export const airMovements = air;
export const drySpellMarks = drySpell;
export const compassPoints = [
  'north',
  'north-east',
  'east',
  'south-east',
  'south',
  'south-west',
  'west',
  'north-west',
] as const;
export const layerMaterials = fillMaterials.materials.map(({ name }) => name);
export const signNames = signs.map(({ name }) => name);
export const applicationKinds = [
  'fertilizer',
  'lime',
  'sulfur',
  'compost',
  'sand',
  'seed',
  'weedkiller',
  'other',
] as const;
export const sections = sectionNames;
export type Section = SectionName;

const DATE = /^(19|20)\d\d(-(0[1-9]|1[0-2])(-(0[1-9]|[12]\d|3[01]))?)?$/;
const MOST = 60;

/** A day, or a month or a year where no more is remembered. */
export const WhenKnown = (): PropertyDecorator =>
  Matches(DATE, { message: 'Write the date as 2026-03-14, or 2026-03 or 2026 where no more is known.' });
const note = 400;
const Note = (): PropertyDecorator => MaxLength(note, { message: `Keep the note under ${note} letters.` });

/** One kind in a mix, by its share of the sward. */
export class GrassShare {
  @IsIn(grassNames, oneOf('Grass', grassNames))
  grass: string;

  @Amount('Share', { min: 1, max: 100, unit: '%' })
  share: number;
}

/** What was spread or dumped over the soil at one time. */
export class SoilLayer {
  @IsIn(layerMaterials, oneOf('Layer', layerMaterials))
  material: string;

  @Amount('Depth', { min: 0.2, max: 200, unit: 'cm' })
  depth: number;

  @IsOptional()
  @WhenKnown()
  on?: string | null;

  @trimOrNone
  @IsOptional()
  @IsString()
  @Note()
  note?: string | null;
}

/** What was put down before the logbook began. */
export class PastApplication {
  @IsIn(applicationKinds, oneOf('What', applicationKinds))
  kind: (typeof applicationKinds)[number];

  @WhenKnown()
  on: string;

  /** As it is remembered: "16-4-8, 4 lb/1000 ft²". */
  @trim
  @IsString({ message: 'Say what was put down, and how much if it is known.' })
  @Length(1, note, { message: 'Say what was put down, and how much if it is known.' })
  words: string;

  /** g/m² of product; what has none is told, not counted. */
  @IsOptional()
  @Amount('Rate', { min: 0, max: 20_000, unit: 'g/m²' })
  rate?: number | null;

  /** Strength of a lime, % calcium carbonate equivalent. */
  @IsOptional()
  @Amount('Strength', { min: 1, max: 180, unit: '%' })
  cce?: number | null;
}

/** A sign of trouble, and where it is seen. */
export class SeenSign {
  @IsIn(signNames, oneOf('Sign', signNames))
  sign: string;

  /** [longitude, latitude]; nothing where it is seen all over. */
  @IsOptional()
  @Place()
  at?: number[] | null;

  @IsOptional()
  @WhenKnown()
  on?: string | null;

  @trimOrNone
  @IsOptional()
  @IsString()
  @Note()
  note?: string | null;
}

/** What is known of a zone beside what its rates rest on; all of it may be unknown. */
export class ZoneFactsInput {
  /** Nothing when the zone is of one grass. */
  @noneWhenEmpty
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(8)
  @SharesAddUp()
  @ValidateNested({ each: true })
  @Type(() => GrassShare)
  mix?: GrassShare[] | null;

  @IsOptional()
  @Amount('Hours of sun', { min: 0, max: 18, unit: 'h' })
  sunHours?: number | null;

  /** m of fall on 100 m. */
  @IsOptional()
  @Amount('Slope', { min: 0, max: 100, unit: '%' })
  slope?: number | null;

  @IsOptional()
  @IsIn(compassPoints, oneOf('Facing', compassPoints))
  aspect?: (typeof compassPoints)[number] | null;

  @IsOptional()
  @IsIn(irrigationWays, oneOf('Watered by', irrigationWays))
  irrigation?: (typeof irrigationWays)[number] | null;

  @IsOptional()
  @IsIn(groundUses, oneOf('Used for', groundUses))
  use?: (typeof groundUses)[number] | null;

  @IsOptional()
  @IsIn(airMovements, oneOf('Air', airMovements))
  air?: (typeof airMovements)[number] | null;

  @IsOptional()
  @IsBoolean()
  frostPocket?: boolean | null;

  @IsOptional()
  @IsBoolean()
  seaside?: boolean | null;

  @IsOptional()
  @Amount('Elevation', { min: -100, max: 5000, unit: 'm' })
  elevation?: number | null;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST)
  @ValidateNested({ each: true })
  @Type(() => SoilLayer)
  layers?: SoilLayer[] | null;

  /** Of files and older clients: what was put down before moves into the logbook, and is kept there. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST)
  @ValidateNested({ each: true })
  @Type(() => PastApplication)
  applications?: PastApplication[] | null;

  @IsOptional()
  @IsIn(drySpellMarks, oneOf('Dry spell', drySpellMarks))
  drySpell?: (typeof drySpellMarks)[number] | null;

  @IsOptional()
  @WhenKnown()
  drySpellOn?: string | null;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(MOST)
  @ValidateNested({ each: true })
  @Type(() => SeenSign)
  signs?: SeenSign[] | null;

  /** When the zone is to be improved. */
  @IsOptional()
  @IsIn(sections, oneOf('Section', sections))
  section?: Section | null;

  @trimOrNone
  @IsOptional()
  @IsString()
  @Note()
  sectionReason?: string | null;
}

/** What was laid or put down last comes first; what has no date was there before anybody wrote it down. */
export function newestFirst<T extends { readonly on?: string | null }>(entries: readonly T[]): T[] {
  return [...entries].sort((one, other) => (other.on ?? '').localeCompare(one.on ?? ''));
}
