import {
  type Field,
  type Fields,
  InputError,
  type QuantityOptions,
  type Values,
  quantity,
  readFields,
  shown,
} from './fields.ts';

/** A text, such as a name. */
export function text(longest = 120): Field<string, false> {
  return {
    description: 'text',
    optional: false,
    shape: { kind: 'text' },
    read(raw, path) {
      if (typeof raw !== 'string' || raw.trim() === '' || raw.length > longest)
        throw new InputError(path, `was given ${shown(raw)}; wanted a text of 1 to ${longest} letters`);
      return raw.trim();
    },
  };
}

/** A reported amount: a number, or below what the laboratory can tell (`"<27"`), then the limit. */
export interface Detected {
  readonly value: number;
  readonly below: boolean;
}

/** An amount in `unit` as a laboratory prints it: `27`, `"27 ppm"`, or `"<27"` below detection. */
export function detected(unit: string, options: QuantityOptions = {}): Field<Detected, false> {
  const amount = quantity(unit, options);
  return {
    description: `${amount.description}, or "<" and the detection limit`,
    optional: false,
    shape: amount.shape,
    read(raw, path) {
      const below = typeof raw === 'string' ? /^\s*(?:<|less than)\s*/i.exec(raw) : null;
      return below
        ? { value: amount.read((raw as string).slice(below[0].length), path), below: true }
        : { value: amount.read(raw, path), below: false };
    },
  };
}

/** Yes or no. */
export function flag(): Field<boolean, false> {
  return {
    description: 'true or false',
    optional: false,
    shape: { kind: 'flag' },
    read(raw, path) {
      if (typeof raw !== 'boolean') throw new InputError(path, `was given ${shown(raw)}; wanted true or false`);
      return raw;
    },
  };
}

interface ListOptions {
  readonly min: number;
  readonly max: number;
}

function readList(raw: unknown, path: string, what: string, { min, max }: ListOptions): readonly unknown[] {
  const wanted = min === max ? `${min} ${what}` : `a list of ${min} to ${max} ${what}`;
  if (!Array.isArray(raw)) throw new InputError(path, `was given ${shown(raw)}; wanted ${wanted}`);
  if (raw.length < min || raw.length > max) throw new InputError(path, `was given ${raw.length}; wanted ${wanted}`);
  return raw;
}

/** A list of values of one kind. */
export function series<T>(item: Field<T>, what: string, options: ListOptions): Field<readonly T[], false> {
  return {
    description: `[${options.min === options.max ? options.min : `${options.min} to ${options.max}`}] of ${item.description}`,
    optional: false,
    shape: { kind: 'list', item, ...options },
    read: (raw, path) => readList(raw, path, what, options).map((entry, index) => item.read(entry, `${path}.${index}`)),
  };
}

const told = (fields: Fields): string =>
  Object.entries(fields)
    .map(([name, field]) => `${name}: ${field.description}`)
    .join('; ');

/** A list of objects, each with the same fields. */
export function listOf<F extends Fields>(
  fields: F,
  what: string,
  options: ListOptions,
): Field<readonly Values<F>[], false> {
  return {
    description: `[${options.min} to ${options.max}] of {${told(fields)}}`,
    optional: false,
    shape: { kind: 'list', item: group(fields), ...options },
    read: (raw, path) =>
      readList(raw, path, what, options).map((entry, index) => readFields(fields, entry, `${path}.${index}.`)),
  };
}

/** An object with fields of its own. */
export function group<F extends Fields>(fields: F): Field<Values<F>, false> {
  return {
    description: `{${told(fields)}}`,
    optional: false,
    shape: { kind: 'group', fields },
    read: (raw, path) => readFields(fields, raw, `${path}.`),
  };
}

/** An object with one value of a kind under each of the names. */
export function record<const K extends string, T>(
  names: readonly K[],
  item: Field<T>,
): Field<Readonly<Record<K, T>>, false> {
  const fields = Object.fromEntries(names.map((name) => [name, item]));
  return {
    description: `{${names.join(', ')}} of ${item.description}`,
    optional: false,
    shape: { kind: 'group', fields },
    read: (raw, path) => readFields(fields, raw, `${path}.`) as Readonly<Record<K, T>>,
  };
}

/** A low and a high end, the low one first. */
export function band(item: Field<number>): Field<readonly [low: number, high: number], false> {
  const ends = series(item, 'ends, low and high', { min: 2, max: 2 });
  return {
    description: `[low, high] of ${item.description}`,
    optional: false,
    shape: ends.shape,
    read(raw, path) {
      const [low, high] = ends.read(raw, path) as readonly [number, number];
      if (low > high) throw new InputError(path, `was given ${shown(raw)}; wanted the low end first`);
      return [low, high];
    },
  };
}
