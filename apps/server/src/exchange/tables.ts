import type { EntityTarget, ObjectLiteral } from 'typeorm';
import { KnownDevice } from '../people/knownDevice.entity.ts';
import { DoneOnce } from '../platform/doneOnce.entity.ts';
import { AuditEntry } from '../platform/auditEntry.entity.ts';
import { GroundFeature } from '../ground/groundFeature.entity.ts';
import { Underlay } from '../ground/underlay.entity.ts';
import { ZonePhoto } from '../ground/zonePhoto.entity.ts';
import { Site } from '../sites/site.entity.ts';
import { Zone } from '../ground/zone.entity.ts';
import { OwnLaboratory } from '../laboratories/ownLaboratory.entity.ts';
import { LabReport } from '../lab/labReport.entity.ts';
import { HistoryImport } from '../lab/historyImport.entity.ts';
import { LabProfile } from '../lab/labProfile.entity.ts';
import { LabQuestion } from '../lab/labQuestion.entity.ts';
import { LabResult } from '../lab/labResult.entity.ts';
import { Sample } from '../lab/sample.entity.ts';
import { SampleZone } from '../lab/sampleZone.entity.ts';
import { Measurement } from '../measurements/measurement.entity.ts';
import { FieldTestRecord } from '../measurements/fieldTest.entity.ts';
import { LoadCheck } from '../ownTests/loadCheck.entity.ts';
import { Person } from '../people/person.entity.ts';
import { PasswordReset } from '../people/passwordReset.entity.ts';
import { Session } from '../people/session.entity.ts';
import { SignInAttempt } from '../people/signInAttempt.entity.ts';
import { Invitation } from '../people/invitation.entity.ts';
import { Mail } from '../people/mail.entity.ts';
import { Membership } from '../people/membership.entity.ts';
import { Practice } from '../people/practice.entity.ts';
import { Program } from '../rates/program.entity.ts';
import { ProgramZone } from '../rates/programZone.entity.ts';
import { Quote, QuoteLine } from '../rates/quote.entity.ts';
import { DoseRecord, TreatmentRecord } from '../rates/treatment.entity.ts';
import { Machine } from '../machines/machine.entity.ts';
import { ProductRecord } from '../materials/product.entity.ts';
import { Setting } from '../settings/setting.entity.ts';
import { EntryRecord } from '../entries/entry.entity.ts';
import { Prediction } from '../proof/prediction.entity.ts';
import { CalendarLink } from '../season/calendarLink.entity.ts';
import { Job } from '../season/job.entity.ts';
import { SiteDate } from '../season/siteDate.entity.ts';
import { Bag } from '../sampling/bag.entity.ts';
import { BagCustody } from '../sampling/bagCustody.entity.ts';
import { Core } from '../sampling/core.entity.ts';
import { CoreTap } from '../sampling/coreTap.entity.ts';
import { Message } from '../messages/message.entity.ts';
import { OwnerReportRecord } from '../report/ownerReport.entity.ts';
import { ShareLink } from '../report/shareLink.entity.ts';
import { Run } from '../runs/run.entity.ts';
import { StandInSample } from '../standins/laboratory/standInSample.entity.ts';

/** One table of a practice as one open file. */
export interface ExportedTable {
  readonly entity: EntityTarget<ObjectLiteral>;
  /** Its ending says the format. */
  readonly file: `${string}.csv` | `${string}.json` | `${string}.geojson`;
  readonly what: string;
  /** Columns that stay behind. */
  readonly without?: readonly string[];
  /** Of CSV: JSON columns spread over a column for each of their values. */
  readonly spread?: readonly string[];
}

/** In an order in which each may refer to those before it. */
export const exportedTables: readonly ExportedTable[] = [
  { entity: Practice, file: 'practice.json', what: 'the practice', without: ['demo'] },
  {
    entity: Person,
    file: 'people.csv',
    what: 'its people; passwords stay behind',
    without: ['passwordHash', 'hasPassword'],
  },
  { entity: Site, file: 'sites.json', what: 'sites with their places, people and access' },
  {
    entity: Membership,
    file: 'memberships.json',
    what: 'who is what in the practice, and the sites that clients read',
  },
  { entity: Zone, file: 'zones.geojson', what: 'zones with their outlines; areas in m², depths in cm' },
  { entity: GroundFeature, file: 'ground-features.geojson', what: 'beds, drives, lines, trees and the like' },
  { entity: Underlay, file: 'underlays.json', what: 'images under plans, as base64, and where they lie' },
  { entity: OwnLaboratory, file: 'laboratories.json', what: 'laboratories of its own; depths in cm, bags in mL' },
  { entity: Bag, file: 'bags.json', what: 'bags as they were planned, and where they are; depths in cm' },
  { entity: Core, file: 'cores.json', what: 'where the probe was pushed, how deep, and what came up; depths in cm' },
  { entity: CoreTap, file: 'core-taps.json', what: 'the walks’ touches as the devices sent them' },
  { entity: BagCustody, file: 'custody.json', what: 'where each bag was, when and by whom' },
  { entity: Sample, file: 'samples.csv', what: 'what was measured: bags and typed labels; depths in cm' },
  { entity: SampleZone, file: 'sample-zones.csv', what: 'the zones that each sample speaks for' },
  { entity: LabProfile, file: 'lab-profiles.json', what: 'how laboratories arrange their files; depths in cm' },
  { entity: HistoryImport, file: 'histories.json', what: 'files of many years’ tests; as they came under files/' },
  {
    entity: LabReport,
    file: 'lab-files.json',
    what: 'laboratories’ files as text; as they came they are under files/',
  },
  {
    entity: LabResult,
    file: 'lab-results.csv',
    what: 'what each report said of a sample beside its numbers',
    spread: ['advised'],
  },
  { entity: LabQuestion, file: 'lab-questions.json', what: 'what laboratories were asked, and what they answered' },
  { entity: FieldTestRecord, file: 'field-tests.json', what: 'tests with one’s own hands, as they were read; cm, mm' },
  { entity: LoadCheck, file: 'load-checks.json', what: 'loads and seed looked over at the gate' },
  {
    entity: Measurement,
    file: 'measurements.csv',
    what: 'every value as it was printed or read, with its unit and method; thatch, roots and probe in cm',
    spread: ['place'],
  },
  {
    entity: ProductRecord,
    file: 'products.json',
    what: 'products by analysis, with packs, prices and stock',
  },
  { entity: Machine, file: 'machines.json', what: 'machines with their settings by product; m, kg and g/m²' },
  { entity: Setting, file: 'settings.json', what: 'what the practice, its sites and zones have decided' },
  { entity: Program, file: 'programs.json', what: 'programs of sites: the draft, and what was handed over' },
  { entity: ProgramZone, file: 'program-zones.json', what: 'zones of programs as their owners saw them' },
  {
    entity: TreatmentRecord,
    file: 'treatments.json',
    what: 'treatments of programs, and what was decided by hand; rates in their unit',
  },
  { entity: DoseRecord, file: 'doses.json', what: 'doses of treatments with their days' },
  { entity: Quote, file: 'quotes.json', what: 'what was offered of programs, and what was said to it' },
  { entity: QuoteLine, file: 'quote-lines.json', what: 'lines of quotes as their owners read them' },
  {
    entity: OwnerReportRecord,
    file: 'owner-reports.json',
    what: 'reports for owners, as they were made and handed over',
  },
  { entity: Job, file: 'jobs.json', what: 'doses on their days, with who does them; rates in their unit' },
  { entity: EntryRecord, file: 'entries.json', what: 'what was done, as it was written; g/m², cm, mL/m² and m²' },
  {
    entity: ZonePhoto,
    file: 'photos.json',
    what: 'photos of zones and of what was done; the pictures are under files/',
  },
  { entity: Prediction, file: 'predictions.json', what: 'what was foretold of the pH when programs were handed over' },
  { entity: Message, file: 'messages.json', what: 'what was written about sites, by whom and when' },
  { entity: SiteDate, file: 'site-dates.json', what: 'dates that work has to be ready for' },
  { entity: AuditEntry, file: 'changes.json', what: 'who changed what', without: ['number'] },
];

/** Left out on purpose: secrets and what is good on this installation only. */
export const notExported: readonly EntityTarget<ObjectLiteral>[] = [
  Invitation,
  ShareLink,
  CalendarLink,
  Session,
  KnownDevice,
  PasswordReset,
  SignInAttempt,
  Mail,
  StandInSample,
  Run,
  DoneOnce,
];
