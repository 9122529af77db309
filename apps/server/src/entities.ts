import { Message } from './messages/message.entity.ts';
import { AuditEntry } from './platform/auditEntry.entity.ts';
import { Underlay } from './ground/underlay.entity.ts';
import { ZonePhoto } from './ground/zonePhoto.entity.ts';
import { GroundFeature } from './ground/groundFeature.entity.ts';
import { Site } from './sites/site.entity.ts';
import { Zone } from './ground/zone.entity.ts';
import { LabReport } from './lab/labReport.entity.ts';
import { HistoryImport } from './lab/historyImport.entity.ts';
import { LabProfile } from './lab/labProfile.entity.ts';
import { LabQuestion } from './lab/labQuestion.entity.ts';
import { LabResult } from './lab/labResult.entity.ts';
import { Machine } from './machines/machine.entity.ts';
import { EntryRecord } from './entries/entry.entity.ts';
import { Job } from './season/job.entity.ts';
import { SiteDate } from './season/siteDate.entity.ts';
import { CalendarLink } from './season/calendarLink.entity.ts';
import { Prediction } from './proof/prediction.entity.ts';
import { Setting } from './settings/setting.entity.ts';
import { OwnLaboratory } from './laboratories/ownLaboratory.entity.ts';
import { Sample } from './lab/sample.entity.ts';
import { SampleZone } from './lab/sampleZone.entity.ts';
import { Measurement } from './measurements/measurement.entity.ts';
import { FieldTestRecord } from './measurements/fieldTest.entity.ts';
import { LoadCheck } from './ownTests/loadCheck.entity.ts';
import { Invitation } from './people/invitation.entity.ts';
import { Mail } from './people/mail.entity.ts';
import { Membership } from './people/membership.entity.ts';
import { PasswordReset } from './people/passwordReset.entity.ts';
import { Person } from './people/person.entity.ts';
import { Session } from './people/session.entity.ts';
import { SignInAttempt } from './people/signInAttempt.entity.ts';
import { Practice } from './people/practice.entity.ts';
import { Program } from './rates/program.entity.ts';
import { ProgramZone } from './rates/programZone.entity.ts';
import { Quote, QuoteLine } from './rates/quote.entity.ts';
import { KnownDevice } from './people/knownDevice.entity.ts';
import { DoneOnce } from './platform/doneOnce.entity.ts';
import { DoseRecord, TreatmentRecord } from './rates/treatment.entity.ts';
import { ProductRecord } from './materials/product.entity.ts';
import { Bag } from './sampling/bag.entity.ts';
import { BagCustody } from './sampling/bagCustody.entity.ts';
import { Core } from './sampling/core.entity.ts';
import { CoreTap } from './sampling/coreTap.entity.ts';
import { ShareLink } from './report/shareLink.entity.ts';
import { OwnerReportRecord } from './report/ownerReport.entity.ts';
import { Run } from './runs/run.entity.ts';
import { StandInSample } from './standins/laboratory/standInSample.entity.ts';

/** Records of the practices; each carries its practice. */
export const ownedEntities = [
  Site,
  Zone,
  GroundFeature,
  ZonePhoto,
  Underlay,
  OwnLaboratory,
  Machine,
  Setting,
  Bag,
  Core,
  CoreTap,
  BagCustody,
  Sample,
  SampleZone,
  LabResult,
  Measurement,
  LabProfile,
  HistoryImport,
  LabReport,
  LabQuestion,
  FieldTestRecord,
  LoadCheck,
  ProductRecord,
  Program,
  ProgramZone,
  TreatmentRecord,
  DoseRecord,
  Quote,
  QuoteLine,
  Job,
  EntryRecord,
  Prediction,
  SiteDate,
  CalendarLink,
  Membership,
  Invitation,
  ShareLink,
  OwnerReportRecord,
  Message,
] as const;

/** Who is asking: known before any practice is. */
export const identityEntities = [Practice, Person, Session, KnownDevice, PasswordReset, SignInAttempt, Mail] as const;

/** What services keep for a practice: scoped like its records, but nobody's record. */
export const serviceEntities = [StandInSample, Run, DoneOnce] as const;

export const entities = [...ownedEntities, ...identityEntities, ...serviceEntities, AuditEntry] as const;
