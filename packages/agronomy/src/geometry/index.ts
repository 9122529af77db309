/** What a plan is drawn, cut and checked with; apart from the rest, since it brings a geometry library. */
export * from './chance.ts';
export * from './divisions.ts';
export * from './drawnFacts.ts';
export * from './faults.ts';
export * from './fit.ts';
export * from './frame.ts';
export * from './levels.ts';
export * from './noisyWalk.ts';
export { type Outline, GeometryError, areaOf, partsOf, perimeterOf } from './outline.ts';
export * from './plane.ts';
export * from './polygons.ts';
export * from './walk.ts';
