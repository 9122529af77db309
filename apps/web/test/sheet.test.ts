import { type Analyte, labUnits, reportedAs, sheetOrder } from '@glenfold/agronomy';
import fc from 'fast-check';
import {
  type SheetHead,
  type SheetRow,
  cellsOf,
  moreAnalytes,
  freshHead,
  isBlank,
  readSheetRow,
  sheetOf,
} from '../src/features/lab/sheet/sheet.ts';
import { printed, resultWith } from './scene.ts';

const zone = { id: '4f8d3c1e-6a3b-4f0e-9c76-0c5d1f1a2b3c', label: 'N-1' };
const head: SheetHead = { ...freshHead, depth: '6' };
const full: SheetRow = {
  soilPh: '5.4',
  bufferPh: '6.4',
  p: '21',
  k: '<9',
  ca: '610',
  mg: '84',
  organicMatter: '3.4 %',
};
const messages = (row: SheetRow, more: Partial<SheetHead> = {}) =>
  readSheetRow(row, { ...head, ...more }, zone).problems.map(({ field, message }) => `${field}: ${message}`);

describe('a typed row', () => {
  it('becomes the result that the contract takes', () => {
    const { input, problems, questions, notes } = readSheetRow(full, { ...head, sampledOn: '2026-10-02' }, zone);
    expect([problems, questions, notes]).toEqual([[], [], []]);
    expect(input).toMatchObject({
      zoneIds: [zone.id],
      label: 'N-1',
      sampledOn: '2026-10-02',
      extractant: 'mehlich-3',
      values: {
        soilPh: printed(5.4),
        bufferPh: printed(6.4, 'pH', { method: 'smp' }),
        organicMatter: printed(3.4, '%'),
        p: printed(21, 'mg/kg'),
        k: { value: 9, belowDetection: true },
      },
    });
    expect(input.depth).toBeCloseTo(15.24, 9);
  });

  it.each([
    ['6', 'in', 15.24],
    ['15', 'cm', 15],
    ['15 cm', 'in', 15],
    ['0.5 ft', 'cm', 15.24],
    [`6"`, 'cm', 15.24],
  ] as const)('reads the depth %s with the switch on %s', (depth, depthUnit, expected) => {
    expect(readSheetRow(full, { ...head, depth, depthUnit }, zone).input.depth).toBeCloseTo(expected, 9);
  });

  it('leaves out what is empty, and the buffer method with the buffer', () => {
    const { input, problems } = readSheetRow({ soilPh: '6' }, head, zone);
    expect(problems).toEqual([]);
    expect(input.values).toEqual({ soilPh: printed(6) });
    expect(isBlank({ soilPh: ' ', p: '' })).toBe(true);
    expect(isBlank({ mg: '4' })).toBe(false);
  });

  it.each([
    ['soilPh: "acid" is not a number', { soilPh: 'acid' }, {}],
    ['soilPh: Soil pH is missing', { soilPh: '', p: '20' }, {}],
    ['bufferPh: Buffer pH 7.9 is outside the SMP', { bufferPh: '7.9' }, {}],
    ['bufferPh: Buffer pH 6.4 is outside the Adams–Evans', {}, { bufferMethod: 'adams-evans' }],
    ['p: 46 is P₂O₅, but this column takes P', { p: '46 P2O5' }, {}],
    ['mg: "some" is not a number', { mg: 'some' }, {}],
    ['organicMatter: Organic matter 140 % is outside', { organicMatter: '140' }, {}],
    ['zn: "4 cm": soil tests come in ppm', { zn: '4 cm' }, { more: ['zn'] }],
    ['ecPaste: "4 ppm": EC of the saturated paste comes in dS/m or uS/cm', { ecPaste: '4 ppm' }, { more: ['ecPaste'] }],
    ['cec: Exchange capacity 900 cmol/kg is outside', { cec: '900' }, { more: ['cec'] }],
    ['depth: Sampled depth is missing', {}, { depth: '' }],
    ['depth: "deep" is not a number'.replace('"deep" ', ''), {}, { depth: 'deep' }],
  ] as const)('refuses: %s', (expected, row, more) => {
    expect(messages({ ...full, ...row }, more)).toEqual([expect.stringContaining(expected)]);
  });

  it('names every wrong cell, in the order of the row', () => {
    expect(
      messages({ soilPh: '15', bufferPh: '9', p: '-1', organicMatter: 'x' }).map((line) => line.split(':')[0]),
    ).toEqual(['soilPh', 'bufferPh', 'p', 'organicMatter']);
  });

  it('questions a slip of unit, and tells a converted value both ways', () => {
    const { problems, questions, notes } = readSheetRow({ ...full, k: '950', mg: '180 lb/ac' }, head, zone);
    expect(problems).toEqual([]);
    expect(questions).toEqual([expect.stringContaining('K 950 mg/kg is far above')]);
    expect(notes).toEqual(['Mg 180 lb/ac = 90 mg/kg.']);
  });
});

describe('a recorded result', () => {
  const value = (analyte: Analyte) =>
    fc.constantFrom(...reportedAs(analyte)).chain(({ unit, basis }) =>
      fc.record(
        {
          value: fc.double({ min: 1, max: 60, noNaN: true }).map((number) => Number(number.toPrecision(4))),
          unit: fc.constant(unit),
          basis: fc.constant(basis),
          belowDetection: fc.constant(true),
          method: fc.constant('dtpa'),
        },
        { requiredKeys: ['value', 'unit', 'basis'] },
      ),
    );
  const others = sheetOrder.filter((analyte) => !analyte.endsWith('Ph') && analyte !== 'bulkDensity');
  const recorded = fc.record({
    ph: fc.integer({ min: 30, max: 90 }).map((number) => number / 10),
    buffer: fc.option(fc.integer({ min: 50, max: 70 }).map((number) => number / 10)),
    depth: fc.constantFrom(7.62, 10, 15, 15.24, 20.32),
    sampledOn: fc.option(fc.constantFrom('2024-10-11', '2026-03-14')),
    values: fc.record(Object.fromEntries(others.map((analyte) => [analyte, value(analyte)])), { requiredKeys: [] }),
  });

  it('goes back on the sheet and comes off it unchanged, whatever it holds and in whatever units', () => {
    fc.assert(
      fc.property(recorded, ({ ph, buffer, depth, sampledOn, values }) => {
        const all = {
          ...values,
          soilPh: printed(ph),
          ...(buffer === null ? {} : { bufferPh: printed(buffer, 'pH', { method: 'smp' }) }),
        } as never;
        const result = resultWith({
          depth,
          sampledOn,
          extractant: 'olsen',
          values: all,
          zoneIds: [zone.id],
          label: 'N-1',
        });
        const { head: back, row } = sheetOf(result);
        const { input, problems } = readSheetRow(row, back, zone);
        expect(problems).toEqual([]);
        expect([input.sampledOn ?? null, input.extractant]).toEqual([sampledOn, 'olsen']);
        expect(input.depth).toBeCloseTo(depth, 3);
        expect(JSON.parse(JSON.stringify(input.values))).toEqual(all);
      }),
    );
  });

  it('whatever is typed, a row ends in a result or in problems with words', () => {
    const text = fc.oneof(fc.string(), fc.constantFrom('', '5', '<3', '5 ppm', '5 lb/ac', '1e9', '-2', 'n/a', '6,5'));
    const row = fc.record(Object.fromEntries(cellsOf({ ...head, more: moreAnalytes }).map((cell) => [cell, text])), {
      requiredKeys: [],
    });
    fc.assert(
      fc.property(row, text, fc.constantFrom(...labUnits), (typed, depth, unit) => {
        const columns = { k: { unit, basis: 'oxide' as const } };
        const { problems } = readSheetRow(typed, { ...head, depth, columns, more: moreAnalytes }, zone);
        for (const { field, message } of problems) expect(`${field} ${message}`).toMatch(/^\w.* .{5,}/s);
      }),
    );
  });
});
