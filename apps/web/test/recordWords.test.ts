import { present, type Sense } from '@glenfold/agronomy';
import { MemberInput, MeasurementsInput, MaterialInput, SiteInput, ZoneInput } from '@glenfold/contract';
import { getMetadataStorage } from 'class-validator';
import fc from 'fast-check';
import { fieldName, fieldValue } from '../src/ui/recordWords.ts';

const say = (sense: Sense, value: number): string => present(sense, value, 'us').text;
const told = (field: string, value: unknown, named?: ReadonlyMap<string, string>): string =>
  fieldValue(field, value, say, named);

describe('a record told field by field', () => {
  it.each([
    ['area', 405, '4,360 ft²'],
    ['thatch', 1.27, '0.5 in'],
    ['packPrice', 9.5, '$9.50'],
    ['soilPh', 6, '6.0'],
    ['organicMatter', 3.4, '3.4 %'],
    ['extractant', 'mehlich-3', 'Mehlich-3'],
    ['place', null, 'none'],
    ['place', '', 'none'],
    ['siteIds', [], 'none'],
    [
      'nutrients',
      {
        p: { value: 92, unit: 'lb/acre', basis: 'oxide' },
        k: { value: 5, unit: 'mg/kg', basis: 'element', belowDetection: true },
      },
      'P₂O₅ 92 lb/acre, K <5 mg/kg',
    ],
    [
      'values',
      {
        soilPh: { value: 5.2, unit: 'pH', basis: 'element' },
        zn: { value: 0.3, unit: 'mg/kg', basis: 'element', belowDetection: true, method: 'dtpa' },
      },
      'pH 5.2, Zn <0.3 mg/kg',
    ],
    ['analyte', 'rootDepth', 'Roots to'],
    ['grade', { n: 46, p2o5: 0, k2o: 0 }, '46-0-0'],
    ['geometry', { type: 'Polygon', coordinates: [] }, 'an outline'],
    ['issuedAt', '2026-11-23T15:42:55.1+00:00', '2026-11-23 15:42'],
  ])('%s', (field, value, words) => {
    expect(told(field, value)).toBe(words);
  });

  it('calls other records by their names, and never shows an id', () => {
    const id = '3f0c4be2-9d51-4a3e-8d0a-1a2b3c4d5e6f';
    expect(told('zoneId', id, new Map([[id, 'Walled court']]))).toBe('Walled court');
    expect(told('siteIds', [id], new Map([[id, 'Gannet Row']]))).toBe('Gannet Row');
    for (const field of ['zoneId', 'siteId', 'personId', 'labResultId', 'sampleId'])
      expect(told(field, id)).not.toContain(id);
    expect(told('siteIds', [id])).not.toContain(id);
    expect(told('choices', { lime: id })).toBe('lime chosen');
  });

  it('has words for whatever a record holds', () => {
    const fields = fc.constantFrom(
      'name',
      'columns',
      'rows',
      'imported',
      'lime',
      'issued',
      'content',
      'choices',
      'anything',
    );
    const value = fc.oneof(
      fc.string(),
      fc.integer(),
      fc.boolean(),
      fc.constant(null),
      fc.array(fc.string()),
      fc.dictionary(fc.string(), fc.integer()),
    );
    fc.assert(
      fc.property(fields, value, (field, held) => {
        const words = told(field, held);
        expect(words).not.toMatch(/^\[object|^undefined|^$/);
      }),
    );
  });

  it('names every field that people save in words, not in code', () => {
    const storage = getMetadataStorage();
    for (const kind of [SiteInput, ZoneInput, MeasurementsInput, MaterialInput, MemberInput])
      for (const { propertyName } of storage.getTargetValidationMetadatas(kind, '', false, false))
        expect(fieldName(propertyName)).toMatch(/^(pH|E-)?[A-Z ]?[a-z -]+$/);
  });
});
