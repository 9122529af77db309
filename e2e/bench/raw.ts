import { Plane } from '@glenfold/agronomy/geometry';
import type { ZoneAnswer } from '@glenfold/contract';
import Feature from 'ol/Feature.js';
import OlMap from 'ol/Map.js';
import View from 'ol/View.js';
import { Polygon } from 'ol/geom.js';
import VectorLayer from 'ol/layer/Vector.js';
import { Projection } from 'ol/proj.js';
import VectorSource from 'ol/source/Vector.js';

/** Fetch the zones of a site, parse them and draw them with the map library alone. @returns ms until they stand on screen */
async function drawRaw(siteId: string): Promise<number> {
  const began = performance.now();
  const zones = (await (await fetch(`/api/sites/${siteId}/zones`)).json()) as ZoneAnswer[];
  const plane = new Plane([-36, 46.5]);
  const features = zones.flatMap(({ geometry }) =>
    geometry?.type === 'Polygon'
      ? [
          new Feature(
            new Polygon(
              geometry.coordinates.map((ring) =>
                ring.map(([longitude = 0, latitude = 0]) => [...plane.toPlane([longitude, latitude])]),
              ),
            ),
          ),
        ]
      : [],
  );
  const target = document.createElement('div');
  target.style.cssText = 'position:fixed;inset:0;width:640px;height:470px';
  document.body.replaceChildren(target);
  const source = new VectorSource({ features });
  const projection = new Projection({ code: 'RAW:SHEET', units: 'm' });
  const map = new OlMap({
    target,
    controls: [],
    layers: [new VectorLayer({ source })],
    view: new View({ projection, center: [0, 0], resolution: 1 }),
  });
  map.getView().fit(source.getExtent()!);
  await new Promise<void>((resolve) => map.once('rendercomplete', () => resolve()));
  return performance.now() - began;
}

Object.assign(window, { drawRaw });
