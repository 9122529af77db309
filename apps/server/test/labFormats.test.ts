import { bagCode, readLabRow, writeBagCode } from '@glenfold/agronomy';
import { chanceFrom } from '@glenfold/agronomy/geometry';
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { readLabTable } from '../src/lab/labTable.ts';
import { goalOf, missingOf } from '../src/lab/rowGoals.ts';
import { Problem } from '../src/platform/problem.ts';
import type { FilledBag } from '../src/sampling/sampling.service.ts';
import type { Zone } from '../src/ground/zone.entity.ts';

/** A report that nobody here has designed: some columns, in some order, with some words around. */
const report = fc.record({
  columns: fc.shuffledSubarray(['Sample', 'pH', 'Buffer pH', 'P ppm', 'K ppm', 'OM %', 'Remarks'], { minLength: 4 }).filter((columns) => columns.includes('Sample')), // prettier-ignore
  rows: fc.array(
    fc.record({ label: fc.stringMatching(/^[A-Z]{2}-\d{1,3}$/), ph: fc.integer({ min: 40, max: 85 }), p: fc.integer({ min: 0, max: 400 }), below: fc.boolean() }), // prettier-ignore
    { minLength: 1, maxLength: 8 },
  ),
  method: fc.constantFrom(...(['Mehlich 3', 'Bray P1', 'Olsen', 'Mehlich-1', 'modified Morgan'] as const)),
  gap: fc.integer({ min: 2, max: 5 }),
  ruled: fc.boolean(),
});
type Report = typeof report extends fc.Arbitrary<infer T> ? T : never;
const methods = { 'Mehlich 3': 'mehlich-3', 'Bray P1': 'bray-1', Olsen: 'olsen', 'Mehlich-1': 'mehlich-1', 'modified Morgan': 'morgan' } as const; // prettier-ignore

const cellsOf = ({ columns, rows }: Report): string[][] =>
  rows.map(({ label, ph, p, below }) =>
    columns.map(
      (column) =>
        ({ Sample: label, pH: (ph / 10).toFixed(1), 'Buffer pH': '6.4', 'P ppm': `${below ? '<' : ''}${p}`, 'K ppm': '90', 'OM %': '3.1', Remarks: 'as received' })[column]!, // prettier-ignore
    ),
  );

/** Looked through, it says what was put in. */
function expectRead(content: string, { columns, rows, method }: Report): void {
  const { header, rows: found } = readLabTable(content);
  expect(header.extractant).toBe(methods[method]);
  expect(found).toHaveLength(rows.length);
  for (const [index, { cells }] of found.entries()) {
    const { row } = readLabRow(cells, header.columns);
    const { label, ph, p, below } = rows[index]!;
    expect(row.label).toBe(label);
    if (columns.includes('pH')) expect(row.values.soilPh?.value).toBe(ph / 10);
    if (columns.includes('P ppm')) expect(row.values.p).toEqual({ value: p, ...(below ? { belowDetection: true } : {}), unit: 'mg/kg', basis: 'element' }); // prettier-ignore
  }
}

describe('a report of any laboratory', () => {
  it('as text in columns is read, with a rule under its head or without', () => {
    fc.assert(
      fc.property(report, (given) => {
        const table = [given.columns, ...cellsOf(given)];
        const widths = given.columns.map((_, column) => Math.max(...table.map((row) => row[column]!.length)));
        const line = (row: readonly string[]): string =>
          row.map((cell, column) => cell.padEnd(widths[column]! + given.gap)).join('').trimEnd(); // prettier-ignore
        const rule = given.ruled ? [line(widths.map((width) => '='.repeat(width)))] : [];
        const above = ['THE LABORATORY', `Extracted with ${given.method}`, ''];
        expectRead([...above, line(given.columns), ...rule, ...table.slice(1).map(line), ''].join('\n'), given);
      }),
    );
  });

  it('as JSON is read, flat or with numbers beside their units, wherever its samples stand', () => {
    fc.assert(
      fc.property(report, fc.boolean(), fc.boolean(), (given, beside, deep) => {
        const samples = cellsOf(given).map((cells) =>
          Object.fromEntries(
            cells.map((cell, index): [string, unknown] => {
              const [name = '', unit] = given.columns[index]!.split(/ (?=ppm|%)/);
              const value = /^[\d.]+$/.test(cell) && name !== 'Sample' ? Number(cell) : cell;
              return beside && unit ? [name, { value, unit }] : [given.columns[index]!, value];
            }),
          ),
        );
        const file = { issued: '2026-11-02', method: { extraction: given.method }, ...(deep ? { batch: { results: samples } } : { samples }) }; // prettier-ignore
        expectRead(JSON.stringify(file), given);
      }),
    );
  });

  it('that was cut short, holds no samples or is no report is refused in words', () => {
    const words = (content: string): string => {
      try {
        readLabTable(content);
      } catch (error) {
        if (error instanceof Problem) return error.message;
        throw error;
      }
      return 'read';
    };
    expect(words('{"samples": [{"pH": 5.')).toMatch(/begins as JSON but cannot be read.*cut short/);
    expect(words('{"samples": []}')).toMatch(/No line of this file names columns/);
    expect(words('Dear customer, your bags arrived.')).toMatch(/No line of this file names columns/);
    expect(words('Sample;pH;P ppm\n')).toMatch(/no sample under it/);
  });

  it('names its methods beside the table without the buffer being taken for the extractant', () => {
    const head = 'Sample  pH  Buffer pH  P ppm';
    const of = (line: string) => readLabTable([line, '', head, 'A-1  5.6  6.4  20'].join('\n')).header;
    expect(of('Bray P1; Mehlich buffer')).toMatchObject({ extractant: 'bray-1', bufferMethod: 'mehlich' });
    expect(of('Adams-Evans buffer. Extraction: Mehlich 1')).toMatchObject({ extractant: 'mehlich-1', bufferMethod: 'adams-evans' }); // prettier-ignore
    expect(of('Extraction Mehlich 3')).toMatchObject({ extractant: 'mehlich-3', bufferMethod: null });
  });
});

describe('where a line goes', () => {
  const bags = Array.from({ length: 12 }, (_, index): FilledBag => ({ id: `bag ${index}`, code: bagCode(chanceFrom(index)), zoneIds: ['z1', 'z2'], depth: 10, state: 'at the lab', panels: ['routine'], purpose: 'routine', sampledOn: '2026-10-14' })); // prettier-ignore
  const zones = [{ id: 'z1', label: 'GR-1', name: 'Court' }, { id: 'z2', label: 'GR-2', name: 'Lawn' }] as Zone[]; // prettier-ignore
  const any = fc.constantFrom(...bags);

  it('is the bag of its code, however it was written, and all its zones; then the zone of its label or name', () => {
    fc.assert(
      fc.property(any, fc.constantFrom('', '-', ' ', ' - '), fc.boolean(), (bag, between, small) => {
        const written = `${bag.code.slice(0, 3)}${between}${bag.code.slice(3)}`;
        expect(goalOf(small ? written.toLowerCase() : written, undefined, zones, bags)).toEqual({ zoneIds: ['z1', 'z2'], bag }); // prettier-ignore
      }),
    );
    expect(goalOf('gr 1', undefined, zones, bags)).toEqual({ zoneIds: ['z1'] });
    expect(goalOf('LAWN', undefined, zones, bags)).toEqual({ zoneIds: ['z2'] });
    expect(goalOf('GR-1', { line: 1, zoneId: null }, zones, bags).fault).toBe('Set to go nowhere.');
  });

  it('with one sign wrong, or two changed about, is no bag, and the bag it looks like is named', () => {
    const signs = [...'23456789ABCDEFGHJKMNPQRSTUVWXYZ'];
    fc.assert(
      fc.property(any, fc.nat(5), fc.nat(4), fc.constantFrom(...signs), (bag, at, from, sign) => {
        const one = `${bag.code.slice(0, at)}${sign}${bag.code.slice(at + 1)}`;
        const two = `${bag.code.slice(0, from)}${bag.code[from + 1]}${bag.code[from]}${bag.code.slice(from + 2)}`;
        for (const label of [one, two].filter((wrong) => wrong !== bag.code)) {
          const goal = goalOf(label, undefined, zones, bags);
          expect(goal.zoneIds).toEqual([]);
          expect(goal.fault).toContain(writeBagCode(bag.code));
        }
      }),
    );
    const strange = bagCode(chanceFrom(99));
    expect(goalOf(strange, undefined, zones, bags).fault).toMatch(/is not of this site: was the report of another/);
    const gone = goalOf(bags[0]!.code, undefined, [], bags);
    expect(gone).toEqual({ zoneIds: [], fault: 'The zones of this bag were deleted meanwhile.' });
  });

  it('what was asked for and is not there is told', () => {
    const ppm = { value: 20, unit: 'mg/kg', basis: 'element' } as const;
    const row = {
      label: 'A',
      values: { saltPh: { ...ppm, unit: 'pH' }, p: ppm, ec15: { ...ppm, unit: 'dS/m' } },
    } as const;
    expect(missingOf(['routine', 'organic matter'], row)).toEqual(['organic matter', 'K']);
    // Salts may come by any extract.
    expect(missingOf(['salts'], row)).toEqual(['sodium']);
  });
});
