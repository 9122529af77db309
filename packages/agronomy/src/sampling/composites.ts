/** What of a zone decides whether its soil may share a bag with another's. */
export interface SampledZone {
  readonly id: string;
  readonly name: string;
  readonly grass: string;
  readonly surface: string;
  /** How hard it is fed and mown. */
  readonly intensity: string;
  readonly shade: string;
  readonly clippings: string;
  /** Nothing where it is not known. */
  readonly watering: string | undefined;
  readonly soil: string | undefined;
  /** What was laid over the soil, such as `sand 5 cm`. */
  readonly layers: readonly string[];
  /** What was put down in the last years, such as `lime 2026-04`. */
  readonly applied: readonly string[];
  readonly signs: readonly string[];
  /** What the last tests found, pH and mg/kg by one extractant; nothing of what was not tested. */
  readonly last?: LastTest | undefined;
}

/** What of a test tells grounds apart that look alike. */
export interface LastTest {
  readonly soilPh?: number | undefined;
  readonly extractant?: string | undefined;
  readonly p?: number | undefined;
  readonly k?: number | undefined;
}

export interface Composite {
  readonly zones: readonly SampledZone[];
  /** Why these, and no others, share a bag. */
  readonly why: string;
}

const listed = (values: readonly string[]): string => [...values].sort().join(', ');

/** In the order in which they are told; each says how two differ. */
const grounds: ReadonlyArray<{
  readonly of: (zone: SampledZone) => string | undefined;
  readonly words: string;
}> = [
  { of: ({ signs }) => (signs.length > 0 ? listed(signs) : 'none'), words: 'trouble' },
  { of: ({ grass }) => grass, words: 'grass' },
  { of: ({ surface }) => surface, words: 'surface' },
  { of: ({ layers }) => listed(layers), words: 'what was laid over the soil' },
  { of: ({ soil }) => soil, words: 'soil' },
  { of: ({ applied }) => listed(applied), words: 'what was put down' },
  { of: ({ intensity }) => intensity, words: 'care' },
  { of: ({ clippings }) => clippings, words: 'clippings' },
  { of: ({ shade }) => shade, words: 'light' },
  { of: ({ watering }) => watering, words: 'watering' },
];

/** P or K of one a multiple of the other’s, and pH apart, from which one rate is wrong for one of the two (ours). */
const TWOFOLD = 2;
const PH_APART = 0.5;

/** What the last tests say against one bag. */
function testedApart(one: LastTest | undefined, other: LastTest | undefined): string[] {
  if (!one || !other) return [];
  const words: string[] = [];
  if (one.soilPh !== undefined && other.soilPh !== undefined && Math.abs(one.soilPh - other.soilPh) >= PH_APART - 1e-9)
    words.push(`pH of the last tests, ${one.soilPh.toFixed(1)} and ${other.soilPh.toFixed(1)}`);
  for (const key of ['p', 'k'] as const) {
    const [a, b] = [one[key], other[key]];
    if (a === undefined || b === undefined || one.extractant !== other.extractant) continue;
    if (Math.max(a, b) >= TWOFOLD * Math.min(a, b) - 1e-9)
      words.push(`${key.toUpperCase()} of the last tests, ${Math.round(a)} and ${Math.round(b)} mg/kg`);
  }
  return words;
}

/**
 * Why two zones must not share a bag, in words for each ground; none when they may. What is known of one only is
 * taken as different, since a mixed bag cannot be parted again; what is known of neither is no difference.
 */
export function apartBecause(one: SampledZone, other: SampledZone): string[] {
  const alike = grounds.flatMap(({ of, words }) => {
    const [a, b] = [of(one), of(other)];
    // What is not known of either tells nothing apart.
    if (a === undefined && b === undefined) return [];
    if (a === undefined || b === undefined) return [`${words} known of one only`];
    return a === b && !(words === 'trouble' && a !== 'none') ? [] : [words];
  });
  return [...alike, ...testedApart(one.last, other.last)];
}

/**
 * Which zones may share a bag: only those alike in everything that makes soil differ. Zones with trouble stand alone.
 *
 * @returns every zone once, in the order given.
 */
export function proposeComposites(zones: readonly SampledZone[]): Composite[] {
  const groups: SampledZone[][] = [];
  for (const zone of zones) {
    const group = groups.find((members) => members.every((member) => apartBecause(member, zone).length === 0));
    if (group) group.push(zone);
    else groups.push([zone]);
  }
  return groups.map((members) => ({ zones: members, why: whyOf(members, zones) }));
}

/** Something that is known of one zone and not of another, and alone keeps them apart. */
export interface ToAsk {
  readonly words: string;
  /** Of which it is not known. */
  readonly of: ReadonlyArray<{ readonly id: string; readonly name: string }>;
}

/** What to ask, each thing once: known of some zones and not of others, where nothing else would keep these apart. */
export function toAsk(zones: readonly SampledZone[]): ToAsk[] {
  return grounds.flatMap(({ of, words }) => {
    const open = zones.filter(
      (zone) =>
        of(zone) === undefined &&
        zones.some(
          (other) =>
            of(other) !== undefined &&
            apartBecause(zone, other).every((reason) => reason.endsWith('known of one only')),
        ),
    );
    return open.length > 0 ? [{ words, of: open.map(({ id, name }) => ({ id, name })) }] : [];
  });
}

function whyOf(members: readonly SampledZone[], all: readonly SampledZone[]): string {
  const [first] = members;
  if (!first) return '';
  if (members.length > 1) {
    const unknown = grounds.filter(({ of }) => members.every((zone) => of(zone) === undefined));
    const open = unknown.length > 0 ? ` Not known of any: ${unknown.map(({ words }) => words).join(', ')}.` : '';
    return `One bag will do: nothing that is known of them differs, and no trouble in any.${open}`;
  }
  if (first.signs.length > 0)
    return `A bag of its own: it shows ${listed(first.signs)}. Take a healthy part of the same lawn beside it.`;
  const others = all.filter(({ id }) => id !== first.id);
  if (others.length === 0) return 'The only zone.';
  const nearest = others
    .map((other) => ({ other, because: apartBecause(first, other) }))
    .reduce((best, next) => (next.because.length < best.because.length ? next : best));
  return `A bag of its own: it differs even from ${nearest.other.name}, most like it, by ${nearest.because.join(', ')}.`;
}
