import fc from 'fast-check';
import { apart, together } from '../src/ui/apart.ts';
import { merge } from '../src/ui/merge.ts';

const fields = ['name', 'area', 'thatch', 'siteIds'] as const;
const value = fc.oneof(fc.constant(null), fc.constantFrom<unknown>('a', 'b', 1, 2, ['x'], ['x', 'y']));
const record = fc.record(Object.fromEntries(fields.map((field) => [field, value])));
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

describe('a save that came too late', () => {
  it('keeps what only one of the two touched, and asks after what both did', () => {
    fc.assert(
      fc.property(record, record, record, (base, mine, theirs) => {
        const { kept, contested, theirsOnly, mineOnly } = merge(mine, theirs, base);
        for (const field of fields) {
          const [own, other] = [!same(mine[field], base[field]), !same(theirs[field], base[field])];
          const differ = !same(mine[field], theirs[field]);
          expect(kept[field]).toEqual(own ? mine[field] : theirs[field]);
          expect([contested, mineOnly, theirsOnly].map((list) => list.includes(field))).toEqual([
            own && other && differ,
            own && !other,
            other && !own,
          ]);
        }
      }),
    );
  });

  it('is never half of one and half of the other where a number says nothing without its product', () => {
    const base = { 'values.material': 'urea', 'values.rate': 10, months: [4] };
    const [mine, theirs] = [
      { ...base, 'values.rate': 20 },
      { ...base, 'values.material': 'slow feed', months: [5] },
    ];
    const { kept, contested, theirsOnly } = merge(mine, theirs, base);
    expect(contested).toEqual(['values.material', 'values.rate']);
    expect([kept, theirsOnly]).toEqual([{ 'values.material': 'urea', 'values.rate': 20, months: [5] }, ['months']]);
  });

  it('is kept whole where it is not known what was changed', () => {
    fc.assert(fc.property(record, record, (mine, theirs) => expect(merge(mine, theirs, undefined).kept).toEqual(mine)));
  });
});

describe('values of a report', () => {
  const values = fc.dictionary(fc.constantFrom('soilPh', 'p', 'zn', 'cec'), fc.record({ value: fc.nat(9) }));
  const report = fc.record({ label: fc.constantFrom('A', 'B'), values });

  it('are told apart, and together again are what they were', () => {
    fc.assert(
      fc.property(report, (one) => {
        const back = together(apart(one));
        expect(back).toEqual(Object.keys(one.values).length > 0 ? one : { label: one.label });
      }),
    );
  });

  it('that another added stay, and that another took away are asked after, when mine is kept', () => {
    fc.assert(
      fc.property(report, report, report, (base, mine, theirs) => {
        const other = apart(theirs);
        const { kept, contested } = merge(apart(mine, other), other, apart(base));
        const saved = (together(kept).values ?? {}) as Record<string, unknown>;
        for (const key of Object.keys(theirs.values)) {
          const untouched = same(mine.values[key], base.values[key]);
          expect(same(saved[key], untouched ? theirs.values[key] : mine.values[key])).toBe(true);
          const alone = same(theirs.values[key], base.values[key]);
          expect(contested.includes(`values.${key}`)).toBe(!untouched && !alone && !same(mine.values[key], theirs.values[key])); // prettier-ignore
        }
      }),
    );
  });
});
