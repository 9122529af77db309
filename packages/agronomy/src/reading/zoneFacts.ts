import type { Surface } from '../ground/surfaces.ts';
import type { SoilGroup } from '../soil/soilGroups.ts';
import type { Working } from '../working/working.ts';
import type { DilutedEc } from './salt.ts';
import type { Applied } from '../ground/applied.ts';
import type { Down, Sums } from '../ledger/ledger.ts';
import type { Nutrient } from '../analytes/analytes.ts';
import type { ReportedValue, ReportedValues } from '../analytes/reported.ts';
import type { BufferMethod } from '../lab/buffers.ts';
import type { Extractant } from '../nutrients/sufficiencyTables.ts';

/** A grass of a mix and its share of the sward, %. */
export interface GrassShare {
  readonly grass: string;
  readonly share: number;
}

/** What was measured on the ground itself. */
export interface FieldMeasurements {
  /** Permeability of the slowest layer of a test hole, mm/h. */
  readonly percolationSlowest?: number | undefined;
  /** Mean drop of a test hole, mm/h. */
  readonly percolationOverall?: number | undefined;
  /** cm */
  readonly probeStop?: number | undefined;
  readonly thatch?: number | undefined;
  readonly rootDepth?: number | undefined;
  /** Free carbonate, % by mass. */
  readonly carbonate?: number | undefined;
  /** What a drop of acid does on the soil. */
  readonly fizz?: 'none' | 'weak' | 'strong' | undefined;
  /** How long a drop of water stands, s. */
  readonly waterDrop?: number | undefined;
  /** What a ring takes in, mm/h. */
  readonly infiltration?: number | undefined;
}

/** What is known of a zone that bears on reading its test and setting its rates. */
export interface ZoneFacts {
  readonly name: string;
  /** m², less beds, drives and the like. */
  readonly area: number;
  /** Nothing on a garden bed. */
  readonly grass?: string | undefined;
  /** Vegetables, shrubs or bare ground beside the lawn: read by a general garden band, and given no lawn feed. */
  readonly garden?: boolean | undefined;
  /** The parts of a mix; nothing where the zone is of one grass. */
  readonly mix?: readonly GrassShare[] | undefined;
  readonly surface: Surface;
  readonly intensity: 'low' | 'medium' | 'high';
  readonly shade: 'full sun' | 'part' | 'deep';
  /** The class that was chosen, where the hours counted say another one. */
  readonly shadeChosen?: ZoneFacts['shade'] | undefined;
  /** Hours of direct sun, where they are known. */
  readonly sunHours?: number | undefined;
  readonly clippings: 'returned' | 'removed';
  readonly soilGroup?: SoilGroup | undefined;
  /** The advisor's own aim; the grass's when absent. */
  readonly aimPh?: number | undefined;
  /** Why the own aim lies where it does; wanted for one outside the band. */
  readonly aimReason?: string | undefined;
  /** % */
  readonly slope?: number | undefined;
  readonly lie?: 'slope' | 'flat' | 'hollow' | undefined;
  readonly seaside?: boolean | undefined;
  /** What it is used for. */
  readonly use?: 'ornamental' | 'play' | 'sport' | 'walked across' | 'driven on' | undefined;
  /** How it is watered, `none` where it is not. */
  readonly irrigation?: string | undefined;
  readonly measured?: FieldMeasurements | undefined;
  /** Names of signs of trouble, or what was seen in words. */
  readonly signs?: readonly string[] | undefined;
  readonly applied?: readonly Applied[] | undefined;
  /** What of the year that is worked on is down already, by the logbook. */
  readonly down?: Down | undefined;
  /** What was put down after the day of the test’s sample, g/m². */
  readonly sinceTest?: Sums | undefined;
}

/** A laboratory's result for one zone. */
export interface SoilTest {
  readonly soilPh: number;
  /** What the pH was measured in; water unless told. */
  readonly phIn?: 'water' | 'salt' | 'CaCl2' | undefined;
  readonly buffer?:
    | {
        readonly method: BufferMethod;
        readonly ph: number;
        /** By which an Adams–Evans laboratory has multiplied its lime already; 1 unless told. */
        readonly limeFactor?: number | undefined;
      }
    | undefined;
  readonly extractant: Extractant;
  /** cm */
  readonly depth: number;
  /** % */
  readonly organicMatter?: number | undefined;
  readonly nutrients: Readonly<Partial<Record<Nutrient, ReportedValue>>>;
  /** dS/m of the saturated paste. */
  readonly ec?: number | undefined;
  readonly ecDiluted?: DilutedEc | undefined;
  /** Exchangeable sodium, %. */
  readonly esp?: number | undefined;
  /** Cation exchange capacity, cmol(+)/kg. */
  readonly cec?: number | undefined;
  /** Free carbonate, % by mass. */
  readonly carbonate?: number | undefined;
  /** All that was reported, as printed. */
  readonly values?: ReportedValues | undefined;
  /** How what was not reported itself was worked out. */
  readonly steps?: Readonly<Partial<Record<'organicMatter' | 'esp', Working | undefined>>> | undefined;
  /** `2026-09-01` */
  readonly sampledOn?: string | undefined;
}
