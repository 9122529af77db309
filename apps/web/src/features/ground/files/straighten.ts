import { InputError, type DrawnGeometry, checkGeometry } from '@glenfold/agronomy';
import { Plane, type Position } from '@glenfold/agronomy/geometry';
import type { Geometry } from 'geojson';

export interface Straightened {
  readonly geometry: DrawnGeometry | null;
  readonly repairs: readonly string[];
  readonly fault?: string;
}

/** A foreign file's site lies within this of ours, or its coordinates are not what they seem, m. */
const FAR = 50_000;

type Loose = ReadonlyArray<readonly number[]>;

/** Puts foreign geometries right where that is safe, and says what it did. */
export class Straightener {
  readonly #degrees: (point: readonly number[]) => [number, number];
  readonly #near: Plane | null;
  readonly #exchanged: boolean;
  #first: readonly [number, number] | undefined;
  #swapped = 0;
  #metres = 0;
  #heights = 0;

  /**
   * @param near a place of the site; coordinates that only lie there when swapped are swapped
   * @param exchanged the person has said that latitude comes first
   */
  constructor(degrees: (point: readonly number[]) => [number, number], near: Position | null, exchanged = false) {
    this.#degrees = degrees;
    this.#near = exchanged ? null : near && new Plane(near);
    this.#exchanged = exchanged;
  }

  /** The numbers are beyond any degrees. */
  get inMetres(): boolean {
    return this.#metres > 0;
  }

  /** What was done to the whole file. */
  get notes(): string[] {
    return [
      ...(this.#swapped > 0
        ? [
            this.#exchanged
              ? 'Read with latitude before longitude, as you said.'
              : 'The file tells latitude before longitude: the two were swapped, so that it lies where the site is.',
          ]
        : []),
      ...(this.#heights > 0 ? ['Heights above the sea in the file are not used.'] : []),
      ...(this.#first ? [`It lies at ${onEarth(this.#first)}.`] : []),
    ];
  }

  straighten(raw: Exclude<Geometry, { type: 'GeometryCollection' }>): Straightened {
    const repairs: string[] = [];
    const geometry = this.#read(raw, repairs);
    if (!geometry) return { geometry: null, repairs, fault: `A ${raw.type} is not drawn here.` };
    try {
      const kind = geometry.type === 'Point' ? 'tree' : geometry.type === 'LineString' ? 'fence' : 'zone';
      checkGeometry(geometry, kind, 'It');
      return { geometry, repairs };
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      return { geometry: null, repairs, fault: `${error.message}.` };
    }
  }

  #read(raw: Exclude<Geometry, { type: 'GeometryCollection' }>, repairs: string[]): DrawnGeometry | null {
    switch (raw.type) {
      case 'Point':
        return { type: 'Point', coordinates: this.#point(raw.coordinates) };
      case 'LineString':
        return { type: 'LineString', coordinates: this.#tidy(raw.coordinates, repairs) };
      case 'Polygon':
        return { type: 'Polygon', coordinates: raw.coordinates.map((ring) => this.#ring(ring, repairs)) };
      case 'MultiPolygon': {
        const parts = raw.coordinates.map((part) => part.map((ring) => this.#ring(ring, repairs)));
        return parts.length === 1
          ? { type: 'Polygon', coordinates: parts[0]! }
          : { type: 'MultiPolygon', coordinates: parts };
      }
      default:
        return null;
    }
  }

  #point(raw: readonly number[]): number[] {
    if (raw.length > 2) this.#heights += 1;
    const [x, y] = this.#degrees(raw);
    const asIs = Math.abs(x) <= 180 && Math.abs(y) <= 90;
    const asSwapped = Math.abs(y) <= 180 && Math.abs(x) <= 90;
    if (!asIs && !asSwapped && (Math.abs(x) > 360 || Math.abs(y) > 360)) this.#metres += 1;
    const away = (longitude: number, latitude: number): number =>
      this.#near ? Math.hypot(...this.#near.toPlane([longitude, latitude])) : Infinity;
    const swap = this.#exchanged ? asSwapped : asSwapped && (!asIs || (away(x, y) > FAR && away(y, x) < FAR));
    if (swap) this.#swapped += 1;
    const there: [number, number] = swap ? [y, x] : [x, y];
    this.#first ??= there;
    return there;
  }

  /** Without points that are said twice. */
  #tidy(raw: Loose, repairs: string[]): number[][] {
    const points = raw.map((point) => this.#point(point));
    const kept = points.filter(
      ([x, y], index) => index === 0 || x !== points[index - 1]![0] || y !== points[index - 1]![1],
    );
    if (kept.length < points.length && !repairs.includes(DOUBLED)) repairs.push(DOUBLED);
    return kept;
  }

  #ring(raw: Loose, repairs: string[]): number[][] {
    const ring = this.#tidy(raw, repairs);
    const [first, last] = [ring[0], ring.at(-1)];
    if (first && last && (first[0] !== last[0] || first[1] !== last[1])) {
      ring.push([...first]);
      if (!repairs.includes(OPEN)) repairs.push(OPEN);
    }
    return ring;
  }
}

/** "46.50° N, 36.00° W". */
function onEarth([longitude, latitude]: readonly [number, number]): string {
  const told = (value: number, [plus, minus]: readonly [string, string]): string =>
    `${Math.abs(value).toFixed(2)}° ${value < 0 ? minus : plus}`;
  return `${told(latitude, ['N', 'S'])}, ${told(longitude, ['E', 'W'])}`;
}

const DOUBLED = 'Corners that were said twice were taken out.';
const OPEN = 'The outline was open: it was closed from its last corner to its first.';
