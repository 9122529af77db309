import { InputError } from '../calculators/fields.ts';
import { findGrass } from '../nutrients/grasses.ts';
import { splitNumber } from '../units/quantity.ts';
import { analysisEntries, analysisKeys } from './analysis.ts';
import { type Material, readMaterial } from './material.ts';

/** A material with what a practice keeps of it, as one row of a CSV file. */
export interface StockedMaterial {
  readonly material: Material;
  /** Nothing until the practice has set it. */
  readonly packPrice: number | null;
  /** Bags, cans or loads that are there; nothing where nobody counted. */
  readonly stock: number | null;
  /** Day of the price, `2026-03-14`; nothing where nobody noted it. */
  readonly pricedOn: string | null;
  /** Of bringing one load; nothing where it is fetched. */
  readonly deliveryPrice: number | null;
  /** What one load brings, in the unit of the pack; nothing for all at once. */
  readonly loadSize: number | null;
}

export type MaterialRow = Readonly<Record<string, string | undefined>>;

const flags = ['natural', 'dolomitic', 'caustic'] as const;
const words = { nitrogenSource: 'nitrogen_source', chelate: 'chelate', caution: 'caution' } as const;

/** The columns of such a file, in their order. */
export const materialColumns: readonly string[] = [
  ...['name', 'kind'],
  ...analysisKeys.map((key) => analysisEntries[key].column),
  ...['nitrogen_source', 'chelate', 'seeds', 'natural', 'dolomitic', 'caustic', 'caution'],
  ...['pack_size', 'pack_unit', 'pack_price', 'stock', 'priced_on', 'delivery_price', 'load_size'],
];

/** Columns that go by another word, too. */
const otherWords: Readonly<Record<string, string>> = {
  bag_kg: 'pack_size',
  bag_price: 'pack_price',
  price: 'pack_price',
  product: 'name',
  magnesium: 'dolomitic',
};

/** A number as people write it in a table: with a comma, a percent sign or a currency sign before it. */
function numberIn(text: string, path: string): number {
  const number = splitNumber(
    text
      .replace(/[%$€£]/g, '')
      .trim()
      .replace(/^(-?\d+),(\d{1,2})$/, '$1.$2'),
  );
  if (number?.rest !== '') throw new InputError(path, `is "${text}": write a number, or leave it empty`);
  return number.value;
}

/** Signs and codes of money that stand before or behind an amount. */
const MONEY = /[$€£¥]|(?<![A-Za-z])[A-Z]{3}(?![A-Za-z])/;

/** A price in the practice’s own money. @throws {InputError} for one in another: two moneys make no sum */
function priceIn(text: string, path: string, currency: string): number {
  const plain = text.replace(currency, '').trim();
  const other = MONEY.exec(plain)?.[0];
  if (other !== undefined)
    throw new InputError(
      path,
      `is in ${other}, and this practice reckons in ${currency}: convert it, or leave it empty`,
    );
  return numberIn(plain, path);
}

/** "fine fescue 60; perennial ryegrass 40" */
function seedsIn(text: string, path: string): Array<{ grass: string; share: number }> {
  return text.split(';').map((part) => {
    const words = part.replace('%', ' ').trim().split(/\s+/);
    const last = words.at(-1) ?? '';
    const share = /^\d/.test(last) && words.length > 1 ? last : '100';
    const grass = share === last ? words.slice(0, -1).join(' ') : words.join(' ');
    return { grass: findGrass(grass).name, share: numberIn(share, path) };
  });
}

/**
 * Read one row of a materials file. Columns nobody filled may be left out; unknown ones are refused by name.
 *
 * @param currency sign of the practice’s money
 * @throws {InputError} whose field is the row's index and the column.
 */
export function readMaterialRow(given: MaterialRow, index: number, currency = '$'): StockedMaterial {
  const row = new Map<string, string>();
  for (const [column, value] of Object.entries(given)) {
    const plain = column
      .trim()
      .toLowerCase()
      .replace(/[\s-]+/g, '_');
    const name = otherWords[plain] ?? plain;
    const text = value?.trim() ?? '';
    if (text !== '' && !materialColumns.includes(name))
      throw new InputError(
        `${index}.${column}`,
        `is no column of a materials file: known are ${materialColumns.join(', ')}`,
      );
    if (text !== '') row.set(name, text);
  }
  const called = row.get('name') ?? `row ${index + 1}`;
  const number = (column: string): number | undefined => {
    const text = row.get(column);
    return text === undefined ? undefined : numberIn(text, `${index}.${column}`);
  };
  const price = (column: string): number | null => {
    const text = row.get(column);
    return text === undefined ? null : priceIn(text, `${index}.${column}`, currency);
  };
  const size = number('pack_size');
  if (size === undefined)
    throw new InputError(`${index}.pack_size`, `of ${called} is missing: how much does one bag hold?`);
  try {
    const material = readMaterial({
      name: row.get('name'),
      kind: row.get('kind'),
      analysis: Object.fromEntries(
        analysisKeys.flatMap((key) => {
          const value = number(analysisEntries[key].column);
          return value === undefined ? [] : [[key, value]];
        }),
      ),
      ...Object.fromEntries(
        Object.entries(words).flatMap(([key, column]) => (row.has(column) ? [[key, row.get(column)]] : [])),
      ),
      ...(row.has('seeds') ? { seeds: seedsIn(row.get('seeds')!, `${index}.seeds`) } : {}),
      ...Object.fromEntries(
        flags.flatMap((flag) => (/^(yes|true|1|x)$/i.test(row.get(flag) ?? '') ? [[flag, true]] : [])),
      ),
      packSize: size,
      packUnit: row.get('pack_unit') ?? 'kg',
    });
    const pricedOn = row.get('priced_on') ?? null;
    if (pricedOn !== null && !/^(19|20)\d\d-\d\d-\d\d$/.test(pricedOn))
      throw new InputError(`${index}.priced_on`, `is "${pricedOn}": write the day as 2026-03-14, or leave it empty`);
    return {
      ...{ material, packPrice: price('pack_price'), stock: number('stock') ?? null, pricedOn },
      ...{ deliveryPrice: price('delivery_price'), loadSize: number('load_size') ?? null },
    };
  } catch (error) {
    if (!(error instanceof InputError) || error.field.startsWith(`${index}.`)) throw error;
    throw new InputError(
      `${index}.${columnOf(error.field)}`,
      `of ${called} ${error.message.slice(error.field.length + 1)}`,
    );
  }
}

/** The column that a field of a material stands in. */
function columnOf(field: string): string {
  const [head = '', key = ''] = field.split('.');
  if (head === 'analysis') return (analysisEntries as Readonly<Record<string, { column: string }>>)[key]?.column ?? key;
  return { packSize: 'pack_size', packUnit: 'pack_unit', nitrogenSource: 'nitrogen_source' }[head] ?? head;
}

/** The same material as a row: read again, it is the same. */
export function writeMaterialRow(stocked: StockedMaterial): Record<string, string> {
  const { material, packPrice, stock, pricedOn, deliveryPrice, loadSize } = stocked;
  const { name, kind, analysis, seeds, packSize, packUnit } = material;
  const told = (value: number | null | undefined): string =>
    value === undefined || value === null ? '' : String(value);
  return Object.fromEntries(
    materialColumns.map((column): [string, string] => {
      const key = analysisKeys.find((one) => analysisEntries[one].column === column);
      if (key) return [column, told(analysis[key])];
      switch (column) {
        case 'name':
          return [column, name];
        case 'kind':
          return [column, kind];
        case 'seeds':
          return [column, seeds?.map(({ grass, share }) => `${grass} ${share}`).join('; ') ?? ''];
        case 'pack_size':
          return [column, told(packSize)];
        case 'pack_unit':
          return [column, packUnit];
        case 'pack_price':
          return [column, told(packPrice)];
        case 'stock':
          return [column, told(stock)];
        case 'priced_on':
          return [column, pricedOn ?? ''];
        case 'delivery_price':
          return [column, told(deliveryPrice)];
        case 'load_size':
          return [column, told(loadSize)];
        case 'nitrogen_source':
          return [column, material.nitrogenSource ?? ''];
        case 'chelate':
          return [column, material.chelate ?? ''];
        case 'caution':
          return [column, material.caution ?? ''];
        default:
          return [column, material[column as 'natural'] ? 'yes' : ''];
      }
    }),
  );
}
