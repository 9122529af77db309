import { FirstSlice1795392000000 } from './1795392000000-firstSlice.ts';
import { People1795450000000 } from './1795450000000-people.ts';
import { Plan1795470000000 } from './1795470000000-plan.ts';
import { Facts1795490000000 } from './1795490000000-facts.ts';
import { Sampling1795500000000 } from './1795500000000-sampling.ts';
import { Laboratories1795640000000 } from './1795640000000-laboratories.ts';
import { Reasons1795700000000 } from './1795700000000-reasons.ts';
import { Measurements1795800000000 } from './1795800000000-measurements.ts';
import { OwnLaboratories1795810000000 } from './1795810000000-ownLaboratories.ts';
import { Settings1795820000000 } from './1795820000000-settings.ts';
import { Scale1795830000000 } from './1795830000000-scale.ts';
import { Runs1795840000000 } from './1795840000000-runs.ts';
import { Programs1795850000000 } from './1795850000000-programs.ts';
import { Quotes1795860000000 } from './1795860000000-quotes.ts';
import { Deliveries1795870000000 } from './1795870000000-deliveries.ts';
import { Season1795880000000 } from './1795880000000-season.ts';
import { LabIn1795890000000 } from './1795890000000-labIn.ts';
import { OwnTests1795900000000 } from './1795900000000-ownTests.ts';
import { PhotoFiles1795910000000 } from './1795910000000-photoFiles.ts';
import { Histories1795920000000 } from './1795920000000-histories.ts';
import { TestPhotos1795930000000 } from './1795930000000-testPhotos.ts';
import { Readings1795940000000 } from './1795940000000-readings.ts';
import { OneOfEach1795950000000 } from './1795950000000-oneOfEach.ts';
import { KnownDevices1795960000000 } from './1795960000000-knownDevices.ts';
import { Erasure1795970000000 } from './1795970000000-erasure.ts';
import { Mixes1795980000000 } from './1795980000000-mixes.ts';
import { DateKinds1795990000000 } from './1795990000000-dateKinds.ts';
import { RatedWords1796000000000 } from './1796000000000-ratedWords.ts';
import { TakenOver1796010000000 } from './1796010000000-takenOver.ts';
import { Decided1796020000000 } from './1796020000000-decided.ts';
import { Messages1796030000000 } from './1796030000000-messages.ts';
import { Ceilings1796040000000 } from './1796040000000-ceilings.ts';
import { Reached1796050000000 } from './1796050000000-reached.ts';
import { Prices1796060000000 } from './1796060000000-prices.ts';
import { Boards1796070000000 } from './1796070000000-boards.ts';

/** In the order they are run. */
export const migrations = [
  FirstSlice1795392000000,
  People1795450000000,
  Plan1795470000000,
  Facts1795490000000,
  Sampling1795500000000,
  Laboratories1795640000000,
  Reasons1795700000000,
  Measurements1795800000000,
  OwnLaboratories1795810000000,
  Settings1795820000000,
  Scale1795830000000,
  Runs1795840000000,
  Programs1795850000000,
  Quotes1795860000000,
  Deliveries1795870000000,
  Season1795880000000,
  LabIn1795890000000,
  OwnTests1795900000000,
  PhotoFiles1795910000000,
  Histories1795920000000,
  TestPhotos1795930000000,
  Readings1795940000000,
  OneOfEach1795950000000,
  KnownDevices1795960000000,
  Erasure1795970000000,
  Mixes1795980000000,
  DateKinds1795990000000,
  RatedWords1796000000000,
  TakenOver1796010000000,
  Decided1796020000000,
  Messages1796030000000,
  Ceilings1796040000000,
  Reached1796050000000,
  Prices1796060000000,
  Boards1796070000000,
] as const;
