import { type UnitSystem, present } from '@glenfold/agronomy';
import { colours } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import type { Content } from 'pdfmake/interfaces.js';
import { PracticeService } from '../people/practice.service.ts';
import { Clock } from '../platform/clock.ts';
import { bytesOf, cell, head, rules } from '../platform/paper.ts';
import { GroundService } from './ground.service.ts';
import { DrawingService } from './drawing.service.ts';
import { type PlanSheet, planSheet, sheetSize } from './planSheet.ts';

/** The plan of a site to take away. */
@Injectable()
export class PlanSheetService {
  constructor(
    private readonly ground: GroundService,
    private readonly plans: DrawingService,
    private readonly practices: PracticeService,
    private readonly clock: Clock,
  ) {}

  async sheet(siteId: string, units: UnitSystem): Promise<PlanSheet> {
    const site = await this.ground.site(siteId);
    const { name } = await this.practices.current();
    const by = `${name}, ${this.clock.day()}`;
    return planSheet(site, await this.plans.plan(siteId), by, units);
  }

  /** One page to scale; a second with the areas where there are more zones than fit beside the drawing. */
  async pdf(siteId: string, units: UnitSystem): Promise<Buffer> {
    const { svg, shown } = await this.sheet(siteId, units);
    const site = await this.ground.site(siteId);
    const zones = await this.ground.zones(siteId);
    const { width, height } = sheetSize(units);
    const all: Content[] =
      shown === zones.length
        ? []
        : [
            { text: 'All zones', font: 'Bitter', fontSize: 14, pageBreak: 'before', margin: [36, 36, 36, 6] },
            {
              margin: [36, 0, 36, 36],
              layout: rules,
              table: {
                headerRows: 1,
                widths: [24, '*', 120, 140],
                body: [
                  [head(''), head('Zone'), head('Bag label'), head('Area')],
                  ...zones.map(({ name, label, area }, index) => [
                    cell(`${index + 1}`),
                    cell(name),
                    cell(label),
                    cell(present('area', area, units).text),
                  ]),
                ],
              },
            },
          ];
    return bytesOf({
      info: { title: `${site.name}: plan of the ground` },
      pageSize: { width, height },
      pageMargins: [0, 0, 0, 0],
      defaultStyle: { font: 'Atkinson', fontSize: 10, color: colours.ink },
      content: [{ svg, width }, ...all],
    });
  }
}
