import { organicMatterIn, waterPh } from '@glenfold/agronomy';
import type { LabResultAnswer } from '@glenfold/contract';

/** Whether rates rest on a result: of soil, and nothing has taken its place. */
export const isCurrent = ({ of, supersededById }: LabResultAnswer): boolean => of === 'soil' && supersededById === null;

/** The newest result of a zone; where it was not sampled itself, that of the ground it came from. @param results newest first */
export function newestOf(results: readonly LabResultAnswer[], zoneId: string | undefined): LabResultAnswer | undefined {
  if (zoneId === undefined) return undefined;
  const current = results.filter(isCurrent);
  return (
    current.find(({ zoneIds }) => zoneIds.includes(zoneId)) ??
    current.find(({ inherited }) => inherited.some((heir) => heir.zoneId === zoneId))
  );
}

/** pH in water, to the tenth; a dash where none was reported. */
export const phText = ({ values }: Pick<LabResultAnswer, 'values'>): string => waterPh(values)?.toFixed(1) ?? '–';

/** What of a result is drawn in a core: pH in water, organic matter in %. */
export function drawnOf({ values, depth }: Pick<LabResultAnswer, 'values' | 'depth'>) {
  return { ph: waterPh(values), organicMatter: organicMatterIn(values), depth };
}
