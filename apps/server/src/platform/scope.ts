import type { EntityManager } from 'typeorm';
import type { Worker } from './work.ts';

/** Who does it, for the audit. */
export interface Doer {
  readonly id: string;
  readonly name: string;
}

/** Name who does what follows in the transaction: the database writes it into the audit. */
export async function nameDoer(manager: EntityManager, doer: Doer | null): Promise<void> {
  await manager.query(`SELECT set_config('glenfold.person', $1, true), set_config('glenfold.personName', $2, true)`, [
    doer?.id ?? '',
    doer?.name ?? '',
  ]);
}

/** Let the transaction see the rows of the worker's practice, and no others. */
export async function nameWorker(manager: EntityManager, { practiceId, person }: Worker): Promise<void> {
  await manager.query(
    `SELECT set_config('glenfold.practice', $1, true), set_config('glenfold.person', $2, true),
       set_config('glenfold.personName', $3, true)`,
    [practiceId, person?.id ?? '', person?.name ?? ''],
  );
}
