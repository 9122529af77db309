import { Type } from './metadata.ts';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Matches,
  MaxLength,
  ValidateNested,
} from 'class-validator';
import { Amount, oneOf, trim, trimOrNone } from './checks.ts';

export const machineKinds = [
  'drop spreader',
  'rotary spreader',
  'knapsack sprayer',
  'boom sprayer',
  'mulch sprayer',
  'topdresser',
  'corer',
  'dethatcher',
  'seeder',
  'roller',
  'mower',
  'other',
] as const;
export type MachineKind = (typeof machineKinds)[number];

/** What a machine lets through of a product at a setting, in one pass. */
export class MachineSetting {
  @IsUUID(undefined, { message: 'Choose a product of the list.' })
  productId: string;

  @trim
  @IsString({ message: 'Write the setting as it stands on the machine.' })
  @Length(1, 40, { message: 'Write the setting as it stands on the machine, such as 12 or H½.' })
  setting: string;

  /** g/m² of product in one pass; mL/m² of mix for a sprayer. */
  @Amount('The rate', { min: 0.01, max: 5000, remedy: 'Spread over a known area and weigh what is gone.' })
  rate: number;

  /** When it was last tried over a known area. */
  @IsOptional()
  @Matches(/^(19|20)\d\d-\d\d-\d\d$/, { message: 'Write the day as 2026-03-14.' })
  checkedOn?: string | null;
}

/** A machine of the practice, or one that it hires. */
export class MachineInput {
  @trim
  @IsString({ message: 'Give the machine a name.' })
  @Length(1, 80, { message: 'Give the machine a name of 1 to 80 letters.' })
  name: string;

  @IsIn(machineKinds, oneOf('Kind', machineKinds))
  kind: MachineKind;

  /** Width that one pass covers, m. */
  @IsOptional()
  @Amount('The width', { min: 0.1, max: 20, unit: 'm' })
  width?: number | null;

  /** Hopper in kg, or tank in L. */
  @IsOptional()
  @Amount('What it holds', { min: 0.5, max: 10_000 })
  holds?: number | null;

  /** Of a loaded machine, kg: what drives on the lawn. */
  @IsOptional()
  @Amount('The weight', { min: 1, max: 20_000, unit: 'kg' })
  weight?: number | null;

  /** Hired, not owned. */
  @IsBoolean({ message: 'Say whether it is hired.' })
  hired: boolean;

  @IsOptional()
  @Amount('The hire of a day', { min: 0, max: 100_000 })
  hireDay?: number | null;

  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write whom it is hired from as text.' })
  @MaxLength(120, { message: 'Keep whom it is hired from under 120 letters.' })
  hiredFrom?: string | null;

  @IsArray({ message: 'Give the settings as a list.' })
  @ArrayMaxSize(100, { message: 'Give at most a hundred settings.' })
  @ValidateNested({ each: true })
  @Type(() => MachineSetting)
  settings: MachineSetting[];

  @trimOrNone
  @IsOptional()
  @IsString({ message: 'Write the note as text.' })
  @MaxLength(400, { message: 'Keep the note under 400 letters.' })
  note?: string | null;
}

/** Machine of the practice. The hire is left out for those who see no prices. */
export class MachineAnswer extends MachineInput {
  @IsString() id: string;
  @IsInt() version: number;
}

/** What of a machine a person changes. */
export function machineInput({ id: _id, version: _version, ...input }: MachineAnswer): MachineInput {
  return input;
}
