import { custodyDays } from '@glenfold/contract';

/** When a bag has stood where it is for longer than it may: SQL over the bag `b`; nothing where it may stand for ever. */
export const DUE = `(CASE WHEN b."state" = 'planned' THEN b."plannedFor"::timestamp AT TIME ZONE 'UTC' + interval '1 day'
  ${Object.entries(custodyDays)
    .map(([state, days]) => `WHEN b."state" = '${state}' THEN b."since" + interval '${days + 1} days'`)
    .join(' ')} END)`;
