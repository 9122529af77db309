import { Injectable } from '@nestjs/common';
import {
  DataSource,
  type DeepPartial,
  type EntityManager,
  type EntityTarget,
  type FindOptionsOrder,
  type FindOptionsWhere,
} from 'typeorm';
import type { Owned } from './owned.ts';
import { PracticeContext } from './practiceContext.ts';
import { notFound } from './problem.ts';

/** Gives the records of a kind: within the request, or within one transaction. */
export type RecordsOf = <T extends Owned>(entity: EntityTarget<T>) => OwnedRecords<T>;

/** The one place where queries are scoped to the practice. */
@Injectable()
export class Records {
  constructor(
    private readonly dataSource: DataSource,
    private readonly context: PracticeContext,
  ) {}

  /** Records of one kind that the practice owns. */
  of<T extends Owned>(entity: EntityTarget<T>): OwnedRecords<T> {
    return new OwnedRecords(this.dataSource.manager, entity, this.context.practiceId);
  }

  /** Several changes that stand or fall together. */
  together<T>(work: (of: RecordsOf) => Promise<T>): Promise<T> {
    return this.dataSource.transaction((manager) =>
      work((entity) => new OwnedRecords(manager, entity, this.context.practiceId)),
    );
  }
}

export class OwnedRecords<T extends Owned> {
  constructor(
    private readonly manager: EntityManager,
    private readonly entity: EntityTarget<T>,
    private readonly practiceId: string,
  ) {}

  find(where: FindOptionsWhere<T> = {}, order?: FindOptionsOrder<T>): Promise<T[]> {
    return this.manager.find(this.entity, { where: this.scoped(where), ...(order ? { order } : {}) });
  }

  /** @throws a 404 problem, also for another practice's id. */
  async one(id: string): Promise<T> {
    const found = await this.manager.findOne(this.entity, { where: this.scoped({ id } as FindOptionsWhere<T>) });
    return found ?? notFound();
  }

  add(values: DeepPartial<T>): Promise<T> {
    return this.manager.save(
      this.manager.create(this.entity, { ...values, practiceId: this.practiceId } as DeepPartial<T>),
    );
  }

  async change(id: string, values: Partial<T>): Promise<T> {
    const found = await this.one(id);
    // Columns are replaced whole: an emptied cell of a JSON column must end up empty.
    return this.manager.save(Object.assign(found, values, { id, practiceId: this.practiceId }));
  }

  async remove(id: string): Promise<void> {
    await this.one(id);
    await this.manager.softDelete(this.entity, this.scoped({ id } as FindOptionsWhere<T>));
  }

  /** A record whether it is deleted or not. @throws a 404 problem */
  async deleted(id: string): Promise<T> {
    const where = this.scoped({ id } as FindOptionsWhere<T>);
    return (await this.manager.findOne(this.entity, { where, withDeleted: true })) ?? notFound();
  }

  async restore(id: string): Promise<T> {
    await this.manager.restore(this.entity, this.scoped({ id } as FindOptionsWhere<T>));
    return this.one(id);
  }

  private scoped(where: FindOptionsWhere<T>): FindOptionsWhere<T> {
    return { ...where, practiceId: this.practiceId };
  }
}
