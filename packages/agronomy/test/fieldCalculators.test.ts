import fc from 'fast-check';
import { sulfurProgram, sulfurRequirement } from '../src/acidify/sulfur.ts';
import { areaPolygon } from '../src/ground/areaPolygon.ts';
import { limeEstimate } from '../src/lime/estimate.ts';
import { samplingCoreCount } from '../src/sampling/cores.ts';
import { nitrogenSchedule } from '../src/season/nitrogenSchedule.ts';
import { cationExchange } from '../src/soil/cations.ts';
import { drainagePercolation } from '../src/soil/percolation.ts';
import { sprayTank } from '../src/spread/spread.ts';
import { convert } from '../src/units/unit.ts';
import { waterCycleSoak } from '../src/water/irrigation.ts';

const double = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);
const soilGroup = fc.constantFrom('sand', 'loam', 'clay');

it('sulfur is never for a soil at or below its target, and more for a higher pH, a lower target and a deeper slice', () => {
  const requirement = (soilPh: number, targetPh: number, group: string, depth: number): number =>
    sulfurRequirement({ soilPh, targetPh, soilGroup: group, depth }).result.requirement;
  fc.assert(
    fc.property(
      double(4.6, 8.4),
      double(4.6, 8.4),
      soilGroup,
      double(1, 30),
      double(0.01, 0.1),
      (ph, target, group, depth, more) => {
        const rate = requirement(ph, target, group, depth);
        if (ph <= target) expect(rate).toBe(0);
        else {
          expect(rate).toBeGreaterThan(0);
          expect(requirement(ph + more, target, group, depth)).toBeGreaterThan(rate);
          expect(requirement(ph, Math.max(4.5, target - more), group, depth)).toBeGreaterThanOrEqual(rate);
          expect(requirement(ph, target, group, depth * (1 + more))).toBeGreaterThan(rate);
        }
      },
    ),
  );
});

it('sulfur is split so that it adds up, passes no cap, and no year takes more than its own', () => {
  const caps = { turf: [5, 10], 'fine turf': [0.5, 2.5] } as const;
  fc.assert(
    fc.property(double(0, 3000), fc.constantFrom('turf' as const, 'fine turf' as const), (requirement, surface) => {
      const { applications, total, years } = sulfurProgram({ requirement, surface }).result;
      const [once, yearly] = caps[surface].map((cap) => convert(cap, 'lb/1000ft2', 'g/m2') * (1 + 1e-9)) as [
        number,
        number,
      ];
      expect(sum(applications.map(({ rate }) => rate))).toBeCloseTo(requirement, 6);
      expect(total).toBe(requirement);
      for (const { rate } of applications) expect(rate).toBeLessThanOrEqual(once);
      for (let year = 0; year < years; year += 1) {
        const ofYear = applications.filter(({ monthsFromStart }) => Math.floor(monthsFromStart / 12) === year);
        expect(ofYear.length).toBeGreaterThan(0);
        expect(sum(ofYear.map(({ rate }) => rate))).toBeLessThanOrEqual(yearly);
      }
    }),
  );
});

it('cation shares add to 100', () => {
  fc.assert(
    fc.property(
      double(0, 5000),
      double(0, 900),
      double(0, 900),
      double(0, 900),
      double(0.01, 20),
      (ca, mg, k, na, acidity) => {
        const { saturation, esp, cec } = cationExchange({ ca, mg, k, na, acidity }).result;
        expect(sum(Object.values(saturation))).toBeCloseTo(100, 9);
        expect(esp).toBe(saturation.na);
        expect(cec).toBeGreaterThanOrEqual(acidity);
      },
    ),
  );
});

it('layers of a test hole cover it from the rim to the bottom without gaps, and one soil is one layer', () => {
  const run = fc.tuple(
    double(20, 80),
    double(10, 40),
    fc.array(fc.tuple(double(0.5, 90), double(0, 0.2)), { minLength: 1, maxLength: 12 }),
  );
  fc.assert(
    fc.property(run, ([holeDepth, holeDiameter, steps]) => {
      let [time, depth] = [0, 0];
      const readings = [{ time, depthBelowStick: depth }];
      for (const [minutes, share] of steps) {
        time += minutes;
        depth += (holeDepth - depth) * share;
        readings.push({ time, depthBelowStick: depth });
      }
      const { layers, overallRate } = drainagePercolation({ readings, holeDepth, holeDiameter }).result;
      expect([layers[0]!.fromDepth, layers.at(-1)!.toDepth]).toEqual([0, holeDepth]);
      layers.slice(1).forEach(({ fromDepth }, index) => expect(fromDepth).toBe(layers[index]!.toDepth));
      for (const { permeability } of layers) expect(permeability).toBeGreaterThanOrEqual(-1e-9);
      expect(overallRate).toBeCloseTo((depth * 600) / time, 6);
    }),
  );
  // Water that falls by the formula itself, in a soil of one permeability: however unevenly it is read, one layer.
  fc.assert(
    fc.property(double(5, 200), fc.array(double(1, 30), { minLength: 2, maxLength: 8 }), (permeability, gaps) => {
      const [holeDepth, radius] = [60, 15];
      const depthAt = (minutes: number): number => {
        const log = Math.log10(holeDepth + radius / 2) - (permeability * minutes) / (1.15 * radius * 600);
        return holeDepth - (10 ** log - radius / 2);
      };
      let time = 0;
      const readings = [0, ...gaps].map((gap) => ({ time: (time += gap), depthBelowStick: depthAt(time) }));
      fc.pre(readings.at(-1)!.depthBelowStick < holeDepth);
      const { layers } = drainagePercolation({ readings, holeDepth }).result;
      expect(layers).toHaveLength(1);
      expect(layers[0]!.permeability).toBeCloseTo(permeability, 5);
    }),
  );
});

it('nitrogen by month adds up to the year, and no month passes its cap', () => {
  const year = fc
    .tuple(double(14, 32), fc.array(double(-10, 38), { minLength: 11, maxLength: 11 }))
    .map(([warm, others]) => [warm, ...others]);
  fc.assert(
    fc.property(
      double(0, 40),
      fc.constantFrom('cool', 'warm'),
      year,
      double(1, 3),
      (annual, season, monthlyTemperature, slack) => {
        const cap = Math.max(0.01, (annual / 12) * slack);
        for (const capped of [false, true]) {
          const { months, unplaced } = nitrogenSchedule({
            annual,
            season,
            monthlyTemperature,
            ...(capped ? { cap } : {}),
          }).result;
          expect(sum(months) + unplaced).toBeCloseTo(annual, 5);
          if (capped) for (const month of months) expect(month).toBeLessThanOrEqual(cap * (1 + 1e-6));
        }
      },
    ),
  );
});

it('cycles add up to the depth, and none outruns what the soil takes in and the surface holds', () => {
  fc.assert(
    fc.property(
      double(5, 60),
      double(2, 40),
      double(2, 30),
      double(2, 10),
      (precipitationRate, infiltration, depth, storage) => {
        const { cycles } = waterCycleSoak({ precipitationRate, infiltration, depth, storage }).result;
        expect(sum(cycles.map(({ run }) => (run / 60) * precipitationRate))).toBeCloseTo(depth, 6);
        for (const { run, soak } of cycles) {
          const left = (run / 60) * (precipitationRate - infiltration);
          expect(left).toBeLessThanOrEqual(storage + 1e-6);
          if (soak > 0) expect((soak / 60) * infiltration).toBeCloseTo(left, 6);
        }
      },
    ),
  );
});

it('tank loads add up to the area and the product, full tanks first', () => {
  fc.assert(
    fc.property(
      double(10, 5000),
      double(5, 400),
      double(0.04, 0.2),
      double(0, 30),
      (area, tank, output, productRate) => {
        fc.pre((area * output) / tank < 400);
        const { loads } = sprayTank({ area, tank, output, productRate }).result;
        expect(sum(loads.map((load) => load.area))).toBeCloseTo(area, 6);
        expect(sum(loads.map(({ product }) => product))).toBeCloseTo(area * productRate, 4);
        for (const { water, product } of loads.slice(0, -1)) expect(water + product / 1000).toBeCloseTo(tank, 6);
      },
    ),
  );
});

it('the cores asked for buy the margin, and one fewer would not', () => {
  fc.assert(
    fc.property(double(5, 80), double(5, 40), double(60, 99), (cv, margin, confidence) => {
      const { cores, margin: bought } = samplingCoreCount({ area: 100, cv, margin, confidence }).result;
      expect(bought).toBeLessThanOrEqual(margin * (1 + 1e-9));
      if (cores > 5) expect(bought * Math.sqrt(cores / (cores - 1))).toBeGreaterThan(margin * (1 - 1e-9));
    }),
  );
});

it('an outline has one area, wherever it begins and whichever way it runs; crossed, it has none', () => {
  const spokes = fc.array(double(0.2, 1), { minLength: 4, maxLength: 30 });
  fc.assert(
    fc.property(spokes, double(-70, 70), double(-179, 179), fc.nat(29), (lengths, latitude, longitude, begin) => {
      const around = (lengthOf: (index: number) => number): number[][] =>
        lengths.map((_, index) => {
          const angle = (2 * Math.PI * index) / lengths.length;
          const length = 0.001 * lengthOf(index);
          return [longitude + length * Math.cos(angle), latitude + length * Math.sin(angle)];
        });
      // A star around its middle never crosses itself; an even one with two corners swapped always does.
      const ring = around((index) => lengths[index]!);
      const even = around(() => 1);
      const areaOf = (corners: number[][]): number =>
        areaPolygon({ polygon: { type: 'Polygon', coordinates: [[...corners, corners[0]]] } }).result.area;
      const area = areaOf(ring);
      expect(area).toBeGreaterThan(0);
      const turned = [...ring.slice(begin % ring.length), ...ring.slice(0, begin % ring.length)];
      expect(areaOf(turned) / area).toBeCloseTo(1, 6);
      expect(areaOf([...ring].reverse()) / area).toBeCloseTo(1, 6);
      const crossed = [even[0]!, even[2]!, even[1]!, ...even.slice(3)];
      expect(() => areaOf(crossed)).toThrow(/crosses or touches itself/);
    }),
  );
});

it('lime without a buffer is a range around its estimate, none at the target, more for heavier and richer soil', () => {
  fc.assert(
    fc.property(
      double(4, 7),
      double(4.5, 7),
      double(2, 30),
      double(0, 12),
      (soilPh, targetPh, depth, organicMatter) => {
        const [sand, loam, clay] = ['sand', 'loam', 'clay'].map(
          (soilGroup) => limeEstimate({ soilPh, targetPh, depth, soilGroup, organicMatter }).result,
        );
        if (soilPh >= targetPh) expect([sand, loam, clay].map((estimate) => estimate!.requirement)).toEqual([0, 0, 0]);
        else {
          expect(sand!.requirement).toBeLessThan(loam!.requirement);
          expect(loam!.requirement).toBeLessThan(clay!.requirement);
          for (const { low, requirement, high } of [sand!, loam!, clay!]) {
            expect(low).toBeLessThan(requirement);
            expect(requirement).toBeLessThan(high);
          }
        }
      },
    ),
  );
});
