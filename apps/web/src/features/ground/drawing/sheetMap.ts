import type { FeatureKind, DrawnGeometry, UnitSystem } from '@glenfold/agronomy';
import { isExclusion, lineKinds } from '@glenfold/agronomy';
import { type Outline, Plane, type PlanePoint, type Position } from '@glenfold/agronomy/geometry';
import {
  type Described,
  type DrawingAnswer,
  type TilesAnswer,
  type UnderlayAnswer,
  describeDrawing,
} from '@glenfold/contract';
import 'ol/ol.css';
import Feature from 'ol/Feature.js';
import OlMap from 'ol/Map.js';
import View from 'ol/View.js';
import { ScaleLine } from 'ol/control.js';
import { createEmpty, extend, isEmpty } from 'ol/extent.js';
import type { Geometry } from 'ol/geom.js';
import { Draw, Modify, Snap, defaults as usualInteractions } from 'ol/interaction.js';
import type BaseLayer from 'ol/layer/Base.js';
import VectorLayer from 'ol/layer/Vector.js';
import VectorImageLayer from 'ol/layer/VectorImage.js';
import { Projection } from 'ol/proj.js';
import VectorSource from 'ol/source/Vector.js';
import { type Measure, measureDrawn, toMap, toSheet } from './sheetGeometry.ts';
import { SheetGrid } from './sheetGrid.ts';
import { tileLayer, underlayLayer } from './under.ts';
import { faultStyle, markStyle, featureStyle, penStyle, zoneLabelStyle, zoneStyle } from './paper.ts';

export type { Measure };

/** What lies under the pointer, or is chosen. */
export interface SheetItem {
  readonly what: 'zone' | 'feature';
  readonly id: string;
}

/** What the pen is doing; `edit` moves corners of the chosen item. */
export type PenShape = 'Polygon' | 'LineString' | 'Point';

/** A place that is pointed out, with a word. */
export interface SheetMark {
  readonly at: Position;
  readonly text: string;
  readonly strong?: boolean;
}

/** How a zone is dressed for a view, such as by section. */
export interface ZoneDress {
  readonly ground: string;
  readonly label: string;
}

interface SheetMapEvents {
  readonly onChoose: (item: SheetItem | null) => void;
  readonly onMeasure: (measure: Measure | null) => void;
  /** The corners of what is edited were moved. */
  readonly onEdited: (geometry: DrawnGeometry) => void;
}

/** A flat sheet in metres: its code is its own, so that no other projection is taken for it. */
const sheet = new Projection({ code: 'GLENFOLD:SHEET', units: 'm' });
const EMPTY_EXTENT = [-30, -20, 30, 20];

/** The plan of a site on paper: shows it, and lets the pen draw on it. Knows no server and no React. */
export class SheetMap {
  readonly #map: OlMap;
  readonly #zones = new VectorSource<Feature>();
  readonly #things = new VectorSource<Feature>();
  readonly #faults = new VectorSource<Feature>();
  readonly #grid = new SheetGrid();
  readonly #snaps: Snap[];
  #events: SheetMapEvents = { onChoose: () => undefined, onMeasure: () => undefined, onEdited: () => undefined };
  #editing: SheetItem | null = null;
  #plane: Plane;
  #system: UnitSystem = 'metric';
  #drawing: DrawingAnswer | null = null;
  #chosen: SheetItem | null = null;
  #pen: Draw | null = null;
  #modify: Modify | null = null;
  #dresses: ReadonlyMap<string, ZoneDress> | null = null;
  readonly #marks = new VectorSource<Feature>();
  readonly #under = new Map<string, BaseLayer>();
  readonly #scale: ScaleLine;

  constructor(target: HTMLElement, origin: Position) {
    this.#plane = new Plane(origin);
    this.#scale = new ScaleLine({ units: 'metric', minWidth: 70 });
    const layer = (source: VectorSource<Feature>, zIndex: number, declutter: boolean): VectorLayer =>
      // While the sheet moves it is shown as it was drawn, with enough round it to be moved about.
      new VectorLayer({ source, zIndex, declutter, renderBuffer: 250 });
    // Hundreds of outlines are drawn once and moved about as an image.
    const zoneLayer = new VectorImageLayer({ source: this.#zones, zIndex: 1, imageRatio: 1.5 });
    zoneLayer.setStyle((feature) =>
      zoneStyle(
        feature.get('position') as number,
        this.#isChosen('zone', feature.getId()),
        this.#dresses?.get(feature.getId() as string)?.ground,
        this.#under.size > 0,
      ),
    );
    const thingLayer = layer(this.#things, 2, true);
    thingLayer.setStyle((feature, resolution) => {
      const thing = feature.get('thing') as Described;
      return featureStyle(thing, this.#isChosen('feature', feature.getId()), resolution);
    });
    const labelLayer = layer(this.#zones, 4, true);
    labelLayer.setStyle((feature) =>
      zoneLabelStyle(
        this.#dresses?.get(feature.getId() as string)?.label ?? (feature.get('label') as string),
        this.#isChosen('zone', feature.getId()),
      ),
    );
    const faultLayer = layer(this.#faults, 3, false);
    faultLayer.setStyle(faultStyle);
    const markLayer = layer(this.#marks, 5, false);
    markLayer.setStyle((feature) => markStyle(feature.get('text') as string, feature.get('strong') as boolean));
    this.#map = new OlMap({
      target,
      layers: [this.#grid.layer, zoneLayer, thingLayer, faultLayer, labelLayer, markLayer],
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
    this.#map.on('postrender', () => this.#grid.draw(this.#map, this.#system));
  }

  /** Who is told from now on. */
  listen(events: SheetMapEvents): void {
    this.#events = events;
  }

  destroy(): void {
    this.#map.setTarget(undefined);
    this.#map.dispose();
  }

  /** Show the drawing as it stands. */
  show(drawing: DrawingAnswer): void {
    this.#drawing = drawing;
    const drawn = describeDrawing(drawing, this.#system);
    const labels = new Map(drawing.zones.map(({ id, label }) => [id, label]));
    this.#replace(
      this.#zones,
      drawn
        .filter(({ kind }) => kind === 'zone')
        .map(({ id, geometry, position }) => this.#feature(id, geometry, { label: labels.get(id), position })),
    );
    this.#replace(
      this.#things,
      drawn.filter(({ kind }) => kind !== 'zone').map((thing) => this.#feature(thing.id, thing.geometry, { thing })),
    );
    this.#map.once('rendercomplete', () => performance.mark('glenfold.plan-drawn'));
    // What is edited is another object now, with the corners that were saved.
    if (this.#editing) this.#holdCorners();
  }

  showFaults(outlines: readonly Outline[]): void {
    this.#replace(
      this.#faults,
      outlines.map((outline, index) => this.#feature(`fault ${index}`, outline as DrawnGeometry, {})),
    );
  }

  choose(item: SheetItem | null): void {
    this.#chosen = item;
    this.#zones.changed();
    this.#things.changed();
  }

  setUnits(system: UnitSystem): void {
    if (system === this.#system) return;
    this.#system = system;
    // Heights stand on it in words.
    if (this.#drawing) this.show(this.#drawing);
    this.#scale.setUnits(system === 'us' ? 'imperial' : 'metric');
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

  /** A shape of corners in metres, about the middle of what is in sight, its x axis turned to a bearing in degrees. */
  layShape(corners: readonly PlanePoint[], bearing: number): Extract<DrawnGeometry, { type: 'Polygon' }> {
    const [middleEast = 0, middleNorth = 0] = this.#map.getView().getCenter() ?? [];
    const turn = (bearing * Math.PI) / 180;
    const mean = (axis: 0 | 1): number => corners.reduce((sum, corner) => sum + corner[axis], 0) / corners.length;
    const [meanX, meanY] = [mean(0), mean(1)];
    const ring = corners.map(([x, y]) => {
      const [along, across] = [x - meanX, y - meanY];
      return [
        ...this.#plane.toMap([
          middleEast + along * Math.sin(turn) - across * Math.cos(turn),
          middleNorth + along * Math.cos(turn) + across * Math.sin(turn),
        ]),
      ];
    });
    return { type: 'Polygon', coordinates: [[...ring, ring[0]!]] };
  }

  /** Places that are pointed out, such as where a sign of trouble is seen. */
  showMarks(marks: readonly SheetMark[]): void {
    this.#replace(
      this.#marks,
      marks.map(({ at, text, strong = false }, index) =>
        this.#feature(`mark ${index}`, { type: 'Point', coordinates: [...at] }, { text, strong }),
      ),
    );
  }

  /** How zones are dressed beside their hatching; by their ids. */
  dress(dresses: ReadonlyMap<string, ZoneDress> | null): void {
    this.#dresses = dresses;
    this.#zones.changed();
  }

  /** Lay an image under everything, or take it away. */
  setUnderlay(underlay: UnderlayAnswer | null): void {
    this.#swap('underlay', underlay && underlayLayer(underlay, this.#plane, sheet));
  }

  /** Lay map tiles under everything, or take them away. */
  setTiles(tiles: TilesAnswer | null): void {
    this.#swap('tiles', tiles && tileLayer(tiles, this.#plane, sheet));
  }

  /** A place of the map on this sheet, m. */
  onSheet(position: Position): PlanePoint {
    return this.#plane.toPlane(position);
  }

  #swap(name: 'underlay' | 'tiles', layer: BaseLayer | null): void {
    const old = this.#under.get(name);
    if (old) this.#map.removeLayer(old);
    this.#under.delete(name);
    if (!layer) return;
    this.#under.set(name, layer);
    this.#map.addLayer(layer);
  }

  /** Take up the pen for one shape; it snaps to what is drawn. */
  draw(shape: PenShape, onDrawn: (geometry: DrawnGeometry) => void): void {
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
      if (geometry) onDrawn(toMap(this.#plane, geometry));
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
  edit(item: SheetItem): void {
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
      if (geometry) this.#events.onEdited(toMap(this.#plane, geometry));
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

  #isChosen(what: SheetItem['what'], id: string | number | undefined): boolean {
    return this.#chosen?.what === what && this.#chosen.id === id;
  }

  #replace(source: VectorSource<Feature>, features: Feature[]): void {
    source.clear(true);
    source.addFeatures(features);
  }

  #at(pixel: number[]): SheetItem | null {
    let found: SheetItem | null = null;
    this.#map.forEachFeatureAtPixel(
      pixel,
      (feature) => {
        const id = feature.getId();
        if (typeof id !== 'string' || /^(fault|mark) /.test(id)) return false;
        found = { what: feature.get('thing') ? 'feature' : 'zone', id };
        return true;
      },
      { hitTolerance: 5 },
    );
    return found;
  }

  #feature(id: string, geometry: DrawnGeometry, properties: object): Feature {
    const feature = new Feature({ ...properties, geometry: toSheet(this.#plane, geometry) });
    feature.setId(id);
    return feature;
  }

  #measure(geometry: Geometry): void {
    const measure = measureDrawn(this.#plane, geometry);
    if (measure) this.#events.onMeasure(measure);
  }
}

/** Shapes of the pen by what is drawn. */
export function shapeOf(kind: FeatureKind | 'zone'): PenShape {
  if (kind === 'zone' || isExclusion(kind)) return 'Polygon';
  return (lineKinds as readonly string[]).includes(kind) ? 'LineString' : 'Point';
}
