import {
  InputError,
  type LabRow,
  analyteWord,
  analytes,
  readBagCode,
  soilAnalytes,
  writeBagCode,
} from '@glenfold/agronomy';
import type { RowChoice } from '@glenfold/contract';
import type { Zone } from '../ground/zone.entity.ts';
import type { FilledBag } from '../sampling/sampling.service.ts';

/** Where a line of a report goes: to one zone, or to the zones that share a bag. */
export interface RowGoal {
  readonly zoneIds: readonly string[];
  readonly bag?: FilledBag;
  /** Why it goes nowhere. */
  readonly fault?: string;
}

/** Letters and digits alone: spaces, case and hyphens do not matter. */
const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '');

/** Where a line goes by its label, or by what the person chose. */
export function goalOf(
  label: string,
  chosen: RowChoice | undefined,
  zones: ReadonlyArray<Pick<Zone, 'id' | 'name' | 'label'>>,
  bags: readonly FilledBag[],
): RowGoal {
  const bag = chosen
    ? bags.find(({ id }) => id === chosen.bagId)
    : bags.find(({ code }) => plain(code) === plain(label));
  if (bag) {
    const zoneIds = bag.zoneIds.filter((id) => zones.some((zone) => zone.id === id));
    return zoneIds.length > 0 ? { zoneIds, bag } : { zoneIds, fault: 'The zones of this bag were deleted meanwhile.' };
  }
  if (chosen)
    return chosen.zoneId === null ? { zoneIds: [], fault: 'Set to go nowhere.' } : { zoneIds: [chosen.zoneId] };
  if (plain(label) === '') return { zoneIds: [] };
  const zone =
    zones.find((one) => plain(one.label) === plain(label)) ?? zones.find((one) => plain(one.name) === plain(label));
  return zone ? { zoneIds: [zone.id] } : { zoneIds: [], fault: strange(label, bags) };
}

/** What to do about a label that no zone and no bag has. */
function strange(label: string, bags: readonly FilledBag[]): string {
  const near = bags.filter(({ code }) => looksLike(code, plain(label).toUpperCase()));
  if (near.length > 0)
    return `“${label}” is no bag here, and its check sign is wrong. ${near.map(({ code }) => writeBagCode(code)).join(' or ')} looks like it: choose the bag if the laboratory means it.`;
  try {
    readBagCode(label);
    return `Bag ${label} is not of this site: was the report of another client sent? Choose a zone only if you are sure.`;
  } catch (error) {
    if (!(error instanceof InputError)) throw error;
    return `No zone here has the bag label "${label}": choose its zone.`;
  }
}

/** One sign other, or two signs changed about. */
function looksLike(code: string, other: string): boolean {
  if (code.length !== other.length) return false;
  const differ = [...code].map((_, at) => at).filter((at) => code[at] !== other[at]);
  const [one = 0, two = 0] = differ;
  return differ.length === 1 || (differ.length === 2 && code[one] === other[two] && code[two] === other[one]);
}

/** What was asked for and is not in the line: the analytes that a panel must bring. Salts may come by any extract. */
export function missingOf(panels: readonly string[], { values }: LabRow): string[] {
  const has = (key: (typeof soilAnalytes)[number]): boolean =>
    key === 'ecPaste'
      ? salts.some((one) => values[one])
      : key === 'na'
        ? !!(values.na ?? values.esp)
        : key === 'soilPh'
          ? !!(values.soilPh ?? values.calciumChloridePh ?? values.saltPh)
          : !!values[key];
  return soilAnalytes.flatMap((key) => {
    const { panel, kind, symbol } = analytes[key];
    // A buffer is left out where no lime is wanted.
    if (panel === undefined || !panels.includes(panel) || key === 'bufferPh' || has(key)) return [];
    return [kind === 'nutrients' ? symbol : analyteWord(key)];
  });
}

const salts = ['ecPaste', 'ec12', 'ec15', 'ec'] as const;
