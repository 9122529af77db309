import { IsInt, IsString, Length, ValidateNested } from 'class-validator';
import { Type } from 'class-transformer';
import { trim } from './checks.ts';
import { SiteAnswer } from './site.ts';

/** A client is erased by somebody who has written whose it is. */
export class ErasureInput {
  /** The site's name as it stands: nobody erases the wrong one by a slip. */
  @trim
  @IsString({ message: 'Type the name of the site.' })
  @Length(1, 200, { message: 'Type the name of the site.' })
  name: string;
}

/** What is left of a site whose client was erased, and what went. */
export class ErasureAnswer {
  @ValidateNested() @Type(() => SiteAnswer) site: SiteAnswer;
  /** Photos and files of laboratories that lie nowhere any more. */
  @IsInt() files: number;
  /** Clients who could sign in, and cannot any more. */
  @IsInt() accounts: number;
  /** Entries of the record of changes of which only figures are left. */
  @IsInt() changes: number;
}
