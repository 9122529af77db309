import { ParseEnumPipe } from '@nestjs/common';

/** The units in which a person reads; sentences and drawings of the server are made in them. */
export const systems = { metric: 'metric', us: 'us' } as const;
export const unitsPipe = new ParseEnumPipe(systems);
