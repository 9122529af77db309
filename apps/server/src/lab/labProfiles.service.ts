import { type Arrangement, type LabRow, arrange, readLabRow } from '@glenfold/agronomy';
import type { LabProfileAnswer, LabProfileInput, ProfileSampleInput, ProfileTrialAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { Problem, refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { threaded } from '../platform/threaded.ts';
import { Threads } from '../platform/threads.ts';
import { LabProfile } from './labProfile.entity.ts';
import { readLabTable } from './labTable.ts';

type Way = Pick<LabProfile, keyof Arrangement>;

/** The lines of a file as they are read by a laboratory's way. */
export function rowsBy(content: string, way: Pick<Arrangement, 'columns' | 'dateOrder'>): LabRow[] {
  const { header, rows, decimalComma, dateOrder } = readLabTable(content);
  const { columns } = arrange(header.columns, way);
  const writing = { decimalComma, dateOrder: way.dateOrder ?? dateOrder };
  return rows.map(({ cells }) => readLabRow(cells, columns, writing).row);
}

/** What a line says, each thing in words; however the database has turned its keys about. */
function plainly({ labNumber, sampledOn, depth, values, advised }: LabRow): ReadonlyMap<string, string> {
  const told: Array<readonly [string, string | undefined]> = [
    ['its number', labNumber],
    ['its day', sampledOn],
    ['its depth', depth === undefined ? undefined : `${Number(depth.toFixed(2))} cm`],
    ...Object.entries(values).map(([analyte, { value, unit, basis, belowDetection, aboveRange, rated, method }]) => {
      const sign = belowDetection ? '<' : aboveRange ? '>' : '';
      const as = [
        rated ?? `${sign}${value}`,
        unit,
        basis === 'oxide' ? 'as the oxide' : '',
        method ? `by ${method}` : '',
      ];
      return [analyte, as.filter(Boolean).join(' ')] as const;
    }),
    ...(advised ?? []).map(({ what, amount, unit, words }) => {
      return [`its advice of ${what}`, amount === null ? (words ?? '') : `${amount} ${unit ?? ''}`] as const;
    }),
  ];
  return new Map(told.flatMap(([name, words]) => (words === undefined ? [] : [[name, words] as const])));
}

/** How the sample of a profile is read now, against how it was. */
function tryOut({ sample, ...way }: Way & { readonly sample: ProfileSampleInput | null }): ProfileTrialAnswer | null {
  if (!sample) return null;
  try {
    const now = rowsBy(sample.content, way);
    const differences = sample.rows.flatMap((before, index) => {
      const after = now[index];
      if (!after) return [`${before.label || `Line ${index + 1}`} is not found any more.`];
      const [was, is] = [plainly(before), plainly(after)];
      return [...new Set([...was.keys(), ...is.keys()])].flatMap((name) =>
        was.get(name) === is.get(name)
          ? []
          : [`${before.label}: ${name} was ${was.get(name) ?? 'not read'} and is ${is.get(name) ?? 'not read'}.`],
      );
    });
    return { passes: differences.length === 0, differences: differences.slice(0, 20) };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    return { passes: false, differences: [error.detail] };
  }
}

export const profileTrials = threaded(
  import.meta.url,
  'profileTrials',
  (profiles: ReadonlyArray<Parameters<typeof tryOut>[0]>) => profiles.map(tryOut),
);

/** Laboratories' ways: learned from a file, changed, given to others and taken in. */
@Injectable()
export class LabProfilesService {
  constructor(
    private readonly records: Records,
    private readonly threads: Threads,
  ) {}

  all(): Promise<LabProfile[]> {
    return this.records.of(LabProfile).find({}, { name: 'ASC' });
  }

  async list(): Promise<LabProfileAnswer[]> {
    return this.#told(await this.all());
  }

  async add(input: LabProfileInput): Promise<LabProfileAnswer> {
    await this.#refuseTwin(input.name);
    return this.#one(await this.records.of(LabProfile).add(plain(input)));
  }

  /** What was learned of a laboratory before is learned anew from this file. */
  async learn(input: LabProfileInput): Promise<LabProfile> {
    const known = await this.#named(input.name);
    return known
      ? this.records.of(LabProfile).change(known.id, plain(input))
      : this.records.of(LabProfile).add(plain(input));
  }

  async change(id: string, input: LabProfileInput, version: number): Promise<LabProfileAnswer> {
    await this.#refuseTwin(input.name, id);
    const tell = (found: LabProfile) => ({ ...plain(found), version: found.version });
    return this.#one(await this.records.of(LabProfile).change(id, plain(input), { version, tell }));
  }

  remove(id: string): Promise<void> {
    return this.records.of(LabProfile).remove(id);
  }

  async restore(id: string): Promise<LabProfileAnswer> {
    const { name } = await this.records.of(LabProfile).deleted(id);
    await this.#refuseTwin(name, id);
    return this.#one(await this.records.of(LabProfile).restore(id));
  }

  async #named(name: string): Promise<LabProfile | undefined> {
    return (await this.all()).find((one) => one.name.toLowerCase() === name.toLowerCase());
  }

  async #refuseTwin(name: string, id?: string): Promise<void> {
    const twin = await this.#named(name);
    if (twin && twin.id !== id)
      refuse([{ field: 'name', message: `The way of ${twin.name} is kept already: change that one, or name this another.` }]);
  } // prettier-ignore

  async #one(profile: LabProfile): Promise<LabProfileAnswer> {
    return (await this.#told([profile]))[0]!;
  }

  async #told(profiles: readonly LabProfile[]): Promise<LabProfileAnswer[]> {
    const trials = await this.threads.run(profileTrials, profiles.map(plain));
    return profiles.map((one, index) => ({ id: one.id, version: one.version, ...plain(one), trial: trials[index]! }));
  }
}

function plain({ name, columns, extractant, bufferMethod, limeFactor, depth, dateOrder, sample }: LabProfileInput) {
  const none = <T>(value: T | null | undefined): T | null => value ?? null;
  return {
    ...{ name, columns: structuredClone(columns), extractant: none(extractant), bufferMethod: none(bufferMethod) },
    ...{ limeFactor: none(limeFactor), depth: none(depth), dateOrder: none(dateOrder), sample: none(sample) },
  };
}
