import { type ReportedValues, type SoilGroup, readBagCode, writeBagCode } from '@glenfold/agronomy';
import { chanceFrom } from '@glenfold/agronomy/geometry';
import type { HiddenSoilAnswer, SoilValueAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { In, IsNull, MoreThan } from 'typeorm';
import { Zone } from '../../ground/zone.entity.ts';
import { LabResult } from '../../lab/labResult.entity.ts';
import { SampleZone } from '../../lab/sampleZone.entity.ts';
import { Measurement } from '../../measurements/measurement.entity.ts';
import { valuesOf } from '../../measurements/reported.ts';
import { Practice } from '../../people/practice.entity.ts';
import { Records } from '../../platform/records.ts';
import { Work } from '../../platform/work.ts';
import { Bag } from '../../sampling/bag.entity.ts';
import { Core } from '../../sampling/core.entity.ts';
import { LABORATORY_TIME, assay } from './assay.ts';
import { HiddenSoil, type Soil, type SoilAnalyte, mixed, seedOf } from './hiddenSoil.ts';
import { type HouseStyle, houseStyles } from './houseStyles.ts';
import { Laboratories, Laboratory, type LaboratoryNews, type SubmittedSample } from '../../ports/laboratory.ts';
import type { PrintedSample } from './reportFiles.ts';
import { type ReportFault, StandInSample } from './standInSample.entity.ts';
import { dayIn } from '@glenfold/contract';

const DAY = 86_400_000;
const later = (from: Date, days: number): Date => new Date(from.getTime() + days * DAY);

/** Chances of what a simulated laboratory gets wrong, in turn. */
const faultChances: ReadonlyArray<readonly [ReportFault, number]> = [
  ['missing analyte', 0.1],
  ['mislabelled', 0.09],
  ['duplicate', 0.09],
  ['amended', 0.1],
];

/** What befalls a report. @param lot even between 0 and 1 */
export function faultOf(lot: number): ReportFault | null {
  let left = lot;
  return faultChances.find(([, chance]) => (left -= chance) < 0)?.[0] ?? null;
}

/** A code with two signs changed about: what a tired hand copies. Its check sign tells. */
function miscopied(code: string): string {
  const plain = readBagCode(code);
  for (let at = 0; at < plain.length - 1; at += 1)
    if (plain[at] !== plain[at + 1])
      return writeBagCode(`${plain.slice(0, at)}${plain[at + 1]}${plain[at]}${plain.slice(at + 2)}`);
  return code;
}

/** Made-up laboratories for the demo: nothing is posted, and the soil is made up too. */
@Injectable()
export class StandInLaboratories extends Laboratories {
  readonly #all: readonly StandInLaboratory[];

  constructor(
    private readonly records: Records,
    private readonly work: Work,
  ) {
    super();
    this.#all = houseStyles.map((style) => new StandInLaboratory(style, records));
  }

  /** None for a practice that is real: made-up numbers must never reach its ground. */
  async all(): Promise<readonly Laboratory[]> {
    const practice = await this.records.scoped((manager) =>
      manager.findOneByOrFail(Practice, { id: this.work.practiceId }),
    );
    return practice.demo ? this.#all : [];
  }

  /** Bring forward what the calendar holds. */
  async hurry(days: number): Promise<void> {
    await this.records.together(async (of) => {
      for (const { id, arrivesAt, reportsAt, amendsAt } of await of(StandInSample).find())
        await of(StandInSample).change(id, {
          arrivesAt: later(arrivesAt, -days),
          reportsAt: later(reportsAt, -days),
          amendsAt: amendsAt && later(amendsAt, -days),
        });
    });
  }

  /** The soil that a reported bag's numbers were drawn from; no values where no simulated laboratory has reported it. */
  async hidden(bagId: string): Promise<HiddenSoilAnswer> {
    await this.records.of(Bag).one(bagId);
    const [sample] = await this.records.of(StandInSample).find({ bagId, told: MoreThan(1) });
    if (!sample) return { cores: 0, fault: null, values: [] };
    const { zone, bag, cores } = sample.soils;
    const value = (analyte: string, unit: string, key: SoilAnalyte): SoilValueAnswer => ({
      analyte,
      unit,
      soil: zone[key],
      bag: bag[key],
    });
    return {
      cores,
      fault: sample.fault,
      values: [
        value('pH', '', 'ph'),
        value('P by Mehlich-3', 'mg/kg', 'p'),
        value('K by Mehlich-3', 'mg/kg', 'k'),
        value('Organic matter', '%', 'organicMatter'),
      ],
    };
  }
}

/** One made-up laboratory: keeps samples for its days, and prints in its house style. */
class StandInLaboratory extends Laboratory {
  readonly profile;

  constructor(
    private readonly style: HouseStyle,
    private readonly records: Records,
  ) {
    super();
    this.profile = style.profile;
  }

  async submit(samples: readonly SubmittedSample[]): Promise<void> {
    await this.records.together(async (of) => {
      const known = await of(StandInSample).find({ bagId: In(samples.map(({ bagId }) => bagId)) });
      const fresh = samples.filter(({ bagId }) => !known.some((sample) => sample.bagId === bagId));
      for (const sample of fresh) {
        const [soils, key, group] = await this.#soils(sample.bagId);
        const lot = chanceFrom(seedOf(`${key} lot`));
        const { name: laboratory, daysLeast, daysMost } = this.profile;
        // What of a site is on its way together stands in one report; a parcel that is nearly there takes nothing more.
        const open = { siteId: sample.siteId, laboratory, told: 0, arrivesAt: MoreThan(later(sample.sentAt, 0.5)) };
        const together = await of(StandInSample).find(open);
        const [first] = together;
        const year = sample.sentAt.toISOString().slice(2, 4);
        const number = first?.report ?? `${year}-${1000 + (seedOf(sample.bagId) % 9000)}`;
        const labNumber = `${number}/${together.length + 1}`;
        const arrivesAt = first?.arrivesAt ?? later(sample.sentAt, 1 + 2 * lot());
        const reportsAt = first?.reportsAt ?? later(arrivesAt, daysLeast + (daysMost - daysLeast) * lot());
        const print = (seed: string): PrintedSample =>
          assay(this.style, soils.bag, group, sample, labNumber, seedOf(`${key} ${seed}`));
        const fault = first ? null : faultOf(lot());
        const printed = fault === 'missing analyte' ? withoutOne(print('first')) : print('first');
        await of(StandInSample).add({
          ...{ bagId: sample.bagId, siteId: sample.siteId, siteName: sample.siteName, report: number, fault, soils },
          laboratory,
          printed: fault === 'mislabelled' ? { ...printed, code: miscopied(printed.code) } : printed,
          printedFirst: fault === 'amended' ? misread(printed) : null,
          printedTwice: fault === 'duplicate' ? print('second') : null,
          arrivesAt,
          reportsAt,
          amendsAt: fault === 'amended' ? later(reportsAt, 3 + 4 * lot()) : null,
          told: 0,
        });
      }
    });
  }

  async news(): Promise<LaboratoryNews[]> {
    return this.records.together(async (of) => {
      const now = new Date();
      const mine = await of(StandInSample).find({ laboratory: this.profile.name });
      const news: LaboratoryNews[] = [];
      const tell = async (sample: StandInSample, told: number): Promise<boolean> => {
        // Another copy of the server may have told it meanwhile.
        if ((await of(StandInSample).locked(sample.id)).told >= told) return false;
        await of(StandInSample).change(sample.id, { told });
        return true;
      };
      for (const sample of mine.filter(({ told, arrivesAt }) => told < 1 && arrivesAt <= now))
        if (await tell(sample, 1))
          news.push({
            kind: 'arrived',
            bagId: sample.bagId,
            labNumber: sample.printed.labNumber,
            at: sample.arrivesAt,
          });
      for (const amends of [false, true]) {
        const due = mine.filter(({ told, reportsAt, amendsAt }) =>
          amends ? told < 3 && amendsAt && amendsAt <= now : told < 2 && reportsAt <= now,
        );
        for (const number of new Set(due.map(({ report }) => report))) {
          const own = due.filter(({ report }) => report === number);
          const taken: StandInSample[] = [];
          for (const sample of own) if (await tell(sample, amends ? 3 : 2)) taken.push(sample);
          if (taken.length > 0) news.push(this.#report(number, taken, amends));
        }
      }
      return news.sort((one, other) => one.at.getTime() - other.at.getTime());
    });
  }

  #report(number: string, samples: readonly StandInSample[], amends: boolean): LaboratoryNews {
    const [{ siteId, siteName, reportsAt, amendsAt }] = samples as [StandInSample];
    const at = amends ? amendsAt! : reportsAt;
    const { name, extractant, bufferMethod } = this.profile;
    const title = { 'mehlich-3': 'Mehlich 3', 'mehlich-1': 'Mehlich 1', morgan: 'Modified Morgan' } as const;
    const buffers = { smp: 'SMP', sikora: 'Sikora', mehlich: 'Mehlich', 'adams-evans': 'Adams-Evans' } as const;
    return {
      kind: 'report',
      siteId,
      bagIds: samples.map(({ bagId }) => bagId),
      at,
      amends,
      file: this.style.write({
        laboratory: name,
        number: amends ? `${number}A` : number,
        day: dayIn(at, LABORATORY_TIME),
        client: siteName,
        extractant: title[extractant as keyof typeof title],
        buffer: buffers[bufferMethod],
        amends: amends ? number : null,
        samples: samples.flatMap(({ printed, printedFirst, printedTwice }) => [
          amends ? printed : (printedFirst ?? printed),
          ...(printedTwice && !amends ? [printedTwice] : []),
        ]),
      }),
    };
  }

  /** The first test of each zone that is no stand-in's: what a bag brought was drawn from the soil itself. */
  async #testedBefore(zoneIds: readonly string[]): Promise<ReadonlyMap<string, ReportedValues>> {
    const shared = await this.records.of(SampleZone).find({ zoneId: In([...zoneIds]) });
    const results = await this.records
      .of(LabResult)
      .find(
        { sampleId: In(shared.map(({ sampleId }) => sampleId)), sample: { bagId: IsNull() } },
        { createdAt: 'ASC' },
      );
    const found = await this.records.of(Measurement).find({ resultId: In(results.map(({ id }) => id)) });
    return new Map(
      zoneIds.flatMap((zoneId) => {
        const first = results.find(({ sampleId }) =>
          shared.some((one) => one.sampleId === sampleId && one.zoneId === zoneId),
        );
        return first ? [[zoneId, valuesOf(found.filter(({ resultId }) => resultId === first.id))] as const] : [];
      }),
    );
  }

  /** What is in the bag, and in its zones; a laboratory that is no stand-in gets it by post. */
  async #soils(bagId: string): Promise<[StandInSample['soils'], string, SoilGroup | null]> {
    const cores = (await this.records.of(Core).find({ bagId }, { number: 'ASC' })).filter(
      ({ state }) => state === 'cored',
    );
    const zones = await this.records.of(Zone).findEver({ id: In(cores.map(({ zoneId }) => zoneId)) });
    const before = (await this.records.of(StandInSample).find()).length;
    const testedBefore = await this.#testedBefore(zones.map(({ id }) => id));
    const hidden = new Map(
      zones.map(({ id, label, name, soilGroup, geometry }) => {
        const key = `${label} ${name}`;
        const tested = testedBefore.get(id);
        return [
          id,
          new HiddenSoil({ key, soilGroup: soilGroup ?? null, outline: geometry, ...(tested ? { tested } : {}) }),
        ];
      }),
    );
    const wanted = Math.max(...cores.map(({ recovered }) => recovered ?? 0), 1);
    const soils = cores.map(({ zoneId, place, number, recovered }) =>
      hidden
        .get(zoneId)!
        .core({ key: `${number} ${place?.join() ?? ''}`, place, whole: Math.min(1, (recovered ?? wanted) / wanted) }),
    );
    const shares = cores.map(({ zoneId }) => hidden.get(zoneId)!.mean());
    const zone: Soil = mixed(shares);
    const key = `${zones.map(({ label }) => label).sort().join(' ')} ${this.profile.name} ${before}`; // prettier-ignore
    return [{ zone, bag: mixed(soils), cores: cores.length }, key, zones[0]?.soilGroup ?? null];
  }
}

/** One number of it was not found out. */
function withoutOne(sample: PrintedSample): PrintedSample {
  return { ...sample, cells: sample.cells.map((cell) => (/^(K|K2O)$/.test(cell.name) ? { ...cell, text: '' } : cell)) };
}

/** The pH of another bag stands in its line. */
function misread(sample: PrintedSample): PrintedSample {
  const cells = sample.cells.map((cell) =>
    cell.name === 'pH' ? { ...cell, text: (Number(cell.text) + 0.6).toFixed(1) } : cell,
  );
  return { ...sample, cells };
}
