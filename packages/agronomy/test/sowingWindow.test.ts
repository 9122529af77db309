import fc from 'fast-check';
import {
  type JobDose,
  type JobGround,
  climateNames,
  climateOf,
  dayOn,
  isInSowingWindow,
  normalDay,
  normalYear,
  planJobs,
  sowingWindow,
} from '../src/index.ts';
import { dosesOf, programOf } from './programScene.ts';

const TODAY = '2026-11-27';

describe('the window of autumn sowing', () => {
  it('is the same for rates and season: cool-season grass is sown on the days that the rates name, in every climate and from whatever day, north and south', () => {
    const began = fc.integer({ min: 0, max: 364 }).map((by) => dayOn('2026-11-27', by));
    fc.assert(
      fc.property(fc.constantFrom(...climateNames), fc.constantFrom(46, -38), began, (name, latitude, from) => {
        const climate = climateOf({ climate: name, latitude })!;
        const year = normalYear(climate, 'cool', latitude);
        const window = sowingWindow(year)!;
        const program = programOf({ zone: { surface: 'seedbed' }, climate, from });
        const ground: JobGround = { today: from, blackouts: [], system: 'us', year };
        const [seed] = planJobs(dosesOf(program, true), () => ground).filter(({ remedy }) => remedy === 'seed');
        expect(seed!.day).not.toBeNull();
        expect(isInSowingWindow(window, seed!.day!)).toBe(true);
        // It closes well before frost, whatever opened it.
        if (climate.firstFrost) expect(normalDay(year, `2027-${window.to}`).daysToFrost).toBeGreaterThanOrEqual(45);
      }),
      { numRuns: 60 },
    );
  });

  it('is offered where other days find none, with why: doses that find no day say why, and which days are nearest', () => {
    const ground: JobGround = { today: TODAY, blackouts: [], system: 'us', year: normalYear(climateOf({ climate: 'temperate inland' })!, 'cool', 40) }; // prettier-ignore
    const seed: JobDose = { id: 's', zoneId: 'z', key: 'seed', remedy: 'seed', name: 'Seed', position: 0, from: '2027-10-01', to: '2027-10-31', own: false, product: null, bare: true }; // prettier-ignore
    const [placed] = planJobs([seed], () => ground);
    expect([placed!.day, placed!.words.join(' ')]).toEqual([null, expect.stringMatching(/No day of 2027-10-01 to 2027-10-31 suits it.*The nearest days that suit it are 2027-0\d-\d\d to 2027-09-05/)]); // prettier-ignore
  });
});
