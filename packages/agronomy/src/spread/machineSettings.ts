import { spreading } from './spreading.ts';

/** A setting that was tried over a known area. */
export interface TriedSetting {
  readonly productId: string;
  /** As it stands on the machine. */
  readonly setting: string;
  /** g/m² of product in one pass; mL/m² of mix for a sprayer. */
  readonly rate: number;
  /** `2026-03-14`; nothing where nobody noted it. */
  readonly checkedOn?: string | null | undefined;
}

export interface ProposedSetting {
  readonly setting: string;
  /** `tried` as it is; `reckoned` in proportion from a tried one, to be tried first. */
  readonly by: 'tried' | 'reckoned';
  readonly from: TriedSetting;
  /** The trial is old, or of no known day. */
  readonly old: boolean;
}

/** A setting that is a number, half marks included. */
function numberOf(setting: string): number | undefined {
  const plain = setting.trim().replace(',', '.').replace('½', '.5').replace('¼', '.25').replace('¾', '.75');
  return /^\d+(?:\.\d+)?$|^\.\d+$/.test(plain) ? Number(plain) : undefined;
}

/** A setting scaled by a correction; nothing where it is no number or the correction is too far. */
export function nextSetting(setting: string, correction: number): string | undefined {
  const number = numberOf(setting);
  const { stretch } = spreading;
  if (number === undefined || correction > stretch || correction < 1 / stretch) return undefined;
  return String(Number((number * correction).toPrecision(2)));
}

/**
 * How a machine is set for a product.
 * @param wanted in one pass, g/m² or mL/m²; `today` `2026-03-14`
 * @returns nothing while no setting was tried near enough
 */
export function settingFor(
  tried: readonly TriedSetting[],
  productId: string,
  wanted: number,
  today: string,
): ProposedSetting | undefined {
  const off = ({ rate }: TriedSetting): number => Math.abs(Math.log(wanted / rate));
  const [from] = tried
    .filter((one) => one.productId === productId && one.rate > 0)
    .sort((one, other) => off(one) - off(other) || (other.checkedOn ?? '').localeCompare(one.checkedOn ?? ''));
  if (!from) return undefined;
  const age = from.checkedOn ? (Date.parse(today) - Date.parse(from.checkedOn)) / 86_400_000 : Infinity;
  const old = age > spreading.oldAfter;
  const correction = wanted / from.rate;
  if (Math.abs(correction - 1) * 100 <= spreading.sameWithin) return { setting: from.setting, by: 'tried', from, old };
  const setting = nextSetting(from.setting, correction);
  return setting === undefined ? undefined : { setting, by: 'reckoned', from, old };
}
