import { type Outline, Plane, type PlanePoint, type Position, chanceFrom } from '../src/geometry/index.ts';
import {
  coringGround,
  corePlaces,
  meanSquaredShortestDistance,
  nearestNeighbourTour,
  shortestWalk,
  spanningTreeLength,
  tourLength,
} from '../src/sampling/index.ts';
import { many } from './timing.ts';

// npm run bench -- sampling. A large site: how good the places and the walk are, and what they cost, against the plain ways to have them.
const ZONES = many(40);
const CORES = 20;
const plane = new Plane([-36, 46.5]);

/** L-shaped lawns of several sizes, side by side. */
const grounds = Array.from({ length: ZONES }, (_, zone): Outline => {
  const chance = chanceFrom(zone);
  const [long, wide] = [30 + 16 * chance(), 12 + 6 * chance()];
  const arm = long * (0.4 + 0.4 * chance());
  const [x, y] = [(zone % 8) * 50, Math.floor(zone / 8) * 40];
  const corners: PlanePoint[] = [[0, 0], [long, 0], [long, wide], [arm, wide], [arm, 2 * wide], [0, 2 * wide], [0, 0]]; // prettier-ignore
  const ring = corners.map(([east, north]) => [...plane.toMap([x + east, y + north])]);
  return coringGround({ outline: { type: 'Polygon', coordinates: [ring] }, exclusions: [], lines: [], edge: 1, clear: 1 }); // prettier-ignore
});

function timed<T>(work: () => T): { readonly result: T; readonly ms: number } {
  const start = performance.now();
  return { result: work(), ms: performance.now() - start };
}
const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;
const say = (text: string): void => void process.stdout.write(`${text}\n`);

const placed = (design: 'coverage' | 'random') =>
  timed(() => grounds.map((ground, zone) => corePlaces(ground, CORES, design, zone)));
const [even, chance] = [placed('coverage'), placed('random')];
const far = (places: ReadonlyArray<readonly Position[]>): number =>
  mean(grounds.map((ground, zone) => meanSquaredShortestDistance(ground, places[zone]!)));
say(`${ZONES} zones × ${CORES} cores`);
say(`even cover: mean squared shortest distance ${(far(even.result) / far(chance.result)).toFixed(2)} × that of random places; ${(even.ms / chance.ms).toFixed(0)} × their time, ${even.ms.toFixed(0)} ms`); // prettier-ignore

const points: PlanePoint[] = [[-10, -10], ...even.result.flat().map((place) => plane.toPlane(place))];
const nearest = timed(() => nearestNeighbourTour(points));
const walk = timed(() => shortestWalk(points));
const length = tourLength(points, walk.result);
say(`the walk: ${(length / tourLength(points, nearest.result)).toFixed(3)} × the nearest-neighbour tour, ${(length / spanningTreeLength(points)).toFixed(3)} × the lower bound (minimum spanning tree); ${(walk.ms / nearest.ms).toFixed(0)} × the tour’s time, ${walk.ms.toFixed(0)} ms`); // prettier-ignore
