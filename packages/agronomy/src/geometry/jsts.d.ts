/** The parts of the library that are used here, typed as they are used; its own types are of `any`. */
declare module 'jsts/org/locationtech/jts/geom/Geometry.js' {
  export default class Geometry {
    getArea(): number;
    getLength(): number;
    isEmpty(): boolean;
    getNumGeometries(): number;
    getGeometryN(index: number): Geometry;
    getGeometryType(): string;
    getBoundary(): Geometry;
  }
}
declare module 'jsts/org/locationtech/jts/geom/GeometryFactory.js' {
  export default class GeometryFactory {}
}
declare module 'jsts/org/locationtech/jts/io/GeoJSONReader.js' {
  import type Geometry from 'jsts/org/locationtech/jts/geom/Geometry.js';
  export default class GeoJSONReader {
    read(geoJson: object): Geometry;
  }
}
declare module 'jsts/org/locationtech/jts/io/GeoJSONWriter.js' {
  import type Geometry from 'jsts/org/locationtech/jts/geom/Geometry.js';
  export default class GeoJSONWriter {
    write(geometry: Geometry): { readonly type: string; readonly coordinates: number[][][] };
  }
}
declare module 'jsts/org/locationtech/jts/operation/overlay/OverlayOp.js' {
  export default class OverlayOp {
    static INTERSECTION: number;
    static UNION: number;
    static DIFFERENCE: number;
  }
}
declare module 'jsts/org/locationtech/jts/operation/overlay/snap/SnapIfNeededOverlayOp.js' {
  import type Geometry from 'jsts/org/locationtech/jts/geom/Geometry.js';
  export default class SnapIfNeededOverlayOp {
    static overlayOp(one: Geometry, other: Geometry, operation: number): Geometry;
  }
}
declare module 'jsts/org/locationtech/jts/operation/buffer/BufferParameters.js' {
  export default class BufferParameters {
    constructor(quadrantSegments: number, endCapStyle: number, joinStyle: number, mitreLimit: number);
    static CAP_ROUND: number;
    static CAP_FLAT: number;
    static JOIN_ROUND: number;
    static JOIN_MITRE: number;
  }
}
declare module 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js' {
  import type Geometry from 'jsts/org/locationtech/jts/geom/Geometry.js';
  import type BufferParameters from 'jsts/org/locationtech/jts/operation/buffer/BufferParameters.js';
  export default class BufferOp {
    static bufferOp(geometry: Geometry, distance: number, parameters: BufferParameters): Geometry;
  }
}
declare module 'jsts/org/locationtech/jts/operation/polygonize/Polygonizer.js' {
  import type Geometry from 'jsts/org/locationtech/jts/geom/Geometry.js';
  export default class Polygonizer {
    add(geometry: Geometry): void;
    getPolygons(): { toArray(): Geometry[] };
  }
}
declare module 'jsts/org/locationtech/jts/operation/valid/IsValidOp.js' {
  import type Geometry from 'jsts/org/locationtech/jts/geom/Geometry.js';
  export default class IsValidOp {
    static isValid(geometry: Geometry): boolean;
  }
}
