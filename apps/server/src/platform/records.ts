import type { ConflictAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import {
  Any,
  DataSource,
  type DeepPartial,
  type EntityManager,
  type EntityTarget,
  type FindOptionsOrder,
  type FindOptionsSelect,
  type FindOptionsWhere,
} from 'typeorm';
import { AuditEntry } from './auditEntry.entity.ts';
import type { Owned } from './owned.ts';
import { again } from './databaseTrouble.ts';
import { Problem, notFound } from './problem.ts';
import { nameWorker } from './scope.ts';
import { Work } from './work.ts';

/** Rows that one statement adds: it is put together while others wait. */
const AT_ONCE = 200;

/** Gives the records of a kind. */
export type RecordsOf = <T extends Owned>(entity: EntityTarget<T>) => OwnedRecords<T>;

/** What a save expects to find. */
export interface Expected<T> {
  /** The version that the person saw; nothing lets any version pass, for what nobody edits by hand. */
  readonly version: number;
  /** How the record is told to the person when another save came first. */
  readonly tell: (record: T) => { readonly version: number };
  /** A part of the change lies in rows of their own, so that the record counts the save even where nothing of it changes. */
  readonly withParts?: boolean;
}

/** Another save came first: both versions go to the person. */
export class Stale extends Problem {
  constructor(override readonly conflict: ConflictAnswer) {
    super(
      409,
      'Changed meanwhile',
      `${conflict.changedBy} saved this record after you opened it. Nothing was overwritten: compare the two and choose which to keep.`,
    );
  }
}

/** The one place where queries are scoped to the practice, for the query and for the database's own wall. */
@Injectable()
export class Records {
  constructor(
    private readonly dataSource: DataSource,
    private readonly work: Work,
  ) {}

  /** Records of one kind that the practice owns. */
  of<T extends Owned>(entity: EntityTarget<T>): OwnedRecords<T> {
    return new OwnedRecords(this, entity, this.work.practiceId);
  }

  /** Rows of a statement of our own, whose `$1` is the practice; the database's wall stands behind it. */
  ask<T extends object>(statement: string, more: readonly unknown[] = []): Promise<T[]> {
    return this.scoped((manager) => manager.query<T[]>(statement, [this.work.practiceId, ...more]));
  }

  /** Several reads and changes that stand or fall together. */
  together<T>(work: (of: RecordsOf) => Promise<T>): Promise<T> {
    return this.scoped(() => work((entity) => this.of(entity)));
  }

  /** From here to the end of the transaction nobody else is at the same thing. @param what names it within the practice */
  async alone(what: string): Promise<void> {
    await this.ask(`SELECT pg_advisory_xact_lock(hashtextextended($1::text || $2, 0))`, [what]);
  }

  /** Who changed a record last, for telling the one who came too late. */
  lastChange(recordId: string): Promise<{ readonly by: string; readonly at?: Date }> {
    const where = { recordId, practiceId: this.work.practiceId };
    return this.scoped(async (manager) => {
      const [last] = await manager.find(AuditEntry, { where, order: { number: 'DESC' }, take: 1 });
      return last ? { by: last.personName, at: last.at } : { by: 'Somebody' };
    });
  }

  /** Run with a connection that sees the practice's rows only; joins the transaction that is open. */
  async scoped<T>(work: (manager: EntityManager) => Promise<T>, isolation?: 'REPEATABLE READ'): Promise<T> {
    const open = this.work.manager;
    if (open) return work(open);
    const inside = async (manager: EntityManager): Promise<T> => {
      await nameWorker(manager, this.work.worker);
      return this.work.within(manager, () => work(manager));
    };
    return again(() =>
      isolation ? this.dataSource.transaction(isolation, inside) : this.dataSource.transaction(inside),
    );
  }
}

export class OwnedRecords<T extends Owned> {
  constructor(
    private readonly records: Records,
    private readonly entity: EntityTarget<T>,
    private readonly practiceId: string,
  ) {}

  find(where: FindOptionsWhere<T> = {}, order?: FindOptionsOrder<T>): Promise<T[]> {
    return this.records.scoped((manager) =>
      manager.find(this.entity, { where: this.#own(where), ...(order ? { order } : {}) }),
    );
  }

  /** Records without their large columns, where many are read for their small ones. */
  findWithout<K extends keyof T & string>(
    columns: readonly K[],
    where: FindOptionsWhere<T> = {},
    order?: FindOptionsOrder<T>,
    withDeleted = false,
  ): Promise<Array<Omit<T, K>>> {
    return this.records.scoped((manager) => {
      const all = manager.dataSource.getMetadata(this.entity).columns.map(({ propertyName }) => propertyName);
      const select = Object.fromEntries(
        all.map((name) => [name, !(columns as readonly string[]).includes(name)]),
      ) as FindOptionsSelect<T>;
      return manager.find(this.entity, { select, where: this.#own(where), withDeleted, ...(order ? { order } : {}) });
    });
  }

  /** @throws a 404 problem, also for another practice's id. */
  async one(id: string): Promise<T> {
    const found = await this.records.scoped((manager) =>
      manager.findOne(this.entity, { where: this.#own({ id } as FindOptionsWhere<T>) }),
    );
    return found ?? notFound();
  }

  add(values: DeepPartial<T>): Promise<T> {
    return this.records.scoped((manager) =>
      manager.save(manager.create(this.entity, { ...values, practiceId: this.practiceId } as DeepPartial<T>)),
    );
  }

  /** Several at once, in one statement. */
  addAll(values: ReadonlyArray<DeepPartial<T>>): Promise<T[]> {
    if (values.length === 0) return Promise.resolve([]);
    return this.records.scoped(async (manager) => {
      const made = values.map((one) =>
        manager.create(this.entity, { ...one, practiceId: this.practiceId } as DeepPartial<T>),
      );
      // A statement names so many values and no more.
      for (let at = 0; at < made.length; at += AT_ONCE)
        await manager
          .createQueryBuilder()
          .insert()
          .into(this.entity)
          .values(made.slice(at, at + AT_ONCE) as never)
          .execute();
      return made;
    });
  }

  /**
   * Change several at once, in one statement, each to its own values; for records that are locked already.
   * @param rows with their ids, all with the same columns
   */
  changeAll<K extends keyof T & string>(rows: ReadonlyArray<Pick<T, K> & { readonly id: string }>): Promise<void> {
    const [first] = rows;
    if (!first) return Promise.resolve();
    return this.records.scoped(async (manager) => {
      const { tableName, columns } = manager.dataSource.getMetadata(this.entity);
      const named = columns.filter(({ propertyName }) => propertyName !== 'id' && propertyName in first);
      const typed = named.map(({ databaseName, type }) => `"${databaseName}" ${String(type)}`);
      await manager.query(
        `UPDATE "${tableName}" t SET ${named.map(({ databaseName }) => `"${databaseName}" = x."${databaseName}"`).join(', ')},
           "version" = t."version" + 1
         FROM jsonb_to_recordset($2) AS x("id" uuid, ${typed.join(', ')})
         WHERE t."practiceId" = $1 AND t."id" = x."id"`,
        [this.practiceId, JSON.stringify(rows)],
      );
    });
  }

  /** Several records that nobody else changes until the transaction ends; those that are gone are left out. */
  lockedAll(ids: readonly string[]): Promise<T[]> {
    return this.records.scoped((manager) =>
      manager
        .createQueryBuilder(this.entity, 'record')
        .where({ id: Any([...ids]), practiceId: this.practiceId })
        // Always in the same order: two who lock the same never wait for each other.
        .orderBy('record.id')
        .setLock('pessimistic_write')
        .getMany(),
    );
  }

  /**
   * Change a record if it is still the version that the person saw.
   * @param expected left out only for changes that rest on nothing a person saw
   * @throws {Stale} with the record as it stands now
   */
  change(id: string, values: Partial<T>, expected?: Expected<T>): Promise<T> {
    return this.records.scoped(async (manager) => {
      const found = await this.locked(id);
      if (expected && found.version !== expected.version) throw new Stale(await this.#conflict(found, expected));
      const { version } = found;
      // Columns are replaced whole: an emptied cell of a JSON column must end up empty.
      const saved = await manager.save(Object.assign(found, values, { id, practiceId: this.practiceId }));
      if (expected?.withParts && saved.version === version) {
        await manager.increment(this.entity, this.#own({ id } as FindOptionsWhere<T>), 'version', 1);
        saved.version += 1;
      }
      return saved;
    });
  }

  /** A record that nobody else changes until the transaction ends. @throws a 404 or "deleted meanwhile" problem */
  locked(id: string): Promise<T> {
    return this.records.scoped(async (manager) => {
      const row = await manager
        .createQueryBuilder(this.entity, 'record')
        .select('record.id')
        .where({ id, practiceId: this.practiceId })
        .setLock('pessimistic_write')
        .withDeleted()
        .getOne();
      if (!row) return notFound();
      const found = await manager.findOne(this.entity, { where: this.#own({ id } as FindOptionsWhere<T>) });
      if (found) return found;
      const { by } = await this.records.lastChange(id);
      throw new Problem(
        409,
        'Deleted meanwhile',
        `${by} deleted this record after you opened it, so nothing was saved. Ask them, or add it anew.`,
      );
    });
  }

  remove(id: string): Promise<void> {
    return this.records.scoped(async (manager) => {
      await this.one(id);
      await manager.softDelete(this.entity, this.#own({ id } as FindOptionsWhere<T>));
    });
  }

  /** Records whether they are deleted or not. */
  findEver(where: FindOptionsWhere<T>): Promise<T[]> {
    return this.records.scoped((manager) => manager.find(this.entity, { where: this.#own(where), withDeleted: true }));
  }

  /** A record whether it is deleted or not. @throws a 404 problem */
  async deleted(id: string): Promise<T> {
    const where = this.#own({ id } as FindOptionsWhere<T>);
    const found = await this.records.scoped((manager) => manager.findOne(this.entity, { where, withDeleted: true }));
    return found ?? notFound();
  }

  restore(id: string): Promise<T> {
    return this.records.scoped(async (manager) => {
      await manager.restore(this.entity, this.#own({ id } as FindOptionsWhere<T>));
      return this.one(id);
    });
  }

  #own(where: FindOptionsWhere<T>): FindOptionsWhere<T> {
    return { ...where, practiceId: this.practiceId };
  }

  async #conflict(found: T, { tell }: Expected<T>): Promise<ConflictAnswer> {
    const { by, at } = await this.records.lastChange(found.id);
    return { current: tell(found), changedBy: by, changedAt: (at ?? found.createdAt).toISOString() };
  }
}
