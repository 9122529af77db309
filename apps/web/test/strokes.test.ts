import type { DrawingAnswer, DrawingChangesInput, DrawnRecord, ZoneAnswer, ZoneGeometry } from '@glenfold/contract';
import fc from 'fast-check';
import {
  type MadeStroke,
  type Stroke,
  again,
  back,
  forward,
  made,
  stillAsMade,
} from '../src/features/ground/drawing/strokes.ts';

const square = (size: number): ZoneGeometry => ({
  type: 'Polygon',
  coordinates: [
    [
      [0, 0],
      [size, 0],
      [size, size],
      [0, 0],
    ],
  ],
});

/** A server in small: what a plan's changes do to records, with versions and records that are put away. */
class Sheet {
  #next = 1;
  #away = new Map<string, ZoneAnswer>();
  plan: DrawingAnswer = { zones: [], features: [], underlay: null };

  apply({ outlines = [], newZones = [], remove = [], restore = [] }: DrawingChangesInput): void {
    let zones = [...this.plan.zones];
    for (const { id } of remove) {
      const gone = zones.find((zone) => zone.id === id);
      if (!gone) throw new Error(`${id} is gone already`);
      this.#away.set(id, gone);
      zones = zones.filter((zone) => zone.id !== id);
    }
    for (const { id } of restore) {
      const back = this.#away.get(id);
      if (!back) throw new Error(`${id} was never away`);
      this.#away.delete(id);
      zones.push(back);
    }
    for (const zone of newZones)
      zones.push({
        ...zone,
        geometry: zone.geometry ?? null,
        facts: {},
        applied: [],
        measured: {},
        properties: null,
        id: `z${(this.#next += 1)}`,
        version: 1,
        siteId: 's',
      });
    for (const { id, version, geometry = null } of outlines) {
      const found = zones.find((zone) => zone.id === id);
      if (found?.version !== version) throw new Error(`${id} is stale`);
      zones = zones.map((zone) => (zone === found ? { ...zone, geometry, version: version + 1 } : zone));
    }
    this.plan = { zones, features: [], underlay: null };
  }

  make(stroke: Stroke): MadeStroke {
    const before = this.plan;
    this.apply(forward(stroke, before));
    return made(stroke, before, this.plan);
  }

  get drawn(): unknown {
    return [...this.plan.zones].map(({ id, geometry }) => [id, geometry]).sort();
  }
}

it('any run of strokes is undone to where it began and made again to where it was', () => {
  const step = fc.record({
    kind: fc.constantFrom('add', 'redraw', 'remove', 'split'),
    at: fc.nat(9),
    size: fc.nat(50),
  });
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), (steps) => {
      const sheet = new Sheet();
      const start = sheet.drawn;
      const done: Array<{ readonly stroke: MadeStroke; readonly after: unknown }> = [];
      for (const { kind, at, size } of steps) {
        const zone = sheet.plan.zones[at % Math.max(1, sheet.plan.zones.length)];
        const added = { name: 'Z', label: `${size}`, geometry: square(size + 1) } as unknown as NonNullable<
          Stroke['newZones']
        >[number];
        const redrawn = zone ? [{ id: zone.id, from: zone.geometry, to: square(size + 100), typedArea: 9 }] : [];
        const removed: DrawnRecord[] = zone ? [{ what: 'zone', id: zone.id }] : [];
        const stroke: Stroke =
          kind === 'add' || !zone
            ? { name: 'add', newZones: [added] }
            : kind === 'redraw'
              ? { name: 'redraw', redrawn }
              : kind === 'remove'
                ? { name: 'remove', removed }
                : { name: 'split', redrawn, newZones: [added] };
        done.push({ stroke: sheet.make(stroke), after: sheet.drawn });
      }
      for (const [index, { stroke }] of [...done.entries()].reverse()) {
        expect(stillAsMade(stroke, sheet.plan)).toBe(true);
        sheet.apply(back(stroke, sheet.plan));
        expect(sheet.drawn).toEqual(index === 0 ? start : done[index - 1]!.after);
      }
      for (const { stroke, after } of done) {
        sheet.apply(again(stroke, sheet.plan));
        expect(sheet.drawn).toEqual(after);
      }
    }),
  );
});

it('a stroke over which somebody else has drawn is not as it was made', () => {
  const sheet = new Sheet();
  sheet.make({ name: 'add', newZones: [{ name: 'Z', geometry: square(1) } as never] });
  const [zone] = sheet.plan.zones;
  const stroke = sheet.make({
    name: 'redraw',
    redrawn: [{ id: zone!.id, from: zone!.geometry, to: square(2), typedArea: 1 }],
  });
  sheet.apply({ outlines: [{ id: zone!.id, version: 2, geometry: square(3) }] });
  expect(stillAsMade(stroke, sheet.plan)).toBe(false);
});
