import type { UnitSystem } from '@glenfold/agronomy';
import type { PipeTransform } from '@nestjs/common';
import { Problem } from './problem.ts';

/** The units in which a person reads; sentences and drawings of the server are made in them. */
export const systems = { metric: 'metric', us: 'us' } as const;
/** Says which units there are, where none or others are asked for. */
export const unitsPipe: PipeTransform<unknown, UnitSystem> = {
  transform: (value) => {
    if (value === 'us' || value === 'metric') return value;
    const message = 'Add units=us or units=metric to the address: sentences are made in them.';
    throw new Problem(400, 'Units are missing', message, [{ field: 'units', message }]);
  },
};
