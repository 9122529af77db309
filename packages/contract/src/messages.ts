import { IsBoolean, IsIn, IsOptional, IsString, IsUUID, Length, ValidateNested } from 'class-validator';
import { trim } from './checks.ts';
import { Type } from './metadata.ts';

/** Whose words: the practice's, the client's, or of somebody of the practice from the field. */
export const messageSides = ['office', 'client', 'field'] as const;
export type MessageSide = (typeof messageSides)[number];

/** Words about a site. */
export class MessageInput {
  @IsUUID(undefined, { message: 'The id of a message is a UUID.' })
  id: string;

  @trim
  @IsString({ message: 'Write something.' })
  @Length(1, 4000, { message: 'Write 1 to 4000 letters.' })
  words: string;
}

/** Words to the office from the field; of a site, or of a zone of it. */
export class NoteInput extends MessageInput {
  @IsOptional()
  @IsUUID(undefined, { message: 'Choose the site.' })
  siteId?: string | null;

  @IsOptional()
  @IsUUID(undefined, { message: 'Choose the zone.' })
  zoneId?: string | null;
}

export class MessageAnswer {
  @IsString() id: string;
  @IsString() siteId: string;
  @IsIn(messageSides) side: MessageSide;
  @IsString() author: string;
  @IsString() words: string;
  /** ISO 8601. */
  @IsString() at: string;
  /** Whether the office has answered it, or has read it. */
  @IsBoolean() done: boolean;
  /** Written by who reads it. */
  @IsBoolean() own: boolean;
}

/** What was written about a site, the oldest first. */
export class MessagesAnswer {
  @ValidateNested({ each: true }) @Type(() => MessageAnswer) messages: MessageAnswer[];
}
