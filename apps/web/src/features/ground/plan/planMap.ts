import type { FeatureKind, PlanGeometry, UnitSystem } from '@glenfold/agronomy';
import { isExclusion, measureRing } from '@glenfold/agronomy';
import { type Outline, Plane, type Position } from '@glenfold/agronomy/plan';
import type { GroundFeatureAnswer, GroundPlanAnswer } from '@glenfold/contract';
import 'ol/ol.css';
import Feature from 'ol/Feature.js';
import OlMap from 'ol/Map.js';
import View from 'ol/View.js';
import { ScaleLine } from 'ol/control.js';
import { createEmpty, extend, isEmpty } from 'ol/extent.js';
import { type Geometry, LineString, MultiPolygon, Point, Polygon } from 'ol/geom.js';
import { Draw, Modify, Snap, defaults as usualInteractions } from 'ol/interaction.js';
import VectorLayer from 'ol/layer/Vector.js';
import { Projection } from 'ol/proj.js';
import VectorSource from 'ol/source/Vector.js';
import { faultStyle, featureStyle, gridStep, gridStyle, penStyle, zoneLabelStyle, zoneStyle } from './paper.ts';

/** What lies under the pointer, or is chosen. */
export interface PlanItem {
  readonly what: 'zone' | 'feature';
  readonly id: string;
}

/** What the pen is doing; `edit` moves corners of the chosen item. */
export type PenShape = 'Polygon' | 'LineString' | 'Point';

export interface Measure {
  /** m² */
  readonly area?: number;
  /** m of border, or of the line. */
  readonly length: number;
}

interface PlanMapEvents {
  readonly onChoose: (item: PlanItem | null) => void;
  readonly onMeasure: (measure: Measure | null) => void;
  /** The corners of what is edited were moved. */
  readonly onEdited: (geometry: PlanGeometry) => void;
}

/** A flat sheet in metres: its code is its own, so that no other projection is taken for it. */
const sheet = new Projection({ code: 'GLENFOLD:SHEET', units: 'm' });
const EMPTY_EXTENT = [-30, -20, 30, 20];

/** The plan of a site on paper: shows it, and lets the pen draw on it. Knows no server and no React. */
export class PlanMap {
  readonly #map: OlMap;
  readonly #zones = new VectorSource<Feature>();
  readonly #things = new VectorSource<Feature>();
  readonly #faults = new VectorSource<Feature>();
  readonly #grid = new VectorSource<Feature>();
  readonly #snaps: Snap[];
  #events: PlanMapEvents = { onChoose: () => undefined, onMeasure: () => undefined, onEdited: () => undefined };
  #editing: PlanItem | null = null;
  #plane: Plane;
  #system: UnitSystem = 'metric';
  #chosen: PlanItem | null = null;
  #pen: Draw | null = null;
  #modify: Modify | null = null;
  #gridKey = '';
  readonly #scale: ScaleLine;

  constructor(target: HTMLElement, origin: Position) {
    this.#plane = new Plane(origin);
    this.#scale = new ScaleLine({ units: 'metric', minWidth: 70 });
    const layer = (source: VectorSource<Feature>, zIndex: number, declutter = true): VectorLayer =>
      new VectorLayer({ source, zIndex, declutter, updateWhileAnimating: true, updateWhileInteracting: true });
    const zoneLayer = layer(this.#zones, 1);
    zoneLayer.setStyle((feature) =>
      zoneStyle(feature.get('position') as number, this.#isChosen('zone', feature.getId())),
    );
    const thingLayer = layer(this.#things, 2);
    thingLayer.setStyle((feature, resolution) => {
      const { kind, name, canopyRadius } = feature.get('answer') as GroundFeatureAnswer;
      return featureStyle(kind, name, canopyRadius, this.#isChosen('feature', feature.getId()), resolution);
    });
    const labelLayer = layer(this.#zones, 4);
    labelLayer.setStyle((feature) =>
      zoneLabelStyle(feature.get('label') as string, this.#isChosen('zone', feature.getId())),
    );
    const faultLayer = layer(this.#faults, 3);
    faultLayer.setStyle(faultStyle);
    const gridLayer = layer(this.#grid, 0);
    gridLayer.setStyle((feature) => gridStyle[feature.get('heavy') ? 1 : 0]);
    this.#map = new OlMap({
      target,
      layers: [gridLayer, zoneLayer, thingLayer, faultLayer, labelLayer],
      controls: [this.#scale],
      interactions: usualInteractions({ altShiftDragRotate: false, pinchRotate: false }),
      view: new View({ projection: sheet, center: [0, 0], resolution: 0.2, minResolution: 0.005, maxResolution: 5 }),
    });
    this.#snaps = [this.#zones, this.#things].map((source) => new Snap({ source, pixelTolerance: 12 }));
    this.#map.on('singleclick', ({ pixel }) => {
      if (!this.#pen) this.#events.onChoose(this.#at(pixel));
    });
    this.#map.on('pointermove', ({ pixel, dragging }) => {
      if (!dragging) target.style.cursor = this.#pen ? 'crosshair' : this.#at(pixel) ? 'pointer' : 'grab';
    });
    this.#map.on('postrender', () => this.#drawGrid());
  }

  /** Who is told from now on. */
  listen(events: PlanMapEvents): void {
    this.#events = events;
  }

  destroy(): void {
    this.#map.setTarget(undefined);
    this.#map.dispose();
  }

  /** Show the plan as it stands. */
  show({ zones, features }: GroundPlanAnswer): void {
    this.#replace(
      this.#zones,
      zones.flatMap(({ id, geometry, label }, position) =>
        geometry ? [this.#feature(id, geometry, { label, position })] : [],
      ),
    );
    this.#replace(
      this.#things,
      features.map((answer) => this.#feature(answer.id, answer.geometry, { answer })),
    );
    // What is edited is another object now, with the corners that were saved.
    if (this.#editing) this.#holdCorners();
  }

  showFaults(outlines: readonly Outline[]): void {
    this.#replace(
      this.#faults,
      outlines.map((outline, index) => this.#feature(`fault ${index}`, outline as PlanGeometry, {})),
    );
  }

  choose(item: PlanItem | null): void {
    this.#chosen = item;
    this.#zones.changed();
    this.#things.changed();
  }

  setUnits(system: UnitSystem): void {
    this.#system = system;
    this.#scale.setUnits(system === 'us' ? 'imperial' : 'metric');
    this.#gridKey = '';
    this.#map.render();
  }

  /** All of the site in sight. */
  fit(): void {
    const extent = createEmpty();
    for (const source of [this.#zones, this.#things])
      if (source.getFeatures().length > 0) extend(extent, source.getExtent()!);
    this.#map.updateSize();
    this.#map.getView().fit(isEmpty(extent) ? EMPTY_EXTENT : extent, { padding: [36, 36, 44, 36] });
  }

  zoom(by: number): void {
    const view = this.#map.getView();
    view.animate({ resolution: (view.getResolution() ?? 1) / 2 ** by, duration: 120 });
  }

  /** Corners of a rectangle about the middle of what is in sight, turned by a bearing in degrees. */
  rectangle(length: number, width: number, bearing: number): Extract<PlanGeometry, { type: 'Polygon' }> {
    const [middleEast = 0, middleNorth = 0] = this.#map.getView().getCenter() ?? [];
    const turn = (bearing * Math.PI) / 180;
    const ring = [
      [-0.5, -0.5],
      [0.5, -0.5],
      [0.5, 0.5],
      [-0.5, 0.5],
      [-0.5, -0.5],
    ].map(([along = 0, across = 0]) => {
      const [north, east] = [along * length, across * width];
      return [
        ...this.#plane.toMap([
          middleEast + east * Math.cos(turn) + north * Math.sin(turn),
          middleNorth - east * Math.sin(turn) + north * Math.cos(turn),
        ]),
      ];
    });
    return { type: 'Polygon', coordinates: [ring] };
  }

  /** Take up the pen for one shape; it snaps to what is drawn. */
  draw(shape: PenShape, onDrawn: (geometry: PlanGeometry) => void): void {
    this.rest();
    const pen = new Draw({
      type: shape,
      source: new VectorSource(),
      style: penStyle,
      stopClick: true,
      // A click on a border and one further along it copy the border between.
      ...(shape === 'Point' ? {} : { trace: true, traceSource: this.#zones }),
    });
    pen.on('drawstart', ({ feature }) => {
      feature.getGeometry()?.on('change', ({ target }) => this.#measure(target as Geometry));
    });
    pen.on('drawabort', () => this.#events.onMeasure(null));
    pen.on('drawend', ({ feature }) => {
      this.#events.onMeasure(null);
      const geometry = feature.getGeometry();
      if (geometry) onDrawn(this.#toMap(geometry));
    });
    this.#pen = pen;
    this.#add(pen);
  }

  /** Close what is being drawn. */
  finish(): void {
    this.#pen?.finishDrawing();
  }

  /** Take back the last corner of what is being drawn. */
  takeBack(): void {
    this.#pen?.removeLastPoint();
  }

  /** Let the corners of one item be moved, added and (with Alt) taken out, until the pen is put down. */
  edit(item: PlanItem): void {
    this.rest();
    this.#editing = item;
    this.#holdCorners();
  }

  /** Take hold of the corners of what is edited, as it is drawn now. */
  #holdCorners(): void {
    if (this.#modify) this.#map.removeInteraction(this.#modify);
    for (const snap of this.#snaps) this.#map.removeInteraction(snap);
    this.#modify = null;
    const { what, id } = this.#editing ?? {};
    const feature = id && (what === 'zone' ? this.#zones : this.#things).getFeatureById(id);
    if (!(feature instanceof Feature)) return;
    feature.getGeometry()?.on('change', ({ target }) => this.#measure(target as Geometry));
    const modify = new Modify({ source: new VectorSource<Feature>({ features: [feature] }), style: penStyle });
    modify.on('modifyend', () => {
      this.#events.onMeasure(null);
      const geometry = feature.getGeometry();
      if (geometry) this.#events.onEdited(this.#toMap(geometry));
    });
    this.#modify = modify;
    this.#add(modify);
  }

  /** Put the pen down. */
  rest(): void {
    for (const interaction of [this.#pen, this.#modify, ...this.#snaps])
      if (interaction) this.#map.removeInteraction(interaction);
    this.#pen = null;
    this.#modify = null;
    this.#editing = null;
    this.#events.onMeasure(null);
  }

  #add(interaction: Draw | Modify): void {
    this.#map.addInteraction(interaction);
    // Snapping comes last, so that it sees the pointer first.
    for (const snap of this.#snaps) this.#map.addInteraction(snap);
  }

  #isChosen(what: PlanItem['what'], id: string | number | undefined): boolean {
    return this.#chosen?.what === what && this.#chosen.id === id;
  }

  #replace(source: VectorSource<Feature>, features: Feature[]): void {
    source.clear(true);
    source.addFeatures(features);
  }

  #at(pixel: number[]): PlanItem | null {
    let found: PlanItem | null = null;
    this.#map.forEachFeatureAtPixel(
      pixel,
      (feature) => {
        const id = feature.getId();
        if (typeof id !== 'string' || id.startsWith('fault')) return false;
        found = { what: feature.get('answer') ? 'feature' : 'zone', id };
        return true;
      },
      { hitTolerance: 5 },
    );
    return found;
  }

  #feature(id: string, geometry: PlanGeometry, properties: object): Feature {
    const at = ([longitude = 0, latitude = 0]: readonly number[]): number[] => [
      ...this.#plane.toPlane([longitude, latitude]),
    ];
    const shape =
      geometry.type === 'Point'
        ? new Point(at(geometry.coordinates))
        : geometry.type === 'LineString'
          ? new LineString(geometry.coordinates.map(at))
          : geometry.type === 'Polygon'
            ? new Polygon(geometry.coordinates.map((ring) => ring.map(at)))
            : new MultiPolygon(geometry.coordinates.map((part) => part.map((ring) => ring.map(at))));
    const feature = new Feature({ ...properties, geometry: shape });
    feature.setId(id);
    return feature;
  }

  #toMap(geometry: Geometry): PlanGeometry {
    const at = ([east = 0, north = 0]: readonly number[]): number[] => [...this.#plane.toMap([east, north])];
    if (geometry instanceof Point) return { type: 'Point', coordinates: at(geometry.getCoordinates()) };
    if (geometry instanceof LineString)
      return { type: 'LineString', coordinates: geometry.getCoordinates().map((corner) => at(corner)) };
    if (geometry instanceof Polygon)
      return {
        type: 'Polygon',
        coordinates: geometry.getCoordinates().map((ring) => ring.map((corner) => at(corner))),
      };
    if (geometry instanceof MultiPolygon)
      return {
        type: 'MultiPolygon',
        coordinates: geometry.getCoordinates().map((part) => part.map((ring) => ring.map((corner) => at(corner)))),
      };
    throw new Error('A geometry that is not drawn here.');
  }

  /** Area and border on the ellipsoid, while the pen moves. */
  #measure(geometry: Geometry): void {
    const drawn = this.#toMap(geometry);
    if (drawn.type === 'LineString') {
      this.#events.onMeasure({ length: geometry instanceof LineString ? geometry.getLength() : 0 });
      return;
    }
    const rings =
      drawn.type === 'Polygon' ? drawn.coordinates : drawn.type === 'MultiPolygon' ? drawn.coordinates.flat() : [];
    const [outer, ...holes] = rings.filter((ring) => ring.length >= 4).map((ring) => measureRing(ring));
    if (!outer) return;
    this.#events.onMeasure({
      area: holes.reduce((area, hole) => area - hole.area, outer.area),
      length: outer.perimeter,
    });
  }

  /** Lines of whole metres or feet through what is in sight, every fifth heavier. */
  #drawGrid(): void {
    const view = this.#map.getView();
    const resolution = view.getResolution();
    const size = this.#map.getSize();
    if (!resolution || !size) return;
    const step = gridStep(resolution, this.#system);
    const [west = 0, south = 0, east = 0, north = 0] = view.calculateExtent(size);
    const cells = [west, south, east, north].map((edge) => Math.floor(edge / step / 5));
    const key = `${this.#system} ${step} ${cells.join()}`;
    if (key === this.#gridKey) return;
    this.#gridKey = key;
    const [left = 0, bottom = 0, right = 0, top = 0] = cells.map((cell, index) => (cell + (index < 2 ? -1 : 2)) * 5);
    const lines: Feature[] = [];
    const line = (at: number, from: number[], to: number[]): void => {
      lines.push(new Feature({ geometry: new LineString([from, to]), heavy: at % 5 === 0 }));
    };
    for (let at = left; at <= right; at += 1) line(at, [at * step, bottom * step], [at * step, top * step]);
    for (let at = bottom; at <= top; at += 1) line(at, [left * step, at * step], [right * step, at * step]);
    this.#replace(this.#grid, lines);
  }
}

/** Shapes of the pen by what is drawn. */
export function shapeOf(kind: FeatureKind | 'zone'): PenShape {
  if (kind === 'zone' || isExclusion(kind)) return 'Polygon';
  return ['buried line', 'irrigation', 'fence'].includes(kind) ? 'LineString' : 'Point';
}
