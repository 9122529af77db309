/** @jest-environment node */
import { type Bar, type Rating, ratings } from '@glenfold/agronomy';
import type { StepState, ZoneAnswer } from '@glenfold/contract';
import fc from 'fast-check';
import type { ReactNode } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { MemoryRouter } from 'react-router';
import { StepLine } from '../src/frame/StepLine.tsx';
import { CoreStick } from '../src/ui/CoreStick.tsx';
import { ReadingBar } from '../src/ui/ReadingBar.tsx';
import { Words } from '../src/ui/Words.tsx';
import { placeOnBar } from '../src/ui/placeOnBar.ts';
import { printed, resultWith } from './scene.ts';
import { UnitsProvider } from '../src/ui/units.tsx';
import { WorkingProvider } from '../src/ui/working.tsx';

let units = 'us';
Object.assign(globalThis, { localStorage: { getItem: () => units, setItem: () => undefined } });

const draw = (node: ReactNode, system = 'us'): string => {
  units = system;
  return renderToStaticMarkup(
    <UnitsProvider>
      <WorkingProvider>{node}</WorkingProvider>
    </UnitsProvider>,
  );
};

const zone: ZoneAnswer = {
  id: 'z',
  version: 1,
  siteId: 's',
  name: 'Bank',
  label: 'B',
  area: 100,
  geometry: null,
  applied: [],
  measured: {},
  grass: 'tall fescue',
  surface: 'turf',
  intensity: 'low',
  shade: 'part',
  clippings: 'returned',
  soilGroup: null,
  aimPh: null,
  thatch: null,
  rootDepth: null,
  facts: {},
  properties: null,
};
const result = resultWith({ values: { soilPh: printed(5.2) }, depth: 15.24 });

describe('the core stick', () => {
  it('draws open what is not known, and says so', () => {
    const unknown = draw(<CoreStick zone={zone} size="large" />);
    expect(unknown).toContain(
      'aria-label="Core of Bank, thatch not measured, roots not measured, soil not known, pH not tested"',
    );
    for (const words of ['thatch: not measured', 'roots: not measured', 'soil: not known', 'pH: not tested'])
      expect(unknown).toContain(words);
    expect(unknown).toContain('stroke-dasharray="3 3"');
    const known = draw(
      <CoreStick zone={{ ...zone, thatch: 1, rootDepth: 12, soilGroup: 'clay' }} result={result} size="large" />,
    );
    expect(known).not.toContain('not measured');
    expect(known).not.toContain('stroke-dasharray="3 3"');
    expect(known).toContain('url(#soil-clay)');
    expect(known).toContain('wanted 5.5–7.0');
  });

  it('is to scale: the sampled slice is the share of the drawn depth that it is of 30 cm', () => {
    const heights = (depth: number): number[] =>
      [
        ...draw(<CoreStick zone={zone} result={{ ...result, depth }} size="large" />).matchAll(
          /<rect [^>]*height="([\d.]+)"/g,
        ),
      ].map(([, height]) => Number(height));
    const [whole = 0] = heights(15);
    expect(heights(15)).toContain(whole / 2);
    expect(heights(10)[1]).toBeCloseTo(whole / 3, 9);
  });

  it('tells depths in the person’s unit', () => {
    expect(draw(<CoreStick zone={zone} result={result} size="large" />)).toContain('sampled to 6 in');
    expect(draw(<CoreStick zone={zone} result={result} size="large" />, 'metric')).toContain('sampled to 15 cm');
  });

  it('marks a pH outside the band by colour and by place, small and large', () => {
    for (const size of ['small', 'large'] as const) {
      const low = draw(<CoreStick zone={zone} result={result} size={size} />);
      const wanted = draw(
        <CoreStick zone={zone} result={{ ...result, values: { soilPh: printed(6.4) } }} size={size} />,
      );
      expect(low).toContain('fill="#A85B14"');
      expect(wanted).not.toContain('fill="#A85B14"');
    }
  });
});

describe('a reading bar', () => {
  const limits = fc
    .tuple(fc.double({ min: 0.1, max: 50, noNaN: true }), fc.double({ min: 1.1, max: 3, noNaN: true }))
    .map(([low, factor]) => [low, low * factor, low * factor ** 2, low * factor ** 3]);

  it('puts a value into the segment of its rating, further right for more', () => {
    fc.assert(
      fc.property(
        limits,
        fc.double({ min: 0, max: 1000, noNaN: true }),
        fc.double({ min: 0, max: 1000, noNaN: true }),
        (starts, a, b) => {
          const segment = starts.filter((limit) => a >= limit).length;
          expect(Math.floor(placeOnBar(a, starts))).toBe(segment);
          if (Math.floor(placeOnBar(b, starts)) !== segment)
            expect(placeOnBar(a, starts) < placeOnBar(b, starts)).toBe(a < b);
        },
      ),
    );
  });

  const bar = (rating: Rating | null, value: number): Bar => ({
    key: 'p',
    name: 'Phosphorus, P',
    figure: { value, working: [] },
    sense: 'concentration',
    rating,
    limits: rating && [13, 27, 54, 108],
    wanted: [27, 54],
    words: 'Words.',
    belowDetection: false,
    acts: rating === 'low',
  });

  it('names the rating for those who do not see it, and draws none where there is none', () => {
    expect(draw(<ReadingBar bar={bar('low', 20)} />)).toContain('aria-label="Phosphorus, P 20 ppm: low"');
    const unrated = draw(<ReadingBar bar={bar(null, 20)} />);
    expect(unrated).not.toContain('<svg');
    expect(unrated).toContain('20 ppm');
    for (const word of ratings) expect(draw(<ReadingBar bar={bar('low', 20)} />)).toContain(`>${word}</text>`);
  });

  it('has words of its own where five do not fit, the wanted one hatched', () => {
    const scale = { words: ['no harm', 'some harm', 'harmful'], wanted: 0, at: 1 };
    const salt = {
      ...bar(null, 4.2),
      key: 'ecPaste',
      name: 'Salt',
      sense: 'conductivity',
      limits: [3, 6],
      scale,
    } as const;
    const drawn = draw(<ReadingBar bar={salt} />);
    expect(drawn).toContain('aria-label="Salt 4.2 dS/m: some harm"');
    expect([...drawn.matchAll(/>([a-z ]*harm[a-z]*)<\/text>/g)].map(([, word]) => word)).toEqual(scale.words);
    expect(drawn.match(/url\(#wanted\)/g)).toHaveLength(1);
  });

  it('of a paper that was handed over earlier is drawn by its rating', () => {
    const { acts: _acts, ...early } = bar('low', 20);
    expect(draw(<ReadingBar bar={early as Bar} />)).toContain('#A85B14');
  });

  it('keeps the sign of a value below detection', () =>
    expect(draw(<ReadingBar bar={{ ...bar('very low', 3), belowDetection: true }} />)).toContain('&lt;3 ppm'));
});

describe('the line of steps', () => {
  const states: StepState[] = [
    { step: 'ground', words: '3 zones', state: 'done' },
    { step: 'lab', words: '1 of 3 tested', state: 'act' },
    { step: 'season', words: 'to come', state: 'later' },
  ];
  const line = draw(
    <MemoryRouter>
      <StepLine siteId="s" zoneId="z" current="lab" states={states} />
    </MemoryRouter>,
  );

  it('says each state in words and keeps the zone', () => {
    expect(line).toContain('aria-label="1 Ground, 3 zones (done)"');
    expect(line).toContain('aria-label="3 Season, to come (not built yet)"');
    expect(line).toContain('href="/sites/s/lab/z"');
    expect(line.match(/aria-current="step"/g)).toHaveLength(1);
  });
});

it('subscripts are set as such', () => {
  expect(draw(<Words>P₂O₅ and K₂O, 30 %</Words>)).toContain('P<sub>2</sub>O<sub>5</sub> and K<sub>2</sub>O, 30 %');
});
