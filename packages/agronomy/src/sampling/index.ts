/** Where to push the probe and how to walk there; apart from the rest, since it brings a geometry library. */
export * from './placeCores.ts';
export * from './points.ts';
export * from './route.ts';
