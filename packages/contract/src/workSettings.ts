import { type SectionBudget, type WorkPrice, workUnits, worksFor } from '@glenfold/agronomy';
import { Type } from './metadata.ts';
import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { Amount, Held, oneOf, trim } from './checks.ts';

class WorkPriceSetting implements WorkPrice {
  @trim
  @IsString({ message: 'Say what the price is for.' })
  @Length(1, 80, { message: 'Say what the price is for, such as labour, haulage or disposal.' })
  name: string;

  @Amount('The price', { min: 0, max: 1_000_000 })
  price: number;

  @IsIn(workUnits, oneOf('Per', workUnits))
  per: (typeof workUnits)[number];

  /** What it counts with by itself; nothing where hours and days are set with a treatment. */
  @IsOptional()
  @IsArray({ message: 'Say what it counts with as a list.' })
  @ArrayMaxSize(worksFor.length, { message: 'Name each kind of work once.' })
  @IsIn(worksFor, { each: true, message: 'Choose the work that it counts with from the list.' })
  @Held(({ per, for: of }: WorkPriceSetting) =>
    (of?.length ?? 0) > 0 && (per === 'hour' || per === 'day' || per === 'km')
      ? {
          field: 'for',
          message:
            'How many hours, days or kilometres only you know: set them with the treatment, and leave this empty.',
        }
      : undefined,
  )
  for?: string[] | null;
}

/** What work is charged at. */
export class WorkSetting {
  @IsArray({ message: 'Give the prices as a list.' })
  @ArrayMaxSize(60, { message: 'Give at most sixty prices.' })
  @ValidateNested({ each: true })
  @Type(() => WorkPriceSetting)
  @Held(({ prices }: WorkSetting) => {
    const names = Array.isArray(prices) ? prices.map(({ name }) => name.toLowerCase()) : [];
    const twice = names.findIndex((name, at) => names.indexOf(name) < at);
    return twice < 0
      ? undefined
      : {
          field: `prices.${twice}.name`,
          message: 'There is a price of this name already: nobody could tell the two apart.',
        };
  })
  prices: WorkPriceSetting[];
}

class SectionPlan implements SectionBudget {
  @IsOptional()
  @IsInt({ message: 'Write the year in four digits.' })
  @Min(2000, { message: 'Write the year in four digits.' })
  @Max(2100, { message: 'Write the year in four digits.' })
  year?: number | null;

  @IsOptional()
  @Amount('The budget', { min: 0, max: 10_000_000 })
  budget?: number | null;
}

/** The year and the budget of each section of a site. */
export class SectionsSetting {
  @ValidateNested()
  @Type(() => SectionPlan)
  now: SectionPlan;

  @ValidateNested()
  @Type(() => SectionPlan)
  next: SectionPlan;

  @ValidateNested()
  @Type(() => SectionPlan)
  later: SectionPlan;
}
