import type { UnitSystem } from '@glenfold/agronomy';
import Feature from 'ol/Feature.js';
import type OlMap from 'ol/Map.js';
import { LineString } from 'ol/geom.js';
import VectorLayer from 'ol/layer/Vector.js';
import VectorSource from 'ol/source/Vector.js';
import { gridStep, gridStyle } from './paper.ts';

/** Lines of whole metres or feet through what is in sight, every fifth heavier. */
export class SheetGrid {
  readonly #source = new VectorSource<Feature>();
  readonly layer = new VectorLayer({ source: this.#source, zIndex: 0, updateWhileAnimating: true });
  #drawn = '';

  constructor() {
    this.layer.setStyle((feature) => gridStyle[feature.get('heavy') ? 1 : 0]);
  }

  /** Draw what the map shows now; nothing is done while it shows the same squares. */
  draw(map: OlMap, system: UnitSystem): void {
    const view = map.getView();
    const resolution = view.getResolution();
    const size = map.getSize();
    if (!resolution || !size) return;
    const step = gridStep(resolution, system);
    const [west = 0, south = 0, east = 0, north = 0] = view.calculateExtent(size);
    const cells = [west, south, east, north].map((edge) => Math.floor(edge / step / 5));
    const squares = `${system} ${step} ${cells.join()}`;
    if (squares === this.#drawn) return;
    this.#drawn = squares;
    const [left = 0, bottom = 0, right = 0, top = 0] = cells.map((cell, index) => (cell + (index < 2 ? -1 : 2)) * 5);
    const lines: Feature[] = [];
    const line = (at: number, from: number[], to: number[]): void => {
      lines.push(new Feature({ geometry: new LineString([from, to]), heavy: at % 5 === 0 }));
    };
    for (let at = left; at <= right; at += 1) line(at, [at * step, bottom * step], [at * step, top * step]);
    for (let at = bottom; at <= top; at += 1) line(at, [left * step, at * step], [right * step, at * step]);
    this.#source.clear(true);
    this.#source.addFeatures(lines);
  }
}
