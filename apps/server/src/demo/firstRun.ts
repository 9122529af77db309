import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Injectable, Logger } from '@nestjs/common';
import { GroundService, type SiteFile } from '../ground/ground.service.ts';
import { LabImportService } from '../lab/labImport.service.ts';
import { PracticeService } from '../people/people.ts';
import { PracticeContext } from '../platform/practiceContext.ts';
import { CatalogueService } from '../rates/catalogue.service.ts';

interface Scenario {
  readonly practice: string;
  readonly catalogue: string;
  readonly sites: ReadonlyArray<{ readonly ground: string; readonly labFiles: ReadonlyArray<{ readonly file: string; readonly import: boolean }> }>;
}

/** Fills an empty database once: with the demo scenario, or with a practice that has only the generic catalogue. */
@Injectable()
export class FirstRun {
  readonly #log = new Logger('FirstRun');

  constructor(
    private readonly practices: PracticeService,
    private readonly context: PracticeContext,
    private readonly ground: GroundService,
    private readonly imports: LabImportService,
    private readonly catalogue: CatalogueService,
  ) {}

  /** @param folder holds scenario.json and the files it names. */
  async fill(folder: string, empty: boolean): Promise<void> {
    if (await this.practices.only()) return;
    const read = (file: string): string => readFileSync(join(folder, file), 'utf8');
    const scenario = JSON.parse(read('scenario.json')) as Scenario;
    const practice = await this.practices.create(empty ? 'My practice' : scenario.practice, !empty);
    await this.context.run(practice.id, async () => {
      await this.catalogue.import(empty ? read('products-without-prices.csv') : read(scenario.catalogue));
      if (empty) return;
      for (const { ground, labFiles } of scenario.sites) {
        const site = await this.ground.importSite(JSON.parse(read(ground)) as SiteFile);
        for (const { file, import: confirmed } of labFiles) {
          const { id } = await this.imports.preview(site.id, { fileName: file, content: read(file) });
          if (confirmed) await this.imports.confirm(id);
        }
      }
      this.#log.log(`Loaded the demo scenario: ${scenario.practice}.`);
    });
  }
}

export function demoFolder(root: string): string {
  const folder = join(root, 'demo');
  if (!existsSync(join(folder, 'scenario.json'))) throw new Error(`The demo files are missing from ${folder}.`);
  return folder;
}
