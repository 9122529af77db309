import fc from 'fast-check';
import { type WorkOfJob, successors } from '../src/index.ts';

const jobs = (name: string): fc.Arbitrary<WorkOfJob[]> =>
  fc
    .array(
      fc.record({
        zoneId: fc.constantFrom('front', 'back'),
        key: fc.constantFrom('lime', 'nitrogen'),
        position: fc.nat(4),
        from: fc.constantFrom(null, '2027-04-01', '2027-06-01', '2027-09-15', '2028-03-01'),
      }),
      { maxLength: 12 },
    )
    .map((all) => all.map((one, at) => ({ ...one, id: `${name} ${at}` })));
const workOf = ({ zoneId, key }: WorkOfJob): string => `${zoneId} ${key}`;

describe('the jobs of another program', () => {
  it('take those of before over, each once, of the same work only, and as many as both have', () => {
    fc.assert(
      fc.property(jobs('former'), jobs('fresh'), (former, fresh) => {
        const taken = successors(former, fresh);
        const pairs = [...taken].map(([id, before]) => [fresh.find((one) => one.id === id)!, before] as const);
        for (const [one, before] of pairs) expect(workOf(one)).toBe(workOf(before));
        expect(new Set(taken.values()).size).toBe(taken.size);
        for (const work of new Set([...former, ...fresh].map(workOf))) {
          const count = (all: readonly WorkOfJob[]): number => all.filter((one) => workOf(one) === work).length;
          expect(count(pairs.map(([one]) => one))).toBe(Math.min(count(former), count(fresh)));
        }
      }),
    );
  });

  it('take the nearest in the year first: of three feeds of which April’s is done, June and September keep theirs', () => {
    const feed = (id: string, position: number, from: string): WorkOfJob => ({ id, zoneId: 'z', key: 'nitrogen', position, from }); // prettier-ignore
    const former = [feed('June', 1, '2027-06-01'), feed('September', 2, '2027-09-01')];
    const fresh = [feed('a', 0, '2027-06-01'), feed('b', 1, '2027-09-01'), feed('c', 2, '2028-04-01')];
    expect([...successors(former, fresh)].map(([id, { id: before }]) => [id, before])).toEqual([
      ['a', 'June'],
      ['b', 'September'],
    ]);
  });
});
