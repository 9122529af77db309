import { wholes } from '../units/wholes.ts';
import { type UnitSystem, present } from '../units/present.ts';
import type { Delivery, Supply } from './treatment.ts';

/** How an amount in the unit of a pack is told. */
export const senseOfPack = { kg: 'mass', L: 'liquid', m3: 'volume' } as const;

/** An amount of a supply in the reader’s unit. */
export const tellSupply = (value: number, unit: Supply['unit'], system: UnitSystem): string =>
  present(senseOfPack[unit], value, system).text;

/** Whether it is ordered loose, by the cubic metre. */
export const isLoose = ({ unit, packSize }: Pick<Supply, 'unit' | 'packSize'>): boolean =>
  unit === 'm3' && packSize === 1;

/** Loads in which an amount is brought. @param amount in the unit of the pack */
export const deliveriesOf = (amount: number, { load }: Delivery): number =>
  amount <= 0 ? 0 : load === null ? 1 : wholes(amount / load);

/**
 * Whole packs, or tenths of a cubic metre of what comes loose.
 *
 * @param of all the packs, where `packs` is only what is missing of them
 */
export const wholePacks = (packs: number, supply: Pick<Supply, 'unit' | 'packSize'>, of = packs): number =>
  isLoose(supply) ? wholes(packs * 10, of * 10) / 10 : wholes(packs, of);
