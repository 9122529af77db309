/** A line of what a year costs, as somebody was told it. */
export interface PricedLine {
  readonly zoneId: string;
  readonly zone: string;
  /** Of the treatment. */
  readonly key: string;
  readonly name: string;
  /** "30 lb of pelleted lime"; empty for work. */
  readonly amount: string;
  /** To the cent; nothing while something of it has no price. */
  readonly price: number | null;
}

/** What a year costs: its lines, and the drives that no line carries. */
export interface YearPrice {
  readonly lines: readonly PricedLine[];
  readonly visits: number;
}

/** A price as it was told on a day, of some zones. */
export interface ToldPrice extends YearPrice {
  /** `2026-12-01` */
  readonly on: string;
  readonly zoneIds: readonly string[];
}

/** What is another since a price was told. */
export interface PriceChange {
  readonly zone: string | null;
  /** "Lime: 30 lb of pelleted lime in place of 60 lb of pelleted lime". */
  readonly words: string;
  /** Day on which it was told otherwise. */
  readonly on: string;
  /** What it is dearer by, to the cent; less than nought where it is cheaper. */
  readonly difference: number;
}

/** A price as it stands, each line with the day on which it was told so. */
export interface StandingPrice extends YearPrice {
  readonly toldOn: Readonly<Record<string, string>>;
}

const cents = (value: number): number => Math.round(value * 100) / 100;
const VISITS = 'visits';
const lineKey = ({ zoneId, key }: Pick<PricedLine, 'zoneId' | 'key'>): string => `${zoneId} ${key}`;
const zoneKey = (zoneId: string): string => `zone ${zoneId}`;

/** A price without what else an offered line says. */
export const priceOnly = ({ lines, visits }: YearPrice): YearPrice => ({
  lines: lines.map(({ zoneId, zone, key, name, amount, price }) => ({ zoneId, zone, key, name, amount, price })),
  visits,
});

/** What all of it comes to that has a price. */
export const yearSum = ({
  lines,
  visits,
}: {
  readonly lines: ReadonlyArray<Pick<PricedLine, 'price'>>;
  readonly visits: number;
}): number => cents(lines.reduce((sum, { price }) => sum + (price ?? 0), visits));

/**
 * The price of a year as it stands, after everything that was told of it in turn: what is told later of a zone takes
 * the place of what was told before.
 *
 * @param told from the first to the last
 * @param done lines, as `zoneId key`, that are done or begun: they stay as they were told before, since what is left
 *   to do is not what they cost
 */
export function standingPrice(told: readonly ToldPrice[], done: ReadonlySet<string> = new Set()): StandingPrice {
  return told.reduce<StandingPrice>(
    (before, { lines, visits, on, zoneIds }) => {
      const isOf = ({ zoneId }: PricedLine): boolean => zoneIds.includes(zoneId);
      const kept = before.lines.filter((line) => !isOf(line) || done.has(lineKey(line)));
      const keptKeys = new Set(kept.map(lineKey));
      const fresh = lines.filter((line) => isOf(line) && !keptKeys.has(lineKey(line)));
      const same = new Map(before.lines.map((line) => [lineKey(line), line.price]));
      // Drives that were made are not taken off by a program that has only the others left.
      const drives = done.size > 0 ? Math.max(before.visits, visits) : visits;
      const moved = fresh.filter((line) => same.get(lineKey(line)) !== line.price);
      return {
        lines: [...kept, ...fresh],
        visits: drives,
        toldOn: {
          ...before.toldOn,
          ...Object.fromEntries([...moved.map(lineKey), ...zoneIds.map(zoneKey)].map((key) => [key, on])),
          ...(drives === before.visits ? {} : { [VISITS]: on }),
        },
      };
    },
    { lines: [], visits: 0, toldOn: {} },
  );
}

function wordsOf(before: PricedLine | undefined, now: PricedLine | undefined): string {
  const { name, amount } = (now ?? before)!;
  if (!now) return `${name}: not in the program any more`;
  if (!before) return `${amount ? `${name}, ${amount}` : name}: new`;
  if (before.price === null) return `${name}: it has a price now`;
  if (now.price === null) return `${name}: its price is open now`;
  if (before.amount === amount) return `${name}: priced anew`;
  const [product] = / of .*$/.exec(amount) ?? [];
  const former = product && before.amount.endsWith(product) ? before.amount.slice(0, -product.length) : before.amount;
  return `${name}: ${amount} in place of ${former}`;
}

/**
 * What is another since a price was told, line by line: the sum of then and the differences are the sum of now, to the
 * cent.
 *
 * @param done lines that are done or begun, as in `standingPrice`
 */
export function priceSince(
  then: YearPrice,
  now: StandingPrice,
  done: ReadonlySet<string> = new Set(),
): readonly PriceChange[] {
  const before = new Map(then.lines.map((line) => [lineKey(line), line]));
  const after = new Map(now.lines.map((line) => [lineKey(line), line]));
  const changed = [...new Set([...before.keys(), ...after.keys()])].flatMap((key): PriceChange[] => {
    const [was, is] = [before.get(key), after.get(key)];
    const { zone, zoneId } = (is ?? was)!;
    const difference = cents((is?.price ?? 0) - (was?.price ?? 0));
    const opened = was && is && (was.price === null) !== (is.price === null);
    if (difference === 0 && !opened) return [];
    return [
      {
        zone,
        words: done.has(key) ? `${(is ?? was)!.name}: with what is done already` : wordsOf(was, is),
        difference,
        on: now.toldOn[is ? key : zoneKey(zoneId)] ?? '',
      },
    ];
  });
  const drives = cents(now.visits - then.visits);
  return [
    ...changed,
    ...(drives === 0
      ? []
      : [{ zone: null, words: 'Visits: another number of them', difference: drives, on: now.toldOn[VISITS] ?? '' }]),
  ];
}
