import { type UnitSystem, present } from '../units/present.ts';
import type { Delivery, Supply } from './treatment.ts';

const senses = { kg: 'mass', L: 'liquid', m3: 'volume' } as const;

/** An amount of a supply in the reader’s unit. */
export const tellSupply = (value: number, unit: Supply['unit'], system: UnitSystem): string =>
  present(senses[unit], value, system).text;

/** Whether it is ordered loose, by the cubic metre. */
export const isLoose = ({ unit, packSize }: Pick<Supply, 'unit' | 'packSize'>): boolean =>
  unit === 'm3' && packSize === 1;

/** Loads in which an amount is brought. @param amount in the unit of the pack */
export const deliveriesOf = (amount: number, { load }: Delivery): number =>
  amount <= 0 ? 0 : load === null ? 1 : Math.ceil(amount / load - 1e-9);

/** Whole packs, or tenths of a cubic metre of what comes loose. */
export const wholePacks = (packs: number, supply: Pick<Supply, 'unit' | 'packSize'>): number =>
  isLoose(supply) ? Math.ceil(packs * 10 - 1e-9) / 10 : Math.ceil(packs - 1e-9);
