import { choice, optional, quantity } from '../calculators/fields.ts';
import { group, listOf, text } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import data from '../data/sowing.json' with { type: 'json' };
import type { Material } from '../materials/material.ts';
import { findGrass, grassField } from '../nutrients/grasses.ts';
import { limitTable } from '../reading/limitTable.ts';
import { type Known, checkConditions, conditionFields, firstThatHolds } from '../rules/engine.ts';
import { present } from '../units/present.ts';
import { WorkingBook, figure } from '../working/working.ts';
import { monthJobField } from './months.ts';
import { type Asked, fact } from './remedy.ts';
import type { Fact } from './treatment.ts';

const facts = ['season', 'surface', 'sun', 'salt', 'irrigation', 'intensity'] as const;

/** What is chosen at a sowing: its season, what lies over it, a nurse grass, and the mix that suits a place. */
export const sowing = readTable(
  'sowing',
  {
    seasons: listOf(
      {
        name: choice(['autumn', 'spring', 'dormant'] as const),
        job: monthJobField,
        more: quantity('%', { min: 0, max: 100 }),
        words: text(300),
      },
      'seasons',
      { min: 3, max: 3 },
    ),
    covers: listOf(
      {
        name: text(20),
        depth: optional(quantity('cm', { above: 0, max: 5 })),
        mass: optional(quantity('g/m2', { above: 0, max: 2000 })),
        words: text(120),
        /** Days after the last of it is up. */
        offAfter: optional(quantity('', { min: 0, max: 60, whole: true })),
        offWords: optional(text(120)),
      },
      'covers',
      { min: 2, max: 12 },
    ),
    nurse: group({
      grass: text(40),
      most: quantity('%', { above: 0, max: 50 }),
      usual: quantity('%', { above: 0, max: 50 }),
    }),
    run: group({
      depth: quantity('mm', { above: 0, max: 10 }),
      runs: quantity('', { min: 1, max: 6, whole: true }),
      runsInShade: quantity('', { min: 1, max: 6, whole: true }),
    }),
    mixes: listOf(
      {
        when: listOf(conditionFields(facts), 'conditions', { min: 1, max: 4 }),
        mix: listOf({ grass: grassField(), share: quantity('%', { above: 0, max: 100 }) }, 'species', {
          min: 1,
          max: 6,
        }),
        words: text(80),
      },
      'mixes',
      { min: 1, max: 20 },
    ),
  },
  data,
);
const words = {
  season: ['cool', 'warm'],
  surface: ['turf', 'fine turf', 'seedbed'],
  irrigation: ['none'],
  intensity: ['low', 'medium', 'high'],
};
for (const { when } of sowing.mixes) checkConditions(when, { signs: [], words }, 'sowing.mixes');

export const seasonNames = sowing.seasons.map(({ name }) => name);
export const coverNames = sowing.covers.map(({ name }) => name);

/** Hours of sun below which shade counts as deep. */
const DEEP = 4;

export const isDeepShade = ({ zone }: Asked): boolean =>
  zone.sunHours === undefined ? zone.shade === 'deep' : zone.sunHours < DEEP;

/** Salt of the saturated paste, dS/m; nothing where it was not measured. */
export const saltOf = ({ reading }: Asked): number | undefined =>
  reading.bars.find(({ key }) => key === 'ecPaste')?.figure.value;

/** A mix that suits a place by its sun, salt, water and upkeep; nothing where only its own grass does. */
export function mixFor(asked: Asked): (typeof sowing.mixes)[number] | undefined {
  const { zone, sward } = asked;
  const known: Known = {
    season: sward.main?.season ?? 'cool',
    surface: zone.surface,
    sun: zone.sunHours ?? limitTable.shadeHours[zone.shade],
    salt: saltOf(asked),
    irrigation: zone.irrigation,
    intensity: zone.intensity,
  };
  return firstThatHolds(sowing.mixes, [], known)?.found;
}

/** "For deep shade: fine fescue 65 %, Kentucky bluegrass 20 %, perennial ryegrass 15 %." */
export const mixWords = ({ words: place, mix }: (typeof sowing.mixes)[number]): string =>
  `For ${place}: ${mix.map(({ grass, share }) => `${findGrass(grass).label} ${figure(share)} %`).join(', ')}.`;

/** Points by which a share may stand off the proposed one. */
const NEAR = 10;

/** Whether a bag holds the proposed mix. */
export const holdsMix = ({ seeds = [] }: Material, { mix }: (typeof sowing.mixes)[number]): boolean =>
  seeds.length === mix.length &&
  mix.every(({ grass, share }) => seeds.some((seed) => seed.grass === grass && Math.abs(seed.share - share) <= NEAR));

/** Grasses of a bag that this much salt harms. */
export function harmedBySalt({ seeds = [] }: Material, salt: number | undefined): string[] {
  return salt === undefined
    ? []
    : seeds.flatMap(({ grass }) => {
        const { label, salt: stands } = findGrass(grass);
        return salt >= stands[1] ? [label] : [];
      });
}

interface Covered {
  readonly words: string;
  readonly facts: readonly Fact[];
}

/** What lies over a sowing, how much of it, and when it comes off. */
export function coverOf(
  name: string | undefined,
  area: number,
  emerge: readonly [number, number],
  { system }: Pick<Asked, 'system'>,
): Covered {
  const cover = sowing.covers.find((one) => one.name === name);
  if (!cover) return { words: '', facts: [] };
  const { depth, mass, offAfter, offWords } = cover;
  const book = new WorkingBook();
  const told = (value: number, unit: 'm3' | 'kg', numbers: string): Fact => {
    book.step({ label: `Cover, ${cover.name}`, formula: 'rate × area', numbers, result: value, unit });
    return fact(
      `Cover, ${cover.name}`,
      present(unit === 'm3' ? 'volume' : 'mass', value, system).text,
      value,
      book.entries,
    );
  };
  const off =
    offAfter === undefined
      ? offWords
      : `${offWords}, ${emerge[0] + offAfter} to ${emerge[1] + offAfter} days after sowing: left on longer it cooks the grass`;
  return {
    words: ` Over it: ${cover.words}${off ? `; ${off}` : ''}.`,
    facts: [
      ...(depth === undefined ? [] : [told((depth / 100) * area, 'm3', `${figure(depth)} cm × ${figure(area)} m²`)]),
      ...(mass === undefined ? [] : [told((mass * area) / 1000, 'kg', `${figure(mass)} g/m² × ${figure(area)} m²`)]),
    ],
  };
}

interface Supply {
  /** L/min at the hose, and hours in which it may run. */
  readonly flow?: number | undefined;
  readonly hours?: number | undefined;
}

/** Water that a sowing wants a day until it is up, and how much of it the supply keeps wet. */
export function waterOf(
  { flow, hours }: Supply,
  area: number,
  asked: Asked,
): { readonly facts: readonly Fact[]; readonly words: string; readonly caution: string | null; readonly runs: number } {
  const { depth, runs: usual, runsInShade } = sowing.run;
  const runs = isDeepShade(asked) ? runsInShade : usual;
  const { system } = asked;
  const litres = runs * depth * area;
  const say = (of: number): string => present('liquid', of, system).text;
  const book = new WorkingBook();
  book.step({
    label: 'Water a day until it is up',
    formula: 'runs × depth × area',
    numbers: `${runs} × ${figure(depth)} mm × ${figure(area)} m²`,
    result: litres,
    unit: 'L',
  });
  const wanted = fact('Water a day until it is up', say(litres), litres, book.entries);
  if (flow === undefined || hours === undefined)
    return {
      runs,
      facts: [wanted],
      words: '',
      caution:
        flow === undefined && hours === undefined
          ? null
          : 'Give both the flow and the hours of watering to see how much can be sown at once.',
    };
  const there = flow * 60 * hours;
  const most = there / (runs * depth);
  book.step({
    label: 'The supply keeps wet',
    formula: 'flow × 60 × hours / (runs × depth)',
    numbers: `${figure(flow)} L/min × 60 × ${figure(hours)} h / (${runs} × ${figure(depth)} mm)`,
    result: most,
    unit: 'm2',
  });
  const parts = Math.ceil(area / most - 1e-9);
  const kept = present('area', most, system).text;
  return {
    runs,
    facts: [wanted, fact('The supply keeps wet', kept, most, book.entries)],
    words: '',
    caution:
      parts > 1
        ? `The supply gives ${say(there)} a day and keeps ${kept} wet: sow in ${parts} parts, the next when the one before is up, or it dries out.`
        : null,
  };
}

/** Annual grass that stands first and holds the ground; nothing without one. */
export function nurseOf(share: number | undefined, total: number, { system }: Pick<Asked, 'system'>) {
  if (share === undefined || share === 0) return { facts: [], cautions: [] };
  const { grass, most } = sowing.nurse;
  const mass = (total * share) / (100 - share);
  const book = new WorkingBook();
  book.step({
    label: `Nurse, ${grass}`,
    formula: 'seed × share / (100 − share)',
    numbers: `${figure(total)} kg × ${figure(share)} / ${figure(100 - share)}`,
    result: mass,
    unit: 'kg',
  });
  return {
    facts: [fact(`Nurse, ${grass}`, present('mass', mass, system).text, mass, book.entries)],
    cautions:
      share > most + 1e-9
        ? [
            `More than ${figure(most)} % of ${grass} crowds out what is to stay: it comes up in a week and takes the light.`,
          ]
        : [`Mow the ${grass} before it shades the rest; it is gone after a year.`],
  };
}
