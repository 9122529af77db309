import { phAfterSulfur } from '../acidify/sulfur.ts';
import { optional, quantity } from '../calculators/fields.ts';
import { sulfurLimits } from '../acidify/tables.ts';
import { nitrogenLimits, passesWithin } from '../nutrients/nitrogenLimits.ts';
import { type Verdict, gypsumVerdict, leachingVerdict, sulfurCautions, sulfurVerdict } from '../rates/verdicts.ts';
import { calciumGypsum, magnesiumOf } from './schoolNeeds.ts';
import { isChelateFor } from './iron.ts';
import { sulfurTable } from '../acidify/tables.ts';
import { sodiumTable } from '../soil/sodium.ts';
import { type UnitSystem, present } from '../units/present.ts';
import { convert } from '../units/unit.ts';
import { WorkingBook, figure } from '../working/working.ts';
import { spread } from './spread.ts';
import { physical } from './physical.ts';
import {
  type Asked,
  type Proposal,
  cannot,
  defineRemedy,
  equalDoses,
  fact,
  materialFor,
  materialId,
  wholeTimes,
} from './remedy.ts';

const grams = (perThousand: number): number => convert(perThousand, 'lb/1000ft2', 'g/m2');
const perArea = () => optional(quantity('g/m2', { above: 0, max: 10_000 }));

/** A verdict of the reading as a proposal. */
export function proposed(verdict: Verdict | undefined): Proposal | undefined {
  if (!verdict || verdict.words === '') return undefined;
  const { status, reason, words, cautions, need, told } = verdict;
  return {
    status,
    words: reason ?? words,
    cautions,
    ...(need && told ? { need: { name: 'altogether', told, figure: need } } : {}),
  };
}

const yearOf = (verdict: Verdict | undefined): number => verdict?.year?.total ?? 0;

/** What of a need is left for after the retest, in a sentence; nothing where a year does it. */
function restOf(verdict: Verdict | undefined, symbol: string, system: UnitSystem): string | null {
  const rest = (verdict?.need?.value ?? 0) - yearOf(verdict);
  return rest > 1 ? `About ${present('limeRate', rest, system).text} of ${symbol} waits for the retest.` : null;
}

const NEAR = 0.2;

/** Elemental sulfur, in small steps. */
export const sulfur = defineRemedy({
  name: 'sulfur',
  kinds: ['sulfur'],
  fields: { material: materialId(), rate: perArea(), times: wholeTimes(6) },
  propose: ({ zone, test, ground, system }) =>
    test && ground ? proposed(sulfurVerdict(zone, test, ground, system)) : undefined,
  make: (values, asked) => {
    const { zone, test, ground, system } = asked;
    const verdict = test && ground && sulfurVerdict(zone, test, ground, system);
    if (verdict?.status === 'refused' || ground?.carbonate.state === 'present')
      return { ...cannot(verdict?.words ?? 'No sulfur on free lime.', values), status: 'refused' };
    // Within this of the band’s foot a soil is not to be soured further.
    if (verdict && verdict.status !== 'due' && values.rate !== undefined && test.soilPh < ground.sward.ph[0] + NEAR)
      return {
        ...cannot(`pH ${test.soilPh.toFixed(1)} is no ground for sulfur: it would fall below the band.`, values),
        status: 'refused',
      };
    const found = materialFor(values.material, ['sulfur'], asked);
    if (!found) return cannot('Add elemental sulfur to your products first.', values);
    const share = found.material.analysis.s ?? 0;
    if (share <= 0) return cannot(`${found.material.name} tells no sulfur in its analysis: complete it.`, values);
    const surface = zone.surface === 'fine turf' ? 'fine turf' : 'turf';
    const cap = Math.min(grams(sulfurLimits.perApplication[surface]), asked.settings.caps.sulfurOnce?.most ?? Infinity);
    // Until the retest no more than a year’s, whatever year it went down in.
    const down = Math.max(zone.down?.year.sulfur ?? 0, zone.sinceTest?.sulfur ?? 0);
    const left = grams(sulfurLimits.perYear[surface]) - down;
    const most = Math.floor(left / cap + 1e-6);
    const wanted = Math.max(0, (verdict?.need?.value ?? 0) - (zone.sinceTest?.sulfur ?? 0));
    if (down > 0 && (most < 1 || (values.rate === undefined && wanted <= 1e-9)))
      return cannot(
        `${present('nutrientRate', down, system).text} of S is down since ${zone.down ? zone.down.since : 'the test'}: the year takes no more. Retest before the next.`,
        values,
      );
    const before = new WorkingBook();
    before.include(verdict?.need?.working ?? []);
    if (values.rate === undefined && (zone.sinceTest?.sulfur ?? 0) > 0)
      before.step({
        label: 'Less what is down since the test',
        formula: 'need − sulfur in the logbook since the sample',
        numbers: `${figure(verdict?.need?.value ?? 0)} − ${figure(zone.sinceTest!.sulfur)}`,
        result: wanted,
        unit: 'g/m2',
      });
    const made = spread({
      asked,
      found,
      pure: Math.min(yearOf(verdict), wanted),
      share,
      symbol: 'S',
      once: (cap * 100) / share,
      most,
      values,
      before: before.entries,
      waits: values.rate === undefined ? restOf(verdict, 'sulfur', system) : null,
    });
    const pure = ((made.rate?.value ?? 0) * share) / 100;
    const all = pure + (zone.sinceTest?.sulfur ?? 0);
    const expected =
      test && ground
        ? phAfterSulfur(all, {
            ...{ soilPh: test.soilPh, soilGroup: zone.soilGroup ?? 'loam', depth: test.depth, surface },
            freeCarbonate: ground.carbonate.state === 'little' ? ground.carbonate.measured : undefined,
          })
        : undefined;
    const foot = ground?.sward.ph[0];
    return {
      ...made,
      ...(expected === undefined
        ? {}
        : {
            facts: [
              fact(
                'pH to be expected',
                `about ${expected.toFixed(1)}, from ${test!.soilPh.toFixed(1)}`,
                expected,
                made.rate?.working ?? [],
              ),
            ],
          }),
      cautions: [
        ...sulfurCautions,
        ...(expected !== undefined && foot !== undefined && expected < foot - 1e-9
          ? [
              `So much sulfur brings the pH to about ${expected.toFixed(1)}, below the grass’s band, which begins at ${foot.toFixed(1)}: give less, and retest first.`,
            ]
          : []),
      ],
      // Sulfur feeds little while it oxidises; its acidity is what it is given for.
      acidity: pure * sulfurTable.carbonatePerSulfur,
      more: [
        '8 weeks apart, then a retest before the next year’s: microbes work it over months, coarse granules longest.',
      ],
    };
  },
});

/** Gypsum against sodium; where that wants none, for the calcium that a school asks for. */
function gypsumFor(asked: Asked): Verdict | undefined {
  const { zone, test, reading, system } = asked;
  const sodium = test && gypsumVerdict(zone, test, reading, system);
  return sodium?.status === 'due' ? sodium : (calciumGypsum(asked) ?? sodium);
}

/** Gypsum against sodium. */
export const gypsum = defineRemedy({
  name: 'gypsum',
  kinds: ['gypsum'],
  fields: { material: materialId(), rate: perArea(), times: wholeTimes(4) },
  propose: (asked) => proposed(gypsumFor(asked)),
  make: (values, asked) => {
    const { zone, system } = asked;
    const verdict = gypsumFor(asked);
    const found = materialFor(values.material, ['gypsum'], asked);
    if (!found) return cannot('Add gypsum to your products first.', values, 'limeRate');
    if (!verdict?.need && values.rate === undefined) return cannot('', values, 'limeRate');
    const share = found.material.analysis.purity ?? 100;
    const tilled = zone.surface === 'seedbed' || zone.garden;
    // What a lawn takes at once is of the product that lies on it.
    const once = tilled ? Infinity : grams(sodiumTable.most.turf);
    const downYear = Math.max(zone.down?.year.gypsum ?? 0, zone.sinceTest?.gypsum ?? 0);
    const most = tilled ? 1 : Math.max(0, Math.floor(sodiumTable.timesAYear - downYear / once + 1e-6));
    if (downYear > 0 && most < 1)
      return cannot(
        `${present('limeRate', downYear, system).text} of gypsum is down since ${zone.down ? zone.down.since : 'the test'}: the year takes no more. Leach, then retest.`,
        values,
        'limeRate',
      );
    const open = Math.max(0, (verdict?.need?.value ?? 0) - ((zone.sinceTest?.gypsum ?? 0) * share) / 100);
    const pure = Math.min(open, once * most);
    return spread({
      asked,
      found,
      pure,
      share,
      symbol: 'gypsum',
      once,
      most,
      values,
      before: verdict?.need?.working ?? [],
      waits: values.rate === undefined ? restOf(verdict, 'gypsum', system) : null,
      sense: 'limeRate',
    });
  },
});

/** Water that carries salt and sodium down. */
export const leaching = defineRemedy({
  name: 'leaching',
  kinds: [],
  fields: { water: optional(quantity('mm', { above: 0, max: 2000 })), times: wholeTimes(12) },
  propose: ({ zone, test, reading, sward, system }) =>
    test ? proposed(leachingVerdict(zone, test, reading, sward, system)) : undefined,
  make: (values, asked) => {
    const { zone, test, reading, sward, system } = asked;
    const verdict = test && leachingVerdict(zone, test, reading, sward, system);
    const water = values.water ?? verdict?.need?.value;
    if (water === undefined) return cannot('Say how much water.', values, 'rainfall');
    const times = values.times ?? Math.max(1, Math.ceil(water / 50));
    const book = new WorkingBook();
    if (values.water === undefined) book.include(verdict?.need?.working ?? []);
    else
      book.step({
        label: 'Set by hand',
        formula: 'the advisor’s own depth of water',
        numbers: figure(water),
        result: water,
        unit: 'mm',
      });
    const cubic = (water / 1000) * zone.area;
    book.step({
      label: 'Water for the zone',
      formula: 'depth × area',
      numbers: `${figure(water)} mm × ${figure(zone.area)} m²`,
      result: cubic,
      unit: 'm3',
    });
    return {
      status: 'planned',
      sense: 'rainfall',
      rate: { value: water, working: book.entries },
      doses: equalDoses(water, times),
      facts: [fact('Water for the zone', present('volume', cubic, system).text, cubic, book.entries)],
      more: ['In soakings with rests, never so that it runs off; beyond what the grass drinks.'],
      values: { water, times },
    };
  },
});

/** Magnesium at a good pH, where no dolomitic lime brings it. */
export const magnesium = defineRemedy({
  name: 'magnesium',
  kinds: ['fertilizer'],
  fields: { material: materialId(), rate: perArea(), times: wholeTimes(6) },
  propose: () => undefined,
  make: (values, asked) => {
    const need = magnesiumOf(asked);
    const found = materialFor(
      values.material,
      ['fertilizer'],
      asked,
      ({ analysis, name }) =>
        analysis.n === 0 &&
        analysis.p2o5 === 0 &&
        analysis.k2o === 0 &&
        ((analysis.mg ?? 0) > 0 || /magnesium/i.test(name)),
    );
    if (!found) return cannot('Add magnesium sulfate to your products first.', values);
    const share = found.material.analysis.mg ?? 0;
    if (share <= 0) return cannot(`${found.material.name} tells no magnesium in its analysis: complete it.`, values);
    const pure = need?.value ?? 0;
    const once = (grams(nitrogenLimits.magnesium) * 100) / share;
    const most = Math.max(1, passesWithin(grams(1), grams(nitrogenLimits.magnesium)));
    return {
      ...spread({ asked, found, pure, share, symbol: 'Mg', once, most, values, before: need?.working ?? [] }),
      cautions: ['Watered off the leaves at once, on moist ground.'],
    };
  },
});

/** Iron on the leaf: colour for weeks, no cure. */
export const iron = defineRemedy({
  name: 'iron',
  kinds: ['iron'],
  fields: { material: materialId(), rate: optional(quantity('g/m2', { above: 0, max: 50 })), times: wholeTimes(6) },
  propose: ({ zone, test, ground }) => {
    const yellow = (zone.signs ?? []).includes('green veins');
    if (!yellow || !test || !ground || zone.garden || test.soilPh < 7) return undefined;
    return {
      status: 'due',
      words: `Yellow leaves with green veins at pH ${test.soilPh.toFixed(1)}: iron is locked up. Iron on the leaf greens it for some weeks; it cures nothing.`,
    };
  },
  make: (values, asked) => {
    const { test } = asked;
    const ph = test?.soilPh ?? 7;
    const found = materialFor(values.material, ['iron'], asked);
    if (!found) return cannot('Add an iron product to your products first.', values);
    const share = found.material.analysis.fe ?? 0;
    if (share <= 0) return cannot(`${found.material.name} tells no iron in its analysis: complete it.`, values);
    const { spraying, most, times: usual } = physical.iron;
    const times = values.times ?? usual;
    const made = spread({
      asked,
      found,
      pure: grams(spraying) * times,
      share,
      symbol: 'Fe',
      once: (grams(most) * 100) / share,
      most: 6,
      values: { ...values, times },
      before: [],
    });
    return {
      ...made,
      cautions: [
        'More blackens leaves; it stains paving, walls and clothes: keep it off and rinse at once. Water and spray by the label.',
      ],
      more: isChelateFor(found.material, ph)
        ? []
        : [`${found.material.name} does not hold iron at pH ${ph.toFixed(1)} in the soil: on the leaf only.`],
    };
  },
});
