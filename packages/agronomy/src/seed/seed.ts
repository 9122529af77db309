import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, optional, quantity } from '../calculators/fields.ts';
import { listOf } from '../calculators/structures.ts';
import { emergenceOf, findGrass, grassField, grassSource, grassTable, seedingWindows } from '../nutrients/grasses.ts';
import { convert } from '../units/unit.ts';
import { type WorkingBook, figure } from '../working/working.ts';

const middle = ([low, high]: readonly [number, number]): number => (low + high) / 2;

/**
 * Seed for an area, in two passes at right angles.
 *
 * @param area m²; `mix` of `species` with their `share` % by weight (adding to 100 ± 1); `purpose` new or overseed;
 *   `purity` and `germination` % of the label, the rates are of ordinary seed, so that better seed
 *   needs less; `coating` % only where the purity is told of the bare seed.
 * @returns `total` kg and `perPass` kg, half of it; the `depth` cm that suits all of the mix, and the days until the
 *   first and the last of it `emerge`.
 * @throws {InputError} for a grass that is not seeded, or shares that do not add to 100.
 */
export const seedQuantity = defineCalculator({
  name: 'seed.quantity',
  title: 'Seed for an area',
  source: grassSource,
  inputs: {
    area: quantity('m2', { above: 0, max: 10_000_000 }),
    mix: listOf({ species: grassField(), share: quantity('%', { above: 0, max: 100 }) }, 'species', {
      min: 1,
      max: 12,
    }),
    purpose: choice(['new', 'overseed'], { overseeding: 'overseed', establishment: 'new' }),
    purity: optional(quantity('%', { above: 0, max: 100 })),
    germination: optional(quantity('%', { above: 0, max: 100 })),
    /** Told only where the purity is of the bare seed. */
    coating: optional(quantity('%', { min: 0, max: 80 })),
  },
  outputs: { total: 'kg', perPass: 'kg', rate: 'g/m2', depth: '[low, high] cm', emerge: '[low, high] days' },
  compute({ area, mix, purpose, purity, germination, coating }, book) {
    const shares = mix.reduce((sum, { share }) => sum + share, 0);
    if (Math.abs(shares - 100) > 1 + 1e-9)
      throw new InputError('mix', `has shares that add to ${figure(shares)} %; wanted 100 ± 1`);
    let rate = 0;
    let ordinary = 0;
    for (const [index, { species, share }] of mix.entries()) {
      const { seed, notSeeded, label } = findGrass(species);
      if (!seed) throw new InputError(`mix.${index}.species`, `was given "${species}", which ${notSeeded}`);
      const perThousand =
        purpose === 'new' ? middle(seed.new) : seed.overseed ? middle(seed.overseed) : middle(seed.new) / 2;
      const own = (convert(perThousand, 'lb/1000ft2', 'g/m2') * share) / shares;
      rate += own;
      ordinary += ((seed.liveShare ?? grassTable.ordinaryLiveShare) * share) / shares;
      book.step({
        label: `${label}, ${purpose}`,
        formula: 'middle of the rate × share',
        numbers: `${figure(perThousand)} lb/1000 ft² × ${figure(share)} %`,
        result: own,
        unit: 'g/m2',
        source: grassSource,
      });
    }
    const told = [purity, germination, coating].some((value) => value !== undefined);
    if (told) {
      if (purity === undefined || germination === undefined)
        book.warn(
          `${purity === undefined ? 'Purity' : 'Germination'} was not given and is taken as 100 %: the label has it.`,
        );
      const live = ((purity ?? 100) * (germination ?? 100) * (1 - (coating ?? 0) / 100)) / 10_000;
      const corrected = (rate * ordinary) / live;
      book.step({
        label: 'For the live seed in this bag',
        formula: `rate × ordinary live share / (purity × germination${coating === undefined ? '' : ' × (1 − coating)'})`,
        numbers: `${figure(rate)} × ${figure(ordinary)} / (${figure(purity ?? 100)} % × ${figure(germination ?? 100)} %${coating === undefined ? '' : ` × (1 − ${figure(coating)} %)`})`,
        result: corrected,
        unit: 'g/m2',
        source: grassSource,
      });
      rate = corrected;
    }
    const total = (rate * area) / 1000;
    book.step({
      label: 'Seed for the area',
      formula: 'rate × area',
      numbers: `${figure(rate)} g/m² × ${figure(area)} m²`,
      result: total,
      unit: 'kg',
    });
    const fescue = mix.find(({ species }) => species === 'tall fescue');
    if (fescue && mix.length > 1 && fescue.share < 80)
      book.warn(
        'Tall fescue below 80 % of a mix by weight stands in clumps: raise its share, or leave it out.',
        grassSource,
      );
    if (mix.every(({ species }) => species === 'fine fescue'))
      book.warn('Pure fine fescue grows in tufts: give it a companion.', grassSource);
    return { total, perPass: total / 2, rate, ...comingUp(mix, book) };
  },
});

/** How deep a mix goes and when it comes up, and a word on the season. */
function comingUp(mix: ReadonlyArray<{ readonly species: string }>, book: WorkingBook) {
  const grasses = mix.map(({ species }) => findGrass(species));
  const seeds = grasses.flatMap(({ seed }) => seed ?? []);
  const least = (values: readonly number[]): number => Math.min(...values);
  const most = (values: readonly number[]): number => Math.max(...values);
  const deepest = least(seeds.map(({ depth }) => depth[1]));
  for (const season of new Set(grasses.map((grass) => grass.season))) {
    const { range, trend, window } = seedingWindows[season];
    book.warn(
      `${season === 'cool' ? 'Cool' : 'Warm'}-season seed: ${window}, in soil of ${range[0]} to ${range[1]} °C and ${trend}.`,
      grassSource,
    );
  }
  return {
    depth: [least([deepest, most(seeds.map(({ depth }) => depth[0]))]), deepest] as const,
    emerge: emergenceOf(mix.map(({ species }) => species))!,
  };
}
