import fc from 'fast-check';
import { type Entry, type Gone, entryKindOf, goneOf } from '../src/index.ts';
import { by, grams, materialOf, programOf } from './programScene.ts';

const entry = (id: string, more: Partial<Entry>): Entry =>
  ({
    ...{ id, zoneId: 'z', state: 'done', words: 'as entered', area: null, cce: null, correctsId: null },
    ...more,
  }) as Entry;

describe('what went down', () => {
  it('comes off a rate set by hand too, from the moment it was set', () => {
    const ground = { lime: { soilPh: 5.4 }, nitrogen: {}, sulfur: { soilPh: 7.6 }, gypsum: {}, sand: {} };
    const half = grams(20);
    fc.assert(
      fc.property(
        fc.constantFrom(...(Object.keys(ground) as Array<keyof typeof ground>)),
        fc.double({ min: 0.05, max: 1.2, noNaN: true }),
        (key, share) => {
          const field = key === 'sand' ? 'layer' : 'rate';
          const set = { lime: half, nitrogen: 10, sulfur: 10, gypsum: half, sand: 0.4 }[key];
          const program = (gone?: Gone) =>
            by(
              programOf({ test: ground[key], changes: [{ remedy: key, values: { [field]: set }, gone }] }).treatments,
              key,
            );
          const whole = program();
          const done = {
            ...({ on: '2027-04-20', kind: entryKindOf(key), unit: key === 'sand' ? 'cm' : 'g/m2' } as const),
            ...{
              material: materialOf(whole.supply!.materialId),
              rate: whole.rate!.value * share,
              recordedAt: '2027-04-20T10:00:00Z',
            },
          };
          const corrected = [entry('1', { ...done, rate: 1 }), entry('2', { ...done, correctsId: '1', recordedAt: '2027-05-02T10:00:00Z' })]; // prettier-ignore
          const left = program(goneOf(corrected, 200, '2027-04-01T00:00:00Z'));
          expect(program(goneOf(corrected, 200, '2027-05-01T00:00:00Z'))).toEqual(whole);
          if (share >= 0.99) expect(left.status).toBe('down');
          if (share > 0.97) return;
          expect(left.byHand!.held).toMatch(/set by hand .* is down by 2027-04-20/);
          const apart = Math.abs(left.rate!.value - whole.rate!.value * (1 - share));
          // To what a spreader can be set to; sand goes down in whole goings-over.
          expect(apart).toBeLessThan(key === 'sand' ? set : whole.rate!.value * 0.02 + 2.5);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('counts once where a remedy stands twice', () => {
    const twice = (gone?: Gone) =>
      programOf({
        changes: ['one', 'two'].map((key) => ({
          key,
          remedy: 'sand',
          added: true,
          values: { layer: 0.3, times: 1 },
          gone,
        })),
      })
        .treatments // prettier-ignore
        .filter(({ remedy }) => remedy === 'sand')
        .map(({ status }) => status);
    const sand = materialOf(programOf({ changes: [{ key: 'one', remedy: 'sand', added: true, values: { layer: 0.3 } }] }).treatments.find(({ remedy }) => remedy === 'sand')!.supply!.materialId); // prettier-ignore
    const done = entry('1', { on: '2027-04-20', kind: 'sand', unit: 'cm', rate: 0.3, material: sand, recordedAt: '2027-04-20T10:00:00Z' }); // prettier-ignore
    expect(twice(goneOf([done], 200, '2027-04-01T00:00:00Z'))).toEqual(['down', 'planned']);
  });
});
