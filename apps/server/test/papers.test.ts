import type { BoardAnswer, NewestOwnerReportAnswer } from '@glenfold/contract';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { withBookmarks } from '../src/platform/paper.ts';
import { get, pdfBytes, siteOf, useDemoServer, zoneOf } from './client.ts';

useDemoServer();

interface Bookmark {
  readonly title: string;
  readonly items: readonly Bookmark[];
}

/** What somebody is told of a PDF who does not see it. */
async function told(path: string) {
  const document = await getDocument({ data: new Uint8Array(await pdfBytes(`/api${path}`)), verbosity: 0 }).promise;
  const { info } = (await document.getMetadata()) as unknown as { info: Record<string, string | undefined> };
  const bookmarks = ((await document.getOutline()) as unknown as Bookmark[] | null) ?? [];
  await document.destroy();
  return { title: info.Title ?? '', author: info.Author, language: info.Language, bookmarks };
}

describe('every paper', () => {
  it('says what it is, whose and in which language, and leads to its parts', async () => {
    const [gannet, harbour] = [await siteOf('Gannet'), await siteOf('Harbour')];
    const zone = await zoneOf('Harbour', 'HS-1');
    const bags = (await get<BoardAnswer>('/bags')).bags.map(({ id }) => id).slice(0, 3);
    const report = (await get<NewestOwnerReportAnswer>(`/sites/${(await siteOf('Kelp')).id}/owner-report`)).newest;
    const papers: ReadonlyArray<readonly [path: string, title: RegExp, part: RegExp]> = [
      [
        `/sites/${gannet.id}/drawing.pdf?units=us`,
        /^Gannet Row Almshouses: plan of the ground$/,
        /^Plan of the ground$/,
      ],
      [`/sites/${gannet.id}/field-sheet.pdf?units=us`, /^Gannet Row Almshouses: field sheet$/, /^Bag [A-Z0-9-]+$/],
      [`/sites/${harbour.id}/readings.pdf?units=us`, /^Harbour School field: all zones side by side$/, /Harbour/],
      [`/zones/${zone.id}/program.pdf?units=us`, /^Harbour School field, Drained half: /, /^Drained half$/],
      [
        `/sites/${harbour.id}/logbook.pdf?units=us&from=2024-01-01&to=2026-12-31`,
        /: logbook 2024-01-01 to/,
        /^Logbook/,
      ],
      [
        `/bags/labels.pdf?units=us&sheet=${encodeURIComponent('Roll, 62 × 29 mm')}&ids=${bags.join(',')}`,
        /^Labels of bags: /,
        /^[A-Z0-9-]+$/,
      ],
      [`/bags/submission.pdf?units=us&ids=${bags.join(',')}`, /^Soil samples/, /^Soil samples/],
      ...(report ? [[`/owner-reports/${report.id}/report.pdf`, /: report$/, /./] as const] : []),
    ];
    for (const [path, title, part] of papers) {
      const paper = await told(path);
      expect([path, paper]).toEqual([
        path,
        { ...paper, title: expect.stringMatching(title) as string, language: 'en' },
      ]);
      expect([path, paper.author]).toEqual([path, 'Brackwater Soil Advisory']);
      expect([path, paper.bookmarks[0]?.title]).toEqual([path, expect.stringMatching(part)]);
    }
    const program = await told(`/zones/${zone.id}/program.pdf?units=us`);
    expect(program.bookmarks[0]!.items.map(({ title }) => title)).toContain('What limits this lawn, most first');
  });

  it('has its smaller headings under the larger ones, and no sums among them', () => {
    const styles = { section: { font: 'Bitter', fontSize: 12 } };
    const content = withBookmarks(
      [
        {
          columns: [
            { text: 'East lawn', font: 'Bitter', fontSize: 20 },
            { text: '$210', font: 'Bitter', alignment: 'right' },
          ],
        },
        { table: { body: [[{ text: 'Take care', style: 'section' }, { text: 'plain' }]] } },
      ],
      styles,
    );
    expect(content).toEqual([
      {
        columns: [
          { text: 'East lawn', font: 'Bitter', fontSize: 20, outline: true, id: 'part 1', outlineExpanded: true },
          { text: '$210', font: 'Bitter', alignment: 'right' },
        ],
      },
      {
        table: {
          body: [
            [{ text: 'Take care', style: 'section', outline: true, outlineParentId: 'part 1' }, { text: 'plain' }],
          ],
        },
      },
    ]);
  });
});
