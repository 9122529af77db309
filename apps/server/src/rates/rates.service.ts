import {
  priceOnly,
  type TestedZone,
  type UnitSystem,
  type WorkPrice,
  type ZoneProgram,
  climateOf,
  countsToward,
  downOf,
  grassWords,
  programZone,
  retestOfProgram,
  sectionSums,
  sinceSample,
  zoneCost,
} from '@glenfold/agronomy';
import {
  type SiteProgramAnswer,
  type TreatmentChangeAnswer,
  type TreatmentInput,
  type ZoneProgramAnswer,
  allows,
  dayIn,
  whereLies,
} from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { GroundService, type MeasuredZone } from '../ground/ground.service.ts';
import { LabService, type ReadResult, borrowedWords, labResultAnswer, testOf } from '../lab/lab.service.ts';
import { MachinesService } from '../machines/machines.service.ts';
import { MaterialsService } from '../materials/materials.service.ts';
import { PracticeService } from '../people/practice.service.ts';
import { Clock } from '../platform/clock.ts';
import { Problem, notFound } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Threads } from '../platform/threads.ts';
import { Work } from '../platform/work.ts';
import { Days } from '../settings/days.service.ts';
import { SettingsService } from '../settings/settings.service.ts';
import type { Site } from '../sites/site.entity.ts';
import { listWithoutCosts, programWithoutCosts, withoutPrice } from './costs.ts';
import { soilTest, stocked, zoneFacts } from './facts.ts';
import { HandOver } from './handOver.service.ts';
import { dayBegun, handedOverAnswer, overSince, yearBefore } from './inHand.ts';
import { Program } from './program.entity.ts';
import { type ZonePaper, ProgramZone, paperOf } from './programZone.entity.ts';
import { Programs, changeAnswer, changeLess } from './programs.service.ts';
import { type Shared, type SitePrograms, type ZoneToPlan, sitePrograms } from './sitePrograms.ts';
import { TreatmentRecord } from './treatment.entity.ts';

/** All that the programs of a site’s zones rest on. */
interface Basis {
  readonly site: Site;
  readonly zones: readonly MeasuredZone[];
  readonly results: ReadonlyMap<string, ReadResult>;
  readonly changes: ReadonlyMap<string, readonly TreatmentRecord[]>;
  /** First day of the year that is worked on; nothing while none was begun. */
  readonly began: string | null;
  /** From when on what is down counts against the year; nothing while no year is worked on. */
  readonly countsFrom: string | null;
  readonly timeZone: string;
  readonly shared: Omit<Shared, 'work'>;
  readonly settingsOf: Awaited<ReturnType<SettingsService['advice']>>;
}

/** Works programs out by calling the core; computes nothing itself. */
@Injectable()
export class RatesService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly lab: LabService,
    private readonly materials: MaterialsService,
    private readonly practices: PracticeService,
    private readonly programs: Programs,
    private readonly work: Work,
    private readonly clock: Clock,
    private readonly settings: SettingsService,
    private readonly days: Days,
    private readonly threads: Threads,
    private readonly machines: MachinesService,
    private readonly handOver: HandOver,
  ) {}

  /** The program of a zone as it stands, and what of it its owner has in hand. */
  async zoneProgram(zoneId: string, units: UnitSystem): Promise<ZoneProgramAnswer> {
    const zones = await this.ground.zonesBeside(zoneId);
    const zone = zones.find(({ id }) => id === zoneId) ?? notFound();
    const basis = await this.#basis(zone.siteId, zones, units);
    const result = basis.results.get(zoneId);
    const { input } = this.#inputOf(zone, basis);
    const others = basis.zones.flatMap((other): TestedZone[] => {
      const found = other.id === zoneId ? undefined : basis.results.get(other.id);
      const test = found && soilTest(found);
      return test ? [{ zone: zoneFacts(other), test }] : [];
    });
    const { reading, program } = programZone({ ...input, ...basis.shared, others });
    const papers = await this.records.of(ProgramZone).find({ zoneId }, { issuedAt: 'DESC' });
    const [last] = papers;
    const borrowed = this.#borrowed(zoneId, basis);
    return {
      zoneId,
      result: result ? labResultAnswer(result) : null,
      borrowed,
      reading: { ...reading, notes: [borrowed ?? [], reading.notes].flat() },
      program: this.#asTold(program),
      changes: (basis.changes.get(zoneId) ?? []).map((record) => this.#changeAsTold(changeAnswer(record, basis.began))),
      handedOver: last ? handedOverAnswer(last, program, units) : null,
      yearBefore: yearBefore(
        papers,
        { ...basis, day: basis.shared.from },
        { changes: basis.changes.get(zoneId) ?? [], resultId: result?.id },
      ),
      work: (input.settings?.work ?? []).filter(({ per }) => per !== 'visit').map(({ name, per }) => ({ name, per })),
      priced: this.#seesCosts(),
    };
  }

  /** A zone as its program is worked out, and all that is the same for its site: for whoever works it out otherwise. */
  async toPlan(zoneId: string, units: UnitSystem): Promise<{ readonly zone: ZoneToPlan; readonly shared: Shared }> {
    const zones = await this.ground.zonesBeside(zoneId);
    const zone = zones.find(({ id }) => id === zoneId) ?? notFound();
    const basis = await this.#basis(zone.siteId, zones, units);
    return { zone: this.#inputOf(zone, basis), shared: { ...basis.shared, work: basis.settingsOf(zoneId).work } };
  }

  /** The same of every zone of a site that has a test, or something that was added by hand. */
  async siteToPlan(
    siteId: string,
    units: UnitSystem,
  ): Promise<{ readonly zones: ZoneToPlan[]; readonly shared: Shared }> {
    const zones = await this.ground.zones(siteId);
    const basis = await this.#basis(siteId, zones, units);
    return {
      zones: zones.map((zone) => this.#inputOf(zone, basis)),
      shared: { ...basis.shared, work: basis.settingsOf().work },
    };
  }

  /** The program of a site: every zone that has something in it, and one list to buy. */
  async siteProgram(siteId: string, units: UnitSystem): Promise<SiteProgramAnswer> {
    const { zones, list, untested, basis } = await this.#sitePrograms(siteId, units);
    const priced = this.#seesCosts();
    const known = priced ? list : listWithoutCosts(list);
    const budgets = await this.settings.sections(siteId);
    const [newest] = await this.records.of(Program).find({ siteId, state: 'handed over' }, { handedOverAt: 'DESC' });
    return {
      began: basis.began,
      over: newest ? overSince(dayBegun(newest, basis.timeZone), { ...basis, day: basis.shared.from }) : false,
      sections: sectionSums(
        zones.map(({ zoneId, name, program }) => {
          const { area, facts } = basis.zones.find(({ id }) => id === zoneId)!;
          const section = facts?.section ?? null;
          return { zoneId, zone: name, area, section, treatments: this.#asTold(program).treatments };
        }),
        known,
        priced ? budgets : {},
        basis.shared.currency,
      ),
      zones: zones.map(({ zoneId, name, program }) => {
        const { treatments, findings, cost, year } = this.#asTold(program);
        return { zoneId, name, program: { treatments, findings, cost, year } };
      }),
      list: known,
      untested,
      priced,
    };
  }

  /** Decide something by hand of a treatment. */
  async change(zoneId: string, key: string, input: TreatmentInput, version: number) {
    const { siteId } = await this.ground.zone(zoneId);
    const materials = (await this.materials.products()).map(stocked);
    const { began } = await this.programs.standing(siteId, []);
    return changeAnswer(await this.programs.change(siteId, zoneId, key, input, version, materials), began);
  }

  /** What a quote offers: the program of every zone, what it takes to buy, and how work is charged. */
  async toOffer(siteId: string, units: UnitSystem) {
    const { zones, list, offered, basis } = await this.#sitePrograms(siteId, units);
    return { zones, list, offered, settings: basis.settingsOf(), timeZone: basis.timeZone };
  }

  /** Begin the next year of a site’s program. */
  async beginYear(siteId: string): Promise<void> {
    await this.ground.site(siteId);
    await this.programs.beginYear(siteId);
  }

  /** Back to what the test asks for. */
  async undo(zoneId: string, key: string): Promise<void> {
    const { siteId } = await this.ground.zone(zoneId);
    await this.programs.undo(siteId, zoneId, key);
  }

  /** All that the paper of a zone shows, as it stands now. Nothing is kept: a draft is printed without being handed over. */
  async draft(zoneId: string, units: UnitSystem): Promise<ZonePaper> {
    const zone = await this.ground.zone(zoneId);
    const {
      papers: [paper],
    } = await this.papers(zone.siteId, units, [zoneId]);
    return paper?.paper ?? this.nothingYet(zone.name);
  }

  /** The same of every zone of a site. */
  async siteDraft(siteId: string, units: UnitSystem): Promise<ZonePaper[]> {
    return (await this.papers(siteId, units)).papers.map(({ paper }) => paper);
  }

  /** A zone of a program that was handed over, as the person may see it. */
  async issued(id: string): Promise<ProgramZone & { readonly paper: ZonePaper }> {
    return this.#toRead(await this.records.of(ProgramZone).one(id));
  }

  /** A program that was handed over, zone by zone in their order. */
  async handedOverProgram(id: string) {
    const program = await this.records.of(Program).one(id);
    const zones = await this.records.of(ProgramZone).find({ programId: id }, { createdAt: 'ASC' });
    if (zones.length === 0) throw new Problem(404, 'Not handed over', 'This program has not been handed over yet.');
    const order = new Map((await this.ground.zones(program.siteId)).map((zone, index) => [zone.id, index]));
    const place = ({ zoneId }: ProgramZone): number => order.get(zoneId) ?? order.size;
    zones.sort((one, other) => place(one) - place(other));
    return { program, papers: zones.map((zone) => this.#toRead(zone).paper) };
  }

  /** What was handed over last for each of these zones, as the person may see it. */
  async handedOver(zoneIds: readonly string[]) {
    return (await this.handOver.last(zoneIds)).map((zone) => this.#toRead(zone));
  }

  /** The day of a moment, now unless told, where a zone lies: deleted or not, its paper keeps its day. */
  async dayOf(zoneId: string, at?: Date): Promise<string> {
    const [zone] = await this.ground.zonesEver([zoneId]);
    return this.days.on(zone?.siteId ?? null, at);
  }

  async #basis(siteId: string, zones: readonly MeasuredZone[], units: UnitSystem): Promise<Basis> {
    const site = await this.ground.site(siteId);
    const tests = await this.lab.resultsOf(siteId);
    const records = await this.materials.products();
    const decided = await this.settings.advice(siteId);
    const { currency, timeZone } = await this.practices.current();
    const { began, handedOverFrom, changes } = await this.programs.standing(
      siteId,
      zones.map(({ id }) => id),
    );
    const today = dayIn(this.clock.now(), site.timeZone ?? timeZone);
    const begun = began ?? handedOverFrom;
    const hired = (await this.machines.hired()).map(({ name, hireDay }): WorkPrice => ({
      name: `${name}, hired`,
      price: hireDay,
      per: 'day',
      whole: true,
    }));
    return {
      site,
      zones,
      changes,
      began,
      countsFrom: begun !== null && countsToward(begun, today) ? begun : null,
      timeZone: site.timeZone ?? timeZone,
      settingsOf: (zoneId) => {
        const settings = decided(zoneId);
        return { ...settings, work: [...settings.work, ...hired] };
      },
      results: new Map(
        zones.flatMap(({ id }) => {
          const result = testOf(tests, id);
          return result && soilTest(result) ? [[id, result] as const] : [];
        }),
      ),
      shared: {
        materials: records.map(stocked),
        stock: new Map(records.map(({ id, stock }) => [id, stock ?? 0])),
        system: units,
        currency,
        from: today,
        climate: climateOf({ climate: site.climate, normals: site.normals, latitude: whereLies(site, zones)?.[1] }),
      },
    };
  }

  #inputOf(zone: MeasuredZone, { results, changes, began, countsFrom, shared, settingsOf }: Basis): ZoneToPlan {
    const result = results.get(zone.id);
    const test = result && soilTest(result);
    const down =
      countsFrom === null ? undefined : downOf(zone.entries, zone.area, { since: countsFrom, today: shared.from });
    return {
      zoneId: zone.id,
      input: {
        zone: {
          ...zoneFacts(zone),
          down,
          sinceTest: sinceSample(zone.entries, zone.area, test?.sampledOn, shared.from),
        },
        test,
        advised: result?.advised,
        changes: (changes.get(zone.id) ?? []).map((record) => changeLess(record, began, zone)),
        settings: settingsOf(zone.id),
      },
    };
  }

  async #sitePrograms(siteId: string, units: UnitSystem): Promise<SitePrograms & { basis: Basis; untested: string[] }> {
    const zones = await this.ground.zones(siteId);
    const basis = await this.#basis(siteId, zones, units);
    const inputs = zones
      .map((zone) => this.#inputOf(zone, basis))
      .filter(({ input }) => input.test !== undefined || (input.changes ?? []).length > 0);
    const made = await this.threads.run(sitePrograms, inputs, { ...basis.shared, work: basis.settingsOf().work });
    return { ...made, basis, untested: zones.filter(({ id }) => !basis.results.has(id)).map(({ name }) => name) };
  }

  /** Whose soil the test of a zone is of, where it is not the zone's alone. */
  #borrowed(zoneId: string, { results, zones }: Basis): string | null {
    const result = results.get(zoneId);
    const names = new Map(zones.map(({ id, name }) => [id, name]));
    return (result && borrowedWords(result, zoneId, names)) ?? null;
  }

  /** What the papers of a site’s zones show, as they stand now, and what these zones come to. */
  async papers(siteId: string, units: UnitSystem, only?: readonly string[]) {
    const { zones, list, offered, basis } = await this.#sitePrograms(siteId, units);
    const practice = await this.practices.current();
    const priced = this.#seesCosts();
    const own = zones.filter(({ zoneId }) => only?.includes(zoneId) ?? true);
    const zoneIds = own.map(({ zoneId }) => zoneId);
    const { lines, visits } = priceOnly(offered);
    const price = { visits, zoneIds, lines: lines.filter(({ zoneId }) => zoneIds.includes(zoneId)) };
    const papers = own.map(({ zoneId, name, reading, program }) => {
      const told = { zoneId, zone: name, treatments: program.treatments };
      const zone = basis.zones.find(({ id }) => id === zoneId)!;
      const result = basis.results.get(zoneId);
      const paper: ZonePaper = {
        ...{ units, practiceName: practice.name, siteName: basis.site.name, currency: practice.currency },
        ...{ zoneName: zone.name, zoneLabel: zone.label, area: zone.area },
        grass: grassWords(zone.grass, zone.facts?.mix),
        share: (priced && zoneCost(told, list, practice.currency)?.value) || null,
        answer: {
          ...{ result: result ? labResultAnswer(result) : null, borrowed: this.#borrowed(zoneId, basis) },
          ...{ reading, program: this.#asTold(program), priced },
          retest: retestOfProgram(result?.sample.sampledOn ?? null, zone.applied, program.treatments),
        },
      };
      return { zoneId, paper, program, resultId: result?.id ?? null, startsOn: basis.shared.from };
    });
    return { papers, price };
  }

  #toRead(zone: ProgramZone): ProgramZone & { readonly paper: ZonePaper } {
    const paper = paperOf(zone.issued);
    if (this.#seesCosts()) return { ...zone, paper };
    const { answer } = paper;
    return {
      ...zone,
      paper: { ...paper, answer: { ...answer, program: programWithoutCosts(answer.program), priced: false } },
    };
  }

  #changeAsTold(told: TreatmentChangeAnswer): TreatmentChangeAnswer {
    const { change } = told;
    return this.#seesCosts() ? told : { ...told, change: { ...change, values: withoutPrice(change.values) } };
  }

  #asTold(program: ZoneProgram): ZoneProgram {
    return this.#seesCosts() ? program : programWithoutCosts(program);
  }

  /** Costs are left out where the role sees none; work without a role, such as a shared report, sees them. */
  #seesCosts(): boolean {
    const { role } = this.work.worker;
    return role === null || allows(role, 'costs.read');
  }

  /** @throws that there is nothing to print or to hand over */
  nothingYet(name: string): never {
    throw new Problem(
      404,
      'Nothing in the program yet',
      `${name} has no test and nothing that was added by hand: enter a result on the Lab step, or add a treatment.`,
    );
  }
}
