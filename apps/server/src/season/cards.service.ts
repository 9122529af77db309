import {
  type CardMachine,
  type Day,
  type UnitSystem,
  areaPolygon,
  blackedOut,
  areaLeft,
  entryKindOf,
  isFineSeed,
  normalDay,
  normalFacts,
  settingFor,
  sinceOf,
  windowJobOf,
  workCard,
} from '@glenfold/agronomy';
import type { CardAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import type { MeasuredZone } from '../ground/ground.service.ts';
import type { Machine } from '../machines/machine.entity.ts';
import { Problem } from '../platform/problem.ts';
import { grouped } from '../platform/grouped.ts';
import { type SeasonBasis, SeasonBases, doseOf, isBare, seasonOfZone } from './basis.service.ts';
import type { Job } from './job.entity.ts';
import { JobsService } from './jobs.service.ts';

/** Jobs on cards: with all that a device needs to judge, count and close them alone. */
@Injectable()
export class CardsService {
  constructor(
    private readonly jobs: JobsService,
    private readonly bases: SeasonBases,
  ) {}

  async card(id: string, units: UnitSystem): Promise<CardAnswer> {
    const job = await this.jobs.one(id);
    const [card] = await this.of([job], units);
    if (!card) throw new Problem(404, 'No such zone', 'The zone of this job was deleted: restore it first.');
    return card;
  }

  /** Cards of some jobs, of whatever sites. */
  async of(jobs: readonly Job[], units: UnitSystem): Promise<CardAnswer[]> {
    const machines = await this.bases.machines();
    const cards: CardAnswer[] = [];
    for (const [siteId, own] of grouped(jobs, (job) => job.siteId)) {
      const basis = await this.bases.of(
        siteId,
        own.flatMap(({ productId, mixed }) => [productId ?? [], ...mixed.map((part) => part.productId ?? [])].flat()),
      );
      const told = await this.jobs.told(
        own,
        units,
        new Map([[siteId, basis.site.name]]),
        new Map(basis.zones.map(({ id, name }) => [id, name])),
      );
      for (const [index, job] of own.entries()) {
        const zone = basis.zones.find(({ id }) => id === job.zoneId);
        if (zone) cards.push(this.#card(job, zone, told[index]!, basis, machines, units));
      }
    }
    return cards;
  }

  #card(
    job: Job,
    zone: MeasuredZone,
    told: CardAnswer['job'],
    basis: SeasonBasis,
    machines: readonly Machine[],
    units: UnitSystem,
  ): CardAnswer {
    const material = basis.material(job.productId);
    const chosen = machines.find(({ id }) => id === job.machineId);
    const granules = job.unit === 'kg' && job.rate !== null;
    const machine: CardMachine | null = chosen
      ? {
          ...{ name: chosen.name, kind: chosen.kind, width: chosen.width, holds: chosen.holds, hired: chosen.hired },
          setting:
            job.productId !== null && granules
              ? settingFor(chosen.settings, job.productId, job.rate! / 2, basis.today)
              : undefined,
        }
      : null;
    // Of what was done in part, the card is for the rest.
    const rest = areaLeft(job);
    const area = rest ?? zone.area;
    const season = seasonOfZone(zone);
    const dose = doseOf(job, basis);
    const year = basis.yearOf(zone);
    const on = job.day !== null && job.day >= basis.today ? job.day : basis.today;
    const irrigation = zone.facts?.irrigation ?? undefined;
    const day: Day = {
      ...(year ? normalFacts(normalDay(year, on)) : {}),
      ...(isBare(zone) ? { bare: true } : {}),
      ...(irrigation === undefined ? {} : { irrigated: irrigation !== 'none' }),
      ...(zone.facts?.slope == null ? {} : { slope: zone.facts.slope }),
      ...(blackedOut(dose, on, basis.settingsOf(zone.id).rules?.blackouts ?? []) ? { blackout: true } : {}),
      ...(material?.kind === 'lime' ? { pulverised: /pulveri[sz]ed|hydrated/i.test(material.name) } : {}),
      ...(material?.kind === 'seed' ? { fineSeed: isFineSeed(material.seeds) } : {}),
    };
    return {
      job: told,
      card: workCard(
        {
          ...{ remedy: job.remedy, name: told.name, rate: job.rate, sense: job.sense, quantity: job.quantity },
          ...{ unit: job.unit, material: material ?? null, cautions: job.cautions },
          mixed: job.mixed.map((part) => ({ ...part, material: basis.material(part.productId) ?? null })),
        },
        {
          ...{ name: zone.name, area, bare: isBare(zone), irrigation, slope: zone.facts?.slope ?? undefined },
          border: zone.geometry && rest === null ? areaPolygon({ polygon: zone.geometry }).result.perimeter : undefined,
        },
        machine,
        units,
      ),
      windowJob: windowJobOf(dose, season) ?? null,
      day,
      since: sinceOf(zone.entries, on, season),
      ...{ area, rate: job.rate, sense: job.sense, quantity: job.quantity, unit: job.unit },
      ...{
        packSize: material?.packSize ?? null,
        productId: job.productId,
        mixed: job.mixed.map((part) => ({
          ...part,
          density: basis.material(part.productId)?.analysis.bulkDensity ?? null,
        })),
        density: material?.analysis.bulkDensity ?? null,
        entryKind: entryKindOf(job.remedy),
        units,
      },
    };
  }
}
