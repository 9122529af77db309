import { type Placement, type Plane, fitImage, placeOf } from '@glenfold/agronomy/geometry';
import type { TilesAnswer, UnderlayAnswer } from '@glenfold/contract';
import type BaseLayer from 'ol/layer/Base.js';
import ImageLayer from 'ol/layer/Image.js';
import TileLayer from 'ol/layer/Tile.js';
import { type Projection, addCoordinateTransforms, fromLonLat, toLonLat } from 'ol/proj.js';
import ImageCanvasSource from 'ol/source/ImageCanvas.js';
import XYZ from 'ol/source/XYZ.js';

/** How an image lies on a sheet by its matching points. */
export function placementOf({ matches }: Pick<UnderlayAnswer, 'matches'>, plane: Plane): Placement {
  return fitImage(
    matches.map(({ right, down, place: [longitude = 0, latitude = 0] }) => ({
      pixel: [right, down],
      place: plane.toPlane([longitude, latitude]),
    })),
  );
}

/** A person's own image, turned and stretched to where its matching points lie. */
export function underlayLayer(underlay: UnderlayAnswer, plane: Plane, projection: Projection): BaseLayer {
  const placement = placementOf(underlay, plane);
  const [east, north] = placeOf(placement, [0, 0]);
  const image = new Image();
  const source = new ImageCanvasSource({
    projection,
    ratio: 1,
    canvasFunction: (extent, resolution, pixelRatio, size) => {
      const canvas = document.createElement('canvas');
      [canvas.width = 0, canvas.height = 0] = size;
      const context = canvas.getContext('2d');
      if (!context || !image.complete) return canvas;
      const scale = (placement.metresPerPixel / resolution) * pixelRatio;
      context.translate(
        ((east - extent[0]!) / resolution) * pixelRatio,
        ((extent[3]! - north) / resolution) * pixelRatio,
      );
      context.rotate(-placement.turn);
      context.scale(scale, scale);
      context.drawImage(image, 0, 0, underlay.width, underlay.height);
      return canvas;
    },
  });
  image.onload = () => source.changed();
  image.src = underlay.address;
  return new ImageLayer({ source, opacity: underlay.opacity, zIndex: -1 });
}

/** Tiles in Web Mercator, drawn onto the sheet; asked for only once somebody turns them on. */
export function tileLayer({ address, attribution }: TilesAnswer, plane: Plane, projection: Projection): BaseLayer {
  const toMercator = ([east = 0, north = 0]: number[]): number[] => fromLonLat([...plane.toMap([east, north])]);
  const fromMercator = (coordinate: number[]): number[] => {
    const [longitude = 0, latitude = 0] = toLonLat(coordinate);
    return [...plane.toPlane([longitude, latitude])];
  };
  addCoordinateTransforms('EPSG:3857', projection, fromMercator, toMercator);
  projection.setExtent([-20_000, -20_000, 20_000, 20_000]);
  return new TileLayer({ source: new XYZ({ url: address, attributions: attribution }), zIndex: -2 });
}
