import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { LabResultInput, ZoneInput, problemFields } from '../src/index.ts';

const result = {
  zoneId: '4f8d3c1e-6a3b-4f0e-9c76-0c5d1f1a2b3c',
  label: 'A',
  depth: 15,
  extractant: 'mehlich-3',
  bufferMethod: 'smp',
  soilPh: 5.6,
  bufferPh: 6.4,
  organicMatter: 3,
  nutrients: { p: { value: 21, unit: 'mg/kg', basis: 'element' } },
};
const problems = (given: object) =>
  Object.fromEntries(
    problemFields(validateSync(plainToInstance(LabResultInput, { ...result, ...given }))).map(({ field, message }) => [
      field,
      message,
    ]),
  );

describe('a laboratory result', () => {
  it('is taken whole, and with only what is needed', () => {
    expect(problems({})).toEqual({});
    expect(problems({ bufferPh: undefined, bufferMethod: undefined, organicMatter: null, nutrients: {} })).toEqual({});
  });

  it.each([
    ['soilPh', { soilPh: 14 }, /outside 2.5 to 11.*check the report/],
    ['soilPh', { soilPh: undefined }, /missing/],
    ['soilPh', { soilPh: 'acid' }, /"acid" is not a number/],
    ['bufferPh', { bufferPh: 7.6 }, /outside the SMP method’s 4.8–7.2/],
    ['bufferPh', { bufferPh: 6.4, bufferMethod: 'adams-evans' }, /Adams–Evans method’s 7.0–8.0/],
    ['bufferPh', { bufferMethod: undefined }, /which buffer method/],
    ['depth', { depth: undefined }, /missing: give 2 to 60 cm \(0.8 to 23.6 in\)/],
    ['organicMatter', { organicMatter: -1 }, /outside/],
    ['nutrients.p', { nutrients: { p: { value: 1, unit: 'cmol/kg', basis: 'element' } } }, /P is not reported in cmol/],
    ['nutrients.k.basis', { nutrients: { k: { value: 1, unit: 'mg/kg' } } }, /element.*oxide/],
    ['nutrients.k.value', { nutrients: { k: { value: -3, unit: 'mg/kg', basis: 'element' } } }, /cannot read below 0/],
    ['sampledOn', { sampledOn: '14.3.26' }, /2026-03-14/],
  ])('refuses %s, saying what to do', (field, given, message) => {
    expect(problems(given)).toEqual({ [field]: expect.stringMatching(message) as string });
  });
});

it('a zone needs an area, because every rate is multiplied by it', () => {
  const zone = {
    name: 'A',
    label: 'A',
    grass: 'tall fescue',
    surface: 'turf',
    intensity: 'low',
    shade: 'part',
    clippings: 'removed',
  };
  const refused = problemFields(validateSync(plainToInstance(ZoneInput, { ...zone, area: 0 })));
  expect(refused).toEqual([{ field: 'area', message: expect.stringContaining('measure it') as string }]);
});
