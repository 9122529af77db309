import { defineCalculator } from '../calculators/calculator.ts';
import { InputError, choice, listOf, optional, quantity } from '../calculators/fields.ts';
import data from '../data/seeds.json' with { type: 'json' };
import { findGrass, grassField } from '../nutrients/grasses.ts';
import { convert } from '../units/unit.ts';
import { figure } from '../working/working.ts';

interface SeedRate {
  readonly new: readonly number[];
  readonly overseed?: readonly number[];
}

const rates = data.rates as Readonly<Partial<Record<string, SeedRate>>>;
const notSeeded = data.notSeeded as Readonly<Partial<Record<string, string>>>;
const middle = ([low = 0, high = low]: readonly number[]): number => (low + high) / 2;

/**
 * Seed for an area, in two passes at right angles.
 *
 * @param area m²; `mix` of `species` with their `share` % by weight (adding to 100 ± 1); `purpose` new or overseed;
 *   `purity` and `germination` % of the label, corrected for only when both or either is given.
 * @returns `total` kg and `perPass` kg, half of it.
 * @throws {InputError} for a grass that is not seeded, or shares that do not add to 100.
 */
export const seedQuantity = defineCalculator({
  name: 'seed.quantity',
  title: 'Seed for an area',
  source: data.source,
  inputs: {
    area: quantity('m2', { above: 0, max: 10_000_000 }),
    mix: listOf({ species: grassField(), share: quantity('%', { above: 0, max: 100 }) }, 'species', {
      min: 1,
      max: 12,
    }),
    purpose: choice(['new', 'overseed'], { overseeding: 'overseed', establishment: 'new' }),
    purity: optional(quantity('%', { above: 0, max: 100 })),
    germination: optional(quantity('%', { above: 0, max: 100 })),
  },
  outputs: { total: 'kg', perPass: 'kg', rate: 'g/m2' },
  compute({ area, mix, purpose, purity, germination }, book) {
    const shares = mix.reduce((sum, { share }) => sum + share, 0);
    if (Math.abs(shares - 100) > 1 + 1e-9)
      throw new InputError('mix', `has shares that add to ${figure(shares)} %; wanted 100 ± 1`);
    let rate = 0;
    for (const [index, { species, share }] of mix.entries()) {
      const known = rates[species];
      if (!known)
        throw new InputError(
          `mix.${index}.species`,
          `was given "${species}", which ${notSeeded[species] ?? 'has no seeding rate here'}`,
        );
      const perThousand =
        purpose === 'new' ? middle(known.new) : known.overseed ? middle(known.overseed) : middle(known.new) / 2;
      const own = (convert(perThousand, 'lb/1000ft2', 'g/m2') * share) / shares;
      rate += own;
      book.step({
        label: `${findGrass(species).label}, ${purpose}`,
        formula: 'middle of the rate × share',
        numbers: `${figure(perThousand)} lb/1000 ft² × ${figure(share)} %`,
        result: own,
        unit: 'g/m2',
        source: data.source,
      });
    }
    if (purity !== undefined || germination !== undefined) {
      const live = ((purity ?? 100) * (germination ?? 100)) / 10_000;
      book.step({
        label: 'For the live seed in it',
        formula: 'rate / (purity × germination)',
        numbers: `${figure(rate)} / (${figure(purity ?? 100)} % × ${figure(germination ?? 100)} %)`,
        result: rate / live,
        unit: 'g/m2',
      });
      rate /= live;
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
        data.source,
      );
    if (mix.every(({ species }) => species === 'fine fescue'))
      book.warn('Pure fine fescue grows in tufts: give it a companion.', data.source);
    return { total, perPass: total / 2, rate };
  },
});
