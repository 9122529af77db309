import { analytes, featureKinds, geometryTypes, isExclusion, reportedAs, soilAnalytes } from '@glenfold/agronomy';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import {
  type GroundFeatureAnswer,
  LabResultInput,
  type ZoneAnswer,
  ZoneInput,
  describeDrawing,
  lookOf,
  problemFields,
  zoneLook,
} from '../src/index.ts';

const plain = (value: unknown, unit = 'mg/kg', more = {}) => ({ value, unit, basis: 'element', ...more });
const values = {
  soilPh: plain(5.6, 'pH'),
  bufferPh: plain(6.4, 'pH', { method: 'smp' }),
  organicMatter: plain(3, '%'),
  p: plain(21),
};
const result = {
  zoneIds: ['4f8d3c1e-6a3b-4f0e-9c76-0c5d1f1a2b3c'],
  label: 'A',
  depth: 15,
  extractant: 'mehlich-3',
  values,
};
const problems = (given: object) =>
  Object.fromEntries(
    problemFields(
      validateSync(plainToInstance(LabResultInput, { ...result, ...given }), {
        whitelist: true,
        forbidNonWhitelisted: true,
      }),
    ).map(({ field, message }) => [field, message]),
  );

describe('a laboratory result', () => {
  it('is taken whole, and with only what is needed', () => {
    expect(problems({})).toEqual({});
    expect(problems({ values: { soilPh: plain(6, 'pH') } })).toEqual({});
    expect(problems({ values: { calciumChloridePh: plain(5.4, 'pH') } })).toEqual({});
    // Water and compost have no pH of soil.
    expect(problems({ of: 'water', values: { sar: plain(4, '') } })).toEqual({});
  });

  it('takes every analyte that a soil is tested for, in every unit that it comes in', () => {
    for (const analyte of soilAnalytes) {
      const [low, high] = analytes[analyte].range;
      const middle = analyte === 'bufferPh' ? 6.5 : Math.min(high, low + 1);
      const method = analyte === 'bufferPh' ? { method: 'smp' } : {};
      for (const { unit, basis } of reportedAs(analyte))
        expect([analyte, unit, problems({ values: { ...values, [analyte]: plain(middle, unit, { basis, ...method }) } })]).toEqual([analyte, unit, {}]); // prettier-ignore
    }
  });

  it.each([
    ['values', { values: { p: plain(21) } }, /Soil pH is missing: give 2.5 to 11/],
    ['values.soilPh', { values: { soilPh: plain(14, 'pH') } }, /outside 2.5 to 11.*check the report/],
    ['values.soilPh.value', { values: { soilPh: plain('acid', 'pH') } }, /"acid" is not a number/],
    [
      'values.bufferPh',
      { values: { ...values, bufferPh: plain(7.6, 'pH', { method: 'smp' }) } },
      /outside the SMP method’s 4.8–7.2/,
    ],
    [
      'values.bufferPh',
      { values: { ...values, bufferPh: plain(6.4, 'pH', { method: 'adams-evans' }) } },
      /Adams–Evans method’s 7.0–8.0/,
    ],
    ['values.bufferPh', { values: { ...values, bufferPh: plain(6.4, 'pH') } }, /which buffer method/],
    ['depth', { depth: undefined }, /missing: give 2 to 60 cm \(0.8 to 23.6 in\)/],
    [
      'values.organicMatter',
      { values: { ...values, organicMatter: plain(140, '%') } },
      /Organic matter 140 % is outside 0 to 100 %/,
    ],
    ['values.p', { values: { ...values, p: plain(1, 'cmol/kg') } }, /P is not reported in cmol/],
    [
      'values.cec',
      { values: { ...values, cec: plain(1, 'parsecs') } },
      /Say the unit of Exchange capacity: one of cmol\/kg/,
    ],
    ['values.zn', { values: { ...values, zn: plain(1, 'mg/kg', { method: 'smp' }) } }, /extractant of Zn is not known/],
    [
      'values.fe',
      { values: { ...values, fe: plain(1, 'mg/kg', { basis: 'oxide' }) } },
      /Fe is not reported as an oxide/,
    ],
    ['values.k.basis', { values: { ...values, k: { value: 1, unit: 'mg/kg' } } }, /element.*oxide/],
    ['values.k.value', { values: { ...values, k: plain(-3) } }, /cannot read below 0/],
    ['values.gold', { values: { ...values, gold: plain(3) } }, /not known here/],
    ['zoneIds', { zoneIds: [] }, /Choose the zone/],
    ['sampledOn', { sampledOn: '14.3.26' }, /2026-03-14/],
  ])('refuses %s, saying what to do', (field, given, message) => {
    expect(problems(given)).toMatchObject({ [field]: expect.stringMatching(message) as string });
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

describe('a drawing described', () => {
  const shapes = { Point: [0, 0], LineString: [[0, 0]], Polygon: [[[0, 0]]], MultiPolygon: [] };
  const things = featureKinds.map((kind) => {
    const [type = 'Point'] = geometryTypes(kind);
    return { id: kind, kind, name: `The ${kind}`, height: 12, geometry: { type, coordinates: shapes[type] } };
  }) as unknown as GroundFeatureAnswer[];
  const zones = ['A', 'B'].map((id) => ({ id, name: id, geometry: things[0]!.geometry })) as unknown as ZoneAnswer[];
  const undrawn = { ...zones[0]!, id: 'C', geometry: null };

  it('has every zone that is drawn and every thing once, what lies under first', () => {
    const drawn = describeDrawing({ zones: [undrawn, ...zones], features: [...things].reverse() }, 'us');
    expect(drawn.map(({ id }) => id).sort()).toEqual(['A', 'B', ...featureKinds].sort());
    const layer = (kind: (typeof drawn)[number]['kind']): number => (kind === 'zone' ? 0 : isExclusion(kind) ? 1 : 2);
    const layers = drawn.map(({ kind }) => layer(kind));
    expect(layers).toEqual([...layers].sort());
    // A zone's hatching is that of its place in the list, drawn or not.
    expect(drawn[0]).toMatchObject({ id: 'A', position: 1, text: 'A', look: zoneLook(1) });
  });

  it('tells a spot by its height in the reader’s units, and everything else by its name', () => {
    const texts = (units: 'us' | 'metric') =>
      new Map(describeDrawing({ zones: [], features: things }, units).map(({ kind, text }) => [kind, text]));
    expect(texts('us').get('spot height')).toBe('39.37 ft');
    expect(texts('metric').get('spot height')).toBe('12 m');
    expect(texts('us').get('gate')).toBe('The gate');
  });

  it('lets no two kinds look alike, nor two zones beside one another in the list', () => {
    const looks = featureKinds.map((kind) => JSON.stringify(lookOf(kind)));
    expect(new Set(looks).size).toBe(featureKinds.length);
    for (let position = 0; position < 14; position += 1)
      expect(zoneLook(position).strokes).not.toBe(zoneLook(position + 1).strokes);
  });
});
