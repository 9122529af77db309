/** [longitude, latitude] in degrees, WGS84. */
export type Position = readonly [longitude: number, latitude: number];
/** [east, north] in metres of a plane's origin. */
export type PlanePoint = readonly [east: number, north: number];

const SEMI_MAJOR = 6_378_137;
const ECCENTRICITY_SQUARED = 0.006_694_379_990_14;
const DEGREE = Math.PI / 180;

/** Radii of curvature of the WGS84 ellipsoid at a latitude in radians: along the meridian and across it, m. */
function radii(latitude: number): { readonly meridian: number; readonly normal: number } {
  const w = 1 - ECCENTRICITY_SQUARED * Math.sin(latitude) ** 2;
  return { meridian: (SEMI_MAJOR * (1 - ECCENTRICITY_SQUARED)) / w ** 1.5, normal: SEMI_MAJOR / Math.sqrt(w) };
}

/**
 * A flat sheet of metres laid on the ellipsoid at a site, on which lengths are typed and shapes are cut. The
 * projection keeps areas (sinusoidal, about the site's own meridian); within a kilometre of the origin lengths are true
 * to a few parts in ten thousand. Areas that are shown are measured on the ellipsoid, not here.
 */
export class Plane {
  readonly #longitude: number;
  readonly #latitude: number;

  /** @param origin a point of the site. */
  constructor([longitude, latitude]: Position) {
    this.#longitude = longitude * DEGREE;
    this.#latitude = latitude * DEGREE;
  }

  toPlane([longitude, latitude]: Position): PlanePoint {
    const phi = latitude * DEGREE;
    const east = (longitude * DEGREE - this.#longitude) * radii(phi).normal * Math.cos(phi);
    return [east, (phi - this.#latitude) * radii((phi + this.#latitude) / 2).meridian];
  }

  /** To 1e-9 °, a tenth of a millimetre. */
  toMap([east, north]: PlanePoint): Position {
    let phi = this.#latitude;
    for (let pass = 0; pass < 3; pass += 1) phi = this.#latitude + north / radii((phi + this.#latitude) / 2).meridian;
    const lambda = this.#longitude + east / (radii(phi).normal * Math.cos(phi));
    const rounded = (radians: number): number => Math.round((radians / DEGREE) * 1e9) / 1e9;
    return [rounded(lambda), rounded(phi)];
  }
}
