import { AuditEntry } from './audit/auditEntry.entity.ts';
import { Underlay, ZonePhoto } from './ground/pictures.entities.ts';
import { GroundFeature } from './ground/groundFeature.entity.ts';
import { Site } from './ground/site.entity.ts';
import { Zone } from './ground/zone.entity.ts';
import { LabImport } from './lab/labImport.entity.ts';
import { LabResult } from './lab/labResult.entity.ts';
import { Sample } from './lab/sample.entity.ts';
import { Invitation } from './people/invitation.entity.ts';
import { Mail } from './people/mail.entity.ts';
import { Membership } from './people/membership.entity.ts';
import { PasswordReset, Person, Session, SignInAttempt } from './people/identity.entities.ts';
import { Practice } from './people/practice.entity.ts';
import { Plan } from './rates/plan.entity.ts';
import { ProductRecord } from './catalogue/product.entity.ts';
import { Bag, BagCustody, Core, CoreTap } from './sampling/bag.entities.ts';
import { ShareLink } from './report/shareLink.entity.ts';
import { StandInSample } from './standins/laboratory/standInSample.entity.ts';

/** Records of the practices; each carries its practice. */
export const ownedEntities = [
  Site,
  Zone,
  GroundFeature,
  ZonePhoto,
  Underlay,
  Bag,
  Core,
  CoreTap,
  BagCustody,
  Sample,
  LabResult,
  LabImport,
  ProductRecord,
  Plan,
  Membership,
  Invitation,
  ShareLink,
] as const;

/** Who is asking: known before any practice is. */
export const identityEntities = [Practice, Person, Session, PasswordReset, SignInAttempt, Mail] as const;

/** What simulated services hold for a practice: scoped like its records, but nobody's record. */
export const standInEntities = [StandInSample] as const;

export const entities = [...ownedEntities, ...identityEntities, ...standInEntities, AuditEntry] as const;
