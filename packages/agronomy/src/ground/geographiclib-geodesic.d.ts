/** The part of the library that is used here; it ships no types of its own. */
declare module 'geographiclib-geodesic' {
  interface PolygonArea {
    AddPoint(latitude: number, longitude: number): void;
    Compute(reverse: boolean, sign: boolean): { number: number; perimeter: number; area?: number };
  }
  const geodesic: { Geodesic: { WGS84: { Polygon(polyline: boolean): PolygonArea } } };
  export default geodesic;
}
