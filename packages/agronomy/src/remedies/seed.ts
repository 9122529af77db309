import { capital } from '../units/capital.ts';
import { InputError, choice, optional, quantity } from '../calculators/fields.ts';
import type { Material } from '../materials/material.ts';
import { firstCut } from '../season/mowing.ts';
import { seedQuantity } from '../seed/seed.ts';
import { present } from '../units/present.ts';
import { WorkingBook, figure } from '../working/working.ts';
import { physical } from './physical.ts';
import {
  coverNames,
  coverOf,
  harmedBySalt,
  holdsMix,
  isDeepShade,
  mixFor,
  mixWords,
  nurseOf,
  saltOf,
  seasonNames,
  sowing,
  waterOf,
} from './sowing.ts';
import { type Asked, cannot, defineRemedy, materialFor, materialId, supplyOf } from './remedy.ts';

/** Share of fine fescue that deep shade wants, %, low and high. */
const FINE_IN_SHADE = [55, 80] as const;

const shareOf = ({ seeds = [] }: Material, grass: string): number =>
  seeds.filter((seed) => seed.grass === grass).reduce((sum, { share }) => sum + share, 0);

/** How well a bag of seed suits what grows there and its light; 0 where it does not. */
function suits(asked: Asked, material: Material): number {
  const { seeds = [] } = material;
  const own = new Set(asked.sward.parts.map(({ name }) => name));
  const known = seeds.filter(({ grass }) => own.has(grass)).reduce((sum, { share }) => sum + share, 0);
  if (harmedBySalt(material, saltOf(asked)).length > 0) return known / 4;
  const { main } = asked.sward;
  const proposed = mixFor(asked);
  const largest = proposed?.mix.reduce((most, one) => (one.share > most.share ? one : most));
  // The proposed mix comes first where it is of the grass that is wanted here.
  if (proposed && holdsMix(material, proposed) && (isDeepShade(asked) || largest?.grass === main?.name)) return 300;
  if (main?.season === 'warm' || !isDeepShade(asked)) return known;
  const fine = shareOf(material, 'fine fescue');
  return fine >= FINE_IN_SHADE[0] && fine <= FINE_IN_SHADE[1] ? 200 : known / 2;
}

export function seedFor(chosen: string | undefined, asked: Asked) {
  if (chosen !== undefined) return materialFor(chosen, ['seed'], asked);
  const ranked = asked.materials
    .filter(({ material }) => material.kind === 'seed')
    .map((stocked) => ({ stocked, score: suits(asked, stocked.material) }))
    .sort((one, other) => other.score - one.score);
  return ranked[0] && ranked[0].score > 0 ? ranked[0].stocked : undefined;
}

/** What is to be minded of a mix under this light. */
export function mixCautions(material: Material, asked: Asked): string[] {
  const { seeds = [] } = material;
  const fine = shareOf(material, 'fine fescue');
  const tall = shareOf(material, 'tall fescue');
  const cool = asked.sward.main?.season !== 'warm';
  const harmed = harmedBySalt(material, saltOf(asked));
  return [
    ...(harmed.length > 0
      ? [
          `${harmed.join(' and ')} ${harmed.length === 1 ? 'does' : 'do'} not stand the salt here: wash it down first, or take a grass that stands it.`,
        ]
      : []),
    ...(cool && isDeepShade(asked) && fine < FINE_IN_SHADE[0]
      ? [`Deep shade wants about two thirds fine fescue; this holds ${figure(fine)} %.`]
      : []),
    ...(fine >= 100 - 1e-9 ? ['Fine fescue alone grows in tufts: give it a companion.'] : []),
    ...(tall > 0 && seeds.length > 1 && tall < 80
      ? [`Tall fescue at ${figure(tall)} % of a mix stands in clumps: 80 % or more, or none.`]
      : []),
  ];
}

/** g/m² of what a quantity says. */
export function sown(material: Material, purpose: 'new' | 'overseed', area: number) {
  const { purity, germination, coating } = material.analysis;
  return seedQuantity({
    area,
    mix: (material.seeds ?? []).map(({ grass, share }) => ({ species: grass, share })),
    purpose,
    ...(purity === undefined ? {} : { purity }),
    ...(germination === undefined ? {} : { germination }),
    ...(coating === undefined ? {} : { coating }),
  });
}

/** How a sward is renewed, by how much of it is worth keeping. */
function methodFor(wanted: number | undefined): string {
  if (wanted === undefined) return '';
  const { overseedFrom, slitFrom } = physical.damage;
  const told = `With ${figure(wanted)} % of the grass one wants:`;
  if (wanted > overseedFrom) return `${told} overseed. `;
  return wanted >= slitFrom
    ? `${told} core or slit, and seed into the slits. `
    : `${told} strip it and start again; clearing comes first. `;
}

/** Seed, in two directions at half rate. */
export const seed = defineRemedy({
  name: 'seed',
  kinds: ['seed'],
  fields: {
    material: materialId(),
    purpose: optional(choice(['new', 'overseed'], { overseeding: 'overseed', establishment: 'new' })),
    /** A part of the zone. */
    area: optional(quantity('m2', { above: 0, max: 10_000_000 })),
    /** Share of the sward that is the grass one wants, %. */
    wantedGrass: optional(quantity('%', { min: 0, max: 100 })),
    season: optional(choice(seasonNames)),
    cover: optional(choice(coverNames)),
    /** Annual ryegrass in what is sown, % by weight. */
    nurse: optional(quantity('%', { min: 0, max: 50 })),
    /** At the hose. */
    flow: optional(quantity('L/min', { above: 0, max: 10_000 })),
    /** In which it may run a day. */
    hours: optional(quantity('h', { above: 0, max: 24 })),
  },
  propose: ({ zone }) =>
    zone.surface === 'seedbed' && !zone.garden
      ? {
          status: 'due',
          words:
            'A bed to be sown: lime, phosphorus and potassium are tilled in first, the seed comes last and is rolled.',
        }
      : undefined,
  make: (values, asked) => {
    const { zone, system, sward } = asked;
    const bed = zone.surface === 'seedbed';
    const part = values.area === undefined && !bed ? asked.cleared : undefined;
    const purpose = values.purpose ?? (bed || part !== undefined ? 'new' : 'overseed');
    if (sward.main?.notSeeded)
      return {
        ...cannot(`${capital(sward.main.label)} ${sward.main.notSeeded}: plant sod, sprigs or plugs.`, values),
        status: 'refused',
      };
    const found = seedFor(values.material, asked);
    if (!found) return cannot('No seed of your list suits what grows here: choose or add one.', values);
    const area = Math.min(values.area ?? part ?? zone.area, zone.area);
    const { material } = found;
    if ((material.seeds ?? []).length === 0) return cannot(`${material.name} tells no species: complete it.`, values);
    let made: ReturnType<typeof sown>;
    try {
      made = sown(material, purpose, area);
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return { ...cannot(`${material.name}: ${error.message}.`, values), status: 'refused' };
    }
    const { result, working } = made;
    const say = (kilograms: number): string => present('mass', kilograms, system).text;
    const season = sowing.seasons.find(({ name }) => name === values.season);
    const warm = sward.main?.season === 'warm';
    const more = warm ? 0 : (season?.more ?? 0);
    const total = result.total * (1 + more / 100);
    const book = new WorkingBook();
    book.include(working);
    if (more > 0)
      book.step({
        label: `More for ${season!.name} seeding`,
        formula: 'rate × (1 + more)',
        numbers: `${figure(result.rate)} g/m² × (1 + ${figure(more)} %)`,
        result: result.rate * (1 + more / 100),
        unit: 'g/m2',
        source: sowing.source,
      });
    const rate = result.rate * (1 + more / 100);
    const water = waterOf(values, area, asked);
    const cover = coverOf(values.cover, area, result.emerge, asked);
    const nurse = nurseOf(values.nurse, total, asked);
    const suited = mixFor(asked);
    const cut = sward.main && firstCut(sward.main.name);
    const inch = (cm: number): string => present('depth', cm, system).text;
    const depth = (mm: number): string => present('watering', mm, system).text;
    const warmth = (celsius: number): string => present('temperature', celsius, system).text;
    return {
      status: 'planned',
      words: `${methodFor(values.wantedGrass)}${part !== undefined ? `On the ${present('area', area, system).text} that is cleared` : purpose === 'new' ? 'On bare ground' : 'Into the standing sward'}, ${say(total / 2)} one way and ${say(total / 2)} across it. Up in ${result.emerge[0]} to ${result.emerge[1]} days.${season ? ` ${warm ? 'A warm-season grass is sown into warm soil, in late spring.' : season.words}` : ''}${cover.words}`,
      sense: 'productRate',
      rate: { value: rate, working: book.entries },
      doses: [rate],
      supply: supplyOf(found, { value: total, in: 'kg' }, book.entries, asked),
      ...(season && !warm ? { job: season.job } : {}),
      facts: [...water.facts, ...cover.facts, ...nurse.facts],
      cautions: [...(water.caution ? [water.caution] : []), ...mixCautions(material, asked), ...nurse.cautions],
      more: [
        ...(suited && (isDeepShade(asked) || suited.mix.some(({ grass }) => grass === sward.main?.name))
          ? [mixWords(suited)]
          : []),
        ...(isDeepShade(asked)
          ? [
              'Deep shade: once it is up, half the water of the open lawn, half the feed, and cut high; fallen leaves off within days.',
            ]
          : []),
        `${water.runs} runs a day of ${depth(2)} to ${depth(3)} until it is up, never so that it runs; then ${depth(5)} daily for two weeks, ${depth(10)} every third day for three. Where the supply gives less, sow less at once.`,
        `Up sooner in warm soil: the short end at ${warmth(warm ? 27 : 18)}, the long one at ${warmth(warm ? 18 : 10)}.`,
        `Not deeper than ${inch(result.depth[1])}; rolled after.${values.cover ? '' : ' Cover by school: fine compost, screened topsoil, clean straw, a fleece, or raked in only.'} Birds and ants take what lies open.`,
        ...(cut === undefined ? [] : [`First cut at ${inch(cut)}, on dry firm ground, clippings bagged.`]),
        bed
          ? 'Stale seedbed: prepared early, the weeds let up and cleared shallowly, then sown. Starter at seeding or none: two schools; its phosphorus is the test’s to decide.'
          : 'Cut short and rake first; most overseeding law counts it as no new lawn, so it frees no phosphorus.',
      ],
      values: { ...values, material: found.id, purpose, area },
    };
  },
});
