import { areaOf } from '@glenfold/agronomy/geometry';
import { screen, within } from '@testing-library/react';
import userEvent from './userEvent.ts';
import proj4 from 'proj4';
import { ImportDialog } from '../src/features/ground/files/ImportDialog.tsx';
import { definitionOf, utmCodeAt } from '../src/features/ground/files/coordinateSystems.ts';
import { readOutcome } from '../src/features/ground/files/readOutcome.ts';
import type { Stroke } from '../src/features/ground/drawing/strokes.ts';
import { ShapeFields, type TypedShape, freshShape } from '../src/features/ground/shapes/ShapeFields.tsx';
import { useState } from 'react';
import { besidePage, choose, serve, show } from './page.tsx';
import { rectangle, zoneWith } from './scene.ts';

const near = [-36.2, 46.4] as const;
const press = (name: string | RegExp): Promise<void> => userEvent.click(screen.getByRole('button', { name }));

/** The dialog with its worker's work done, and what it brings. */
function open() {
  besidePage({ 'readFile.worker.ts': { read: readOutcome } });
  serve({});
  const strokes: Stroke[] = [];
  let closed = 0;
  show(
    <ImportDialog
      plan={{ zones: [zoneWith()], features: [], underlay: null }}
      near={near}
      onClose={() => (closed += 1)}
      onImport={(stroke) => Promise.resolve(void strokes.push(stroke))}
    />,
    { units: 'metric' },
  );
  return { strokes, closed: () => closed };
}
async function drop(name: string, content: string | Uint8Array<ArrayBuffer>): Promise<void> {
  const file = new File([content], name);
  const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
  // What every browser has and this one leaves out.
  Object.assign(file, { arrayBuffer: () => Promise.resolve(bytes.slice().buffer) });
  await userEvent.upload(screen.getByLabelText('File of outlines'), file);
}
const feature = (properties: object, geometry: unknown) => ({ type: 'Feature', properties, geometry });
const collection = (...features: readonly object[]): string => JSON.stringify({ type: 'FeatureCollection', features });
const lawn = feature({ name: 'South lawn', label: 'BL', grass: 'fine fescue' }, rectangle(50, 0, 20, 10));

describe('a foreign file', () => {
  it('is looked through before anything of it is drawn, and comes as one stroke', async () => {
    const { strokes, closed } = open();
    const tree = feature({ name: 'Lime tree' }, { type: 'Point', coordinates: [...near] });
    await drop('site.geojson', collection(lawn, tree));
    const row = await screen.findByRole('row', { name: /South lawn/ });
    expect(row.textContent).toMatch(/200 m²/);
    expect(screen.getByText(/2 of 2 come\. Nothing is drawn before you say so/)).toBeTruthy();
    await choose('Lime tree becomes', 'Gate');
    await press('Bring in 2');
    expect(closed()).toBe(1);
    expect(strokes).toMatchObject([{ newFeatures: [{ kind: 'gate', name: 'Lime tree' }] }]);
    const [zone] = strokes[0]!.newZones!;
    // Its bag label is taken here already, and nothing says how it is kept.
    expect(zone).toMatchObject({ name: 'South lawn', label: 'BL-1', grass: 'fine fescue', intensity: 'medium' });
    expect(areaOf(zone!.geometry as never)).toBeCloseTo(200, 0);
  });

  it('leaves out what is not ticked, and what cannot be, with its reason', async () => {
    const { strokes } = open();
    const bow = [
      [-36.2, 46.4],
      [-36.2, 46.4],
    ];
    await drop('site.geojson', collection(lawn, feature({ name: 'Scrap' }, { type: 'Polygon', coordinates: [bow] })));
    const scrap = await screen.findByRole('row', { name: /Scrap/ });
    expect(within(scrap).getByText('stays out')).toBeTruthy();
    expect(within(scrap).getByRole('checkbox')).toHaveProperty('disabled', true);
    expect(scrap.textContent).toMatch(/corner|outline/);
    await userEvent.click(screen.getByRole('checkbox', { name: 'Bring in South lawn' }));
    expect(screen.getByRole('button', { name: 'Bring in 0' })).toHaveProperty('disabled', true);
    expect(strokes).toEqual([]);
  });

  it('is asked for its coordinate system where its numbers are no degrees, and read so', async () => {
    const { strokes } = open();
    const code = utmCodeAt(near);
    const { coordinates } = rectangle(50, 0, 20, 10) as { coordinates: number[][][] };
    const inUtm = coordinates.map((ring) =>
      ring.map(([east = 0, north = 0]) => proj4(definitionOf(code)!, [east, north])),
    );
    await drop('utm.geojson', collection(feature({ name: 'Lawn' }, { type: 'Polygon', coordinates: inUtm })));
    const field = await screen.findByLabelText('Coordinate system');
    expect(field).toHaveProperty('value', code);
    await userEvent.clear(field);
    await userEvent.type(field, 'EPSG:1');
    await press('Read it so');
    expect((await screen.findByRole('alert')).textContent).toMatch(/EPSG/);
    await userEvent.clear(screen.getByLabelText('Coordinate system'));
    await userEvent.type(screen.getByLabelText('Coordinate system'), code);
    await press('Read it so');
    await press((await screen.findByRole('button', { name: 'Bring in 1' })).textContent);
    expect(areaOf(strokes[0]!.newZones![0]!.geometry as never)).toBeCloseTo(200, -1);
  });

  it.each([
    ['notes.txt', 'nothing of a plan', /^A table of zones has a column/],
    ['cut.geojson', '{"type":"FeatureColl', /JSON|end|cut/i],
    ['empty.kml', '<kml><Document></Document></kml>', /nothing|no /i],
  ])('%s is refused in words, and another can be chosen', async (name, text, words) => {
    open();
    await drop(name, text);
    expect((await screen.findByRole('alert')).textContent).toMatch(words);
    expect(screen.getByRole('button', { name: 'Choose a file' })).toHaveProperty('disabled', false);
    await drop('site.geojson', collection(lawn));
    expect(await screen.findByRole('row', { name: /South lawn/ })).toBeTruthy();
  });

  it('is told when its reader stops', async () => {
    open();
    besidePage({
      'readFile.worker.ts': { read: () => Promise.reject(new Error('The work in the background stopped.')) },
    });
    await drop('site.geojson', collection(lawn));
    expect((await screen.findByRole('alert')).textContent).toBe('The work in the background stopped.');
  });
});

describe('a shape by its lengths', () => {
  function Shape() {
    const [value, setValue] = useState<TypedShape>(freshShape);
    return <ShapeFields value={value} onChange={setValue} asked />;
  }
  const area = (): string | undefined => screen.queryByText(/^, give or take/)?.textContent;

  it('has its area with its doubt as it is typed, and says by length what is missing', async () => {
    localStorage.clear();
    show(<Shape />);
    expect(screen.getAllByText('Measure this too.')).toHaveLength(1);
    await userEvent.type(screen.getByLabelText('Length'), '40 ft');
    await userEvent.type(screen.getByLabelText('Width'), '25');
    expect(area()).toMatch(/^1,000 ft², give or take \d/);
  });

  it('by its three sides must close', async () => {
    show(<Shape />, { units: 'metric' });
    await choose('Shape', 'Triangle, by its three sides');
    for (const [side, length] of [
      ['Side A', '3'],
      ['Side B', '4'],
      ['Side C', '9'],
    ] as const)
      await userEvent.type(screen.getByLabelText(side), length);
    expect(area()).toBeUndefined();
    expect(screen.getByText(/side|close/i, { selector: 'p' })).toBeTruthy();
    await userEvent.clear(screen.getByLabelText('Side C'));
    await userEvent.type(screen.getByLabelText('Side C'), '5');
    // 3 × 4 ÷ 2.
    expect(area()).toMatch(/^6(\.0)? m²/);
  });

  it('in paces wants one’s own pace first, and is less sure', async () => {
    localStorage.clear();
    show(<Shape />, { units: 'metric' });
    await press('By paces');
    expect(screen.getByText('Find the length of your pace first.', { selector: 'p' })).toBeTruthy();
    for (const [walk, paces] of [40, 41, 39].entries()) {
      await userEvent.type(screen.getByLabelText(`Walk ${walk + 1}`), '30');
      await userEvent.type(screen.getAllByLabelText('Paces')[walk]!, String(paces));
    }
    await press('This is my pace');
    expect(screen.getByText(/One pace is 0\.75 m/)).toBeTruthy();
    await userEvent.type(screen.getByLabelText('Length, paces'), '20');
    await userEvent.type(screen.getByLabelText('Width, paces'), '10');
    // 15 m × 7.5 m, each side off by the 2.5 % of the walks: √2 × 2.5 % of it.
    expect(area()).toMatch(/^113 m², give or take 4 m²/);
  });
});
