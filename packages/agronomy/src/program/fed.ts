import type { Macro } from '../rates/needs.ts';
import type { RemedyName } from '../remedies/remedyTable.ts';

/** The remedies that feed, and what each is reckoned for. */
export const macroOf = { nitrogen: 'n', phosphorus: 'p2o5', potassium: 'k2o' } as const satisfies Partial<
  Record<RemedyName, Macro>
>;
export type FedKey = keyof typeof macroOf;
export const fed = Object.keys(macroOf) as readonly FedKey[];
