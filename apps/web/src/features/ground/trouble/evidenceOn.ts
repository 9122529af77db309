import { type Evidence, zoneEvidence } from '@glenfold/agronomy';
import { drawnFacts } from '@glenfold/agronomy/geometry';
import type { DrawingAnswer, LabResultAnswer, ZoneAnswer } from '@glenfold/contract';

/** All that is known of a zone: recorded, tested and drawn. @param today the day at the place, ISO 8601 */
export function evidenceOn(
  zone: ZoneAnswer,
  result: LabResultAnswer | undefined,
  { features }: Pick<DrawingAnswer, 'features'>,
  today: string,
): Evidence {
  const [, latitude] = zone.geometry?.coordinates.flat(3) ?? [];
  return zoneEvidence(zone, {
    values: result?.values,
    drawn: drawnFacts(zone.geometry, features),
    latitude,
    today,
  });
}
