// npm run bench -- programs: plans, programs and readings of zones, as ratios among themselves and to parsing their input.
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
import { genericShelf } from '../bin/catalogue.ts';
import { line, many, timeOf, times } from './timing.ts';

const ZONES = many(50);
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
const LARGE_SITE = many(300);
const among = (zones: number) => {
  const others = Array.from({ length: zones }, (_, index) => site[index % ZONES]!);
  return () => planZone({ ...site[0]!, others, products, system: 'us' });
};
process.stdout.write(
  `a zone among 300 costs ${times(among(many(10)), among(LARGE_SITE))} × what it costs among 10, its neighbours compared\n`,
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
const LARGE = many(300);
const [single, large] = [programs(1), programs(LARGE)];
process.stdout.write(
  `programs: a zone of 300 costs ${(timeOf(large) / LARGE / timeOf(single)).toFixed(2)} × what one alone costs; ${(timeOf(single) / timeOf(() => planZone({ ...site[0]!, products, system: 'us' }))).toFixed(1)} × its plan\n`,
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
  `reading zones and laying them side by side, a zone of 1, 30 and 300: 1 : ${[many(30), many(300)].map((count) => (readingOf(count) / ofOne).toFixed(2)).join(' : ')}, the first ${(ofOne / timeOf(single)).toFixed(2)} × its program with its workings\n`,
);
