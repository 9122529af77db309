/** What a plan is drawn, cut and checked with; apart from the rest, since it brings a geometry library. */
export * from './plane.ts';
export * from './polygons.ts';
