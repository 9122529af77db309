import { type Values, choice, optional, quantity, readFields } from '../calculators/fields.ts';
import { flag, text } from '../calculators/structures.ts';
import { testLimits } from '../water/testLimits.ts';
import { day } from './fieldTest.ts';

/** What is accepted at a gate. */
export const loadKinds = ['compost', 'topsoil', 'sand', 'fill', 'seed'] as const;
export type LoadKind = (typeof loadKinds)[number];

export const loadSources = ['yard waste', 'food waste', 'manure', 'biosolids', 'mushroom', 'not known'] as const;
export const loadHeats = ['cold', 'warm', 'hot'] as const;
export const loadSmells = ['earth', 'nothing', 'ammonia', 'sour', 'rot'] as const;
const yesNo = () => optional(flag());

/** What is looked at, by kind; nothing of what nobody looked at. */
export const loadFields = {
  /** Where it is from. */
  source: optional(choice(loadSources)),
  papers: yesNo(),
  heat: optional(choice(loadHeats)),
  temperature: optional(quantity('C', { min: -20, max: 95 })),
  smell: optional(choice(loadSmells)),
  /** Pieces cannot be told apart: it has rotted through. */
  mature: yesNo(),
  /** mm of the largest pieces. */
  pieces: optional(quantity('mm', { min: 0, max: 200 })),
  weedSeed: yesNo(),
  /** Glass, plastic, stones. */
  rubbish: yesNo(),
  carbonToNitrogen: optional(quantity('', { min: 3, max: 300 })),
  /** dS/m of a 1:5 extract or a paste, as its papers tell it. */
  ec: optional(quantity('dS/m', { min: 0, max: 60 })),
  /** Wet, sticky or of another colour than was ordered. */
  asOrdered: yesNo(),
  /** % by its label. */
  purity: optional(quantity('%', { min: 0, max: 100 })),
  germination: optional(quantity('%', { min: 0, max: 100 })),
  weeds: optional(quantity('%', { min: 0, max: 100 })),
  coating: optional(quantity('%', { min: 0, max: 90 })),
  testedOn: optional(day()),
  noxious: yesNo(),
  words: optional(text(600)),
} as const;
export type LoadRecord = Values<typeof loadFields>;

export type LoadVerdict = 'take it' | 'only for some things' | 'send it back' | 'ask first';

export interface LoadJudged {
  readonly verdict: LoadVerdict;
  /** Why, a sentence each, the worst first. */
  readonly reasons: readonly string[];
  /** What it is still good for. */
  readonly goodFor: readonly string[];
  /** What nobody has looked at yet and matters. */
  readonly open: readonly string[];
}

/** What a finding does: it goes back, it is held to some uses, or it only wants a word. */
type Weight = 'back' | 'some' | 'mind';
interface Finding {
  readonly weight: Weight;
  readonly words: string;
}

const back = (words: string): Finding => ({ weight: 'back', words });
const some = (words: string): Finding => ({ weight: 'some', words });

const { warmAbove, hotAbove, screenTopdress, screenSeedbed, cnTies, ecTopdress, ecMost } = testLimits.loads;
const { purityLeast, germinationLeast, weedMost, testMonths } = testLimits.loads;

function compostFindings(seen: LoadRecord): Finding[] {
  const { heat, temperature, smell, mature, pieces, weedSeed, carbonToNitrogen, ec, source, papers, rubbish } = seen;
  const isHot = heat === 'hot' || (temperature ?? 0) > hotAbove;
  const isWarm = heat === 'warm' || (temperature ?? 0) > warmAbove;
  const ammonia = smell === 'ammonia';
  return [
    ...(isHot ? [some(`It is hot: not ready. On grass it burns and takes the nitrogen away; let it finish in a heap, turned, for 4 to 8 weeks.`)] : []),
    ...(!isHot && isWarm && smell !== 'earth' && smell !== undefined ? [some('Warm and not smelling of earth: let it finish for some weeks.')] : []),
    ...(ammonia ? [some('It smells of ammonia: raw, and it burns leaves and seedlings. Turn it, and wait until it smells of earth.')] : []),
    ...(smell === 'sour' || smell === 'rot' ? [some(`It smells of ${smell === 'rot' ? 'rot' : 'sourness'}: it lay without air. Turn it and wait; never on seed.`)] : []),
    ...(mature === false ? [some('What it was made of can still be told: not mature.')] : []),
    ...((pieces ?? 0) > screenSeedbed ? [some(`Pieces to ${pieces} mm: a mulch. For a seedbed it is screened to ${screenSeedbed} mm, for topdressing to ${screenTopdress}.`)] : (pieces ?? 0) > screenTopdress ? [some(`Pieces to ${pieces} mm lie on the grass and clog a spreader: screen it to ${screenTopdress} mm for topdressing, or till it in.`)] : []),
    ...(weedSeed ? [back('Weed seed in it: it plants weeds in every lawn. Send it back.')] : []),
    ...(rubbish ? [back('Glass or plastic in it: it stays in the lawn for good, and cuts. Send it back.')] : []),
    ...((carbonToNitrogen ?? 0) > cnTies ? [some(`C:N ${carbonToNitrogen} ties up nitrogen: only under mulch, or with nitrogen added.`)] : []),
    ...((ec ?? 0) > ecMost ? [back(`EC ${ec} dS/m: too salty for any lawn.`)] : (ec ?? 0) > ecTopdress ? [some(`EC ${ec} dS/m: salty. Not on seed and not thick; water it in.`)] : []),
    ...(source === 'manure' || source === 'biosolids' || source === 'mushroom' ? [{ weight: 'mind' as const, words: `Of ${source}: it brings phosphorus and salt. Count its phosphorus against the test${source === 'biosolids' ? ', and read the rule of the place on biosolids' : ''}.` }] : []),
    ...(papers === false ? [{ weight: 'mind' as const, words: 'No papers: ask for the analysis (C:N, EC, screen, source) before more than one load.' }] : []),
  ];
} // prettier-ignore

function soilFindings(kind: 'topsoil' | 'sand' | 'fill', seen: LoadRecord): Finding[] {
  const { smell, weedSeed, asOrdered, pieces, papers, ec, rubbish } = seen;
  return [
    ...(weedSeed && kind !== 'fill' ? [back('Roots or seed of weeds in it: they come up through the new lawn. Send it back.')] : []),
    ...(weedSeed && kind === 'fill' ? [some('Roots of weeds in it: only where it lies deep.')] : []),
    ...(smell === 'rot' || smell === 'sour' || smell === 'ammonia' ? [back('It smells: it lay wet without air, or something was tipped in it.')] : []),
    ...(rubbish ? [back('Rubbish in it: what is tipped with it stays in the lawn, and may not be tipped there. Send it back.')] : []),
    ...(asOrdered === false ? [kind === 'sand' ? back('It is not the sand that was ordered: another grain size layers the green, for good.') : some('It is not what was ordered: only below, never as the top.')] : []),
    ...(kind === 'topsoil' && (pieces ?? 0) > 20 ? [some(`Stones to ${pieces} mm: rake them off, or use it below.`)] : []),
    ...(kind === 'sand' && (pieces ?? 0) > 3 ? [some(`Grains to ${pieces} mm: for drains, not for topdressing.`)] : []),
    ...((ec ?? 0) > ecTopdress ? [back(`EC ${ec} dS/m: salty, perhaps from the shore.`)] : []),
    ...(papers === false ? [{ weight: 'mind' as const, words: 'No papers: where is it from? Ask before it is tipped, and send a sample to the laboratory.' }] : []),
  ];
} // prettier-ignore

function seedFindings({ purity, germination, weeds, coating, testedOn, noxious }: LoadRecord, today: string): Finding[] {
  const age = testedOn === undefined ? undefined : (Date.parse(today) - Date.parse(testedOn)) / (30.44 * 86_400_000);
  return [
    ...(noxious ? [back('Noxious weed seed on the label: in many places it may not be sown. Send it back.')] : []),
    ...((weeds ?? 0) > weedMost ? [back(`${weeds} % weed seed: good seed has ${weedMost} % or less.`)] : []),
    ...((germination ?? 100) < germinationLeast ? [some(`${germination} % germination: sow more, by its share, or send it back.`)] : []),
    ...((purity ?? 100) < purityLeast && !((coating ?? 0) > 0) ? [some(`${purity} % pure: the rest is chaff and other crop. Sow more, by its share.`)] : []),
    ...((coating ?? 0) > 0 ? [{ weight: 'mind' as const, words: `${coating} % of the bag is coating: a bag covers less than it weighs. The seed rate counts it.` }] : []),
    ...(age !== undefined && age > testMonths ? [some(`Tested ${Math.round(age)} months ago: germination falls. Ask for a new test, or sow more.`)] : []),
  ];
} // prettier-ignore

/** What matters for a verdict and was not looked at. */
function openOf(kind: LoadKind, seen: LoadRecord): string[] {
  const asked: ReadonlyArray<readonly [keyof LoadRecord, string]> =
    kind === 'compost'
      ? [['source', 'where it is from'], ['heat', 'how warm it is inside'], ['smell', 'how it smells'], ['mature', 'whether it has rotted through'], ['pieces', 'how large its pieces are'], ['weedSeed', 'whether weed seed is in it'], ['carbonToNitrogen', 'C:N'], ['ec', 'EC']]
      : kind === 'seed'
        ? [['purity', 'purity'], ['germination', 'germination'], ['weeds', 'weed seed'], ['testedOn', 'when it was tested']]
        : [['source', 'where it is from'], ['asOrdered', 'whether it is what was ordered'], ['weedSeed', 'whether roots or seed of weeds are in it'], ['smell', 'how it smells'], ['pieces', 'how large its stones or grains are']];
  return asked.flatMap(([key, words]) => {
    const known = key === 'heat' ? (seen.heat ?? seen.temperature) : seen[key];
    return known === undefined || known === 'not known' ? [words] : [];
  });
} // prettier-ignore

function usesOf(kind: LoadKind, findings: readonly Finding[], seen: LoadRecord): string[] {
  if (findings.some(({ weight }) => weight === 'back')) return [];
  const raw = seen.heat === 'hot' || (seen.temperature ?? 0) > hotAbove || seen.smell === 'ammonia' || seen.mature === false;
  switch (kind) {
    case 'compost': {
      const coarse = (seen.pieces ?? 0) > screenTopdress;
      const salty = (seen.ec ?? 0) > ecTopdress;
      const airless = seen.smell === 'sour' || seen.smell === 'rot';
      if (airless && !raw) return ['waiting in a heap, turned, until it smells of earth'];
      if (raw) return ['finishing in a heap', 'mulch under shrubs, off the stems, next year'];
      if ((seen.carbonToNitrogen ?? 0) > cnTies) return ['mulch under shrubs'];
      return [
        ...(coarse ? [] : salty ? ['a thin dressing of grown turf, watered in'] : ['topdressing turf']),
        ...((seen.pieces ?? 0) > screenSeedbed ? ['mulch under shrubs'] : salty ? [] : ['tilling into a seedbed']),
        ...(coarse ? ['topdressing once it is screened'] : []),
      ];
    }
    case 'topsoil':
      return findings.some(({ weight }) => weight === 'some') ? ['below the top'] : ['the top of a lawn'];
    case 'sand':
      return (seen.pieces ?? 0) > 3 ? ['drains and bedding'] : ['topdressing of the same sand'];
    case 'fill':
      return ['below the topsoil'];
    case 'seed':
      return findings.some(({ weight }) => weight === 'some') ? ['sowing at a higher rate'] : ['sowing'];
  }
} // prettier-ignore

/**
 * Whether a load or a bag is taken, by what was looked at.
 *
 * @param raw as {@link loadFields} take it: °C, mm, dS/m, %.
 * @param today ISO 8601
 * @throws {InputError} naming the field of what cannot be.
 */
export function judgeLoad(kind: LoadKind, raw: unknown, today: string): LoadJudged {
  const seen = readFields(loadFields, raw);
  const findings =
    kind === 'compost' ? compostFindings(seen) : kind === 'seed' ? seedFindings(seen, today) : soilFindings(kind, seen);
  const sorted = [...findings].sort((a, b) => ['back', 'some', 'mind'].indexOf(a.weight) - ['back', 'some', 'mind'].indexOf(b.weight)); // prettier-ignore
  const open = openOf(kind, seen);
  const worst = sorted[0]?.weight;
  // A load of which half is not known is not taken in silence.
  const verdict: LoadVerdict =
    worst === 'back'
      ? 'send it back'
      : worst === 'some'
        ? 'only for some things'
        : open.length > (kind === 'compost' ? 3 : 2)
          ? 'ask first'
          : 'take it';
  const goodFor = verdict === 'ask first' ? [] : usesOf(kind, findings, seen);
  return { verdict, reasons: sorted.map(({ words }) => words), goodFor, open };
}
