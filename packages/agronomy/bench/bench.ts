import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { build } from 'esbuild';
import {
  besideOf,
  climateOf,
  numbersOnly,
  planZone,
  programZone,
  worthOfMeasuring,
  zoneReading,
  type Product,
  type SoilTest,
  type ZoneFacts,
} from '../src/index.ts';
import { readFields } from '../src/calculators/fields.ts';
import type { CaseFile } from '../src/registry/publishedCases.ts';
import { calculators } from '../src/registry/registry.ts';
import { genericShelf } from '../bin/catalogue.ts';

/** Runs in a second, from a timed batch after a warm-up. */
function perSecond(work: () => unknown): number {
  for (let i = 0; i < 500; i += 1) work();
  const start = performance.now();
  let runs = 0;
  while (performance.now() - start < 200) {
    for (let i = 0; i < 50; i += 1) work();
    runs += 50;
  }
  return (runs * 1000) / (performance.now() - start);
}

function line(name: string, work: () => unknown, input: unknown): void {
  const json = JSON.stringify(input);
  const speed = perSecond(work);
  const baseline = perSecond(() => JSON.parse(json) as unknown);
  process.stdout.write(
    `${name.padEnd(40)} ${Math.round(speed).toLocaleString('en-US').padStart(10)} /s   ${(baseline / speed).toFixed(1)} × the time of parsing its input\n`,
  );
}

const folder = join(import.meta.dirname, '../cases');
const cases = readdirSync(folder).flatMap(
  (name) => (JSON.parse(readFileSync(join(folder, name), 'utf8')) as CaseFile).cases,
);
const samplesOf = (name: string): readonly unknown[] =>
  cases.filter((entry) => entry.calculator === name && entry.expect).map(({ input }) => input);
for (const [name, calculator] of calculators) {
  const [sample] = samplesOf(name);
  line(name, () => calculator(sample as never), sample);
}

/** ms that one run takes, the least of a few. */
function timeOf(work: () => unknown): number {
  work();
  const takes = Array.from({ length: 5 }, () => {
    const start = performance.now();
    let runs = 0;
    while (performance.now() - start < 100) {
      work();
      runs += 1;
    }
    return (performance.now() - start) / runs;
  });
  return Math.min(...takes);
}

/** How many times as many runs the one makes in the same time, alternating so that both meet the same machine. */
function ratio(one: () => unknown, other: () => unknown): number {
  const [first, second] = [perSecond(one), perSecond(other)];
  return Math.max(first, perSecond(one)) / Math.max(second, perSecond(other));
}
const times = (one: () => unknown, other: () => unknown): string => ratio(one, other).toFixed(1);

/** Inputs read once, and a book that keeps nothing: what one more run of a search costs. */
const alone = [...calculators]
  .map(([name, calculator]) => {
    const [sample] = samplesOf(name);
    const read = readFields(calculator.inputs, sample);
    return {
      name,
      times: ratio(
        () => calculator.numbers(read),
        () => calculator(sample as never),
      ),
    };
  })
  .sort((one, other) => one.times - other.times);
const mean = Math.exp(alone.reduce((sum, each) => sum + Math.log(each.times), 0) / alone.length);
process.stdout.write(
  `for the numbers alone a calculator runs ${mean.toFixed(1)} × as often (geometric mean); least: ${alone
    .slice(0, 5)
    .map((each) => `${each.name} ${each.times.toFixed(1)}`)
    .join(', ')}\n`,
);

const ZONES = 50;
/** What a whole site asks of the core: every calculator for every zone, each zone with another of the cases. */
const everything = [...calculators].flatMap(([name, calculator]) => {
  const samples = samplesOf(name);
  return Array.from({ length: ZONES }, (_, zone) => ({ calculator, input: samples[zone % samples.length] }));
});
line(
  `a site, ${ZONES} zones × ${calculators.size} calculators`,
  () => everything.map(({ calculator, input }) => calculator(input as never)),
  everything.map(({ input }) => input),
);

const zone: ZoneFacts = {
  name: 'A',
  area: 400,
  grass: 'tall fescue',
  surface: 'turf',
  intensity: 'medium',
  shade: 'part',
  clippings: 'returned',
  soilGroup: 'loam',
};
const value = (reported: number) => ({ value: reported, unit: 'mg/kg', basis: 'element' }) as const;
const test: SoilTest = {
  soilPh: 5.2,
  buffer: { method: 'smp', ph: 6.4 },
  extractant: 'mehlich-3',
  depth: 15,
  organicMatter: 4,
  nutrients: { p: value(18), k: value(60), ca: value(600), mg: value(90) },
};
const straight = (id: string, purpose: Product['purpose'], grade: Product['grade']): Product => ({
  id,
  name: id,
  purpose,
  grade,
  slowRelease: 0,
  bagMass: 20,
  bagPrice: 20,
});
const none = { n: 0, p2o5: 0, k2o: 0 };
const products: readonly Product[] = [
  {
    ...straight('lime', 'lime', none),
    lime: { cce: 95, passing8: 100, passing20: 95, passing60: 80, moisture: 1, magnesium: false, caustic: false },
  },
  straight('urea', 'nitrogen', { ...none, n: 46 }),
  straight('phosphate', 'phosphorus', { ...none, p2o5: 46 }),
  straight('potash', 'potassium', { ...none, k2o: 50 }),
];
const site = Array.from({ length: ZONES }, (_, index) => ({
  zone: { ...zone, name: `Zone ${index}` },
  test: { ...test, soilPh: 5 + (index % 10) / 10 },
}));
line(
  `plans of a site, ${ZONES} zones`,
  () => site.map((tested) => planZone({ ...tested, products, system: 'us' })),
  site,
);

const plans = () => site.map((tested) => planZone({ ...tested, products, system: 'us' }));
process.stdout.write(`the same plans for their numbers alone: ${times(() => numbersOnly(plans), plans)} × as many\n`);
const among = (zones: number) => {
  const others = Array.from({ length: zones }, (_, index) => site[index % ZONES]!);
  return () => planZone({ ...site[0]!, others, products, system: 'us' });
};
process.stdout.write(
  `a zone among 300 costs ${times(among(10), among(300))} × what it costs among 10, its neighbours compared\n`,
);

const shelf = genericShelf();
const climate = climateOf({ climate: 'temperate inland' });
/** What a zone of a site costs with that many, each with its months, balance and what works against what. */
const programs = (zones: number) => {
  const all = Array.from({ length: zones }, (_, index) => site[index % ZONES]!);
  return () =>
    all.map((tested) =>
      programZone({ ...tested, others: all, materials: shelf, from: '2026-01-10', climate, system: 'us' }),
    );
};
const [single, many] = [programs(1), programs(300)];
process.stdout.write(
  `programs: a zone of 300 costs ${(timeOf(many) / 300 / timeOf(single)).toFixed(2)} × what one alone costs; ${(timeOf(single) / timeOf(() => planZone({ ...site[0]!, products, system: 'us' }))).toFixed(1)} × its plan\n`,
);

// Each in its own way of turning out, two hundred times a measurement, as the server's thread does it.
const { buffer: _buffer, ...unbuffered } = site[0]!.test;
const unsure = { ...site[0]!, test: unbuffered, materials: shelf, from: '2026-01-10', climate, system: 'us' as const };
process.stdout.write(
  `what the measurements that a zone lacks are worth, ${worthOfMeasuring(unsure, { draws: 1 }).length} of them by 200 draws each: ${(timeOf(() => worthOfMeasuring(unsure)) / timeOf(single)).toFixed(0)} × its program with its workings\n`,
);

const { outputFiles } = await build({
  entryPoints: [join(import.meta.dirname, '../src/index.ts')],
  bundle: true,
  minify: true,
  format: 'esm',
  platform: 'browser',
  write: false,
});
const bundled = outputFiles[0]!.contents;
const kilobytes = (bytes: number): string => `${(bytes / 1000).toFixed(0)} kB`;
process.stdout.write(
  `the whole core, bundled and minified: ${kilobytes(bundled.length)}, gzipped ${kilobytes(gzipSync(bundled).length)}\n`,
);

/** Readings of so many lawns laid side by side, ms a lawn. */
const readingOf = (count: number): number => {
  const lawns = Array.from({ length: count }, (_, index) => ({ ...unsure.zone, name: `Lawn ${index}` }));
  return (
    timeOf(() =>
      besideOf(
        lawns.map((zone) => ({
          zoneId: zone.name,
          lines: zoneReading({ zone, test: unsure.test, evidence: {}, values: [], system: 'us', today: '2026-11-27' })
            .lines,
        })),
        'us',
        'Lawn 0',
      ),
    ) / count
  );
};
const ofOne = readingOf(1);
process.stdout.write(
  `reading zones and laying them side by side, a zone of 1, 30 and 300: 1 : ${[30, 300].map((count) => (readingOf(count) / ofOne).toFixed(2)).join(' : ')}, the first ${(ofOne / timeOf(single)).toFixed(2)} × its program with its workings\n`,
);
