import fc from 'fast-check';
import { type TriedSetting, nextSetting, settingFor, sprayNozzles, spreadSwath, spreading } from '../src/index.ts';

/** What falls into trays on one side of a machine, less and less outwards. */
const falling = fc
  .array(fc.double({ min: 0.05, max: 0.75, noNaN: true }), { minLength: 3, maxLength: 12 })
  .map((shares) => shares.reduce<number[]>((all, share) => [...all, (all.at(-1) ?? 20) * (1 - share)], []));

describe('a broadcast spreader', () => {
  it('puts down all that its trays caught, once, over the width between its passes', () => {
    fc.assert(
      fc.property(falling, falling, fc.double({ min: 0.05, max: 1, noNaN: true }), (left, right, spacing) => {
        const size = Math.max(left.length, right.length);
        const side = (some: readonly number[]) => [...some, ...Array<number>(size - some.length).fill(0), 0];
        const catches = [...side(left).reverse(), 20, ...side(right)];
        const { result } = spreadSwath({ catches, trayArea: 0.1, traySpacing: spacing });
        const caught = catches.reduce((sum, one) => sum + one, 0);
        expect((result.rate * 0.1 * result.width) / spacing / caught).toBeCloseTo(1, 1);
        expect(result.width).toBeLessThan(catches.length * spacing);
      }),
      { numRuns: 100 },
    );
  });

  it('is even where its passes meet at half of the middle, and stripes where they do not', () => {
    const warned = (catches: number[]) =>
      spreadSwath({ catches, trayArea: 0.1, traySpacing: 0.3 }).working.flatMap((entry) =>
        entry.kind === 'warning' ? [entry.text] : [],
      );
    expect(warned([0, 2, 4, 6, 8, 10, 10, 10, 8, 6, 4, 2, 0])).toEqual([]);
    expect(warned([0, 9, 9, 9, 2, 2, 2, 2, 2, 9, 9, 9, 0]).join()).toMatch(/would stripe: above 25 %/);
    expect(warned([0, 0, 0, 2, 6, 8, 8, 8, 8, 7, 6, 5, 4, 2, 0]).join()).toMatch(/throws further to one side/);
  });
});

describe('a setting that was tried', () => {
  const trial = (setting: string, rate: number, checkedOn: string | null = '2026-09-01'): TriedSetting => ({
    ...{ productId: 'urea', setting, rate, checkedOn },
  });
  const found = (wanted: number, ...tried: TriedSetting[]) => settingFor(tried, 'urea', wanted, '2026-11-27');

  it('is taken where it is near, reckoned in proportion from the nearest, and not stretched further', () => {
    expect(found(12.2, trial('11', 12))).toMatchObject({ setting: '11', by: 'tried', old: false });
    expect(found(15, trial('4½', 12), trial('9', 40))).toMatchObject({ setting: '5.6', by: 'reckoned' });
    expect(found(12 * spreading.stretch * 1.01, trial('11', 12))).toBeUndefined();
    expect(found(15, trial('M', 12))).toBeUndefined();
    expect(found(12, { ...trial('11', 12), productId: 'lime' })).toBeUndefined();
  });

  it('is old after a year, and where nobody wrote the day', () => {
    expect(found(12, trial('11', 12, '2025-11-20'))!.old).toBe(true);
    expect(found(12, trial('11', 12, null))!.old).toBe(true);
    // Of two alike the newer one.
    expect(found(12, trial('11', 12, '2025-01-01'), trial('10', 12, '2026-10-01'))!.setting).toBe('10');
  });

  it('is corrected by no more than it can be', () => {
    expect(nextSetting('4½', 1.2)).toBe('5.4');
    expect(nextSetting('4,5', 1.2)).toBe('5.4');
    expect(nextSetting('H', 1.2)).toBeUndefined();
    expect(nextSetting('12', 2)).toBeUndefined();
  });
});

describe('a sprayer', () => {
  it('has its worn and its blocked nozzles told, and cannot know wear without a new one', () => {
    const told = (more: object) => sprayNozzles({ caught: [620, 640, 700, 540], caughtIn: 60, nozzleSpacing: 0.5, distanceWalked: 30, walkedIn: 25, ...more }); // prettier-ignore
    const texts = (working: ReturnType<typeof told>['working']) =>
      working.flatMap((entry) => (entry.kind === 'warning' ? [entry.text] : [])).join(' ');
    const withNew = told({ newNozzle: 620 });
    expect(withNew.result.worn).toEqual([3]);
    expect(texts(withNew.working)).toMatch(/Replace nozzle 3.*Nozzle 4 stands more than 5 % off/);
    expect(texts(told({}).working)).toMatch(/worn shows only beside a new one/);
    // Half the pace puts down double.
    expect(told({ walkedIn: 50 }).result.output).toBeCloseTo(2 * withNew.result.output, 9);
  });
});
