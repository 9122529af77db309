import data from '../data/lime-buffers.json' with { type: 'json' };

/** Buffer methods that a rate can be read from. Sikora readings are on the SMP scale. */
export const bufferMethods = ['smp', 'sikora', 'mehlich', 'adams-evans'] as const;
export type BufferMethod = (typeof bufferMethods)[number];

export const bufferNames: Readonly<Record<BufferMethod, string>> = {
  smp: 'SMP',
  sikora: 'Sikora',
  mehlich: 'Mehlich',
  'adams-evans': 'Adams–Evans',
};

const tables = { smp: data.smp, sikora: data.smp, mehlich: data.mehlich, 'adams-evans': data.adamsEvans } as const;

/** Readings that a method can give, low and high. */
export function bufferRange(method: BufferMethod): readonly [number, number] {
  const [low = 0, high = 14] = tables[method].bufferRange;
  return [low, high];
}
