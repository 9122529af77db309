import { GeometryError, type Outline, treatedArea } from '@glenfold/agronomy/geometry';
import { refuse } from '../platform/problem.ts';
import { threaded } from '../platform/threaded.ts';

interface Drawn {
  readonly name: string;
  readonly geometry: Outline;
}

/** m² of each zone less what is not treated, to a tenth. @throws a refusal that names the zone whose outline is no ground */
export const treatedAreas = threaded(
  import.meta.url,
  'treatedAreas',
  (zones: readonly Drawn[], exclusions: readonly Outline[]): number[] =>
    zones.map(({ name, geometry }) => {
      try {
        return Math.round(treatedArea(geometry, exclusions).area * 10) / 10;
      } catch (error) {
        if (error instanceof GeometryError) refuse([{ field: 'outlines', message: `${name}: ${error.message}` }]);
        throw error;
      }
    }),
);
