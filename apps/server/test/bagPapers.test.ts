import { writeBagCode } from '@glenfold/agronomy';
import { type BagAnswer, labelSheetNames, labelSheets } from '@glenfold/contract';
import { beforeAll, describe, expect, it } from '@jest/globals';
import { get, send, textOf, useDemoServer, zoneOf } from './client.ts';
import { bagBody } from './promisedRoutes.ts';

useDemoServer();

/** Bags of one zone, each with its number of cores, one after the other in the walk. */
async function planned(label: string, counts: readonly number[], more: object = {}): Promise<BagAnswer[]> {
  const zone = await zoneOf('Gannet', label);
  const [longitude, latitude] = (zone.geometry!.coordinates as number[][][])[0]![0]! as [number, number];
  let turn = 0;
  const bags = counts.map((count) => ({
    ...bagBody(zone.id),
    ...more,
    cores: Array.from({ length: count }, () => {
      turn += 1;
      return { zoneId: zone.id, turn, place: [longitude + turn * 2e-6, latitude + turn * 2e-6] };
    }),
  }));
  return send<BagAnswer[]>('post', `/sites/${zone.siteId}/bags`, { bags }, 201);
}

describe('labels', () => {
  let bags: BagAnswer[];
  beforeAll(async () => {
    bags = await planned(
      'GR-1',
      Array.from({ length: 31 }, () => 3),
    );
  });

  it.each(labelSheetNames)('on %s carry every code once, and turn the page when it is full', async (sheet) => {
    const ids = bags.map(({ id }) => id).join();
    const text = await textOf(`/api/bags/labels.pdf?units=us&sheet=${encodeURIComponent(sheet)}&ids=${ids}`);
    for (const { code } of bags) expect(text.split(writeBagCode(code))).toHaveLength(2);
    const { columns, rows } = labelSheets[sheet];
    // The PDF reader ends each page with a form feed.
    expect(text.split('\f').length - 1).toBe(Math.ceil(bags.length / (columns * rows)));
    expect(text).toContain('Walled court');
    expect(text).toMatch(/4 in, 3 cores, routine/);
  });

  it('of a sheet nobody sells, or of no bag, are refused in words', async () => {
    const ids = bags[0]!.id;
    await get(`/bags/labels.pdf?units=us&sheet=${encodeURIComponent('A7')}&ids=${ids}`, 400);
    const none = await get<{ errors: Array<{ message: string }> }>(
      `/bags/labels.pdf?units=us&sheet=${encodeURIComponent(labelSheetNames[0]!)}&ids=`,
      422,
    );
    expect(none.errors[0]!.message).toBe('Choose at least one bag.');
  });

  it('stay on the paper: no label of a sheet reaches over its edge', () => {
    for (const { page, label, columns, rows, left, top } of Object.values(labelSheets)) {
      expect(left + columns * label[0]).toBeLessThanOrEqual(page[0] + 0.5);
      expect(top + rows * label[1]).toBeLessThanOrEqual(page[1] + 0.5);
    }
  });
});

it('the field sheet has a page for each bag with every core to write on, and goes on overleaf', async () => {
  const bags = await planned('GR-2', [12, 40]);
  const text = await textOf(`/api/sites/${bags[0]!.siteId}/field-sheet.pdf?units=metric`);
  const pages = text.split('\f');
  const pageOf = (code: string): string => pages.find((page) => page.includes(`bag ${writeBagCode(code)}`))!;
  const small = pageOf(bags[0]!.code);
  expect(small).toContain('Sycamore lawn: 12 cores to 10 cm, routine.');
  for (const check of ['clean plastic bucket', 'buried lines marked', 'soil not wet']) expect(small).toContain(check);
  for (let turn = 1; turn <= 12; turn += 1) expect(small).toMatch(new RegExp(`(^|\\s)${turn}(\\s|$)`, 'm'));
  expect(small).not.toContain('more overleaf');
  expect(pageOf(bags[1]!.code)).toContain('more overleaf');
  const rest = pages.find((page) => page.includes(`Bag ${writeBagCode(bags[1]!.code)}, more cores`))!;
  // The 26 before stand beside the drawing.
  expect(rest).not.toMatch(/(^|\s)38(\s|$)/m);
  for (const turn of [39, 45, 52]) expect(rest).toMatch(new RegExp(`(^|\\s)${turn}(\\s|$)`, 'm'));
});

it('the form is a page for each laboratory, with what is to grow and what was put down last', async () => {
  const [one] = await planned('GR-1', [8], { laboratory: 'Tern Sound testing station', panels: ['routine', 'salts'] });
  const [two] = await planned('GR-1', [8], { laboratory: 'Grey Skerry farm laboratory', purpose: 'new seedbed', grassWanted: 'fine fescue' }); // prettier-ignore
  const [three] = await planned('GR-3', [8]);
  const text = await textOf(`/api/bags/submission.pdf?units=us&ids=${[one!, two!, three!].map(({ id }) => id).join()}`);
  const pages = text.split('\f').slice(0, -1);
  expect(pages).toHaveLength(3);
  const pageOf = (bag: BagAnswer): string => pages.find((page) => page.includes(writeBagCode(bag.code)))!;
  expect(pageOf(one!)).toMatch(/to Tern Sound testing station\. 1 bag\./);
  expect(pageOf(one!)).toContain('Fees for this bag together: $14.00');
  expect(pageOf(one!)).toContain('Blend 16-4-8');
  expect(pageOf(two!).replace(/\s+/g, ' ')).toMatch(/to be/);
  expect(pageOf(two!)).toContain('fescue');
  // Where no laboratory is chosen, nobody knows what it asks.
  expect(pageOf(three!)).not.toMatch(/Fees|\$/);
});
