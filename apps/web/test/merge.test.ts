import fc from 'fast-check';
import { merge } from '../src/ui/merge.ts';

const fields = ['name', 'area', 'thatch', 'siteIds'] as const;
const value = fc.oneof(fc.constant(null), fc.constantFrom<unknown>('a', 'b', 1, 2, ['x'], ['x', 'y']));
const record = fc.record(Object.fromEntries(fields.map((field) => [field, value])));
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

describe('a save that came too late', () => {
  it('keeps what the person changed, and what only the other changed', () => {
    fc.assert(
      fc.property(record, record, record, (base, mine, theirs) => {
        const { kept, contested, theirsOnly } = merge(mine, theirs, base);
        for (const field of fields) {
          const touched = !same(mine[field], base[field]);
          expect(kept[field]).toEqual(touched ? mine[field] : theirs[field]);
          expect(contested.includes(field)).toBe(touched && !same(mine[field], theirs[field]));
          expect(theirsOnly.includes(field)).toBe(!touched && !same(base[field], theirs[field]));
        }
      }),
    );
  });

  it('is kept whole where it is not known what was changed', () => {
    fc.assert(fc.property(record, record, (mine, theirs) => expect(merge(mine, theirs, undefined).kept).toEqual(mine)));
  });
});
