import { optional, quantity } from '../calculators/fields.ts';
import { mixBlend } from '../organic/mix.ts';
import { soilWater } from '../soil/water.ts';
import type { ZoneFacts } from '../reading/zoneFacts.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { WorkingBook, figure } from '../working/working.ts';
import { cm, depthWords, holes, opening } from './ground.ts';
import { physical } from './physical.ts';
import { cannot, defineRemedy, equalDoses, fact, materialFor, materialId, supplyOf, wholeTimes } from './remedy.ts';

/** Calcined clay in core holes: room for water and air that lasts, beside what compost would do. */
export const clay = defineRemedy({
  name: 'clay',
  kinds: ['calcined clay'],
  fields: { material: materialId(), ...holes },
  propose: () => undefined,
  make: (values, asked) => {
    const { zone, test, system } = asked;
    const found = materialFor(values.material, ['calcined clay'], asked);
    if (!found) return cannot('Add calcined clay to your products first.', values);
    const { made, result, working } = opening(values);
    const layer = result.volume / 10;
    const share = result.areaOpened;
    const over = share > physical.clay.never;
    if (over)
      return {
        ...cannot(
          `The holes open ${present('percent', share, system).text} of the surface: calcined clay never passes ${physical.clay.never} % of the mix. Fewer passes or wider spacing.`,
          made,
        ),
        status: 'refused',
      };
    const supply = supplyOf(found, { value: (layer / 100) * zone.area, in: 'm3' }, working, asked);
    const { analysis } = found.material;
    const soil = {
      name: 'soil',
      volume: 100 - share,
      bulkDensity: 1.33,
      cec: test?.cec ?? 10,
      organicMatter: test?.organicMatter ?? 2,
    };
    const filler = {
      name: found.material.name,
      volume: share,
      bulkDensity: ((analysis.bulkDensity ?? 0.6) * (analysis.dryMatter ?? 98)) / 100,
      cec: analysis.cec ?? 30,
      organicMatter: 0,
    };
    const blend = mixBlend({ parts: [soil, filler] });
    const compost = materialFor(undefined, ['compost'], asked);
    const beside = compost && supplyOf(compost, { value: (layer / 100) * zone.area, in: 'm3' }, working, asked);
    return {
      status: 'planned',
      words: `The holes of coring filled to the surface, ${present('percent', share, system).text} of the mix to ${depthWords(made.depth, system)}.`,
      sense: 'layer',
      rate: { value: layer, working },
      doses: [layer],
      supply,
      surface: 0,
      facts: [
        fact(
          'Exchange capacity of the mix',
          `${test?.cec === undefined ? 'about ' : ''}${present('exchange', blend.result.cec, system).text}`,
          blend.result.cec,
          blend.working,
        ),
      ],
      cautions: ['Water at once and keep it wet for a week: dry calcined clay draws water from the roots.'],
      more: [
        ...(share < physical.clay.share[0]
          ? [`Below ${physical.clay.share[0]} % of the mix little is seen of it: closer holes or another pass.`]
          : []),
        ...(beside
          ? [
              `Compost in the same holes: ${present('volume', beside.quantity.value, system).text}${beside.cost ? `, ${present('money', beside.cost.value, system, asked.settings.currency).text}` : ''}; it feeds, adds exchange capacity and is mostly gone in four years. Calcined clay feeds nothing and stays for decades. Two schools.`,
            ]
          : []),
        'Its exchange sites hold potassium at first: watch K in the next test.',
      ],
      values: made,
    };
  },
});

/** How hollows are levelled: thin passes, each after the grass has come through the one before. */
function levelling(hollows: number, passes: number, times: number, layer: number, system: UnitSystem): string {
  const say = (of: number): string => present('layer', of, system).text;
  const rest = passes > times ? ` ${passes - times} more wait for next year.` : '';
  return `Hollows of ${say(hollows)} take ${passes} ${passes === 1 ? 'pass' : 'passes'} of ${say(layer)}, into the hollows only, each when the grass stands through the one before; ${times} this year.${rest} Deeper than ${say(5)}: lift the turf and fill below it.`;
}

/** Sand that was laid before and is remembered, cm; the exchange capacity falls with every layer. */
function laidBefore({ applied = [] }: ZoneFacts, density: number): { readonly cm: number; readonly unknown: number } {
  const of = applied.filter(({ kind }) => kind === 'sand');
  return {
    cm: of.reduce((sum, { rate, layer }) => sum + (layer ?? ((rate ?? 0) / (density * 1e6)) * 100), 0),
    unknown: of.filter(({ rate, layer }) => rate === undefined && layer === undefined).length,
  };
}

/** Sand over turf, alone or with peat or calcined clay mixed in. */
export const sand = defineRemedy({
  name: 'sand',
  kinds: ['sand'],
  beside: { peatMaterial: ['peat'] },
  fields: {
    material: materialId(),
    /** kg for the zone and a time. */
    mass: optional(quantity('kg', { above: 0, max: 1e7 })),
    layer: cm(5),
    /** Peat in the mix, % by volume. */
    peat: optional(quantity('%', { min: 0, max: 50 })),
    peatMaterial: materialId(),
    times: wholeTimes(12),
    /** How deep the hollows are that it levels. */
    hollows: cm(30),
  },
  propose: (asked) => {
    const { zone, test } = asked;
    if (zone.surface !== 'fine turf' || (test?.organicMatter ?? 0) <= 4) return undefined;
    return {
      status: 'due',
      words: `Organic matter ${figure(test!.organicMatter!)} % in the top of a sand rootzone is a sponge: dilute it with sand of the same grading, thin and often.`,
    };
  },
  make: (values, asked) => {
    const { zone, system } = asked;
    const found = materialFor(values.material, ['sand'], asked);
    if (!found) return cannot('Add the sand to your products first.', values);
    if (
      (zone.soilGroup === 'clay' || zone.soilGroup === 'loam') &&
      zone.surface !== 'fine turf' &&
      values.layer === undefined &&
      values.mass === undefined
    )
      return cannot('Say how thick: sand over finer soil is worked into core holes and never left as a layer.', values);
    const { sand: usual } = physical;
    const passes = values.hollows === undefined ? undefined : Math.ceil(values.hollows / usual.mostPass - 1e-9);
    const aYear = Math.floor(usual.mostYear / usual.mostPass + 1e-9);
    const times = values.times ?? (passes === undefined ? usual.times : Math.min(passes, aYear));
    const density = found.material.analysis.bulkDensity ?? 1.5;
    const peat = values.peat ?? 0;
    const peatFound = peat > 0 ? materialFor(values.peatMaterial, ['peat'], asked) : undefined;
    if (peat > 0 && !peatFound)
      return cannot('Add the peat to your products first: it is bought, loaded and mixed in.', values, 'layer');
    const book = new WorkingBook();
    let layer = values.layer ?? (values.hollows === undefined ? usual.pass : Math.min(usual.mostPass, values.hollows));
    if (values.mass !== undefined) {
      // The peat adds its volume to that of the sand weighed out.
      layer = ((values.mass / (density * 1000)) * 100) / (1 - peat / 100) / zone.area;
      book.step({
        label: 'Layer of one topdressing',
        formula: peat > 0 ? 'mass / bulk density / (1 − peat) / area' : 'mass / bulk density / area',
        numbers: `${figure(values.mass)} kg / ${figure(density)} g/cm³${peat > 0 ? ` / ${figure(1 - peat / 100)}` : ''} / ${figure(zone.area)} m²`,
        result: layer,
        unit: 'cm',
      });
    }
    const smothers = layer > usual.mostPass + 1e-9;
    if (smothers)
      return {
        ...cannot(
          `${present('layer', layer, system).text} at once smothers turf: ${present('layer', usual.mostPass, system).text} at most. Take ${Math.ceil((layer * times) / usual.mostPass - 1e-9)} times or more.`,
          { ...values, times },
          'layer',
        ),
        status: 'refused',
      };
    const total = layer * times;
    book.step({
      label: 'In the year',
      formula: 'layer × times',
      numbers: `${figure(layer)} cm × ${times}`,
      result: total,
      unit: 'cm',
    });
    const before = laidBefore(zone, density);
    const sum = new WorkingBook();
    sum.step({
      label: 'Sand laid in all',
      formula: 'what is remembered + this year',
      numbers: `${figure(before.cm)} cm + ${figure(total)} cm`,
      result: before.cm + total,
      unit: 'cm',
    });
    if (before.unknown > 0) sum.warn(`${before.unknown} earlier without an amount: not counted.`);
    const cubic = (total / 100) * zone.area;
    const supply = supplyOf(found, { value: cubic * (1 - peat / 100), in: 'm3' }, book.entries, asked);
    const parts = [
      {
        name: found.material.name,
        volume: 100 - peat,
        bulkDensity: density,
        cec: found.material.analysis.cec ?? 1,
        organicMatter: 0,
      },
      ...(peat > 0 ? [{ name: 'peat', volume: peat, material: 'peat' }] : []),
    ];
    const blend = mixBlend({ parts });
    const water = soilWater({ sand: 90, clay: 4, organicMatter: Math.min(8, blend.result.organicMatter) });
    const plain = soilWater({ sand: 90, clay: 4, organicMatter: 0 });
    // The difference is tenths of a millimetre: finer than a layer is told.
    const held = (available: number): string =>
      system === 'us'
        ? `${Number(convert(available * 10, 'cm', 'in').toPrecision(2))} in`
        : `${Number((available * 100).toPrecision(2))} mm`;
    return {
      status: 'planned',
      words:
        peat > 0
          ? `Sand with ${figure(peat)} % peat by volume, mixed before it is spread.`
          : values.hollows === undefined
            ? 'The same sand as the root zone, screened and dry.'
            : levelling(values.hollows, passes!, times, layer, system),
      sense: 'layer',
      rate: { value: total, working: book.entries },
      doses: equalDoses(total, times),
      supply,
      ...(peatFound
        ? { others: [supplyOf(peatFound, { value: (cubic * peat) / 100, in: 'm3' }, book.entries, asked)] }
        : {}),
      surface: total,
      facts: [
        ...(before.cm > 0 || before.unknown > 0
          ? [fact('Sand laid in all', present('layer', before.cm + total, system).text, before.cm + total, sum.entries)]
          : []),
        fact(
          'Exchange capacity of what is laid',
          present('exchange', blend.result.cec, system).text,
          blend.result.cec,
          blend.working,
        ),
        ...(peat > 0
          ? [
              fact(
                'Water it holds for roots',
                `${held(water.result.availableWater)} in ${depthWords(10, system)}, ${held(plain.result.availableWater)} without the peat`,
                water.result.availableWater,
                water.working,
              ),
            ]
          : []),
      ],
      cautions: [
        'Never a fine layer over a coarse one: water hangs above the boundary. What is laid is no finer than the root zone.',
      ],
      more: [
        ...(peat > usual.peatTo
          ? [`More than ${usual.peatTo} % peat holds the surface wet: 10 to 15 % is usual.`]
          : []),
        ...(peat > 0
          ? ['Thin alternate passes of sand and peat, each brushed in, work too; a buried layer of peat does not.']
          : []),
        'Dry, brushed in until the leaf stands above it; not with rain on the way.',
      ],
      values: {
        ...values,
        material: found.id,
        layer,
        peat,
        ...(peatFound ? { peatMaterial: peatFound.id } : {}),
        times,
      },
    };
  },
});
