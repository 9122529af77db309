import type { LabUnit } from '@glenfold/agronomy';
import type { LabReportAnswer, LabResultAnswer, ZoneAnswer } from '@glenfold/contract';
import fc from 'fast-check';
import { get, send, siteOf, useDemoServer } from './client.ts';

useDemoServer();
type PanelNutrient = 'p' | 'k' | 'ca' | 'mg';

/** How one laboratory writes its file. */
interface HouseStyle {
  readonly delimiter: string;
  readonly preamble: readonly string[];
  readonly label: string;
  readonly ph: string;
  readonly buffer: readonly [header: string, method: string];
  readonly depth: readonly [header: string, write: (cm: number) => string];
  readonly extractant: readonly [words: string, name: string];
  readonly nutrients: Readonly<Record<PanelNutrient, string>>;
  readonly unit: readonly [words: string, unit: LabUnit];
  readonly columns: 'in order' | 'reversed';
}

const styles: fc.Arbitrary<HouseStyle> = fc.record({
  delimiter: fc.constantFrom(',', ';', '\t'),
  preamble: fc.constantFrom<readonly string[]>([], ['Soil laboratory, report 12'], ['Report 12', 'Client 7', '']),
  label: fc.constantFrom('Sample ID', 'Your ref', 'Bag label', 'Field', 'Zone name', 'SAMPLE'),
  ph: fc.constantFrom('pH', 'Soil pH', 'pH (1:1 water)', 'PH'),
  buffer: fc.constantFrom<HouseStyle['buffer']>(
    ['SMP buffer pH', 'smp'],
    ['Buffer pH (Sikora)', 'sikora'],
    ['SMP', 'smp'],
  ),
  depth: fc.constantFrom<HouseStyle['depth']>(
    ['Depth (in)', (cm) => String(Math.round(cm / 2.54))],
    ['Sample depth cm', (cm) => String(cm)],
    ['Depth', (cm) => `${cm} cm`],
  ),
  extractant: fc.constantFrom<HouseStyle['extractant']>(
    ['Mehlich-3', 'mehlich-3'],
    ['M3', 'mehlich-3'],
    ['Mehlich 1', 'mehlich-1'],
    ['Olsen', 'olsen'],
  ),
  nutrients: fc.constantFrom<HouseStyle['nutrients']>(
    { p: 'P', k: 'K', ca: 'Ca', mg: 'Mg' },
    { p: 'Phosphorus', k: 'Potassium', ca: 'Calcium', mg: 'Magnesium' },
    { p: 'PHOSPHORUS', k: 'POTASSIUM', ca: 'CALCIUM', mg: 'MAGNESIUM' },
  ),
  unit: fc.constantFrom<HouseStyle['unit']>(
    ['(ppm)', 'mg/kg'],
    ['mg/kg', 'mg/kg'],
    ['lbs/ac', 'lb/acre'],
    ['(kg/ha)', 'kg/ha'],
    ['PPM', 'mg/kg'],
  ),
  columns: fc.constantFrom('in order' as const, 'reversed' as const),
});

const numbers = fc.record({
  soilPh: fc.integer({ min: 40, max: 80 }).map((value) => value / 10),
  bufferPh: fc.integer({ min: 50, max: 71 }).map((value) => value / 10),
  depth: fc.constantFrom(10.16, 15.24),
  p: fc.integer({ min: 3, max: 150 }),
  k: fc.integer({ min: 20, max: 450 }),
  ca: fc.integer({ min: 100, max: 5000 }),
  mg: fc.integer({ min: 15, max: 800 }),
});

function write(
  style: HouseStyle,
  rows: ReadonlyArray<readonly [label: string, values: typeof numbers extends fc.Arbitrary<infer T> ? T : never]>,
): string {
  const nutrient = (name: PanelNutrient): string => `${style.nutrients[name]} ${style.extractant[0]} ${style.unit[0]}`;
  const table = [
    [
      style.label,
      style.ph,
      style.buffer[0],
      style.depth[0],
      nutrient('p'),
      nutrient('k'),
      nutrient('ca'),
      nutrient('mg'),
    ],
    ...rows.map(([label, { soilPh, bufferPh, depth, p, k, ca, mg }]) =>
      [label, soilPh, bufferPh, style.depth[1](depth), p, k, ca, mg].map(String),
    ),
  ];
  const lines = table.map((cells) => (style.columns === 'reversed' ? cells.reverse() : cells).join(style.delimiter));
  return [...style.preamble, ...lines].join('\r\n');
}

it('a laboratory’s file in any house style comes in with every number in its place', async () => {
  const site = await siteOf('Gannet');
  const zones = await get<ZoneAnswer[]>(`/sites/${site.id}/zones`);
  await fc.assert(
    fc.asyncProperty(
      styles,
      numbers,
      numbers,
      fc.constantFrom(
        (label: string) => label,
        (label: string) => label.toLowerCase().replace('-', ' '),
      ),
      async (style, first, second, spell) => {
        const rows = [
          [spell(zones[0]!.label), first],
          [spell(zones[2]!.label), second],
        ] as const;
        const file = await send<LabReportAnswer>('post', `/sites/${site.id}/lab-reports`, {
          fileName: 'style.csv',
          content: write(style, rows),
        });
        expect(file.rows.flatMap(({ faults }) => faults)).toEqual([]);
        // Numbers from end to end look wrong beside the last test: a person takes them all the same.
        const decisions = file.rows.map(({ line }) => ({ line, state: 'accepted' }));
        const { extractant, bufferMethod, limeFactor, depth } = file;
        const columns = file.columns.map(({ header: _header, ...column }) => column);
        const choices = { columns, rows: [], decisions, extractant, bufferMethod, limeFactor, depth };
        await send('put', `/lab-reports/${file.id}`, choices, 200, file.version);
        const { rows: done } = await send<LabReportAnswer>('post', `/lab-reports/${file.id}/confirm`);
        const results = await get<LabResultAnswer[]>(`/sites/${site.id}/lab-results`);
        for (const [index, [, values]] of rows.entries()) {
          const result = results.find(({ id }) => id === done[index]!.resultId)!;
          const nutrient = (value: number) =>
            expect.objectContaining({ value, unit: style.unit[1], basis: 'element' }) as object;
          expect(result).toMatchObject({
            zoneIds: [zones[index * 2]!.id],
            extractant: style.extractant[1],
            values: {
              soilPh: { value: values.soilPh },
              bufferPh: { value: values.bufferPh, method: style.buffer[1] },
              p: nutrient(values.p),
              k: nutrient(values.k),
              ca: nutrient(values.ca),
              mg: nutrient(values.mg),
            },
          });
          expect(result.depth).toBeCloseTo(values.depth, 6);
          await send('delete', `/lab-results/${result.id}`);
        }
        await send('delete', `/lab-reports/${file.id}`);
      },
    ),
    { numRuns: 60 },
  );
});
