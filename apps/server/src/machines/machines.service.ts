import { type MachineAnswer, type MachineInput, allows } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { MaterialsService } from '../materials/materials.service.ts';
import { refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Machine } from './machine.entity.ts';

/** Spreaders, sprayers and what else drives on a lawn. */
@Injectable()
export class MachinesService {
  constructor(
    private readonly records: Records,
    private readonly materials: MaterialsService,
    private readonly work: Work,
  ) {}

  /** The hire is for those who see costs. */
  async list(): Promise<MachineAnswer[]> {
    const machines = await this.records.of(Machine).find({}, { name: 'ASC' });
    const { role } = this.work.worker;
    const costs = role === null || allows(role, 'costs.read');
    return machines.map(machineAnswer).map((machine) => (costs ? machine : { ...machine, hireDay: null }));
  }

  /** What is hired, with the hire of a day; for whoever reckons costs. */
  async hired(): Promise<ReadonlyArray<{ readonly name: string; readonly hireDay: number }>> {
    const machines = await this.records.of(Machine).find({ hired: true }, { name: 'ASC' });
    return machines.flatMap(({ name, hireDay }) => (hireDay === null ? [] : [{ name, hireDay }]));
  }

  add(input: MachineInput): Promise<MachineAnswer> {
    return this.records.together(async (of) => {
      await this.#refuse(input);
      return machineAnswer(await of(Machine).add(valuesOf(input)));
    });
  }

  change(id: string, input: MachineInput, version: number): Promise<MachineAnswer> {
    return this.records.together(async (of) => {
      await this.#refuse(input, id);
      return machineAnswer(await of(Machine).change(id, valuesOf(input), { version, tell: machineAnswer }));
    });
  }

  remove(id: string): Promise<void> {
    return this.records.of(Machine).remove(id);
  }

  async restore(id: string): Promise<MachineAnswer> {
    await this.#refuseTwin((await this.records.of(Machine).deleted(id)).name, id);
    return machineAnswer(await this.records.of(Machine).restore(id));
  }

  async #refuse({ name, hired, hireDay, settings }: MachineInput, id?: string): Promise<void> {
    await this.#refuseTwin(name, id);
    if (!hired && hireDay != null)
      refuse([{ field: 'hireDay', message: 'It is your own: leave the hire empty, or say that it is hired.' }]);
    const products = new Set((await this.materials.products()).map((product) => product.id));
    settings.forEach(({ productId }, at) => {
      if (!products.has(productId))
        refuse([{ field: `settings.${at}.productId`, message: 'Choose a product of the list.' }]);
      if (settings.findIndex((other) => other.productId === productId) < at)
        refuse([{ field: `settings.${at}.productId`, message: 'This product has a setting already: keep one.' }]);
    });
  }

  async #refuseTwin(name: string, id?: string): Promise<void> {
    const twin = (await this.records.of(Machine).find()).find(
      (one) => one.id !== id && one.name.toLowerCase() === name.toLowerCase(),
    );
    if (twin) refuse([{ field: 'name', message: `${twin.name} is there already: nobody could tell the two apart.` }]);
  }
}

function valuesOf(input: MachineInput) {
  const { name, kind, width = null, holds = null, weight = null, hired, hireDay = null } = input;
  const { hiredFrom = null, settings, note = null } = input;
  return { name, kind, width, holds, weight, hired, hireDay, hiredFrom, settings, note };
}

function machineAnswer(machine: Machine): MachineAnswer {
  return { id: machine.id, version: machine.version, ...valuesOf(machine) };
}
