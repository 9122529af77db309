import { type DraftChoices, draftsOf, noChoices, samplingPurposes, shareOut } from '@glenfold/agronomy';
import type { BagAnswer, ZoneAnswer } from '@glenfold/contract';
import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { writePoints } from '../src/features/sampling/bags/writePoints.ts';

const zone = (id: string, more: Partial<ZoneAnswer> = {}): ZoneAnswer =>
  ({
    ...{ id, name: `Zone ${id}`, label: id, area: 300, grass: 'tall fescue', surface: 'turf', intensity: 'medium' },
    ...{
      shade: 'full sun',
      clippings: 'returned',
      soilGroup: 'loam',
      facts: { irrigation: 'none' },
      geometry: null,
      applied: [],
    },
    ...more,
  }) as ZoneAnswer;
const marked = (id: string): ZoneAnswer =>
  zone(id, { facts: { irrigation: 'none', signs: [{ sign: 'moss', at: [-36, 46.5] }] } });
const drafts = (zones: readonly ZoneAnswer[], choices: Partial<DraftChoices> = {}) =>
  draftsOf(zones, { ...noChoices, ...choices }, 'routine', 'us');
const names = (found: ReturnType<typeof drafts>): string[] => found.map(({ key }) => key);

describe('bags that are planned', () => {
  it('hold every zone once, or in both halves of a pair, whatever is decided', () => {
    const ids = ['a', 'b', 'c', 'd', 'e'];
    const id = fc.constantFrom(...ids);
    fc.assert(
      fc.property(
        fc.boolean(),
        fc.uniqueArray(id),
        fc.array(fc.tuple(id, id), { maxLength: 6 }),
        fc.uniqueArray(id),
        fc.uniqueArray(id),
        (alone, paired, joined, shaded, troubled) => {
          const zones = ids.map((one) =>
            troubled.includes(one) ? marked(one) : zone(one, shaded.includes(one) ? { shade: 'deep' } : {}),
          );
          const found = drafts(zones, { alone, paired: new Set(paired), joined: new Map(joined) });
          const times = (one: string): number => found.filter(({ zones: own }) => own.some((member) => member.id === one)).length; // prettier-ignore
          for (const one of ids) {
            const halves = found.filter((draft) => draft.part && draft.zones[0]!.id === one);
            expect(times(one)).toBe(halves.length === 0 ? 1 : 2);
            if (halves.length > 0) expect([paired.includes(one), troubled.includes(one)]).toEqual([true, true]);
          }
          expect(new Set(names(found)).size).toBe(found.length);
          for (const { cores, purpose, why } of found) {
            expect(cores).toBeGreaterThan(5);
            expect(samplingPurposes).toContain(purpose);
            expect(why).not.toBe('');
          }
        },
      ),
    );
  });

  it('mixed against the proposal say by what the zones differ; alike ones need no warning', () => {
    const zones = [zone('a'), zone('b', { shade: 'deep', grass: 'fine fescue' }), zone('c')];
    expect(names(drafts(zones))).toEqual(['a,c', 'b']);
    const [mixed] = drafts(zones, { joined: new Map([['b', 'a']]) });
    expect(mixed!.zones.map(({ id }) => id)).toEqual(['a', 'c', 'b']);
    expect(mixed!.why).toMatch(/they differ by grass, light: the bag tells the mean of both and neither/);
    const [again] = drafts([zone('a'), zone('b')], { joined: new Map([['b', 'a']]) });
    expect(again!.why).toMatch(/^One bag will do/);
  });

  it('of a pair are for the bad and the healthy part, with cores and purposes of their own', () => {
    const choices = { paired: new Set(['a']), ownCores: new Map([['a bad', 20]]), ownPurpose: new Map([['a healthy', 'before and after']]) }; // prettier-ignore
    expect(
      drafts([marked('a')], choices).map(({ key, cores, purpose, spots }) => [key, cores, purpose, spots]),
    ).toEqual([
      ['a bad', 20, 'problem', [[-36, 46.5]]],
      ['a healthy', 12, 'before and after', [[-36, 46.5]]],
    ]);
    // Nothing is marked on the plan: there is no telling where the bad part is.
    expect(names(drafts([zone('a')], choices))).toEqual(['a']);
  });
});

it('cores of a bag are shared out whole, more to the larger zone, and some to each', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 200 }),
      fc.array(fc.double({ min: 5, max: 5000, noNaN: true }), { minLength: 1, maxLength: 6 }),
      (cores, areas) => {
        const shares = shareOut(cores, areas);
        expect(shares.reduce((sum, share) => sum + share, 0)).toBe(cores);
        expect(Math.min(...shares)).toBeGreaterThanOrEqual(Math.min(3, Math.floor(cores / areas.length)) - 1);
        for (const [one, area] of areas.entries())
          for (const [other, smaller] of areas.entries())
            if (area > 1.5 * smaller && cores > 20 * areas.length) expect(shares[one]!).toBeGreaterThanOrEqual(shares[other]!); // prettier-ignore
      },
    ),
  );
});

it('planned cores go out as waypoints in the order of the walk, with their route, to the centimetre', () => {
  const place = (at: number): [number, number] => [-36 + at * 1e-5, 46.5 + at * 1e-5];
  const cores = [3, 1, 2].map((turn, index) => ({ id: `${turn}`, number: index + 1, turn, place: place(turn), state: 'waiting' })); // prettier-ignore
  const bags = [{ code: 'K7F4Q2', depth: 10, places: [...cores, { id: 'x', turn: 4, place: null }] }] as unknown as BagAnswer[]; // prettier-ignore
  const { features } = JSON.parse(writePoints(bags, 'geojson')) as {
    features: ReadonlyArray<{ properties: object; geometry: { type: string; coordinates: number[] | number[][] } }>;
  };
  expect(features.map(({ geometry }) => geometry.type)).toEqual(['Point', 'Point', 'Point', 'LineString']);
  expect(features[0]).toMatchObject({
    properties: { bag: 'K7F-4Q2', core: 2, turn: 1, depth_cm: 10, state: 'waiting' },
    geometry: { coordinates: place(1) },
  });
  expect(features[3]!.geometry.coordinates).toEqual([place(1), place(2), place(3)]);
  expect(writePoints(bags.map((one) => ({ ...one, places: [] })), 'geojson')).toContain('"features": []'); // prettier-ignore
});
