import { Type } from './metadata.ts';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Amount, Place, trimOrNone } from './checks.ts';

export const pictureTypes = ['image/jpeg', 'image/png', 'image/webp'] as const;
export type PictureType = (typeof pictureTypes)[number];

/** Largest picture that is kept, in bytes; the application makes larger ones smaller before it sends them. */
export const LARGEST_PHOTO = 1_500_000;
export const LARGEST_UNDERLAY = 8_000_000;

/** A picture as it is sent: its bytes in base64. */
class Picture {
  @IsIn(pictureTypes, { message: 'A picture is a JPEG, PNG or WebP file.' })
  type: PictureType;

  @IsString({ message: 'The picture is missing.' })
  @Matches(/^[A-Za-z0-9+/]+={0,2}$/, { message: 'The picture is not written in base64.' })
  image: string;
}

/** A photo of a zone. */
export class PhotoInput extends Picture {
  /** Made on the device, where it may be sent more than once: it counts once. */
  @IsOptional()
  @IsUUID(undefined, { message: 'The id of a photo is a UUID.' })
  id?: string;

  @trimOrNone
  @IsOptional()
  @IsString()
  @MaxLength(200, { message: 'Keep the words under 200 letters.' })
  caption?: string | null;

  @IsOptional()
  @Matches(/^\d{4}-\d\d-\d\d$/, { message: 'Write the date as 2026-03-14.' })
  takenOn?: string | null;

  /** Keep what the camera wrote into it, its position too; left out, that is taken away. */
  @IsOptional()
  @IsBoolean({ message: 'Keeping the place is yes or no.' })
  keepPlace?: boolean;

  /** The entry of the logbook that it shows. */
  @IsOptional()
  @IsUUID(undefined, { message: 'The entry of a photo is named by its id.' })
  entryId?: string | null;

  /** The test of one's own that it shows. */
  @IsOptional()
  @IsUUID(undefined, { message: 'The test of a photo is named by its id.' })
  fieldTestId?: string | null;
}

export class PhotoAnswer {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() zoneId: string;
  @IsOptional() @IsString() fieldTestId: string | null;
  @IsOptional() @IsString() caption: string | null;
  @IsOptional() @IsString() takenOn: string | null;
  /** Address of the picture itself, and of a small one for lists. */
  @IsString() address: string;
  @IsString() small: string;
}

/** A place on an image and on the ground. */
export class MatchInput {
  @Amount('Across', { min: 0, max: 50_000, unit: 'pixels' })
  right: number;

  @Amount('Down', { min: 0, max: 50_000, unit: 'pixels' })
  down: number;

  /** [longitude, latitude] */
  @Place()
  place: number[];
}

/** How an image lies under the plan. */
export class UnderlayPlaceInput {
  @IsArray()
  @ArrayMinSize(2, { message: 'Mark two matching points at least.' })
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => MatchInput)
  matches: MatchInput[];

  @Amount('Opacity', { min: 0, max: 1 })
  opacity: number;
}

/** A picture with its size in pixels. */
export class SizedPicture extends Picture {
  @IsString()
  @MaxLength(200)
  name: string;

  @IsInt()
  @Min(1)
  @Max(50_000)
  width: number;

  @IsInt()
  @Min(1)
  @Max(50_000)
  height: number;
}

/** An aerial photo or a scanned survey, laid under the plan. */
export class UnderlayInput extends UnderlayPlaceInput {
  @ValidateNested()
  @Type(() => SizedPicture)
  picture: SizedPicture;
}

export class UnderlayAnswer extends UnderlayPlaceInput {
  @IsString() id: string;
  @IsInt() version: number;
  @IsString() name: string;
  @IsInt() width: number;
  @IsInt() height: number;
  /** Address of the picture itself. */
  @IsString() address: string;
}
