import { nutrients } from '../analytes/analytes.ts';
import { type ReportedValue, type ReportedValues, inOwnUnit } from '../analytes/reported.ts';
import type { BufferMethod } from '../lab/buffers.ts';
import { phInWater } from '../lab/saltPh.ts';
import type { Extractant } from '../nutrients/sufficiencyTables.ts';
import { cationTables } from '../soil/cations.ts';
import { type Figure, WorkingBook, figure } from '../working/working.ts';
import type { SoilTest } from './zoneFacts.ts';

/** What a laboratory reported of a sample, value by value, and by which methods. */
export interface ReportedSample {
  readonly values: ReportedValues;
  /** Of the nutrients, where a value does not name its own. */
  readonly extractant: Extractant;
  readonly bufferMethod?: BufferMethod | undefined;
  /** By which an Adams–Evans laboratory has multiplied its lime already. */
  readonly limeFactor?: number | undefined;
  /** cm */
  readonly depth: number;
  /** `2026-09-01` */
  readonly sampledOn?: string | undefined;
}

/** Organic matter / organic carbon. */
const VAN_BEMMELEN = 1.724;
const VAN_BEMMELEN_SOURCE = 'Van Bemmelen factor: organic matter with 58 % of carbon';

function organicMatterOf({ organicMatter, organicCarbon }: ReportedValues): Figure | undefined {
  if (organicMatter) return { ...inOwnUnit('organicMatter', organicMatter), working: [] };
  if (!organicCarbon) return undefined;
  const carbon = inOwnUnit('organicCarbon', organicCarbon);
  const book = new WorkingBook();
  const value = carbon.value * VAN_BEMMELEN;
  book.step({
    label: 'Organic matter from organic carbon',
    formula: `carbon × ${VAN_BEMMELEN}`,
    numbers: `${figure(carbon.value)} % × ${VAN_BEMMELEN}`,
    result: value,
    unit: '%',
    source: VAN_BEMMELEN_SOURCE,
  });
  return { value, working: book.entries };
}

/** Exchangeable sodium as reported, or as the share of sodium in the exchange capacity. */
function espOf({ esp, na, cec }: ReportedValues): Figure | undefined {
  if (esp) return { ...inOwnUnit('esp', esp), working: [] };
  if (!na || !cec || na.belowDetection) return undefined;
  const [sodium, capacity] = [inOwnUnit('na', na).value, inOwnUnit('cec', cec).value];
  if (capacity <= 0) return undefined;
  const perCmol = cationTables.charge.mgPerCmol.na;
  const value = Math.min(100, ((sodium / perCmol) * 100) / capacity);
  const book = new WorkingBook();
  book.step({
    label: 'Exchangeable sodium',
    formula: `100 × Na / ${perCmol} / exchange capacity`,
    numbers: `100 × ${figure(sodium)} / ${perCmol} / ${figure(capacity)}`,
    result: value,
    unit: '%',
    source: cationTables.charge.source,
  });
  return { value, working: book.entries };
}

/** The pH as water would have read it; nothing where none was reported. */
export function waterPh({ soilPh, calciumChloridePh, saltPh }: ReportedValues): number | undefined {
  const other = calciumChloridePh ?? saltPh;
  return soilPh?.value ?? (other && phInWater(other.value));
}

/** %, as reported or from carbon. */
export const organicMatterIn = (values: ReportedValues): number | undefined => organicMatterOf(values)?.value;

/** dS/m of the saturated paste, or of a thinner extract. */
export function saltIn({ ecPaste, ec12, ec15 }: ReportedValues): Pick<SoilTest, 'ec' | 'ecDiluted'> {
  const ec = ecPaste && inOwnUnit('ecPaste', ecPaste).value;
  if (ec12) return { ec, ecDiluted: { ratio: '1:2', value: inOwnUnit('ec12', ec12).value } };
  if (ec15) return { ec, ecDiluted: { ratio: '1:5', value: inOwnUnit('ec15', ec15).value } };
  return { ec };
}

/**
 * What a report says, understood: water is read where it and a salt were printed, organic matter may come from carbon,
 * exchangeable sodium from sodium and the exchange capacity.
 *
 * @returns nothing where no pH was reported, without which nothing can be read.
 */
export function soilTestOf(sample: ReportedSample): SoilTest | undefined {
  const { values, bufferMethod, limeFactor, extractant, depth, sampledOn } = sample;
  const { soilPh, saltPh, calciumChloridePh, bufferPh, cec, carbonate } = values;
  const ph = soilPh ?? calciumChloridePh ?? saltPh;
  if (!ph) return undefined;
  const own = (key: 'cec' | 'carbonate', value: ReportedValue | undefined) => value && inOwnUnit(key, value).value;
  const organicMatter = organicMatterOf(values);
  const esp = espOf(values);
  return {
    soilPh: ph.value,
    ...(soilPh ? {} : { phIn: calciumChloridePh ? ('CaCl2' as const) : ('salt' as const) }),
    ...(bufferPh && bufferMethod ? { buffer: { method: bufferMethod, ph: bufferPh.value, limeFactor } } : {}),
    extractant,
    depth,
    organicMatter: organicMatter?.value,
    nutrients: Object.fromEntries(nutrients.flatMap((key) => (values[key] ? [[key, values[key]]] : []))),
    ...saltIn(values),
    esp: esp?.value,
    cec: own('cec', cec),
    carbonate: own('carbonate', carbonate),
    values,
    steps: { organicMatter: organicMatter?.working, esp: esp?.working },
    sampledOn,
  };
}
