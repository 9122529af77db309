import {
  type AnalysisKey,
  InputError,
  type MaterialKind,
  analysisEntries,
  analysisKeys,
  chelates,
  checkMaterial,
  grassNames,
  materialKinds,
  nitrogenSourceNames,
  packUnits,
} from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Length,
  Matches,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { Amount, Held, noneWhenEmpty, oneOf, trim, trimOrNone } from './checks.ts';

/** Numbers of a label or an analysis; which ones belong to a kind is held with the kind. */
export class AnalysisInput implements Readonly<Partial<Record<AnalysisKey, number | null>>> {
  readonly [key: string]: number | null | undefined;
}
for (const key of analysisKeys) {
  const { label, min, max, unit } = analysisEntries[key];
  Amount(label, { min, max, unit })(AnalysisInput.prototype, key);
  IsOptional()(AnalysisInput.prototype, key);
}

export class SeedShare {
  @IsIn(grassNames, oneOf('Species', grassNames))
  grass: string;

  @Amount('Share', { min: 1, max: 100, unit: '%' })
  share: number;
}

/** What of a material belongs together, by its kind. */
function faultOf(input: MaterialInput): { readonly field: string; readonly message: string } | undefined {
  const { name, kind, analysis, seeds, packSize, packUnit } = input;
  // What is wrong by itself is refused by itself.
  if (!materialKinds.includes(kind)) return undefined;
  const numbers = Object.fromEntries(
    Object.entries(analysis).flatMap(([key, value]) => (typeof value === 'number' ? [[key, value]] : [])),
  );
  const parts = Array.isArray(seeds) ? seeds.filter(({ share }) => typeof share === 'number') : undefined;
  try {
    checkMaterial({ name, kind, analysis: numbers, seeds: parts, packSize, packUnit } as never);
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    const words = error.message.slice(error.field.length).trim();
    const [head = '', key] = error.field.split('.');
    const label = key
      ? analysisEntries[key as AnalysisKey].label
      : { seeds: 'Seeds', packUnit: 'The unit of the pack' }[head];
    return { field: error.field, message: `${label ?? head} ${words.replace(/^\([^)]*\) /, '')}.` };
  }
  return undefined;
}

/** A material as it is bought: what it is by its analysis, in what pack, at what price, and how much is there. */
export class MaterialInput {
  @trim
  @IsString({ message: 'Give the product a name.' })
  @Length(1, 120, { message: 'Give the product a name of 1 to 120 letters.' })
  name: string;

  @IsIn(materialKinds, oneOf('Kind', materialKinds))
  kind: MaterialKind;

  @ValidateNested()
  @Type(() => AnalysisInput)
  @Held(faultOf)
  analysis: AnalysisInput;

  @IsOptional()
  @IsIn(nitrogenSourceNames, oneOf('Nitrogen as', nitrogenSourceNames))
  nitrogenSource?: string | null;

  @IsOptional()
  @IsIn(chelates, oneOf('Chelate', chelates))
  chelate?: (typeof chelates)[number] | null;

  @noneWhenEmpty
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(12, { message: 'Give at most twelve species.' })
  @ValidateNested({ each: true })
  @Type(() => SeedShare)
  seeds?: SeedShare[] | null;

  @IsOptional()
  @IsBoolean({ message: 'Say yes or no to natural.' })
  natural?: boolean | null;

  @IsOptional()
  @IsBoolean({ message: 'Say yes or no to dolomitic.' })
  dolomitic?: boolean | null;

  /** Hydrated or quick lime: burns skin and grass. */
  @IsOptional()
  @IsBoolean({ message: 'Say yes or no to caustic.' })
  caustic?: boolean | null;

  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the caution as text.' })
  @MaxLength(400, { message: 'Keep the caution under 400 letters.' })
  caution?: string | null;

  /** In the unit of the pack: kg, L or m³. */
  @Amount('The pack', { min: 0.001, max: 100_000 })
  packSize: number;

  @IsIn(packUnits, oneOf('Unit of the pack', packUnits))
  packUnit: (typeof packUnits)[number];

  @IsOptional()
  @Amount('The price', { min: 0, max: 1_000_000 })
  packPrice?: number | null;

  /** Packs that are there. */
  @IsOptional()
  @Amount('The stock', { min: 0, max: 100_000 })
  stock?: number | null;

  /** Day of the price. */
  @IsOptional()
  @Matches(/^(19|20)\d\d-\d\d-\d\d$/, { message: 'Write the day of the price as 2026-03-14.' })
  pricedOn?: string | null;

  /** Of bringing one load. */
  @IsOptional()
  @Amount('The delivery', { min: 0, max: 100_000 })
  deliveryPrice?: number | null;

  /** What one load brings, in the unit of the pack. */
  @IsOptional()
  @Amount('The load', { min: 0.001, max: 100_000 })
  loadSize?: number | null;
}

/** Rows of a materials file. */
export class MaterialsFileInput {
  @IsString({ message: 'Choose a CSV file.' })
  @Length(1, 2_000_000, { message: 'Choose a CSV file of at most 2 MB.' })
  content: string;
}

/** Generic materials to take into one's own list, by name. */
export class GenericMaterialsInput {
  @IsArray({ message: 'Choose some materials.' })
  @ArrayMaxSize(500)
  @IsString({ each: true })
  names: string[];
}

/** Money per kg of what a material is bought for. */
export class UnitPriceAnswer {
  /** "N", "effective lime" */
  @IsString() of: string;
  @IsNumber() perKg: number;
}

/** Material of the practice. Prices are left out for those who see none. */
export class ProductAnswer extends MaterialInput {
  @IsString() id: string;
  @IsInt() version: number;
  /** % effective by the label, for liming products. */
  @IsOptional() @IsNumber() effectiveness: number | null;
  /** What it costs for what it is bought for; nothing without a price. */
  @IsOptional() @ValidateNested() @Type(() => UnitPriceAnswer) unitPrice: UnitPriceAnswer | null;
}

/** A product as whoever puts it down knows it: no price, no stock. */
export class ProductNameAnswer {
  @IsString() id: string;
  @IsString() name: string;
  @IsString() packUnit: MaterialInput['packUnit'];
  /** g/mL of what is told by weight; nothing where it is not known. */
  @IsOptional() @IsNumber() bulkDensity: number | null;
}

/** What came of a file. */
export class MaterialsFileAnswer {
  @IsInt() added: number;
  @IsInt() changed: number;
  @IsInt() unchanged: number;
}

/** Generic material that could be taken over. */
export class GenericMaterialAnswer {
  @IsString() name: string;
  @IsString() kind: MaterialKind;
  /** One of this name is in the practice's list already. */
  @IsBoolean() here: boolean;
}

/** What of a material a person changes. */
export function materialInput(product: ProductAnswer): MaterialInput {
  const { id: _id, version: _version, effectiveness: _effectiveness, unitPrice: _unitPrice, ...input } = product;
  return input;
}
