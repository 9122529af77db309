import { randomUUID } from 'node:crypto';
import { type Outline, type Position } from '@glenfold/agronomy/geometry';
import { coringGround, corePlaces, shortestWalk } from '@glenfold/agronomy/sampling';
import { Plane } from '@glenfold/agronomy/geometry';
import { isExclusion } from '@glenfold/agronomy';
import type { BagState, DrawingAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import { DrawingService } from '../ground/drawing.service.ts';
import { SamplingService } from '../sampling/sampling.service.ts';
import { WalkService } from '../sampling/walk.service.ts';

/** A bag of the demo scenario, by the labels of its zones. */
export interface DemoBag {
  readonly zones: readonly string[];
  readonly cores: number;
  /** cm */
  readonly depth: number;
  readonly panels: readonly string[];
  readonly laboratory?: string;
  /** What it is taken for; routine where nothing is said. */
  readonly purpose?: string;
  /** Where it came, and how many days ago; what a simulated laboratory does then follows by itself. */
  readonly custody: ReadonlyArray<{ readonly state: BagState; readonly daysAgo: number }>;
}

const DAY = 86_400_000;

/** Plans, walks and moves the demo's bags the way a person would. */
@Injectable()
export class DemoBags {
  constructor(
    private readonly drawings: DrawingService,
    private readonly sampling: SamplingService,
    private readonly walk: WalkService,
  ) {}

  /** @returns the code of each bag, in order */
  async load(siteId: string, bags: readonly DemoBag[]): Promise<string[]> {
    const plan = bags.length > 0 ? await this.drawings.plan(siteId) : undefined;
    const codes: string[] = [];
    for (const bag of bags) codes.push(await this.#one(siteId, plan!, bag));
    return codes;
  }

  async #one(siteId: string, plan: DrawingAnswer, bag: DemoBag): Promise<string> {
    const { zones, cores, depth, panels, laboratory, purpose = 'routine', custody } = bag;
    const settings = { design: 'coverage', edge: 1, clear: 1, seed: 3, probe: 1.905, purpose } as const;
    const own = plan.zones.filter(({ label }) => zones.includes(label));
    const placed = own.flatMap((zone) =>
      placesIn(plan, zone.geometry as Outline, Math.round(cores / own.length)).map((place) => ({ zoneId: zone.id, place })),
    );
    const [made] = await this.sampling.plan(siteId, {
      bags: [
        {
          ...settings,
          depth,
          panels: [...panels],
          ...(laboratory ? { laboratory } : {}),
          cores: placed.map((core, index) => ({ ...core, turn: index + 1 })),
        },
      ],
    });
    const cored = custody.find(({ state }) => state === 'cored');
    if (!made) throw new Error(`The demo plans no bag of ${zones.join(' and ')}.`);
    if (!cored) return made.code;
    const began = Date.now() - cored.daysAgo * DAY;
    await this.walk.take({
      sentAt: new Date().toISOString(),
      taps: made.places.map(({ id, number }) => ({
        id: randomUUID(),
        coreId: id,
        state: 'cored' as const,
        at: new Date(began + number * 60_000).toISOString(),
        pushed: depth - (number % 4 === 0 ? 2.5 : 0),
        recovered: depth - (number % 4 === 0 ? 2.5 : 0.5),
        moisture: 'crumbles',
      })),
    });
    for (const { state, daysAgo } of custody.slice(custody.indexOf(cored) + 1)) {
      const at = new Date(Date.now() - daysAgo * DAY).toISOString();
      await this.sampling.move({ bagIds: [made.id], state, at });
    }
    return made.code;
  }
}

/** Places in a zone, in the order of a short walk. */
function placesIn({ features }: DrawingAnswer, outline: Outline, count: number): Array<[number, number]> {
  const exclusions = features.filter(({ kind }) => isExclusion(kind)).map(({ geometry }) => geometry as Outline);
  const lines = features
    .filter(({ kind }) => kind === 'buried line' || kind === 'irrigation')
    .map(({ geometry }) => geometry.coordinates as unknown as readonly Position[]);
  const places = corePlaces(coringGround({ outline, exclusions, lines, edge: 1, clear: 1 }), count, 'coverage', 3);
  const plane = new Plane(places[0]!);
  return shortestWalk(places.map((place) => plane.toPlane(place))).map((at) => [...places[at]!] as [number, number]);
}
