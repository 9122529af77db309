import { InputError } from '../calculators/fields.ts';
import { refusalWords } from '../calculators/refusal.ts';
import { wholes } from '../units/wholes.ts';
import { convert } from '../units/unit.ts';
import type { Material } from '../materials/material.ts';
import type { RemedyName } from '../remedies/remedyTable.ts';
import type { Dose } from '../remedies/treatment.ts';
import { isLoose, tellSupply } from '../remedies/supply.ts';
import { physical } from '../remedies/physical.ts';
import type { ProposedSetting } from '../spread/machineSettings.ts';
import { sprayMulch } from '../spread/mulch.ts';
import { sprayTank } from '../spread/spread.ts';
import { spreading } from '../spread/spreading.ts';
import { type Sense, type UnitSystem, present } from '../units/present.ts';
import { type Working, WorkingBook, figure } from '../working/working.ts';
import { type CardEntry, cardOf } from './cardTable.ts';
import type { MixedIn } from './plannedEntry.ts';

/** A machine as a card needs it. */
export interface CardMachine {
  readonly name: string;
  readonly kind: string;
  /** m */
  readonly width?: number | null | undefined;
  /** kg of a hopper, or L of a tank. */
  readonly holds?: number | null | undefined;
  readonly hired?: boolean | undefined;
  readonly setting?: ProposedSetting | undefined;
}

/** A job in a zone, as somebody is to do it. */
export interface CardJob {
  readonly remedy: RemedyName;
  readonly name: string;
  /** Of this dose, in the unit of the sense; nothing where nothing is put down. */
  readonly rate: number | null;
  readonly sense: Sense;
  readonly quantity: Dose['quantity'];
  readonly unit: 'kg' | 'L' | 'm3' | null;
  readonly material: Pick<Material, 'name' | 'analysis' | 'packSize' | 'packUnit' | 'caution'> | null;
  /** What goes into the same mix. */
  readonly mixed?: ReadonlyArray<MixedIn & Pick<CardJob, 'material'>>;
  /** What the program warns of. */
  readonly cautions: readonly string[];
}

export interface CardZone {
  readonly name: string;
  /** m² */
  readonly area: number;
  /** m around it; nothing where it is not drawn. */
  readonly border?: number | undefined;
  /** % */
  readonly slope?: number | undefined;
  /** m of paving and walls along it. */
  readonly paved?: number | undefined;
  readonly bare: boolean;
  readonly irrigation?: string | undefined;
}

/** What is weighed out for one part of the work. */
export interface Portion {
  readonly words: string;
  readonly quantity: number;
  readonly told: string;
}

export const cardParts = ['evening', 'load', 'set', 'spread', 'water', 'clear'] as const;
export type CardPart = (typeof cardParts)[number];

/** A job on one card, in the order of the hands. */
export interface WorkCard {
  /** What is weighed out in all, and its portions: edges, then each way. */
  readonly weigh: { readonly told: string; readonly quantity: number; readonly portions: readonly Portion[] } | null;
  /** What else goes into the mix: each weighed out too; nothing on cards that a device has kept from before. */
  readonly mixed?: ReadonlyArray<{ readonly name: string; readonly told: string; readonly bags: string | null }>;
  /** "2 bags and 6 lb of the third". */
  readonly bags: string | null;
  readonly rate: string | null;
  readonly parts: Readonly<Record<CardPart, readonly string[]>>;
  readonly tools: readonly string[];
  readonly wear: readonly string[];
  /** Each tank, where it is sprayed. */
  readonly tanks: readonly string[];
  readonly keepOff: string;
  readonly cautions: readonly string[];
  readonly working: Working;
}

/** Share of a zone that the strip along its edge takes at most. */
const EDGE_MOST = 0.4;
/** m of a strip where no machine says it, and litres of a barrow. */
const STRIP = 0.6;
const BARROW = 80;
/** m² of a strip over which a spreader is tried. */
const TRIED_OVER = { us: 9.290304, metric: 10 } as const;
/** What granules are spread by. */
const GRANULES: readonly Sense[] = ['limeRate', 'productRate', 'nutrientRate'];

function bagsOf(
  { quantity, material, unit }: Pick<CardJob, 'quantity' | 'material' | 'unit'>,
  system: UnitSystem,
): string | null {
  if (quantity === null || !material || !unit || material.packUnit !== unit) return null;
  if (isLoose({ unit, packSize: material.packSize }) || unit === 'm3') {
    const barrows = wholes((quantity * 1000) / BARROW);
    return `${barrows} ${barrows === 1 ? 'barrow' : 'barrows'} of ${present('liquid', BARROW, system).text}`;
  }
  const whole = Math.floor(quantity / material.packSize + 1e-9);
  const rest = quantity - whole * material.packSize;
  const told = tellSupply(rest, unit, system);
  const pack = tellSupply(material.packSize, unit, system);
  const bag = unit === 'L' ? 'can' : 'bag';
  if (rest < material.packSize * 0.005) return `${whole} ${whole === 1 ? bag : `${bag}s`} of ${pack}`;
  return whole === 0
    ? `${told} of a ${bag} of ${pack}`
    : `${whole} ${whole === 1 ? bag : `${bag}s`} of ${pack} and ${told} of the next`;
}

/** Whether it is spread dry, by weight: not laid as a layer, and not sprayed in a slurry. */
const goesBySpreader = ({ remedy, sense, unit }: Pick<CardJob, 'remedy' | 'sense' | 'unit'>): boolean =>
  GRANULES.includes(sense) && unit === 'kg' && cardOf(remedy).tank === undefined;

/** Edges first, and the rest in two directions at half rate. */
function portionsOf(
  job: CardJob,
  zone: CardZone,
  machine: CardMachine | null,
  system: UnitSystem,
  book: WorkingBook,
): Portion[] {
  const { quantity, unit } = job;
  if (quantity === null || unit === null) return [];
  const say = (of: number): string => tellSupply(of, unit, system);
  if (!goesBySpreader(job)) return [];
  const strip = machine?.width ?? STRIP;
  const share = zone.border === undefined ? 0 : Math.min(EDGE_MOST, (zone.border * strip) / zone.area);
  const edges = quantity * share;
  if (edges > 0)
    book.step({
      label: 'For the edges',
      formula: `amount × border × strip / area, ${EDGE_MOST * 100} % at most`,
      numbers: `${figure(quantity)} kg × ${figure(zone.border!)} m × ${figure(strip)} m / ${figure(zone.area)} m²`,
      result: edges,
      unit: 'kg',
    });
  const each = (quantity - edges) / 2;
  book.step({
    label: 'For each way',
    formula: '(amount − edges) / 2',
    numbers: `(${figure(quantity)} − ${figure(edges)}) / 2`,
    result: each,
    unit: 'kg',
  });
  return [
    ...(edges > 0 ? [{ words: 'Edges, deflector toward the lawn', quantity: edges, told: say(edges) }] : []),
    { words: 'First way, at half the rate', quantity: each, told: say(each) },
    { words: 'Across it, at half the rate', quantity: each, told: say(each) },
  ];
}

/** What a test strip takes in one pass at half the rate. */
function stripLines(job: CardJob, system: UnitSystem): string[] {
  const { rate } = job;
  if (rate === null || !goesBySpreader(job)) return [];
  const area = TRIED_OVER[system];
  const grams = (rate / 2) * area;
  const told = system === 'us' ? `${Number(convert(grams, 'g', 'oz').toFixed(1))} oz` : `${Math.round(grams)} g`;
  return [
    `Test strip: ${present('area', area, system).text} take ${told} in one pass. Weigh what goes in and what is left; more gone, close it; less, open it.`,
  ];
}

/** How the machine is set, in sentences. */
function settingLines(job: CardJob, machine: CardMachine | null, system: UnitSystem): string[] {
  if (cardOf(job.remedy).tank !== undefined && job.unit === 'kg')
    return machine ? [`${machine.name}.${machine.hired ? ' Hired: fetch it first, bring it back clean.' : ''}`] : [];
  if (!machine)
    return job.unit === 'kg' || job.unit === 'L'
      ? ['No machine is chosen: choose one, or spread by hand from a measured bucket.']
      : [];
  const { name, setting } = machine;
  const hired = machine.hired ? ' Hired: fetch it first, bring it back clean.' : '';
  if (!setting)
    return [
      `${name}.${job.unit === 'kg' || job.unit === 'L' ? ' No setting was tried for this: spread a test strip first, weigh, and set by that.' : ''}${hired}`,
      ...stripLines(job, system),
    ];
  const { from } = setting;
  const tried = `${from.setting} let through ${present(job.unit === 'L' ? 'liquidRate' : 'productRate', from.rate, system).text}${from.checkedOn ? ` on ${from.checkedOn}` : ''}`;
  return [
    setting.by === 'tried'
      ? `${name} at ${setting.setting}: ${tried}.${hired}`
      : `${name} at ${setting.setting}, reckoned from a trial (${tried}): a test strip first.${hired}`,
    ...(setting.old ? ['The trial is old: a test strip first.'] : []),
    ...(setting.old || setting.by !== 'tried' ? stripLines(job, system) : []),
    'Walk as you walked at the trial.',
  ];
}

function tankLines(
  job: CardJob,
  zone: CardZone,
  machine: CardMachine | null,
  system: UnitSystem,
  book: WorkingBook,
): string[] {
  const { quantity, unit, material } = job;
  const water = material?.analysis.labelWater;
  if (unit !== 'L' || quantity === null) return [];
  const rate = (quantity * 1000) / zone.area;
  if (water === undefined || !machine?.holds)
    return [
      `${present('liquid', quantity, system).text} for the zone: ${water === undefined ? 'how much water the label wants is not on record' : 'choose a sprayer with its tank'}, so no tanks are reckoned.`,
    ];
  const { result, working } = sprayTank({
    area: zone.area,
    tank: machine.holds,
    output: water / 1000 + rate / 1000,
    productRate: rate,
  });
  book.include(working);
  const alike = (one: Load, other: Load): boolean =>
    Math.abs(one.water - other.water) < 1e-9 && Math.abs(one.product - other.product) < 1e-9;
  return sameLoads(result.loads, alike).map(({ which, load }) => {
    return `${which}: ${present('liquid', load.water, system).text} of water, ${tellSupply(load.product / 1000, 'L', system)} of ${material?.name ?? job.name}, for ${present('area', load.area, system).text}`;
  });
}

/** Loads of a slurry, each with all that goes into it. */
function slurryLines(
  job: CardJob,
  zone: CardZone,
  machine: CardMachine | null,
  system: UnitSystem,
  book: WorkingBook,
): string[] {
  const { quantity, unit, mixed = [] } = job;
  if (unit !== 'kg' || quantity === null || cardOf(job.remedy).tank === undefined) return [];
  const by = (of: number): number => (of * 1000) / zone.area;
  let made: ReturnType<typeof sprayMulch>;
  try {
    made = sprayMulch({
      ...{ area: zone.area, tank: machine?.holds ?? physical.mulch.tank, mulch: by(quantity) },
      others: mixed.map((part) => ({ name: part.name, rate: by(part.quantity) })),
    });
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return [`Choose another machine for this: ${refusalWords(error)}`];
  }
  const { result, working } = made;
  book.include(working);
  const say = (of: number): string => tellSupply(of, 'kg', system);
  const { loads } = result;
  const tell = ({ area, water, mulch, others }: (typeof loads)[number]): string =>
    `${present('liquid', water, system).text} of water, ${[`${say(mulch)} of ${job.material?.name ?? 'mulch'}`, ...others.map(({ name, mass }) => `${say(mass)} of ${name}`)].join(', ')}, for ${present('area', area, system).text}`;
  return [
    ...(machine?.holds
      ? []
      : [
          `No machine with its tank is chosen: for one of ${present('liquid', physical.mulch.tank, system).text} it is`,
        ]),
    ...sameLoads(loads, (one, other) => Math.abs(one.water - other.water) < 1e-9).map(
      ({ which, load }) => `${which}: ${tell(load)}`,
    ),
  ];
}

type Load = ReturnType<typeof sprayTank>['result']['loads'][number];

/** Loads that are the same, told together: "Tanks 1 to 3, each". */
function sameLoads<T>(
  loads: readonly T[],
  alike: (one: T, other: T) => boolean,
): Array<{ readonly which: string; readonly load: T }> {
  const runs: Array<{ from: number; to: number; load: T }> = [];
  for (const [index, load] of loads.entries()) {
    const last = runs.at(-1);
    if (last && alike(last.load, load)) last.to = index + 1;
    else runs.push({ from: index + 1, to: index + 1, load });
  }
  return runs.map(({ from, to, load }) => ({
    which: from === to ? `Tank ${from}` : `Tanks ${from} to ${to}, each`,
    load,
  }));
}

/**
 * The card of a job: what to do the evening before, load, set, spread, water and clear, with what is weighed out.
 *
 * @param machine that was chosen, with its setting for half the rate where granules go two ways
 */
export function workCard(job: CardJob, zone: CardZone, machine: CardMachine | null, system: UnitSystem): WorkCard {
  const entry: CardEntry = cardOf(job.remedy);
  const book = new WorkingBook();
  const { quantity, unit, rate } = job;
  if (quantity !== null && unit !== null)
    book.step({
      label: 'For the zone, this time',
      formula: 'rate × area',
      numbers: `${figure(rate ?? 0)} × ${figure(zone.area)} m²`,
      result: quantity,
      unit,
    });
  const portions = portionsOf(job, zone, machine, system, book);
  const tanks = [...tankLines(job, zone, machine, system, book), ...slurryLines(job, zone, machine, system, book)];
  const bags = bagsOf(job, system);
  const mixed = (job.mixed ?? []).map((part) => ({
    ...{ name: part.name, told: tellSupply(part.quantity, part.unit, system), bags: bagsOf(part, system) },
  }));
  const lightDrive =
    zone.slope !== undefined && zone.slope > 15 ? ['Steep: walk across the slope, never down with a full hopper.'] : [];
  const refills =
    machine?.holds && goesBySpreader(job) && quantity !== null && quantity > machine.holds
      ? [`${wholes(quantity / machine.holds)} fills of ${machine.name}: fill on the tarpaulin, never on the grass.`]
      : [];
  return {
    weigh: quantity === null || unit === null ? null : { told: tellSupply(quantity, unit, system), quantity, portions },
    bags,
    mixed,
    rate: rate === null ? null : present(job.sense, rate, system).text,
    parts: {
      evening: entry.evening,
      load: [
        ...(job.material ? [`${job.material.name}${bags ? `: ${bags}` : ''}`] : []),
        ...mixed.map((part) => `${part.name}: ${[part.told, part.bags].filter(Boolean).join(', ')}`),
        ...(machine ? [machine.name] : []),
        ...entry.tools,
      ],
      set: [
        ...(mixed.length > 0 && entry.tank === undefined
          ? [
              `Mix first, until it is of one colour: ${[[job.material?.name ?? job.name, quantity === null || unit === null ? '' : tellSupply(quantity, unit, system)], ...mixed.map((part) => [part.name, part.told])].map(([name, told]) => `${told} of ${name}`).join(' with ')}. In small batches, each in these shares.`,
            ]
          : []),
        ...settingLines(job, machine, system),
        ...refills,
      ],
      spread: [...(entry.tank && tanks.length > 0 ? [...entry.tank, ...tanks] : []), ...entry.spread, ...lightDrive],
      water: [
        entry.waterWords,
        ...(zone.irrigation === 'none' && entry.water === 'water in'
          ? ['Nobody waters here: go before a light rain, or bring the water.']
          : []),
      ],
      clear: [...entry.clear, ...(unit === 'L' ? spreading.rinse : [])],
    },
    tools: entry.tools,
    wear: entry.wear,
    tanks,
    keepOff: entry.keepOff,
    cautions: [
      ...new Set([...[job, ...(job.mixed ?? [])].flatMap(({ material }) => material?.caution ?? []), ...job.cautions]),
    ],
    working: book.entries,
  };
}
