import { wholes } from '../units/wholes.ts';
import { optional, quantity } from '../calculators/fields.ts';
import type { Analysis } from '../materials/analysis.ts';
import type { Material } from '../materials/material.ts';
import { nitrogenCredits } from '../nutrients/nitrogenTables.ts';
import { compostLayers, compostProgram } from '../organic/program.ts';
import type { Fact } from './treatment.ts';
import { compostVerdict } from '../rates/verdicts.ts';
import { organicTarget } from '../reading/bars.ts';
import { present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { WorkingBook, figure } from '../working/working.ts';
import { type Asked, cannot, defineRemedy, equalDoses, fact, materialFor, materialId, supplyOf } from './remedy.ts';
import { proposed } from './soil.ts';

/** % P₂O₅ of the dry up to which a compost counts as poor in it. */
const POOR_IN_PHOSPHORUS = 0.3;

/** What of an analysis the reckoning of a layer wants. */
const wanted = {
  bulkDensity: 'bulk density',
  dryMatter: 'dry matter',
  organicMatter: 'organic matter',
} as const satisfies Partial<Record<keyof Analysis, string>>;

/** A compost with all that its layer is reckoned by. */
interface Compost {
  readonly material: Material;
  readonly bulkDensity: number;
  readonly dryMatter: number;
  readonly organicMatter: number;
  readonly stays: number;
  /** g/m² of the dry in a centimetre of it. */
  readonly dryPerCm: number;
  /** L in a pack. */
  readonly litres: number;
}

/** @returns the names of what is missing in its analysis, where something is. */
function compostOf(material: Material): Compost | string {
  const { analysis, packSize, packUnit } = material;
  const { bulkDensity, dryMatter, organicMatter, retained, lasting } = analysis;
  const stays = lasting ?? retained;
  if (bulkDensity === undefined || dryMatter === undefined || organicMatter === undefined || stays === undefined)
    return [
      ...Object.entries(wanted).flatMap(([key, name]) =>
        analysis[key as keyof typeof wanted] === undefined ? [name] : [],
      ),
      ...(stays === undefined ? ['what lasts of it'] : []),
    ].join(', ');
  const litres = { m3: packSize * 1000, L: packSize, kg: packSize / bulkDensity }[packUnit];
  return { material, bulkDensity, dryMatter, organicMatter, stays, dryPerCm: bulkDensity * dryMatter * 100, litres };
}

/** What a layer brings, g/m²; of the nitrogen what feeds in the first year. */
function broughtBy({ material, dryPerCm }: Compost, layer: number) {
  const { n = 0, p2o5 = 0, k2o = 0, nitrogenFirstYear = 0 } = material.analysis;
  const of = (percentage: number): number => (layer * dryPerCm * percentage) / 100;
  return { n: (of(n) * nitrogenFirstYear) / 100, p2o5: of(p2o5), k2o: of(k2o) };
}

const isTilled = ({ zone }: Asked): boolean => zone.surface === 'seedbed' || !!zone.garden;

/** cm below which nothing is laid. */
const LEAST = 0.1;

/** cm that a year takes: by the surface, and by the nitrogen that the layer feeds. */
function mostOf(compost: Compost, asked: Asked): { readonly most: number; readonly why: string } {
  const { zone, sward, settings, system } = asked;
  const inYear = isTilled(asked) ? compostLayers.seedbed : compostLayers.turfYearCored;
  const down = zone.down?.year.compost ?? 0;
  const laid = down > 0 ? `${present('layer', down, system).text} is laid since ${zone.down!.since}; ` : '';
  const bySurface = Math.max(0, inYear - down);
  const takes = isTilled(asked) ? 'a bed takes' : 'turf takes, after coring,';
  const surface = `${laid}${takes} ${present('layer', inYear, system).text} a year at most.`;
  if (zone.garden) return { most: bySurface, why: surface };
  const year = Math.min(
    settings.caps.nitrogenYear?.most ?? Infinity,
    convert(sward.nitrogen[1], 'lb/1000ft2', 'g/m2') * nitrogenCredits.shade[zone.shade],
  );
  const perCm = broughtBy(compost, 1).n;
  const byNitrogen = perCm > 0 ? Math.max(0, year - (zone.down?.year.n ?? 0)) / perCm : Infinity;
  return byNitrogen < bySurface
    ? {
        most: byNitrogen,
        why: `more than ${present('layer', byNitrogen, system).text} feeds more nitrogen than the ${present('nutrientRate', year, system).text} that the year takes.`,
      }
    : { most: bySurface, why: surface };
}

/** What a test pack and the packs that are there come to. */
function byPacks(
  { litres }: Compost,
  layer: number,
  { packs, testArea }: { readonly packs?: number | undefined; readonly testArea?: number | undefined },
  { zone, system }: Asked,
  book: WorkingBook,
): string[] {
  const area = (of: number): string => present('area', of, system).text;
  const say = (of: number): string => present('layer', of, system).text;
  const words: string[] = [];
  if (testArea !== undefined)
    words.push(
      `A pack covered ${area(testArea)}: that is ${say((litres / testArea) * 0.1)}, and ${wholes(zone.area / testArea)} packs for the zone.`,
    );
  if (packs === undefined) return words;
  const covers = (packs * litres) / (layer * 10);
  book.step({
    label: 'What the packs cover',
    formula: 'packs × volume / layer',
    numbers: `${figure(packs)} × ${figure(litres)} L / ${figure(layer * 10)} mm`,
    result: covers,
    unit: 'm2',
  });
  const more = wholes(((zone.area - covers) * layer * 10) / litres, (zone.area * layer * 10) / litres);
  return [
    ...words,
    covers >= zone.area
      ? `${figure(packs)} packs are enough at ${say(layer)}: they would cover ${area(covers)}.`
      : `${figure(packs)} packs cover ${area(covers)} at ${say(layer)}, of the ${area(zone.area)} here: ${more} more are wanted, or ${say((packs * litres) / (zone.area * 10))} over all of it.`,
  ];
}

/** Years to an aim of organic matter, and the layer of the first. */
function courseTo(
  aim: number,
  layer: number,
  { material, bulkDensity, dryMatter, organicMatter, stays }: Compost,
  asked: Asked,
) {
  const { test, system } = asked;
  if (test?.organicMatter === undefined || aim <= test.organicMatter) return undefined;
  const { n = 0, p2o5 = 0, k2o = 0, nitrogenFirstYear = 0, retained, lasting } = material.analysis;
  const { result, working } = compostProgram({
    organicMatter: test.organicMatter,
    target: aim,
    soilDepth: test.depth,
    material: {
      ...{ bulkDensity, dryFraction: dryMatter, organicFraction: organicMatter, retained: retained ?? stays },
      ...(lasting === undefined ? {} : { lasting }),
      ...{ n, p2o5, k2o, nitrogenFirstYear },
    },
    perYear: layer,
  });
  const { years, total, reached } = result;
  const told = reached
    ? `${years.length} ${years.length === 1 ? 'year' : 'years'}, ${present('layer', total, system).text} together`
    : `${figure(years.at(-1)?.organicMatter ?? 0)} %, short of ${figure(aim)} %`;
  const found: Fact = fact(reached ? `Reaches ${figure(aim)} % in` : 'After ten years', told, total, working);
  return { first: years[0]?.thickness ?? layer, found, working };
}

/** % of organic matter to reach: what was set, else a target with a name, else the foot of the band. */
function aimOf(target: number | undefined, { zone, reading, settings }: Asked): number {
  const bar = reading.bars.find(({ key }) => key === 'organicMatter');
  const poor = bar?.rating === 'low' || bar?.rating === 'very low';
  return target ?? Math.max(organicTarget(zone, settings.targets)?.value ?? 0, poor ? (bar.wanted?.[0] ?? 0) : 0);
}

/** Compost laid thinly over years, or tilled in. */
export const compost = defineRemedy({
  name: 'compost',
  kinds: ['compost'],
  fields: {
    material: materialId(),
    /** A layer of one’s own, for the year. */
    layer: optional(quantity('cm', { above: 0, max: 10 })),
    /** Organic matter to reach, %. */
    target: optional(quantity('%', { above: 0, max: 30 })),
    /** So many packs are there. */
    packs: optional(quantity('', { above: 0, max: 100_000 })),
    /** m² that a pack covered, spread as it should lie. */
    testArea: optional(quantity('m2', { above: 0, max: 10_000 })),
  },
  propose: ({ zone, test, reading, settings, system }) =>
    test ? proposed(compostVerdict(zone, test, reading, settings, system)) : undefined,
  make: (values, asked) => {
    const { zone, reading, settings, system } = asked;
    const phosphorus = reading.bars.find(({ key }) => key === 'p')?.rating;
    const forbidden = settings.phosphorusRule === 'never';
    const stopped = forbidden || phosphorus === 'high' || phosphorus === 'very high';
    const allowed = ({ analysis }: Material): boolean =>
      !stopped || (analysis.p2o5 !== undefined && analysis.p2o5 <= POOR_IN_PHOSPHORUS);
    const found = materialFor(values.material, ['compost'], asked, allowed);
    if (!found)
      return cannot(
        stopped ? 'No compost of your list is poor enough in phosphorus.' : 'Add a compost to your products first.',
        values,
        'layer',
      );
    const { material } = found;
    if (!allowed(material))
      return {
        ...cannot(
          `${material.name} would add phosphorus, which ${forbidden ? 'the rule of the place forbids' : `is ${phosphorus} here`}: take leaf mould or another source poor in it.`,
          values,
          'layer',
        ),
        status: 'refused',
      };
    const known = compostOf(material);
    if (typeof known === 'string')
      return cannot(`${material.name} lacks ${known} in its analysis: complete it.`, values, 'layer');

    const book = new WorkingBook();
    const say = (layer: number): string => present('layer', layer, system).text;
    const { most, why } = mostOf(known, asked);
    if (zone.down && most < LEAST) return cannot(`No compost more this year: ${why}`, values, 'layer');
    const own = values.layer ?? (values.testArea === undefined ? undefined : (known.litres / values.testArea) * 0.1);
    const usual = isTilled(asked) ? compostLayers.seedbed : compostLayers.turfPass;
    const start = Math.min(own ?? usual, most);
    const held = own !== undefined && own > most + 1e-9 ? `${say(own)} was asked for; ${why}` : null;
    const aim = aimOf(values.target, asked);
    const course = courseTo(aim, start, known, asked);
    const layer = own === undefined && course ? Math.min(start, course.first) : start;
    if (course) book.include(course.working);
    if (own === undefined && usual > most + 1e-9) book.cap(`Held: ${why}`);
    const packed = byPacks(known, layer, values, asked, book);
    const brings = broughtBy(known, layer);
    book.step({
      label: 'N that feeds in the first year',
      formula: 'layer × density × dry × N × first-year share',
      numbers: `${figure(layer)} cm × ${figure(known.bulkDensity)} × ${figure(known.dryMatter)} % × ${figure(material.analysis.n ?? 0)} % × ${figure(material.analysis.nitrogenFirstYear ?? 0)} %`,
      result: brings.n,
      unit: 'g/m2',
    });
    const rate = (of: number): string => present('nutrientRate', of, system).text;
    const salted = reading.limitations.some(({ key }) => key === 'salt');
    return {
      status: 'planned',
      words: [
        `This layer brings ${rate(brings.p2o5)} of P₂O₅ and ${rate(brings.k2o)} of K₂O, and ${rate(brings.n)} of its N feeds in the first year.`,
        ...packed,
      ].join(' '),
      sense: 'layer',
      rate: { value: layer, working: book.entries },
      doses: equalDoses(layer, isTilled(asked) ? 1 : Math.max(1, Math.ceil(layer / compostLayers.turfPass - 1e-9))),
      supply: supplyOf(found, { value: (layer / 100) * zone.area, in: 'm3' }, book.entries, asked),
      brings: { ...brings, ca: 0, mg: 0, s: 0, fe: 0 },
      surface: isTilled(asked) ? 0 : layer,
      facts: course ? [course.found] : [],
      held,
      cautions: [
        ...(material.caution ? [material.caution] : []),
        ...(salted && material.analysis.salts === undefined
          ? ['Its salts are not known, and this ground has enough: have it tested before any is laid.']
          : []),
        ...(phosphorus === undefined || phosphorus === null
          ? ['Phosphorus of the ground is not known: have it tested before years of compost.']
          : []),
      ],
      more: [
        isTilled(asked)
          ? 'Tilled in to the sampled depth before seeding.'
          : 'After coring, raked or brushed until the leaf stands above it. Spread one pack thinly first and measure what it covered.',
        'At the gate: cool, earthy, screened to 10 mm (0.4 in); hot or smelling of ammonia is not ready.',
      ],
      values: { ...values, material: found.id, layer, ...(aim > 0 ? { target: aim } : {}) },
    };
  },
});
