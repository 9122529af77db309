import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';

const dist = join(import.meta.dirname, '../dist');
const built = (name: string): Buffer => readFileSync(join(dist, name));
const compressed = (names: readonly string[]): number =>
  names.reduce((sum, name) => sum + (name.endsWith('woff2') ? built(name).length : gzipSync(built(name)).length), 0);

/** Letters of our own languages. */
const fonts = readdirSync(join(dist, 'assets'))
  .filter((name) => /-latin-\d+-normal-[^.]*\.woff2$/.test(name))
  .map((name) => `assets/${name}`);

describe('the built pages', () => {
  const page = built('index.html').toString();
  const first = [...page.matchAll(/(?:src|href)="\/(assets\/[^"]+)"/g)].map(([, name]) => name!);

  it('bring the first one, with its letters, in less than 350 kB', () => {
    expect(fonts).toHaveLength(3);
    expect(first.length).toBeGreaterThan(3);
    expect(compressed([...first, ...fonts])).toBeLessThan(350_000);
    // What draws plans and charts comes when somebody wants it.
    for (const name of first) expect(built(name).toString()).not.toMatch(/BufferOp|LinearScale/);
  });

  it('keep on the device what the field needs, and no more', () => {
    const kept = [
      ...built('sw.js')
        .toString()
        .matchAll(/url:"([^"]+)"/g),
    ].map(([, name]) => name!);
    const parts = (name: string): string[] => kept.filter((file) => file.startsWith(`assets/${name}-`));
    for (const needed of [
      'index',
      'WalkPage',
      'TodayPage',
      'SentPage',
      'FieldSitePage',
      'CardPage',
      'TestsPage',
      'CalculatorPage',
    ])
      expect([needed, parts(needed)[0]]).toEqual([needed, expect.stringContaining(needed)]);
    for (const other of ['Ground', 'Lab', 'Rates', 'SettingsPage', 'DrawingEditor', 'readFile.worker'])
      expect(parts(other)).toEqual([]);
    expect(compressed(kept.filter((name) => name.startsWith('assets/')))).toBeLessThan(800_000);
  });

  it('stand on a home screen with icons of their own', () => {
    const { icons } = JSON.parse(built('manifest.webmanifest').toString()) as { icons: Array<Record<string, string>> };
    for (const { src, sizes } of icons.filter(({ type }) => type === 'image/png')) {
      const bytes = built(src!.slice(1));
      expect(`${bytes.readUInt32BE(16)}x${bytes.readUInt32BE(20)}`).toBe(sizes);
    }
    expect(icons.map(({ purpose }) => purpose)).toContain('maskable');
    expect(page).toContain('rel="apple-touch-icon" href="/apple-touch-icon.png"');
  });
});
