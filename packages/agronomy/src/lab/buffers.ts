import { adamsEvansTable, mehlichTable, smpTable } from '../lime/buffers.ts';

/** Buffer methods that a rate can be read from. Sikora readings are on the SMP scale. */
export const bufferMethods = ['smp', 'sikora', 'mehlich', 'adams-evans'] as const;
export type BufferMethod = (typeof bufferMethods)[number];

export const bufferNames: Readonly<Record<BufferMethod, string>> = {
  smp: 'SMP',
  sikora: 'Sikora',
  mehlich: 'Mehlich',
  'adams-evans': 'Adams–Evans',
};

const tables = { smp: smpTable, sikora: smpTable, mehlich: mehlichTable, 'adams-evans': adamsEvansTable } as const;

/** Readings that a method can give, low and high. */
export function bufferRange(method: BufferMethod): readonly [number, number] {
  return tables[method].bufferRange;
}
