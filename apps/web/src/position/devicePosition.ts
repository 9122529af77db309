import type { PositionSource } from './positionSource.ts';

const troubles: Readonly<Record<number, string>> = {
  1: 'This device may not tell its position here. Allow it in the browser’s settings for this site, then begin again.',
  2: 'No position just now. Step out from under trees and walls, and wait.',
  3: 'No position just now. Step out from under trees and walls, and wait.',
};

/** The receiver of the device, through the browser. */
export const devicePosition: PositionSource = {
  name: 'This device',
  simulated: false,
  watch(onFix, onLost) {
    if (!('geolocation' in navigator)) {
      onLost('This device tells no position. Draw the outline, or tape it.');
      return () => undefined;
    }
    const id = navigator.geolocation.watchPosition(
      ({ coords: { longitude, latitude, accuracy }, timestamp }) =>
        onFix({ position: [longitude, latitude], accuracy, time: timestamp / 1000 }),
      ({ code }) => onLost(troubles[code] ?? 'No position just now.'),
      { enableHighAccuracy: true, maximumAge: 0, timeout: 15_000 },
    );
    return () => navigator.geolocation.clearWatch(id);
  },
};
