import { Transform } from './metadata.ts';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { Type } from './metadata.ts';
import { KnownTimeZone, trim, trimOrNone } from './checks.ts';
import { type Role, roles } from './roles.ts';

const lowerCase = Transform(({ value }: { value: unknown }) =>
  typeof value === 'string' ? value.trim().toLowerCase() : value,
);

export const PASSWORD_LEAST = 12;
const newPassword = {
  message: `Choose a password of ${PASSWORD_LEAST} to 200 characters: a few words in a row are easier to keep than signs.`,
};

function Email(): PropertyDecorator {
  return (target, property) => {
    lowerCase(target, property);
    IsEmail({}, { message: 'Give an e-mail address, such as name@practice.example.' })(target, property);
    MaxLength(254, { message: 'Give an e-mail address of at most 254 characters.' })(target, property);
  };
}

function NewPassword(): PropertyDecorator {
  return (target, property) => {
    Length(PASSWORD_LEAST, 200, newPassword)(target, property);
    IsString(newPassword)(target, property);
  };
}

function PersonName(): PropertyDecorator {
  return (target, property) => {
    trim(target, property);
    Length(1, 120, { message: 'Give a name of 1 to 120 letters.' })(target, property);
    IsString({ message: 'Give a name.' })(target, property);
  };
}

export class SignInInput {
  @Email() email: string;

  @IsString({ message: 'Give the password.' })
  @Length(1, 200, { message: 'Give the password.' })
  password: string;
}

/** Enter as one of the made-up people; in demo mode only. */
export class DemoEntryInput {
  @IsUUID(undefined, { message: 'Choose one of the demo people.' })
  personId: string;
}

export class ChoosePracticeInput {
  @IsUUID(undefined, { message: 'Choose one of your practices.' })
  practiceId: string;
}

export class ChangePasswordInput {
  @IsString({ message: 'Give the password that you use now.' })
  @Length(1, 200, { message: 'Give the password that you use now.' })
  current: string;

  @NewPassword() password: string;
}

export class ForgotInput {
  @Email() email: string;
}

export class ResetInput {
  @NewPassword() password: string;
}

/** The first person makes the practice. */
export class FirstRunInput {
  @trim
  @IsString({ message: 'Give the practice a name.' })
  @Length(1, 120, { message: 'Give the practice a name of 1 to 120 letters.' })
  practice: string;

  @PersonName() name: string;
  @Email() email: string;
  @NewPassword() password: string;

  /** Where the first person sits, for the days of the practice. */
  @IsOptional()
  @KnownTimeZone()
  timeZone?: string;
}

/** Who goes on with an export: one of its owners, with a password for here. */
export class LoadExportInput {
  @Email() email: string;
  @NewPassword() password: string;
}

export class PracticeInput {
  @trim
  @IsString({ message: 'Give the practice a name.' })
  @Length(1, 120, { message: 'Give the practice a name of 1 to 120 letters.' })
  name: string;

  /** Of its days, where a site has none of its own. */
  @KnownTimeZone()
  timeZone: string;

  /** Sign of the money that it reckons in. */
  @trim
  @IsString({ message: 'Give the sign of the money.' })
  @Length(1, 4, { message: 'Give the sign of the money in 1 to 4 letters, such as $, € or kr.' })
  @Matches(/^[^\d\s.,]+$/, { message: 'The sign of money has no digits, such as $, € or kr.' })
  currency: string;

  /** By which its clients reach it. */
  @trimOrNone
  @IsOptional()
  @Matches(/^\+?[\d\s()/.-]{4,30}$/, { message: 'Write the phone number in digits, such as +44 20 7946 0018.' })
  phone?: string | null;

  @trimOrNone
  @IsOptional()
  @IsEmail({}, { message: 'Write the mail address whole, such as office@practice.example.' })
  email?: string | null;

  /** Clients may make links to their own reports. */
  @IsOptional()
  @IsBoolean({ message: 'Say yes or no.' })
  clientsShare?: boolean;
}

/** What a person has chosen for themselves. */
export class PersonalInput {
  @IsIn(['us', 'metric'], { message: 'Choose units: us or metric.' })
  units: 'us' | 'metric';
}

class WithRole {
  @IsIn(roles, { message: `Choose a role: ${roles.join(', ')}.` })
  role: Role;

  /** The sites whose reports a client reads; empty for the other roles. */
  @IsArray({ message: 'Choose the sites whose reports they read.' })
  @ArrayMaxSize(500)
  @IsUUID(undefined, { each: true, message: 'Choose sites of this practice.' })
  siteIds: string[];
}

export class MemberInput extends WithRole {}

export class InvitationInput extends WithRole {
  @Email() email: string;
}

/** Taking an invitation up: a name and a new password, or the password one already has here. */
export class AcceptInput {
  @IsOptional()
  @PersonName()
  name?: string;

  @IsString({ message: 'Give a password.' })
  @Length(1, 200, { message: 'Give a password.' })
  password: string;
}

export class ShareLinkInput {
  @trim
  @IsString({ message: 'Say who the link is for.' })
  @Length(1, 120, { message: 'Say who the link is for, in 1 to 120 letters.' })
  purpose: string;

  @IsInt({ message: 'Say for how many days the link opens.' })
  @Min(1, { message: 'A link opens for 1 to 366 days.' })
  @Max(366, { message: 'A link opens for 1 to 366 days.' })
  days: number;
}

export class PersonAnswer {
  @IsString() id: string;
  @IsString() name: string;
  @IsString() email: string;
}

/** The one who is signed in. */
export class OwnPersonAnswer extends PersonAnswer {
  /** Nothing until they chose. */
  @IsOptional() @IsString() units: 'us' | 'metric' | null;
}

export class MembershipAnswer {
  @IsString() practiceId: string;
  @IsString() practiceName: string;
  @IsString() role: Role;
}

export class DemoPersonAnswer {
  @IsString() personId: string;
  @IsString() name: string;
  @IsString() email: string;
  /** "owner at Brackwater Soil Advisory", each practice. */
  @IsArray() @IsString({ each: true }) at: string[];
}

export class PracticeAnswer {
  @IsString() id: string;
  @IsString() name: string;
  @IsBoolean() demo: boolean;
  @IsInt() version: number;
  @IsString() timeZone: string;
  @IsString() currency: string;
  @IsOptional() @IsString() phone: string | null;
  @IsOptional() @IsString() email: string | null;
  /** Clients may make links to their own reports. */
  @IsBoolean() clientsShare: boolean;
}

/** Where map tiles come from, and whose they are. */
export class TilesAnswer {
  /** With {z}, {x} and {y} in Web Mercator. */
  @IsString() address: string;
  @IsString() attribution: string;
}

/** A practice to which somebody belonged, and whom to ask there. */
export class FormerPracticeAnswer {
  @IsString() name: string;
  @IsOptional() @IsString() phone: string | null;
  @IsOptional() @IsString() email: string | null;
  /** Names of its owners. */
  @IsString({ each: true }) owners: string[];
}

/** Who is signed in, at which practice, as what. */
export class SessionAnswer {
  @IsString() state: 'first run' | 'signed out' | 'signed in';
  /** To be sent back with every change. */
  @IsString() csrf: string;
  @IsOptional() @ValidateNested() @Type(() => OwnPersonAnswer) person: OwnPersonAnswer | null;
  /** Nothing when the person belongs to none any more. */
  @IsOptional() @ValidateNested() @Type(() => PracticeAnswer) practice: PracticeAnswer | null;
  @IsOptional() @IsString() role: Role | null;
  @ValidateNested({ each: true }) @Type(() => MembershipAnswer) practices: MembershipAnswer[];
  /** Offered for entering with one click; empty outside demo mode. */
  @ValidateNested({ each: true }) @Type(() => DemoPersonAnswer) demoPeople: DemoPersonAnswer[];
  /** Map tiles under the plan, where this installation has an address for them. */
  @IsOptional() @ValidateNested() @Type(() => TilesAnswer) tiles: TilesAnswer | null;
  /** Where somebody who belongs nowhere any more belonged last. */
  @IsOptional() @ValidateNested() @Type(() => FormerPracticeAnswer) former?: FormerPracticeAnswer | null;
}

export class MemberAnswer extends WithRole {
  @IsString() id: string;
  @IsInt() version: number;
  @ValidateNested() @Type(() => PersonAnswer) person: PersonAnswer;
  /** The one who asks. */
  @IsBoolean() you: boolean;
  /** Has no password yet, such as after a practice was loaded from an export. */
  @IsBoolean() cannotSignIn: boolean;
  /** Secret addresses of theirs that are open: calendars, links to reports. */
  @IsInt() addresses: number;
}

/** What can be begun by one person and finished by another. */
export const begunThings = ['program', 'report', 'test'] as const;

/** What somebody has begun at a site, and nobody has finished. */
export class BegunAnswer {
  @IsIn(begunThings) what: (typeof begunThings)[number];
  @IsString() siteId: string;
  @IsString() siteName: string;
}

/** What somebody holds in the practice. */
export class HoldingsAnswer {
  /** Jobs ahead that are given to them. */
  @IsInt() jobs: number;
  /** What they began and nobody has finished. */
  @ValidateNested({ each: true }) @Type(() => BegunAnswer) begun: BegunAnswer[];
}

/** A link to choose a password; nothing where it went by mail. */
export class PasswordLinkAnswer {
  @IsOptional() @IsString() link: string | null;
}

export class InvitationAnswer extends WithRole {
  @IsString() id: string;
  @IsString() email: string;
  @IsString() invitedBy: string;
  @IsString() expiresAt: string;
  @IsBoolean() expired: boolean;
}

/** What the invited person is shown. */
export class InvitationOfferAnswer {
  @IsString() practiceName: string;
  @IsString() email: string;
  @IsString() role: Role;
  @IsString() invitedBy: string;
  /** This address has a password here already. */
  @IsBoolean() known: boolean;
}

export class ResetOfferAnswer {
  @IsString() email: string;
}

/** A message of the application to a person. */
export class MailAnswer {
  @IsString() id: string;
  @IsString() to: string;
  @IsString() subject: string;
  /** Nothing once a mail server took it: it may hold a one-time link. */
  @IsOptional() @IsString() text: string | null;
  @IsString() writtenAt: string;
  @IsOptional() @IsString() sentAt: string | null;
  @IsOptional() @IsString() failure: string | null;
}

export class OutboxAnswer {
  /** Messages leave through a mail server; otherwise they stay here to be handed over. */
  @IsBoolean() carried: boolean;
  @ValidateNested({ each: true }) @Type(() => MailAnswer) mails: MailAnswer[];
}

export class AuditEntryAnswer {
  @IsString() id: string;
  @IsString() at: string;
  /** Who did it. */
  @IsString() by: string;
  @IsString() action: 'add' | 'change' | 'delete' | 'restore' | 'erase';
  /** The kind of record: "zone". */
  @IsString() kind: string;
  @IsString() recordId: string;
  @IsString() recordName: string;
  /** Values by field; only what changed, for a change. */
  @IsOptional() @IsObject() before: Record<string, unknown> | null;
  @IsOptional() @IsObject() after: Record<string, unknown> | null;
}

export class AuditPageAnswer {
  @ValidateNested({ each: true }) @Type(() => AuditEntryAnswer) entries: AuditEntryAnswer[];
  /** What the records are called whose ids stand in the entries: sites, zones, products, people, bags by their codes. */
  @IsObject() names: Record<string, string>;
  /** Where the next page begins; nothing on the last. */
  @IsOptional() @IsString() next: string | null;
}

export class ShareLinkAnswer {
  @IsString() id: string;
  @IsString() purpose: string;
  @IsString() madeBy: string;
  @IsString() expiresAt: string;
  @IsString() state: 'open' | 'expired' | 'revoked';
  /** The address; only in the answer that made it. */
  @IsOptional() @IsString() address: string | null;
}
