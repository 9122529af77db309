import type {
  BufferMethod,
  ColumnMatch,
  Extractant,
  LabRow,
  Purpose,
  Reading,
  RowFault,
  UnitSystem,
  ZonePlan,
  ProductChoices,
} from '@glenfold/agronomy';
import { Type } from 'class-transformer';
import { IsArray, IsBoolean, IsInt, IsNumber, IsObject, IsOptional, IsString, ValidateNested } from 'class-validator';
import { ZoneFactsInput } from './facts.ts';
import { NutrientsInput } from './lab.ts';
import { UnderlayAnswer } from './pictures.ts';
import { GroundFeatureInput } from './plan.ts';
import { SiteInput, type ZoneGeometry, ZoneInput } from './site.ts';

/** The eight steps of a site, in working order. */
export const steps = ['ground', 'sampling', 'lab', 'reading', 'rates', 'season', 'logbook', 'proof'] as const;
export type Step = (typeof steps)[number];

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

/** A thing on the ground, as it is drawn on the plan. */
export class GroundFeatureAnswer extends GroundFeatureInput {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() siteId: string;
}

/** What lies on the ground of a site, or under its plan, beside the zones. */
export class GroundThingsAnswer {
  @ValidateNested({ each: true }) @Type(() => GroundFeatureAnswer) features: GroundFeatureAnswer[];
  @IsOptional() @ValidateNested() @Type(() => UnderlayAnswer) underlay: UnderlayAnswer | null;
}

/** Everything that is drawn of a site, and the zones that are not. */
export class GroundPlanAnswer extends GroundThingsAnswer {
  @ValidateNested({ each: true }) @Type(() => ZoneAnswer) zones: ZoneAnswer[];
}

export class LabResultAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() siteId: string;
  @IsString() zoneId: string;
  @IsString() label: string;
  @IsOptional() @IsString() labNumber: string | null;
  @IsOptional() @IsString() sampledOn: string | null;
  @IsNumber() depth: number;
  @IsString() extractant: Extractant;
  @IsOptional() @IsString() bufferMethod: BufferMethod | null;
  @IsNumber() soilPh: number;
  @IsOptional() @IsNumber() bufferPh: number | null;
  @IsOptional() @IsNumber() limeFactor: number | null;
  @IsOptional() @IsNumber() organicMatter: number | null;
  @ValidateNested() @Type(() => NutrientsInput) nutrients: NutrientsInput;
  /** What else the laboratory's line said, in its own words, such as its lime advice. */
  @IsOptional() @IsString() beside: string | null;
  /** Where the numbers came from: typed, or the name of a file. */
  @IsString() origin: string;
  @IsString() recordedAt: string;
  /** Values that look like a slip of unit or column, one sentence each. */
  @IsArray() @IsString({ each: true }) questions: string[];
}

/** A bag with soil in it. */
export class FilledBagAnswer {
  @IsString() id: string;
  @IsString() code: string;
  @IsArray() @IsString({ each: true }) zoneIds: string[];
}

export class LabImportRowAnswer {
  @IsInt() line: number;
  @IsArray() @IsString({ each: true }) cells: string[];
  @IsObject() row: LabRow;
  @IsOptional() @IsString() zoneId: string | null;
  /** The bag whose numbers these are: they are for each of its zones. */
  @IsOptional() @IsString() bagId: string | null;
  /** Where it goes was chosen by the person, not matched by label. */
  @IsBoolean() zoneChosen: boolean;
  /** What keeps the row from being imported. */
  @IsArray() faults: RowFault[];
  @IsArray() @IsString({ each: true }) questions: string[];
  /** The result it became. */
  @IsOptional() @IsString() resultId: string | null;
}

export class LabImportAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() siteId: string;
  @IsString() fileName: string;
  @IsString() status: 'open' | 'imported';
  @IsArray() columns: ColumnMatch[];
  @IsOptional() @IsString() extractant: Extractant | null;
  @IsOptional() @IsString() bufferMethod: BufferMethod | null;
  @IsOptional() @IsNumber() limeFactor: number | null;
  @IsOptional() @IsNumber() depth: number | null;
  @ValidateNested({ each: true }) @Type(() => LabImportRowAnswer) rows: LabImportRowAnswer[];
  /** Bags of the site that a line may be about, newest first. */
  @ValidateNested({ each: true }) @Type(() => FilledBagAnswer) bags: FilledBagAnswer[];
}

export class GradeAnswer {
  @IsNumber() n: number;
  @IsNumber() p2o5: number;
  @IsNumber() k2o: number;
}

export class ProductAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() name: string;
  @IsString() purpose: Purpose;
  @ValidateNested() @Type(() => GradeAnswer) grade: GradeAnswer;
  @IsNumber() slowRelease: number;
  /** % effective by the label, for liming products. */
  @IsOptional() @IsNumber() effectiveness: number | null;
  @IsBoolean() caustic: boolean;
  @IsNumber() bagMass: number;
  /** Nothing when it is not set, and for those who see no prices. */
  @IsOptional() @IsNumber() bagPrice: number | null;
}

/** A zone's newest result with its reading and rates. */
export class ZonePlanAnswer {
  @IsString() zoneId: string;
  @ValidateNested() @Type(() => LabResultAnswer) result: LabResultAnswer;
  @IsObject() reading: Reading;
  @IsObject() plan: ZonePlan;
  @IsObject() choices: ProductChoices;
  /** Of the choices; 0 while none was made. */
  @IsInt() version: number;
  /** Costs are left out for those who see no prices. */
  @IsBoolean() priced: boolean;
}

export class IssuedPlanAnswer {
  @IsString() id: string;
  @IsString() issuedAt: string;
  @IsString() pdf: string;
}

export class StepState {
  @IsString() step: Step;
  /** The state in words: "2 of 5 zones tested". */
  @IsString() words: string;
  @IsString() state: 'done' | 'act' | 'waiting' | 'later';
}

export class SiteStateAnswer {
  @ValidateNested() @Type(() => SiteAnswer) site: SiteAnswer;
  @IsInt() zones: number;
  @IsNumber() area: number;
  @ValidateNested({ each: true }) @Type(() => StepState) steps: StepState[];
}

export class RoundsTask {
  @IsString() siteId: string;
  @IsString() siteName: string;
  @IsOptional() @IsString() zoneId: string | null;
  @IsString() step: Step;
  @IsString() words: string;
  @IsString() why: string;
}

export class RoundsAnswer {
  @ValidateNested({ each: true }) @Type(() => RoundsTask) tasks: RoundsTask[];
  @ValidateNested({ each: true }) @Type(() => SiteStateAnswer) sites: SiteStateAnswer[];
}

export class ProblemField {
  /** Full dotted path. */
  @IsString() field: string;
  @IsString() message: string;
}

/** What somebody else saved meanwhile. */
export class ConflictAnswer {
  @IsObject() current: { readonly version: number };
  @IsString() changedBy: string;
  @IsString() changedAt: string;
}

/** A refusal, as problem details (RFC 9457). */
export class ProblemAnswer {
  @IsString() type: string;
  @IsString() title: string;
  @IsInt() status: number;
  @IsString() detail: string;
  @ValidateNested({ each: true }) @Type(() => ProblemField) errors: ProblemField[];
  /** The record as it stands now, when a save was refused because another came first. */
  @IsOptional() @ValidateNested() @Type(() => ConflictAnswer) conflict?: ConflictAnswer;
}

/** A plan that was handed over, as it stood then. */
export class ReportPlanAnswer {
  @IsString() id: string;
  @IsString() issuedAt: string;
  @IsOptional() @IsString() sampledOn: string | null;
  @IsObject() reading: Reading;
  @IsObject() plan: ZonePlan;
  /** The units it was handed over in. */
  @IsString() units: UnitSystem;
  /** Address of the plan on paper. */
  @IsString() pdf: string;
}

/** A zone as its owner reads it: what was handed over, nothing that is still being worked on. */
export class ReportZoneAnswer {
  @IsString() name: string;
  @IsNumber() area: number;
  @IsString() grass: string;
  /** Nothing until a plan was handed over. */
  @IsOptional() @ValidateNested() @Type(() => ReportPlanAnswer) plan: ReportPlanAnswer | null;
}

/** The report of one site. */
export class SiteReportAnswer {
  @IsString() siteId: string;
  @IsString() siteName: string;
  @IsOptional() @IsString() place: string | null;
  @IsString() practiceName: string;
  @ValidateNested({ each: true }) @Type(() => ReportZoneAnswer) zones: ReportZoneAnswer[];
}

export class SharedSiteAnswer {
  @IsString() siteId: string;
  @IsString() siteName: string;
  @IsOptional() @IsString() place: string | null;
}
