/** What is used of the package, which tells no types. */
declare module 'shpjs' {
  import type { Geometry } from 'geojson';

  /** Geometries of the records of a .shp, in degrees where the text of a .prj is given. */
  export function parseShp(shp: ArrayBufferView, prj: string | undefined): Geometry[];
  /** Rows of a .dbf, in the encoding that a .cpg names. */
  export function parseDbf(
    dbf: ArrayBufferView,
    encoding: ArrayBufferView | undefined,
  ): Array<Record<string, string | number | boolean | null>>;
}
