import { type LaboratoryAnswer, type LaboratoryInput, allows } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Laboratories } from '../ports/laboratory.ts';
import { OwnLaboratory } from './ownLaboratory.entity.ts';

/** Laboratories that bags can be sent to: the practice's own, and those that let know by themselves. */
@Injectable()
export class OwnLaboratoriesService {
  constructor(
    private readonly records: Records,
    private readonly outside: Laboratories,
    private readonly work: Work,
  ) {}

  /** Fees are for those who see costs. */
  async list(): Promise<LaboratoryAnswer[]> {
    const own = await this.records.of(OwnLaboratory).find({}, { name: 'ASC' });
    const outside = (await this.outside.all()).map(({ profile }) => profile);
    const all = [...own.map(laboratoryAnswer), ...outside];
    const { role } = this.work.worker;
    const costs = role === null || allows(role, 'costs.read');
    return costs ? all : all.map((laboratory) => ({ ...laboratory, fees: [] }));
  }

  add(input: LaboratoryInput): Promise<LaboratoryAnswer> {
    return this.records.together(async (of) => {
      await this.#refuse(input);
      return laboratoryAnswer(await of(OwnLaboratory).add(valuesOf(input)));
    });
  }

  change(id: string, input: LaboratoryInput, version: number): Promise<LaboratoryAnswer> {
    return this.records.together(async (of) => {
      await this.#refuse(input, id);
      const tell = (own: OwnLaboratory) => ({ ...input, ...valuesOf(own), version: own.version });
      return laboratoryAnswer(await of(OwnLaboratory).change(id, valuesOf(input), { version, tell }));
    });
  }

  remove(id: string): Promise<void> {
    return this.records.of(OwnLaboratory).remove(id);
  }

  async restore(id: string): Promise<LaboratoryAnswer> {
    const { name } = await this.records.of(OwnLaboratory).deleted(id);
    await this.#refuseTwin(name, id);
    return laboratoryAnswer(await this.records.of(OwnLaboratory).restore(id));
  }

  async #refuse({ name, depths, daysLeast, daysMost, fees }: LaboratoryInput, id?: string): Promise<void> {
    await this.#refuseTwin(name, id);
    if (daysMost < daysLeast)
      refuse([{ field: 'daysMost', message: `The most is ${daysLeast} days or more: that is the least.` }]);
    const upside = depths.findIndex(({ from, to }) => to < from);
    if (upside >= 0)
      refuse([
        { field: `depths.${upside}.to`, message: 'A depth goes from the less to the more: change the two about.' },
      ]);
    const twice = fees.findIndex(({ panel }, index) => fees.findIndex((fee) => fee.panel === panel) < index);
    if (twice >= 0)
      refuse([{ field: `fees.${twice}.panel`, message: 'This panel has a fee already: keep one of the two.' }]);
  }

  /** Bags name their laboratory, so that two of one name could not be told apart. */
  async #refuseTwin(name: string, id?: string): Promise<void> {
    const twin = (await this.list()).find(
      (known) => known.id !== (id ?? '') && known.name.toLowerCase() === name.toLowerCase(),
    );
    if (twin) refuse([{ field: 'name', message: `${twin.name} is there already: bags could not tell the two apart.` }]);
  }
}

function valuesOf(input: LaboratoryInput) {
  const { name, address = null, scientist = null, phone = null, extractant, bufferMethod = null } = input;
  const { depths, volume, fees, daysLeast, daysMost } = input;
  return { name, address, scientist, phone, extractant, bufferMethod, depths, volume, fees, daysLeast, daysMost };
}

function laboratoryAnswer(own: OwnLaboratory): LaboratoryAnswer {
  const { id, version, name, address, scientist, phone, extractant, bufferMethod, depths, volume, fees } = own;
  return {
    ...{ id, version, name, address, scientist, phone, extractant, bufferMethod, depths, volume, fees },
    simulated: false,
    units: 'as its reports print them',
    reports: 'read from its file or typed',
    daysLeast: own.daysLeast,
    daysMost: own.daysMost,
  };
}
