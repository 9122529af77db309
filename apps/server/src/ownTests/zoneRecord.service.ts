import { type Analyte, type Taken, type UnitSystem, analyteKeys, analytes, inOwnUnit, methodName, notComparable, presentValue, seasonName } from '@glenfold/agronomy'; // prettier-ignore
import type { RecordPointAnswer, RecordSeriesAnswer, ZoneRecordAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import papaparse from 'papaparse';
import { IsNull } from 'typeorm';
import { GroundService } from '../ground/ground.service.ts';
import { LabService, type ReadResult, borrowedWords } from '../lab/lab.service.ts';
import { Measurement } from '../measurements/measurement.entity.ts';
import { reported } from '../measurements/reported.ts';
import { Records } from '../platform/records.ts';

interface Found extends Taken {
  readonly source: string;
  readonly borrowed: string | null;
  readonly superseded: boolean;
}

/** Every measurement of a zone on one time line: by laboratories and with one's own hands. */
@Injectable()
export class ZoneRecordService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly lab: LabService,
  ) {}

  async of(zoneId: string, units: UnitSystem): Promise<ZoneRecordAnswer> {
    const zone = await this.ground.zone(zoneId);
    const results = (await this.lab.resultsOf(zone.siteId)).filter(
      ({ zoneIds, inherited, sample }) =>
        sample.of === 'soil' && (zoneIds.includes(zoneId) || inherited.some((heir) => heir.zoneId === zoneId)),
    );
    const names = new Map((await this.ground.zones(zone.siteId)).map(({ id, name }) => [id, name]));
    const own = await this.records.of(Measurement).find({ zoneId, resultId: IsNull() });
    const found = [...results.flatMap((result) => ofResult(result, zoneId, names)), ...own.map(ofHand)];
    const series = analyteKeys.flatMap((analyte): RecordSeriesAnswer[] => {
      const points = found.filter((one) => one.analyte === analyte);
      return points.length > 0 ? [seriesOf(analyte, points, units)] : [];
    });
    return { zoneId, series };
  }

  /** The same as a table. */
  async csv(zoneId: string, units: UnitSystem): Promise<{ readonly name: string; readonly text: string }> {
    const zone = await this.ground.zone(zoneId);
    const { series } = await this.of(zoneId, units);
    const head = ['measured', 'on', 'value', 'unit', 'as told', 'method', 'depth from cm', 'depth to cm', 'season', 'source', 'borrowed', 'superseded', 'run', 'why apart']; // prettier-ignore
    const rows = series.flatMap(({ name, unit, points }) =>
      points.map((one) => [
        ...[name, one.on ?? '', one.value, unit, one.told, one.method ?? '', one.depthFrom ?? '', one.depthTo ?? ''],
        ...[one.season ?? '', one.source, one.borrowed ?? '', one.superseded ? 'yes' : '', one.run, one.apart ?? ''],
      ]),
    );
    return {
      name: `${zone.name} measurements.csv`,
      text: `${papaparse.unparse([head, ...rows], { newline: '\n', escapeFormulae: true })}\n`,
    };
  }
}

function ofResult(result: ReadResult, zoneId: string, names: ReadonlyMap<string, string>): Found[] {
  const { values, extractant, sample, origin, supersededById } = result;
  const borrowed = borrowedWords(result, zoneId, names) ?? null;
  return analyteKeys.flatMap((analyte): Found[] => {
    const value = values[analyte];
    return value
      ? [
          {
            ...{ analyte, value, extractant, on: sample.sampledOn, depthFrom: sample.depthFrom, depthTo: sample.depth },
            ...{ source: origin, borrowed, superseded: supersededById !== null },
          },
        ]
      : [];
  });
}

const ofHand = (one: Measurement): Found => ({
  ...{ analyte: one.analyte, value: reported(one), on: one.takenOn, depthFrom: one.depthFrom, depthTo: one.depthTo },
  ...{ source: one.source ?? 'nobody wrote down who', borrowed: null, superseded: false },
});

/** Points of one analyte, the oldest first: each is of the run that it can be laid beside. */
function seriesOf(analyte: Analyte, found: readonly Found[], units: UnitSystem): RecordSeriesAnswer {
  const { name, words } = analytes[analyte];
  const sorted = [...found].sort((one, other) => (one.on ?? '').localeCompare(other.on ?? ''));
  const runs: Found[] = [];
  const points = sorted.map((one): RecordPointAnswer => {
    const known = runs.findIndex((first) => notComparable(one, first) === undefined);
    const apart = known < 0 && runs.length > 0 ? notComparable(one, runs.at(-1)!) : undefined;
    const run = known < 0 ? runs.push(one) - 1 : known;
    const { value } = inOwnUnit(analyte, one.value);
    return {
      ...{ on: one.on, value, told: presentValue(analyte, one.value, units), method: methodName(one) ?? null },
      ...{ depthFrom: one.depthFrom ?? null, depthTo: one.depthTo ?? null, season: one.on ? seasonName(one.on) : null },
      ...{ source: one.source, borrowed: one.borrowed, run, apart: apart ?? null, superseded: one.superseded },
    };
  });
  return { analyte, name, unit: analytes[analyte].units[0] ?? '', worded: words !== undefined, points };
}
