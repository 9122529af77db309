import { type Fields, choice, optional, quantity } from '../calculators/fields.ts';
import { flag, text } from '../calculators/structures.ts';
import { firstCut } from '../season/mowing.ts';
import { present } from '../units/present.ts';
import { WorkingBook, figure } from '../working/working.ts';
import { priced } from './ground.ts';
import { physical } from './physical.ts';
import { type Asked, cannot, defineRemedy, fact } from './remedy.ts';

const area = () => optional(quantity('m2', { above: 0, max: 10_000_000 }));
const price = () => optional(quantity('$', { min: 0, max: 1e7 }));
/** Weeks in which the label lets nothing be seeded. */
const wait = () => optional(quantity('', { min: 0, max: 104 }));

const LICENSED = 'By somebody licensed where the law asks for it, and by the label: it comes before any word here.';

/** A weedkiller, put down or planned: work for a licensed person, and a wait before anything is sown. */
export const weeds = defineRemedy({
  name: 'weeds',
  kinds: [],
  fields: {
    what: optional(text(120)),
    firm: optional(text(80)),
    noSeedingWeeks: wait(),
    price: price(),
  } satisfies Fields,
  propose: ({ zone }) =>
    (zone.signs ?? []).includes('moss') && !zone.garden
      ? {
          status: 'none',
          words:
            'Moss fills what the grass gives up: shade, acid or wet ground, scalping. Rake it out when the grass grows, and mend what let it in; without that it is back in a year. Iron sulfate blackens it by its label and cures nothing.',
        }
      : undefined,
  make: (values) => {
    const { what, firm, noSeedingWeeks } = values;
    const told =
      noSeedingWeeks === undefined
        ? ' How long nothing may be seeded is not told: read the label.'
        : ` Nothing is seeded for ${figure(noSeedingWeeks)} weeks after it.`;
    return {
      status: 'planned',
      words: `${what ?? 'A weedkiller'}${firm ? `, by ${firm}` : ''}.${told} Leaves dry or wet as its label wants; coring and compost after a pre-emergent are usually fine.`,
      sense: 'count',
      rate: null,
      doses: [1],
      price: priced(values.price, 'as it was told'),
      cautions: [LICENSED, 'The tank that held it is rinsed three times before anything living goes into it.'],
      values: { ...values },
    };
  },
});

/** Sward that is given up, killed or lifted, before ground is made new. */
export const clear = defineRemedy({
  name: 'clear',
  kinds: [],
  fields: {
    how: optional(choice(['lift', 'kill'])),
    area: area(),
    depth: optional(quantity('cm', { above: 0, max: 60 })),
    noSeedingWeeks: wait(),
    price: price(),
  } satisfies Fields,
  propose: () => undefined,
  make: (values, { zone, system }) => {
    const { clear: usual } = physical;
    const treated = Math.min(values.area ?? zone.area, zone.area);
    const say = (of: number): string => present('area', of, system).text;
    const cost = priced(values.price, 'hire and labour, as told');
    const shared = { status: 'planned', sense: 'count', rate: null, doses: [1], price: cost } as const;
    if (values.how === 'kill') {
      const { noSeedingWeeks } = values;
      return {
        ...shared,
        words: `Killed on ${say(treated)}, by the label; ${noSeedingWeeks === undefined ? 'its wait before seeding is not told: read it there' : `${figure(noSeedingWeeks)} weeks before anything is sown`}. Creeping grasses come again from what is left: see that it is dead, and treat what greens up once more.`,
        cautions: [LICENSED],
        more: [
          `Lifting instead wants no wait: ${present('layer', usual.depth, system).text} deep, ${treated <= usual.byHandTo ? 'by hand' : 'with a hired machine'}.`,
        ],
        values: { ...values, area: treated },
      };
    }
    const depth = values.depth ?? usual.depth;
    const book = new WorkingBook();
    const spoil = (treated * depth * usual.swells) / 100;
    book.step({
      label: 'Spoil, loose',
      formula: 'area × depth × 1.3',
      numbers: `${figure(treated)} m² × ${figure(depth)} cm × ${figure(usual.swells)}`,
      result: spoil,
      unit: 'm3',
    });
    return {
      ...shared,
      words: `Lifted ${present('layer', depth, system).text} deep on ${say(treated)}, ${treated <= usual.byHandTo ? 'by hand' : 'with a hired turf cutter'}: coarse and creeping grasses want ${present('layer', 3, system).text} to ${present('layer', 5, system).text}, or they come again. No wait before seeding.`,
      facts: [fact('Spoil, loose', present('volume', spoil, system).text, spoil, book.entries)],
      cautions: ['Have buried lines and irrigation marked first. Move the spoil before it blocks the work.'],
      more: [
        `It leaves the ground ${present('layer', depth, system).text} lower there: ${present('volume', (treated * depth) / 100, system).text} of topsoil, settled, brings it level again, screened and free of weeds.`,
        'Killing instead leaves the soil where it is, and costs the label’s wait.',
      ],
      values: { ...values, how: 'lift', area: treated, depth },
    };
  },
});

/** Sod instead of seed. */
export const sod = defineRemedy({
  name: 'sod',
  kinds: [],
  fields: { area: area(), curves: optional(flag()), price: price() } satisfies Fields,
  propose: () => undefined,
  make: (values, { zone, sward, system }: Asked) => {
    if (!sward.main) return cannot('A garden bed is not sodded.', values);
    const { sod: usual } = physical;
    const laid = Math.min(values.area ?? zone.area, zone.area);
    const waste = values.curves ? usual.wasteOnCurves : usual.waste;
    const order = laid * (1 + waste / 100);
    const book = new WorkingBook();
    book.step({
      label: 'To order',
      formula: 'area × (1 + waste)',
      numbers: `${figure(laid)} m² × (1 + ${figure(waste)} %)`,
      result: order,
      unit: 'm2',
    });
    const water = laid * usual.waterAtOnce;
    const wet = new WorkingBook();
    wet.step({
      label: 'Water at once',
      formula: 'area × depth',
      numbers: `${figure(laid)} m² × ${figure(usual.waterAtOnce)} mm`,
      result: water,
      unit: 'L',
    });
    const cut = present('layer', firstCut(sward.main.name), system).text;
    return {
      status: 'planned',
      words: `${present('area', order, system).text} to order for ${present('area', laid, system).text}, ${figure(waste)} % for cutting. Ordered for the day it is laid, seen at its source for weeds and foreign grasses, grown on soil like this.`,
      sense: 'count',
      rate: null,
      doses: [1],
      price: priced(values.price, 'delivered, as told'),
      facts: [
        fact('To order', present('area', order, system).text, order, book.entries),
        fact('Water at once', present('liquid', water, system).text, water, wet.entries),
      ],
      cautions: ['It heats on the pallet: laid within the day, joints tight and staggered, rolled, watered at once.'],
      more: [
        `Then daily until a corner no longer lifts, two to three weeks: that is the test. First cut at ${cut}, when it holds.`,
        'Brown sod that was never rooted does not come back as a rooted lawn does: pull a corner before money is spent.',
      ],
      values: { ...values, area: laid },
    };
  },
});
