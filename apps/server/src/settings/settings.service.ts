import {
  type AdviceSettings,
  type DecidedAt,
  type Decision,
  type SectionBudget,
  type SectionName,
  settingsFrom,
} from '@glenfold/agronomy';
import {
  type SettingAnswer,
  type SettingInput,
  type SettingKind,
  allows,
  problemFields,
  settingKinds,
  settingNames,
  settingPlaces,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import { IsNull } from 'typeorm';
import { PracticeService } from '../people/practice.service.ts';
import { Problem, notFound, refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Work } from '../platform/work.ts';
import { Site } from '../sites/site.entity.ts';
import { Setting } from './setting.entity.ts';
import { ZoneNames } from './zoneNames.ts';

/** Kinds that tell what things cost. */
const COSTS: ReadonlySet<SettingKind> = new Set(['work']);

const placeOf = ({ siteId, zoneId }: Pick<Setting, 'siteId' | 'zoneId'>): DecidedAt =>
  zoneId ? 'zone' : siteId ? 'site' : 'practice';

/** What was decided for the practice, its sites and zones. */
@Injectable()
export class SettingsService {
  constructor(
    private readonly records: Records,
    private readonly zones: ZoneNames,
    private readonly practices: PracticeService,
    private readonly work: Work,
  ) {}

  /** Prices are for those who see costs. */
  async list(): Promise<SettingAnswer[]> {
    const { role } = this.work.worker;
    const costs = role === null || allows(role, 'costs.read');
    const all = await this.records.of(Setting).find({}, { kind: 'ASC', createdAt: 'ASC' });
    return all.filter(({ kind }) => costs || !COSTS.has(kind)).map(settingAnswer);
  }

  /** Decide, for the first time or anew. @param version 0 while nothing was decided there */
  decide(kind: string, { siteId = null, zoneId = null, value }: SettingInput, version: number): Promise<SettingAnswer> {
    if (!isKind(kind)) return notFound();
    return this.records.together(async (of) => {
      const site = siteId ? await of(Site).one(siteId) : undefined;
      const zone = zoneId ? await this.zones.one(zoneId) : undefined;
      const at = placeOf({ siteId, zoneId });
      const read = await this.#read(kind, value);
      if (siteId && zoneId) refuse([{ field: 'siteId', message: 'Name a site or a zone, not both.' }]);
      if (at === 'practice' && kind === 'sections')
        refuse([{ field: 'siteId', message: 'Choose the site whose sections these are.' }]);
      if (at !== 'practice' && !settingPlaces[kind].includes(at))
        refuse([{ field: `${at}Id`, message: `${settingNames[kind]} stands for the whole practice.` }]);
      if (kind === 'school' && at !== 'practice' && !(read as { reason?: string | null }).reason)
        refuse([{ field: 'value.reason', message: `Say why this ${at} is to be advised in another way.` }]);
      const where = at === 'practice' ? '' : `, ${zone?.name ?? site?.name ?? ''}`;
      const name = `${settingNames[kind]}${where}`;
      const [known] = await of(Setting).find({ kind, siteId: siteId ?? IsNull(), zoneId: zoneId ?? IsNull() });
      if (known)
        return settingAnswer(
          await of(Setting).change(known.id, { name, value: read }, { version, tell: settingAnswer }),
        );
      if (version !== 0)
        throw new Problem(
          409,
          'Deleted meanwhile',
          'Somebody took this decision back after you opened it. Nothing was saved: look again, and decide anew.',
        );
      return settingAnswer(await of(Setting).add({ kind, name, siteId, zoneId, value: read }));
    });
  }

  remove(id: string): Promise<void> {
    return this.records.of(Setting).remove(id);
  }

  async restore(id: string): Promise<SettingAnswer> {
    const { kind, siteId, zoneId } = await this.records.of(Setting).deleted(id);
    const where = { kind, siteId: siteId ?? IsNull(), zoneId: zoneId ?? IsNull() };
    if ((await this.records.of(Setting).find(where)).length > 0)
      throw new Problem(409, 'Decided anew', 'This was decided anew meanwhile: change that decision instead.');
    return settingAnswer(await this.records.of(Setting).restore(id));
  }

  /** How zones of a site are advised; everything that was decided is read once. */
  async advice(siteId: string): Promise<(zoneId?: string) => AdviceSettings> {
    const all = await this.records.of(Setting).find();
    const { currency } = await this.practices.current();
    return (zoneId) => ({
      ...settingsFrom(
        all
          .filter((one) => (one.zoneId ? one.zoneId === zoneId : !one.siteId || one.siteId === siteId))
          .map((one) => ({ kind: one.kind, at: placeOf(one), value: one.value }) as Decision),
      ),
      currency,
    });
  }

  /** The years and budgets of a site’s sections. */
  async sections(siteId: string): Promise<Readonly<Partial<Record<SectionName, SectionBudget>>>> {
    const [found] = await this.records.of(Setting).find({ kind: 'sections', siteId });
    return found?.value ?? {};
  }

  async #read(kind: SettingKind, value: object): Promise<object> {
    const read = plainToInstance(settingKinds[kind] as new () => object, value);
    const errors = problemFields(
      await validate(read, { whitelist: true, forbidNonWhitelisted: true, stopAtFirstError: true }),
      'value.',
    );
    if (errors.length > 0) refuse(errors);
    return { ...read };
  }
}

const isKind = (kind: string): kind is SettingKind => Object.hasOwn(settingKinds, kind);

function settingAnswer({ id, version, kind, siteId, zoneId, value }: Setting): SettingAnswer {
  return { id, version, kind, siteId, zoneId, value };
}
