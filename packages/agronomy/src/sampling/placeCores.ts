import { GeometryError, type Outline } from '../geometry/outline.ts';
import { Plane, type Position } from '../geometry/plane.ts';
import type { PointDesign } from './designTables.ts';
import { type GroundAbout, corePlaces, coringGround } from './points.ts';
import { shortestWalk, tourLength } from './route.ts';

export interface ZoneToCore {
  readonly id: string;
  /** Of the bag that its cores go into. */
  readonly bag: string;
  readonly name: string;
  /** Nothing where the zone is not drawn. */
  readonly outline: Outline | null;
  readonly cores: number;
  /** The bad part of it, or the healthy. */
  readonly about?: GroundAbout | undefined;
}

export interface DesignTask {
  readonly zones: readonly ZoneToCore[];
  readonly exclusions: readonly Outline[];
  readonly lines: ReadonlyArray<readonly Position[]>;
  readonly edge: number;
  readonly clear: number;
  readonly design: PointDesign;
  readonly seed: number;
  readonly gate: Position | null;
}

export interface DesignedCore {
  readonly bag: string;
  readonly zoneId: string;
  readonly place: Position | null;
  readonly turn: number;
}

export interface Designed {
  readonly cores: readonly DesignedCore[];
  /** Why a zone has no places, in words. */
  readonly problems: ReadonlyArray<{ readonly bag: string; readonly words: string }>;
  /** From the gate through all and back, in the order of walking. */
  readonly way: readonly Position[];
  /** m */
  readonly length: number;
}

/**
 * Where to push the probe and how to walk there.
 * @param onProgress told the share that is done, 0 to 1
 */
export function placeCores(task: DesignTask, onProgress: (share: number) => void): Designed {
  const placed: Array<{ zoneId: string; bag: string; place: Position | null }> = [];
  const problems: Array<{ bag: string; words: string }> = [];
  for (const [index, { id, bag, name, outline, cores, about }] of task.zones.entries()) {
    if (!outline) for (let core = 0; core < cores; core += 1) placed.push({ zoneId: id, bag, place: null });
    else
      try {
        const { exclusions, lines, edge, clear } = task;
        const ground = coringGround({ outline, exclusions, lines, edge, clear, about });
        placed.push(
          ...corePlaces(ground, cores, task.design, task.seed + index).map((place) => ({ zoneId: id, bag, place })),
        );
      } catch (error) {
        if (!(error instanceof GeometryError)) throw error;
        problems.push({ bag, words: `${name}: ${error.message}` });
      }
    onProgress((0.8 * (index + 1)) / task.zones.length);
  }
  const onMap = placed.flatMap(({ place }, at) => (place ? [{ place, at }] : []));
  const begin = task.gate ?? onMap[0]?.place;
  if (!begin) return { cores: placed.map((core, turn) => ({ ...core, turn: turn + 1 })), problems, way: [], length: 0 };
  const plane = new Plane(begin);
  const points = [begin, ...onMap.map(({ place }) => place)].map((place) => plane.toPlane(place));
  const order = shortestWalk(points, (share) => onProgress(0.8 + 0.2 * share));
  const walked = order.slice(1).map((at) => onMap[at - 1]!);
  const inOrder = [...walked.map(({ at }) => placed[at]!), ...placed.filter(({ place }) => !place)];
  return {
    cores: inOrder.map((core, turn) => ({ ...core, turn: turn + 1 })),
    problems,
    way: [begin, ...walked.map(({ place }) => place), begin],
    length: tourLength(points, order),
  };
}
