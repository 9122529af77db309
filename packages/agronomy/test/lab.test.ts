import fc from 'fast-check';
import {
  analytes,
  basisName,
  soilAnalytes,
  unitWord,
  findHeaderRow,
  methodsOfRows,
  questionPlausibility,
  readHeader,
  readLabRow,
  readTypedValue,
  inOwnUnit,
  questionDepth,
  writesDecimalComma,
} from '../src/index.ts';

describe('a laboratory’s header', () => {
  it('is read in the laboratory’s own words, whatever the style', () => {
    const { columns, bufferMethod, extractant } = readHeader([
      'Your Ref',
      'Lab No.',
      'pH (1:1 water)',
      'SMP Buffer pH',
      'M3-P ppm',
      'Potassium, Mehlich 3 (lbs/ac)',
      'Ca_mg_per_kg',
      'MAGNESIUM (meq/100g)',
      'LOI %',
      'Depth (in)',
      'P2O5 lb/acre',
      'Zinc ppm',
    ]);
    expect(columns.map(({ field, unit }) => [field, unit])).toEqual([
      ['label', null],
      ['labNumber', null],
      ['soilPh', 'pH'],
      ['bufferPh', 'pH'],
      ['p', 'mg/kg'],
      ['k', 'lb/acre'],
      ['ca', 'mg/kg'],
      ['mg', 'cmol/kg'],
      ['organicMatter', '%'],
      ['depth', 'in'],
      [null, 'lb/acre'],
      ['zn', 'mg/kg'],
    ]);
    expect([bufferMethod, extractant]).toEqual(['smp', 'mehlich-3']);
  });

  it('does not take the buffer for an extractant, nor the extractant for a nutrient', () => {
    const { columns, bufferMethod, extractant } = readHeader([
      'Bag',
      'Soil pH',
      'Mehlich buffer pH',
      'Olsen P (ppm)',
      'K2O (kg/ha)',
    ]);
    expect(columns.map(({ field }) => field)).toEqual(['label', 'soilPh', 'bufferPh', 'p', 'k']);
    expect([bufferMethod, extractant, columns[4]?.basis, columns[4]?.unit]).toEqual([
      'mehlich',
      'olsen',
      'oxide',
      'kg/ha',
    ]);
  });

  it('is read alike in any case, and no field is taken twice', () => {
    const words = fc.constantFrom(
      'Sample',
      'pH',
      'Buffer pH',
      'P ppm',
      'Phosphorus lb/acre',
      'K (ppm)',
      'Potash',
      'Ca',
      'Mg mg/kg',
      'OM %',
      'Depth',
      'Date',
      'Zn ppm',
      'Notes',
      '',
    );
    fc.assert(
      fc.property(fc.array(words, { maxLength: 20 }), (headers) => {
        const fields = readHeader(headers).columns.map(({ field }) => field);
        expect(fields).toEqual(
          readHeader(headers.map((header) => header.toUpperCase())).columns.map(({ field }) => field),
        );
        const taken = fields.filter((field) => field !== null);
        expect(new Set(taken).size).toBe(taken.length);
        expect(fields[headers.indexOf('Notes')] ?? null).toBeNull();
      }),
    );
  });

  it('is found among the lines before it', () => {
    expect(findHeaderRow([['Report 12'], ['Client: someone'], [''], ['Sample', 'pH', 'P ppm'], ['A', '6', '20']])).toBe(
      3,
    );
    expect(findHeaderRow([['just'], ['words']])).toBe(-1);
  });
});

describe('headers of laboratories that differ', () => {
  const fields = (...headers: string[]) => readHeader(headers).columns.map(({ field }) => field);

  it.each([
    [
      ['Sample', 'Salt pH', 'Water pH'],
      ['label', 'saltPh', 'soilPh'],
    ],
    [
      ['Sample', 'Water pH', 'Salt pH'],
      ['label', 'soilPh', 'saltPh'],
    ],
    [
      ['Sample', 'pH (CaCl₂)'],
      ['label', 'calciumChloridePh'],
    ],
    [
      ['Sample', 'pH 0.01M CaCl2', 'Buffer pH'],
      ['label', 'calciumChloridePh', 'bufferPh'],
    ],
    [
      ['Sample', 'KCl pH'],
      ['label', 'saltPh'],
    ],
    [
      ['Sample', 'P Rating', 'P ppm'],
      ['label', null, 'p'],
    ],
    [
      ['Sample', 'P ppm', 'P Rating', 'K Interpretation'],
      ['label', 'p', null, null],
    ],
    [
      ['Sample', 'Method', 'Extractant', 'P ppm'],
      ['label', null, null, 'p'],
    ],
    [
      ['Sample', 'Buffer Method', 'Buffer pH'],
      ['label', null, 'bufferPh'],
    ],
  ])('%j', (headers, wanted) => expect(fields(...headers)).toEqual(wanted));

  it.each([
    ['Moore–Sikora buffer pH', 'adams-evans'],
    ['Buffer pH (Moore-Sikora)', 'adams-evans'],
    ['Sikora buffer', 'sikora'],
    ['Adams-Evans buffer pH', 'adams-evans'],
    ['Lime test index', 'smp'],
    ['Buffer pH', null],
  ])('%s is read on its own scale', (header, method) =>
    expect(readHeader(['Sample', header]).bufferMethod).toBe(method),
  );

  it.each([
    ['Modified Morgan P ppm', 'morgan'],
    ['Morgan (original) P ppm', 'original morgan'],
    ['Morgan P ppm', null],
    ['M3-P', 'mehlich-3'],
  ])('%s tells its extractant, or nothing where two are called so', (header, extractant) =>
    expect(readHeader(['Sample', header]).extractant).toBe(extractant),
  );

  it('take mg/100 g as ten times mg/kg', () => {
    const { columns } = readHeader(['Sample', 'P2O5 (mg/100 g)', 'K mg/100g']);
    const { row } = readLabRow(['A', '9.1656', '12'], columns);
    expect(inOwnUnit('p', row.values.p!).value).toBeCloseTo(40, 6);
    expect(inOwnUnit('k', row.values.k!).value).toBeCloseTo(120, 6);
  });

  it('read methods from a column of their own, and nothing where the lines differ', () => {
    const headers = ['Sample', 'Method', 'Buffer type', 'P ppm'];
    const line = (method: string, buffer: string) => ['A', method, buffer, '20'];
    expect(methodsOfRows(headers, [line('Mehlich 3', 'SMP'), line('Mehlich-3', 'SMP')])).toEqual({
      extractant: 'mehlich-3',
      bufferMethod: 'smp',
    });
    expect(methodsOfRows(headers, [line('Mehlich 3', ''), line('Olsen', '')])).toEqual({
      extractant: null,
      bufferMethod: null,
    });
  });

  it('tell decimal commas from thousands by the whole file', () => {
    expect(writesDecimalComma([['A', '6,4', '120']], true)).toBe(true);
    expect(
      writesDecimalComma(
        [
          ['A', '6,4', '1,5'],
          ['B', '<2,7', '3'],
        ],
        false,
      ),
    ).toBe(true);
    // One thousand two hundred, beside a number with a point.
    expect(writesDecimalComma([['A', '6.4', '1,200']], false)).toBe(false);
    expect(writesDecimalComma([['A', '6', '1,200']], false)).toBe(false);
    expect(writesDecimalComma([['A', '6.4', '6,4']], false)).toBe(false);
  });

  it('read every number alike with a comma or a point', () => {
    const { columns } = readHeader(['Sample', 'pH', 'P ppm', 'OM %']);
    const number = fc.integer({ min: 1, max: 9999 }).map((hundredths) => (hundredths / 100).toFixed(2));
    fc.assert(
      fc.property(number, number, fc.boolean(), (p, om, below) => {
        const cells = ['A', '6.40', `${below ? '<' : ''}${p}`, om];
        const comma = cells.map((cell) => cell.replace('.', ','));
        expect(readLabRow(comma, columns, { decimalComma: true })).toEqual(readLabRow(cells, columns));
      }),
    );
  });

  it('keep a pH in salt as what it is, beside one in water', () => {
    const { columns } = readHeader(['Sample', 'Salt pH', 'Water pH']);
    const pH = (value: number) => ({ value, unit: 'pH', basis: 'element' });
    expect(readLabRow(['A', '5.4', '6.1'], columns).row.values).toEqual({ saltPh: pH(5.4), soilPh: pH(6.1) });
  });

  it('name every analyte by its name, its symbol and its usual unit, and no other', () => {
    for (const key of soilAnalytes) {
      const { name, symbol, units } = analytes[key];
      const unit = unitWord(units[0]!);
      for (const header of [`${name} ${unit}`, `${symbol} ${unit}`, `${name.toUpperCase()} (${unit})`])
        expect([header, readHeader(['Sample', header]).columns[1]!.field]).toEqual([header, key]);
    }
  });

  it.each([
    ['EC 1:5 (dS/m)', 'ec15', 'dS/m'],
    ['Soluble Salts 1:2 mmho/cm', 'ec12', 'dS/m'],
    ['ECe dS/m', 'ecPaste', 'dS/m'],
    ['EC sat. paste', 'ecPaste', null],
    ['Soluble salts µS/cm', 'ec', 'uS/cm'],
    ['Ca % Saturation', 'caSaturation', '%'],
    ['% Base Saturation K', 'kSaturation', '%'],
    ['Na %', 'esp', '%'],
    ['H, meq/100g', 'acidity', 'cmol/kg'],
    ['Effective CEC', 'cec', 'cmol/kg'],
    ['Sodium adsorption ratio', 'sar', ''],
    ['Calcium carbonate, %', 'carbonate', '%'],
    ['Lime (CaCO3) tons/acre', null, null],
    ['NO3-N ppm', 'nitrateN', 'mg/kg'],
    ['NH4OAc K ppm', 'k', 'mg/kg'],
    ['Organic C g/kg', 'organicCarbon', 'g/kg'],
    ['Organic carbon g/kg', 'organicCarbon', 'g/kg'],
    ['Total organic nitrogen', null, null],
    ['MgO (mg/100 g)', 'mg', 'mg/100g'],
  ])('%s is %s', (header, field, unit) => {
    const [, column] = readHeader(['Sample', header]).columns;
    expect([column!.field, column!.unit]).toEqual([field, unit]);
  });

  it('give a value the extractant that its own header names, where the report has another', () => {
    const { columns, extractant } = readHeader(['Sample', 'Olsen P ppm', 'DTPA Zn ppm', 'Hot water B ppm', 'pH']);
    expect([extractant, ...columns.map(({ method }) => method)]).toEqual([
      'olsen',
      undefined,
      undefined,
      'dtpa',
      'hot water',
      undefined,
    ]);
    const { values } = readLabRow(['A', '20', '0.7', '0.8', '7.6'], columns).row;
    expect([values.p?.method, values.zn?.method, values.b?.method]).toEqual([undefined, 'dtpa', 'hot water']);
  });
});

describe('a row', () => {
  const { columns } = readHeader(['Sample', 'Date sampled', 'Depth (cm)', 'pH', 'Lime test index', 'P ppm', 'K', 'OM']);
  const read = (...cells: string[]) => readLabRow(cells, columns);

  it('keeps what can be read and names what cannot', () => {
    const { row, faults } = read('A 1', '14/03/2026', '0-15', 'see note', '64', '<6', '120', '3.5');
    expect(row).toEqual({
      label: 'A 1',
      sampledOn: '2026-03-14',
      depth: 15,
      values: {
        bufferPh: { value: 6.4, unit: 'pH', basis: 'element' },
        organicMatter: { value: 3.5, unit: '%', basis: 'element' },
        p: { value: 6, unit: 'mg/kg', basis: 'element', belowDetection: true },
      },
    });
    expect(faults).toEqual([
      { field: 'soilPh', message: expect.stringContaining('"see note" is not a number') as string },
      { field: 'k', message: expect.stringContaining('has no unit') as string },
    ]);
  });

  it.each(['03/04/2026', '2026-02-30', 'spring'])('refuses the date %s', (date) =>
    expect(read('A', date).faults[0]?.field).toBe('sampledOn'),
  );
  it('reads every date that reads one way only, and refuses the rest', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('1990-01-01'), max: new Date('2090-12-31'), noInvalidDate: true }),
        (date) => {
          const iso = date.toISOString().slice(0, 10);
          const [year = '', month = '', day = ''] = iso.split('-');
          expect(read('A', iso).row.sampledOn).toBe(iso);
          const certain = Number(day) > 12 || day === month;
          for (const written of [
            `${day}/${month}/${year}`,
            `${Number(month)}/${Number(day)}/${year}`,
            `${day}.${month}.${year}`,
          ]) {
            const { row, faults } = read('A', written);
            expect([row.sampledOn, faults.length]).toEqual(certain ? [iso, 0] : [undefined, 1]);
          }
        },
      ),
    );
  });

  it('refuses a negative value and a missing label', () =>
    expect(read('', '', '', '-5', '', '', '', '').faults.map(({ field }) => field)).toEqual(['label', 'soilPh']));
});

describe('a typed nutrient', () => {
  const ppm = { unit: 'mg/kg', basis: 'element' } as const;

  it.each([
    ['21', 21, 'mg/kg'],
    ['42 lb/ac', 42, 'lb/acre'],
    ['42 lbs/A P', 42, 'lb/acre'],
    ['<5 ppm', 5, 'mg/kg'],
    ['18 kg/ha', 18, 'kg/ha'],
    ['20–24', 22, 'mg/kg'],
    ['40 to 50 lb/ac', 45, 'lb/acre'],
  ])('%s', (text, value, unit) =>
    expect(readTypedValue(text, 'p', ppm)).toMatchObject({ value, unit, basis: 'element' }),
  );

  it.each([
    ['46 ppm P2O5', /is P₂O₅, but this column takes P: that is 20.1 mg\/kg P/],
    ['46 P₂O₅', /20.1/],
    ['-4', /negative/],
    ['lots', /not a number/],
    ['4 in', /soil tests come in/],
    ['4 g/m2', /soil tests come in/],
  ])('%s is refused', (text, message) => expect(() => readTypedValue(text, 'p', ppm)).toThrow(message));

  it.each([
    ['low', 'low'],
    ['VL', 'very low'],
    ['Above Optimum', 'high'],
    [' Medium ', 'medium'],
  ])('takes the report’s word %s', (text, rated) =>
    // prettier-ignore
    expect(readTypedValue(text, 'k', ppm)).toMatchObject({ rated }),
  );

  it('takes P₂O₅ where the column says so', () => {
    const reported = readTypedValue('91.656 lb/ac P2O5', 'p', { unit: 'lb/acre', basis: 'oxide' });
    expect(inOwnUnit('p', reported).value).toBeCloseTo(20, 6);
    expect(basisName('k', 'oxide')).toBe('K₂O');
  });

  it('turns charge into mass', () =>
    expect(inOwnUnit('mg', { value: 2, unit: 'cmol/kg', basis: 'element' }).value).toBeCloseTo(243, 6));
});

describe('plausibility', () => {
  it.each([
    ['p', 40, undefined],
    ['p', 290, undefined],
    ['p', 310, /lb\/acre.*P₂O₅/],
    ['k', 1000, /K₂O/],
    ['k', 9, /ppm entered as lb\/acre/],
    ['ca', 60000, /column/],
    ['organicMatter', 40, /Organic matter/],
  ] as const)('%s %d', (field, value, question) => {
    const asked = questionPlausibility(field, value);
    if (question) expect(asked).toMatch(question);
    else expect(asked).toBeUndefined();
  });

  it('asks after a depth in the wrong unit', () =>
    expect([questionDepth(2.4), questionDepth(15)]).toEqual([expect.stringMatching(/inches/), undefined]));
});
