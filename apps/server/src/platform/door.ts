import { Injectable } from '@nestjs/common';
import { DataSource, type EntityManager } from 'typeorm';
import { again } from './databaseTrouble.ts';
import { APP_ROLE, DOOR_ROLE } from './roles.ts';
import { nameWorker } from './scope.ts';
import { Work, type Worker } from './work.ts';

/**
 * Finding out who is asking, before any practice is known: people, sessions, invitations, links.
 * Works under a role of its own, which sees no practice's records.
 */
@Injectable()
export class Door {
  constructor(
    private readonly dataSource: DataSource,
    private readonly work: Work,
  ) {}

  /** One transaction at the door. */
  open<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    return again(() =>
      this.dataSource.transaction(async (manager) => {
        await manager.query(`SET LOCAL ROLE ${DOOR_ROLE}`);
        return work(manager);
      }),
    );
  }

  /** Go from a practice's work to the door and back, in the same transaction; for taking somebody out. */
  async visit<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    const manager = this.work.manager!;
    await manager.query(`SET LOCAL ROLE ${DOOR_ROLE}`);
    const result = await work(manager);
    await manager.query(`SET LOCAL ROLE ${APP_ROLE}`);
    return result;
  }

  /** Go from the door into a practice, in the same transaction; for making one. */
  async enter<T>(manager: EntityManager, worker: Worker, work: () => Promise<T>): Promise<T> {
    await manager.query(`SET LOCAL ROLE ${APP_ROLE}`);
    await nameWorker(manager, worker);
    const result = await this.work.run(worker, () => this.work.within(manager, work));
    await manager.query(`SET LOCAL ROLE ${DOOR_ROLE}`);
    return result;
  }
}
