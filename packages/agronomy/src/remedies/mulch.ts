import { InputError, optional, quantity } from '../calculators/fields.ts';
import { refusalWords } from '../calculators/refusal.ts';
import type { Material } from '../materials/material.ts';
import { nitrogenLimits } from '../nutrients/nitrogenLimits.ts';
import { phosphorusKeptBack } from '../rates/phosphorusRule.ts';
import { sprayMulch } from '../spread/mulch.ts';
import { present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { WorkingBook, figure } from '../working/working.ts';
import { physical } from './physical.ts';
import {
  type Asked,
  type Stocked,
  bringsOf,
  cannot,
  defineRemedy,
  fact,
  materialFor,
  materialId,
  supplyOf,
} from './remedy.ts';
import { mixCautions, seedFor, sown } from './seed.ts';

/** g/m² of the feed that goes into the tank, and what a cap keeps out of it. */
interface TankFeed {
  readonly rate: number;
  readonly held: string | null;
}

/** What of a feed one spraying may carry: as one pass on a seedbed. */
function tankFeed({ analysis, name }: Material, asked: number, { system }: Asked): TankFeed {
  const { n = 0, slowRelease = 0 } = analysis;
  const cap = convert(
    slowRelease >= nitrogenLimits.slowFrom ? nitrogenLimits.mostlySlow.seedbed : nitrogenLimits.total.seedbed,
    'lb/1000ft2',
    'g/m2',
  );
  const quick = convert(nitrogenLimits.soluble.seedbed, 'lb/1000ft2', 'g/m2');
  const rates = [
    ...(n > 0 ? [(cap / n) * 100] : []),
    ...(n > 0 && slowRelease < 100 ? [(quick / (n * (1 - slowRelease / 100))) * 100] : []),
  ];
  const most = Math.min(...rates, Infinity);
  if (asked <= most * (1 + nitrogenLimits.slackPercent / 100)) return { rate: asked, held: null };
  const say = (rate: number): string => present('productRate', rate, system).text;
  return {
    rate: most,
    held: `${say(asked)} of ${name} was asked for; one pass on a seedbed carries ${present('nutrientRate', cap, system).text} of N at most, so ${say(most)} goes into the tank.`,
  };
}

/** Seed, feed, binder and fibre sprayed in one mix, on banks. */
export const mulch = defineRemedy({
  name: 'mulch',
  kinds: ['seed'],
  beside: { fibre: ['mulch'], binder: ['binder'], feed: ['fertilizer'] },
  fields: {
    material: materialId(),
    fibre: materialId(),
    binder: materialId(),
    /** Feed that is mixed in; none where it is left out. */
    feed: materialId(),
    tank: optional(quantity('L', { above: 0, max: 50_000 })),
    /** g of fibre for each m². */
    mulch: optional(quantity('g/m2', { above: 0, max: 2000 })),
    /** g of fertilizer for each m². */
    fertilizer: optional(quantity('g/m2', { min: 0, max: 200 })),
  },
  propose: () => undefined,
  make: (values, asked) => {
    const { zone, system, sward } = asked;
    if (sward.main?.notSeeded)
      return { ...cannot(`${sward.main.label} ${sward.main.notSeeded}.`, values), status: 'refused' };
    const found = seedFor(values.material, asked);
    if (!found) return cannot('No seed of your list suits what grows here: choose or add one.', values);
    const fibre = materialFor(values.fibre, ['mulch'], asked);
    const glue = materialFor(values.binder, ['binder'], asked);
    if (!fibre || !glue)
      return cannot(
        `Add ${[fibre ? '' : 'the mulch', glue ? '' : 'the binder'].filter(Boolean).join(' and ')} to your products first: both are bought and loaded.`,
        values,
      );
    if (values.fertilizer && values.feed === undefined)
      return cannot('Choose the feed that goes into the tank: what it brings counts.', values);
    const { slopes, binder, binderSteep, tank: usualTank, feed: usualFeed } = physical.mulch;
    const slope = zone.slope ?? 0;
    const steep = slope > (slopes.at(-2)?.to ?? 50);
    const rate = values.mulch ?? (slopes.find(({ to }) => slope <= to) ?? slopes.at(-1)!).mulch;
    const tank = values.tank ?? usualTank;
    const seeds = sown(found.material, 'new', zone.area);
    const binderRate = (rate * (steep ? binderSteep : binder)) / 100;
    const fed = values.feed === undefined ? undefined : materialFor(values.feed, ['fertilizer'], asked)!;
    const keptBack = fed && (fed.material.analysis.p2o5 ?? 0) > 0 ? phosphorusKeptBack(asked) : undefined;
    if (fed && keptBack)
      return {
        ...cannot(`${fed.material.name} brings phosphorus, and ${keptBack}: take a feed without it.`, values),
        status: 'refused',
      };
    const dose = fed && tankFeed(fed.material, values.fertilizer ?? usualFeed, asked);
    const parts: ReadonlyArray<{ readonly of: Stocked; readonly rate: number }> = [
      { of: found, rate: seeds.result.rate },
      ...(fed ? [{ of: fed, rate: dose!.rate }] : []),
      { of: glue, rate: binderRate },
    ];
    let made: ReturnType<typeof sprayMulch>;
    try {
      made = sprayMulch({
        ...{ area: zone.area, tank, mulch: rate },
        others: parts.map(({ of, rate: own }) => ({ name: of.material.name, rate: own })),
      });
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return cannot(refusalWords(error), values);
    }
    const { loads } = made.result;
    const [first] = loads;
    const last = loads.at(-1)!;
    const mass = (kilograms: number): string => present('mass', kilograms, system).text;
    const tell = (load: typeof last): string =>
      [`${mass(load.mulch)} of mulch`, ...load.others.map(({ name, mass: own }) => `${mass(own)} of ${name}`)].join(
        ', ',
      );
    const inAll = (own: number): { value: number; in: 'kg' } => ({ value: (own * zone.area) / 1000, in: 'kg' });
    const partBook = (name: string, own: number): WorkingBook => {
      const book = new WorkingBook();
      book.step({
        label: name,
        formula: 'rate × area',
        numbers: `${figure(own)} g/m² × ${figure(zone.area)} m²`,
        result: (own * zone.area) / 1000,
        unit: 'kg',
      });
      return book;
    };
    return {
      status: 'planned',
      words: `${loads.length === 1 ? 'One tank' : `${loads.length} tanks`} of ${present('liquid', tank, system).text}: ${tell(first!)}${loads.length > 1 ? ` in a full one; the last of ${present('area', last.area, system).text} takes ${tell(last)}` : ''}.${zone.slope === undefined ? ' The slope is not known and taken as gentle.' : ''}`,
      sense: 'productRate',
      rate: { value: rate, working: made.working },
      doses: [rate],
      supply: supplyOf(fibre, inAll(rate), partBook(fibre.material.name, rate).entries, asked),
      others: parts.map(({ of, rate: own }, index) =>
        supplyOf(of, inAll(own), index === 0 ? seeds.working : partBook(of.material.name, own).entries, asked),
      ),
      ...(fed ? { brings: bringsOf(fed.material, dose!.rate) } : {}),
      held: dose?.held ?? null,
      facts: [fact('Mulch in all', mass((rate * zone.area) / 1000), (rate * zone.area) / 1000, made.working)],
      cautions: [
        'Before the local date of the rains, and no storm within two days. Reach of the hose first; stones fly on steep ground, so keep a lookout.',
        ...(dose?.held ? [dose.held] : []),
        ...mixCautions(found.material, asked),
      ],
      more: [
        'On banks in two passes: seed and feed with a little mulch to see by, then the rest. The dye shows coverage only.',
        ...(fed ? [] : ['No feed is mixed in: choose one if the bank is to be fed in the same going.']),
      ],
      values: {
        ...{ ...values, material: found.id, fibre: fibre.id, binder: glue.id, tank, mulch: rate },
        ...(dose ? { fertilizer: dose.rate } : {}),
      },
    };
  },
});
