import {
  type BufferMethod,
  type Purpose,
  type SoilTest,
  type TestedZone,
  type UnitSystem,
  type ZoneFacts,
  grassWords,
  planZone,
  serves,
  soilTestOf,
} from '@glenfold/agronomy';
import { type PlanChoicesInput, type ShoppingAnswer, type ZonePlanAnswer, allows } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { In, IsNull, Not } from 'typeorm';
import { GroundService, type MeasuredZone } from '../ground/ground.service.ts';
import { LabService, type ReadResult, inheritedWords, labResultAnswer, testOf } from '../lab/lab.service.ts';
import { PracticeService } from '../people/practice.service.ts';
import { Clock } from '../platform/clock.ts';
import { Problem, notFound, refuse } from '../platform/problem.ts';
import { Records } from '../platform/records.ts';
import { Threads } from '../platform/threads.ts';
import { Work } from '../platform/work.ts';
import { MaterialsService, coreProduct } from '../materials/materials.service.ts';
import { Days } from '../settings/days.service.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { listWithoutCosts, withoutCosts } from './costs.ts';
import { type IssuedPlan, Plan } from './plan.entity.ts';
import { type ZoneToPlan, siteShopping } from './siteShopping.ts';

/** Reads tests and works out plans by calling the core; computes nothing itself. */
@Injectable()
export class RatesService {
  constructor(
    private readonly records: Records,
    private readonly ground: GroundService,
    private readonly lab: LabService,
    private readonly materials: MaterialsService,
    private readonly practices: PracticeService,
    private readonly work: Work,
    private readonly clock: Clock,
    private readonly settings: SettingsService,
    private readonly days: Days,
    private readonly threads: Threads,
  ) {}

  async plan(zoneId: string, units: UnitSystem): Promise<ZonePlanAnswer> {
    const zones = await this.ground.zonesBeside(zoneId);
    const zone = zones.find(({ id }) => id === zoneId) ?? notFound();
    const results = await this.lab.resultsOf(zone.siteId);
    const products = (await this.materials.products()).flatMap((record) => coreProduct(record) ?? []);
    const settings = await this.settings.advice(zone.siteId);
    const open = await this.#open(zoneId);
    const result = testOf(results, zoneId);
    const test = result && soilTest(result);
    if (!result || !test)
      throw new Problem(404, 'No test yet', `${zone.name} has no laboratory result yet: enter one on the Lab step.`);
    const others = zones.flatMap((other): TestedZone[] => {
      const found = other.id === zoneId ? undefined : testOf(results, other.id);
      const tested = found && soilTest(found);
      return tested ? [{ zone: zoneFacts(other), test: tested }] : [];
    });
    const choices = open?.choices ?? {};
    const { reading, plan } = planZone({
      zone: zoneFacts(zone),
      test,
      products,
      choices,
      others,
      system: units,
      settings: settings(zoneId),
    });
    const answer = {
      zoneId,
      result: labResultAnswer(result),
      reading: { ...reading, notes: [inheritedWords(result, zoneId) ?? [], reading.notes].flat() },
      plan,
      choices,
      version: open?.version ?? 0,
      priced: true,
    };
    return this.#forRole(answer);
  }

  /** One list to buy for the tested zones of a site. */
  async shopping(siteId: string, units: UnitSystem): Promise<ShoppingAnswer> {
    const zones = await this.ground.zones(siteId);
    const results = await this.lab.resultsOf(siteId);
    const records = await this.materials.products();
    const settings = await this.settings.advice(siteId);
    const { currency } = await this.practices.current();
    const where = { issuedAt: IsNull(), zoneId: In(zones.map(({ id }) => id)) };
    const chosen = new Map((await this.records.of(Plan).find(where)).map((open) => [open.zoneId, open.choices]));
    const planned = zones.flatMap((zone): ZoneToPlan[] => {
      const result = testOf(results, zone.id);
      const test = result && soilTest(result);
      const choices = chosen.get(zone.id) ?? {};
      return test
        ? [{ zoneId: zone.id, input: { zone: zoneFacts(zone), test, choices, settings: settings(zone.id) } }]
        : [];
    });
    const list = await this.threads.run(siteShopping, planned, {
      products: records.flatMap((record) => coreProduct(record) ?? []),
      stock: new Map(records.map(({ id, stock }) => [id, stock ?? 0])),
      system: units,
      currency,
    });
    const tested = new Set(planned.map(({ zoneId }) => zoneId));
    const untested = zones.filter(({ id }) => !tested.has(id)).map(({ name }) => name);
    const priced = this.#seesCosts();
    return { list: priced ? list : listWithoutCosts(list), zones: planned.length, untested, priced };
  }

  async choose(zoneId: string, choices: PlanChoicesInput, version: number): Promise<void> {
    await this.ground.zone(zoneId);
    const products = (await this.materials.products()).flatMap((record) => coreProduct(record) ?? []);
    for (const [purpose, id] of Object.entries(choices) as Array<[Purpose, string | undefined]>) {
      if (id && !products.some((product) => product.id === id && serves(product, purpose)))
        refuse([{ field: purpose, message: `That is not a product for ${purpose}: choose one of the catalogue.` }]);
    }
    const open = await this.#open(zoneId);
    if (open) {
      // A purpose that the request leaves out keeps its product: the request class holds it as undefined.
      const made = Object.fromEntries(Object.entries(choices).filter(([, id]) => id !== undefined));
      const merged = { ...open.choices, ...made };
      await this.records.of(Plan).change(open.id, { choices: merged }, { version, tell: choicesTold });
    } else {
      await this.records.of(Plan).add({ zoneId, choices, issuedAt: null, issued: null, labResultId: null });
    }
  }

  /** All that the paper shows, as it stands now. Nothing is kept: a draft can be printed without being handed over. */
  async draft(zoneId: string, units: UnitSystem): Promise<IssuedPlan> {
    const answer = await this.plan(zoneId, units);
    const zone = await this.ground.zone(zoneId);
    const site = await this.ground.site(zone.siteId);
    const practice = await this.practices.current();
    return {
      units,
      practiceName: practice.name,
      siteName: site.name,
      zoneName: zone.name,
      zoneLabel: zone.label,
      area: zone.area,
      grass: grassWords(zone.grass, zone.facts?.mix),
      currency: practice.currency,
      answer,
    };
  }

  /** The day of a moment, now unless told, where a zone lies: deleted or not, its paper keeps its day. */
  async dayOf(zoneId: string, at?: Date): Promise<string> {
    const [zone] = await this.ground.zonesEver([zoneId]);
    return this.days.on(zone?.siteId ?? null, at);
  }

  /** Hand the plan over: frozen as it stands. */
  async issue(zoneId: string, units: UnitSystem): Promise<Plan> {
    const issued = await this.draft(zoneId, units);
    const { choices, result } = issued.answer;
    return this.records.of(Plan).add({
      zoneId,
      choices,
      issuedAt: this.clock.now(),
      labResultId: result.id,
      issued,
    });
  }

  async issued(planId: string): Promise<Plan> {
    const plan = await this.records.of(Plan).one(planId);
    if (!plan.issued)
      throw new Problem(
        404,
        'Not handed over',
        'This plan has not been handed over yet: print it from the Rates step.',
      );
    return this.#asTold(plan);
  }

  /** What was handed over for these zones, newest first, as the person may see it. */
  async handedOver(zoneIds: readonly string[]): Promise<Plan[]> {
    const where = { issuedAt: Not(IsNull()), zoneId: In([...zoneIds]) };
    const plans = await this.records.of(Plan).find(where, { issuedAt: 'DESC' });
    return plans.map((plan) => this.#asTold(plan));
  }

  #asTold(plan: Plan): Plan {
    return { ...plan, issued: { ...plan.issued!, answer: this.#forRole(plan.issued!.answer) } };
  }

  /** Costs are left out where the role sees none; work without a role, such as a shared report, sees them. */
  #forRole(answer: ZonePlanAnswer): ZonePlanAnswer {
    return this.#seesCosts() ? answer : withoutCosts(answer);
  }

  #seesCosts(): boolean {
    const { role } = this.work.worker;
    return role === null || allows(role, 'costs.read');
  }

  async #open(zoneId: string): Promise<Plan | undefined> {
    return (await this.records.of(Plan).find({ zoneId, issuedAt: IsNull() }))[0];
  }
}

function choicesTold({ choices, version }: Plan) {
  return { ...choices, version };
}

/** Nothing instead of null, as the core has it. */
const known = <T>(value: T | null | undefined): T | undefined => value ?? undefined;

function zoneFacts(zone: MeasuredZone): ZoneFacts {
  const { name, area, grass, surface, intensity, shade, clippings } = zone;
  const facts = zone.facts ?? {};
  return {
    name,
    area,
    grass: known(grass),
    // A bed is tilled as a seedbed is.
    ...(surface === 'garden bed' ? { surface: 'seedbed', garden: true } : { surface }),
    mix: surface === 'garden bed' ? undefined : known(facts.mix),
    intensity,
    shade,
    sunHours: known(facts.sunHours),
    clippings,
    soilGroup: known(zone.soilGroup),
    aimPh: known(zone.aimPh),
    aimReason: known(zone.aimReason),
    slope: known(facts.slope),
    seaside: known(facts.seaside),
    measured: {
      thatch: known(zone.thatch),
      rootDepth: known(zone.rootDepth),
      probeStop: known(zone.probeStop),
    },
    signs: facts.signs?.map(({ sign }) => sign),
    applied: facts.applications?.map(({ kind, on, rate, cce }) => ({ kind, on, rate: known(rate), cce: known(cce) })),
  };
}

function soilTest({ values, extractant, limeFactor, sample }: ReadResult): SoilTest | undefined {
  return soilTestOf({
    values,
    extractant,
    bufferMethod: values.bufferPh?.method as BufferMethod | undefined,
    limeFactor: known(limeFactor),
    depth: sample.depth,
    sampledOn: known(sample.sampledOn),
  });
}
