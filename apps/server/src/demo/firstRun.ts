import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type StockedMaterial, writeBagCode } from '@glenfold/agronomy';
import type { Role } from '@glenfold/contract';
import type { MachineInput, SettingKind } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import papaparse from 'papaparse';
import { type DemoBag, DemoBags } from './demoBags.ts';
import { type DemoFindings, DemoTests } from './demoTests.ts';
import { type DemoEntry, type DemoJob, type DemoStep, DemoYears } from './demoYears.ts';
import { GroundService, type SiteFile } from '../ground/ground.service.ts';
import { LabReportService } from '../lab/labReport.service.ts';
import { LaboratoriesService } from '../lab/laboratories.service.ts';
import { MachinesService } from '../machines/machines.service.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { SetupService } from '../people/setup.service.ts';
import { MaterialsService } from '../materials/materials.service.ts';
import { HandingOver } from '../rates/handingOver.service.ts';
import { OwnerReports } from '../report/ownerReports.service.ts';

interface Scenario {
  /** Of all the made-up people. */
  readonly password: string;
  readonly practices: ReadonlyArray<{
    readonly name: string;
    /** A materials file with prices and stock by name. */
    readonly prices?: string;
    readonly timeZone?: string;
    readonly settings?: ReadonlyArray<{ readonly kind: SettingKind; readonly site?: string; readonly value: object }>;
    readonly machines?: readonly DemoMachine[];
    readonly people: ReadonlyArray<{
      readonly name: string;
      readonly email: string;
      readonly role: Role;
      /** Sites whose reports a client reads, by name. */
      readonly reads?: readonly string[];
    }>;
    readonly sites: ReadonlyArray<{
      readonly ground: string;
      /** Of one from which its laboratory's way was learned, whose it is. */
      readonly labFiles: ReadonlyArray<{ readonly file: string; readonly import: boolean; readonly learn?: string }>;
      readonly findings?: DemoFindings;
      readonly bags?: readonly DemoBag[];
      /** Labels of the zones whose programs are in their owners' hands. */
      readonly handedOver?: readonly string[];
      /** Years that were worked before, each as of its day. */
      readonly years?: readonly DemoStep[];
      /** What was put down this year without a card. */
      readonly wrote?: readonly DemoEntry[];
      /** Jobs of today where the day allows them, and what waits. */
      readonly today?: readonly DemoJob[];
      /** Of the report that its owner has. */
      readonly letter?: string;
    }>;
  }>;
}

/** Stands in a laboratory’s file for the code of the site’s first bag, as `{bag 1}`. */
const BAG = /\{bag (\d+)\}/g;

/** A machine with its settings by the names of the products. */
type DemoMachine = Omit<MachineInput, 'settings'> & {
  readonly settings: ReadonlyArray<Omit<MachineInput['settings'][number], 'productId'> & { readonly product: string }>;
};

/** Fills an empty database once with the demo scenario: all of it or nothing. */
@Injectable()
export class FirstRun {
  constructor(
    private readonly setup: SetupService,
    private readonly ground: GroundService,
    private readonly imports: LabReportService,
    private readonly materials: MaterialsService,
    private readonly machines: MachinesService,
    private readonly settings: SettingsService,
    private readonly handing: HandingOver,
    private readonly demoBags: DemoBags,
    private readonly laboratories: LaboratoriesService,
    private readonly years: DemoYears,
    private readonly tests: DemoTests,
    private readonly ownerReports: OwnerReports,
  ) {}

  /** @param folder holds scenario.json and the files it names. */
  async loadDemo(folder: string): Promise<void> {
    const scenario = readScenario(folder);
    const read = (file: string): string => readFileSync(join(folder, file), 'utf8');
    await this.setup.first(async (manager) => {
      for (const { name, timeZone, prices, settings = [], machines = [], people, sites } of scenario.practices) {
        const { practiceId, enter } = await this.setup.practice(
          manager,
          { name, demo: true, ...(timeZone ? { timeZone } : {}) },
          people[0]!,
          scenario.password,
        );
        const siteIds = await enter(async () => {
          await this.materials.begin(prices ? pricesIn(read(prices)) : undefined);
          await this.#machines(machines);
          const made = new Map<string, string>();
          const decide = async (of: string | undefined): Promise<void> => {
            for (const { kind, site, value } of settings)
              if (site === of) await this.settings.decide(kind, { siteId: site ? made.get(site)! : null, value }, 0);
          };
          await decide(undefined);
          for (const { ground, labFiles, findings = {}, bags = [], handedOver = [], years = [], wrote = [], today = [], letter } of sites) {
            const site = await this.ground.importSite(JSON.parse(read(ground)) as SiteFile);
            made.set(site.name, site.id);
            await decide(site.name);
            await this.years.play(site.id, years, read);
            await this.years.write(site.id, wrote);
            const codes = await this.demoBags.load(site.id, bags);
            for (const { file, import: confirmed, learn } of labFiles) {
              const content = read(file).replace(BAG, (_, place: string) => writeBagCode(codes[Number(place) - 1]!));
              const { id } = await this.imports.preview(site.id, { fileName: file, content });
              if (learn) await this.imports.learn(id, learn);
              if (confirmed) await this.imports.confirm(id);
            }
            await this.tests.load(site.id, findings);
            const zones = await this.ground.zones(site.id);
            const zoneIds = zones.filter(({ label }) => handedOver.includes(label)).map(({ id }) => id);
            if (zoneIds.length > 0) await this.handing.issue(site.id, 'us', { zoneIds });
            await this.years.today(site.id, today);
            if (letter) await this.#ownerReport(site.id, letter);
          }
          // What was sent long enough ago has arrived, or come back.
          await this.laboratories.ask();
          return made;
        });
        for (const { role, reads = [], ...person } of people.slice(1))
          await this.setup.member(
            manager,
            practiceId,
            person,
            scenario.password,
            role,
            reads.map((site) => siteIds.get(site)!),
          );
      }
    });
  }

  async #ownerReport(siteId: string, letter: string): Promise<void> {
    const { id, version } = await this.ownerReports.draft(siteId, 'us');
    await this.ownerReports.write(id, letter, version);
    await this.ownerReports.handOver(id);
  }

  async #machines(machines: readonly DemoMachine[]): Promise<void> {
    const ids = new Map((await this.materials.products()).map(({ id, name }) => [name, id]));
    for (const { settings, ...machine } of machines)
      await this.machines.add({
        ...machine,
        settings: settings.map(({ product, ...setting }) => ({ ...setting, productId: ids.get(product)! })),
      });
  }
}

/** Prices and stock by the name of the material. */
function pricesIn(csv: string): Map<string, Omit<StockedMaterial, 'material'>> {
  const { data } = papaparse.parse<Record<string, string>>(csv.trim(), { header: true, skipEmptyLines: true });
  const number = (text: string | undefined): number | null => (text ? Number(text) : null);
  return new Map(
    data.map(({ name = '', pack_price: price, stock, priced_on: day, delivery_price: brought, load_size: load }) => [
      name,
      {
        ...{ packPrice: number(price), stock: number(stock), pricedOn: day || null },
        ...{ deliveryPrice: number(brought), loadSize: number(load) },
      },
    ]),
  );
}

export function readScenario(folder: string): Scenario {
  const file = join(folder, 'scenario.json');
  if (!existsSync(file)) throw new Error(`The demo files are missing from ${folder}.`);
  return JSON.parse(readFileSync(file, 'utf8')) as Scenario;
}
