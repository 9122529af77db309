import type { Analyte } from '../analytes/analytes.ts';
import {
  type Field,
  type Fields,
  InputError,
  type Values,
  optional,
  readFields,
  shown,
} from '../calculators/fields.ts';
import { text } from '../calculators/structures.ts';
import type { SoilGroup } from '../soil/soilGroups.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { type Working, WorkingBook } from '../working/working.ts';

/** Tests that an advisor does with his own hands, in the order in which a day goes. */
export const fieldTestKinds = [
  ...(['drainage', 'jar', 'core', 'probe', 'ring', 'waterDrop', 'fizz', 'soilTemperature', 'soilMoisture'] as const),
  ...(['catchCups', 'wateringDepth', 'cover'] as const),
] as const;
export type FieldTestKind = (typeof fieldTestKinds)[number];

/** What of a zone a test is judged by; nothing where nobody knows. */
export interface TestedGround {
  /** % */
  readonly slope?: number | undefined;
  readonly lie?: 'slope' | 'flat' | 'hollow' | undefined;
  readonly soilGroup?: SoilGroup | undefined;
  /** cm */
  readonly rootDepth?: number | undefined;
  readonly season?: 'cool' | 'warm' | undefined;
  readonly fineTurf?: boolean | undefined;
  /** mm/h that the sprinklers give, where cups were out. */
  readonly sprinklerRate?: number | undefined;
}

/** A value that a test comes to, in the analyte's own unit. */
export interface FieldValue {
  readonly analyte: Analyte;
  readonly value: number;
  /** cm; of a layer of its own. */
  readonly depthFrom?: number | undefined;
  readonly depthTo?: number | undefined;
}

/** What a test says, as far as it is done. */
export interface FieldTestJudged {
  readonly values: readonly FieldValue[];
  /** The answer in one line; nothing while there is none. */
  readonly title: string | null;
  /** What it means for this lawn, a sentence each. */
  readonly words: readonly string[];
  readonly working: Working;
}

export interface FieldTestDefinition<F extends Fields = Fields> {
  readonly kind: FieldTestKind;
  readonly title: string;
  /** What it answers, in one sentence. */
  readonly about: string;
  readonly tools: readonly string[];
  /** What the hands do, in order. */
  readonly steps: readonly string[];
  readonly cautions: readonly string[];
  readonly fields: F;
  readonly judge: (record: Values<F>, ground: TestedGround, units: UnitSystem) => FieldTestJudged;
}

/** What {@link judgeFieldTest} needs of a test, whatever its fields. */
export type AnyFieldTest = Omit<FieldTestDefinition, 'judge' | 'fields'> & {
  readonly fields: Fields;
  /** @throws {InputError} for a record that cannot be */
  readonly judge: (raw: unknown, ground: TestedGround, units: UnitSystem) => FieldTestJudged;
};

/** Make a test: its record is read and checked before it is judged. */
export function fieldTest<F extends Fields>({ judge, ...test }: FieldTestDefinition<F>): AnyFieldTest {
  return { ...test, judge: (raw, ground, units) => judge(readFields(test.fields, raw), ground, units) };
}

/** A moment, ISO 8601 with its zone. */
export function moment(): Field<string, false> {
  return {
    description: 'a moment such as 2026-10-14T08:30:00Z',
    optional: false,
    shape: { kind: 'text' },
    read(raw, path) {
      const at = typeof raw === 'string' ? Date.parse(raw) : Number.NaN;
      if (Number.isNaN(at) || !/^\d{4}-\d\d-\d\dT[\d:.]{5,12}(?:Z|[+-]\d\d:?\d\d)$/.test(raw as string))
        throw new InputError(path, `was given ${shown(raw)}; wanted a moment such as 2026-10-14T08:30:00Z`);
      return new Date(at).toISOString();
    },
  };
}

/** A day, ISO 8601. */
export function day(): Field<string, false> {
  return {
    description: 'a day such as 2026-10-14',
    optional: false,
    shape: { kind: 'text' },
    read(raw, path) {
      if (typeof raw !== 'string' || !/^\d{4}-\d\d-\d\d$/.test(raw) || Number.isNaN(Date.parse(raw)))
        throw new InputError(path, `was given ${shown(raw)}; wanted a day such as 2026-10-14`);
      return raw;
    },
  };
}

/** Minutes from one moment to another. */
export const minutesBetween = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 60_000;

export const note = () => optional(text(600));

/** "14 cm" or "5.5 in". */
export const depthText = (depth: number, units: UnitSystem): string => present('depth', depth, units).text;

/** "7.3 mm/h" or "0.29 in/h": two figures, whatever its size. */
export function rateText(rate: number, units: UnitSystem): string {
  return units === 'us'
    ? `${Number(convert(rate, 'mm/h', 'in/h').toPrecision(2))} in/h`
    : `${Number(rate.toPrecision(2))} mm/h`;
}

export const nothingYet: FieldTestJudged = { values: [], title: null, words: [], working: [] };

/** The middle of a list; the mean of the two middle ones where they are even. */
export function median(list: readonly number[]): number {
  const sorted = [...list].sort((a, b) => a - b);
  const half = sorted.length >> 1;
  return sorted.length % 2 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

/** A working of one step. */
export function oneStep(step: Parameters<WorkingBook['step']>[0]): Working {
  const book = new WorkingBook();
  book.step(step);
  return book.entries;
}
