import { type Fix, Plane, noisyWalk } from '@glenfold/agronomy/geometry';
import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { devicePosition } from '../src/position/devicePosition.ts';
import { replayedWalk } from '../src/position/replayedWalk.ts';

const plane = new Plane([-36, 46.5]);
const path = ([[0, 0], [30, 0], [30, 20], [0, 20]] as const).map((corner) => plane.toMap(corner)); // prettier-ignore

/** Collects what a source tells. */
function listen() {
  const fixes: Fix[] = [];
  const lost: string[] = [];
  return { fixes, lost, onFix: (fix: Fix) => void fixes.push(fix), onLost: (words: string) => void lost.push(words) };
}

describe('the practice walk', () => {
  beforeEach(() => void jest.useFakeTimers());
  afterEach(() => void jest.useRealTimers());

  it('tells every fix of the walk once, in its order and in its time, hurried', () => {
    const wanted = noisyWalk(path, { seed: 4 });
    const long = wanted.at(-1)!.time;
    const heard = listen();
    replayedWalk(path, { seed: 4, hurry: 10 }).watch(heard.onFix, heard.onLost);
    jest.advanceTimersByTime((long / 10 / 2) * 1000);
    const half = heard.fixes.length;
    expect(half).toBeGreaterThan(wanted.length / 4);
    expect(half).toBeLessThan((3 * wanted.length) / 4);
    expect(Math.max(...heard.fixes.map(({ time }) => time))).toBeLessThanOrEqual(long / 2 + 1);
    jest.advanceTimersByTime(long * 1000);
    expect(heard.fixes).toEqual(wanted);
    expect(jest.getTimerCount()).toBe(0);
  });

  it('says that the sky is hidden where fixes are lost, and stops when it is told to', () => {
    const gap = (seed: number): number => {
      const times = [0, ...noisyWalk(path, { seed }).map(({ time }) => time)];
      return Math.max(...times.slice(1).map((time, index) => time - times[index]!));
    };
    const seed = Array.from({ length: 60 }, (_, index) => index).find((one) => gap(one) > 6)!;
    const heard = listen();
    const stop = replayedWalk(path, { seed, hurry: 10 }).watch(heard.onFix, heard.onLost);
    jest.advanceTimersByTime(30_000);
    expect(new Set(heard.lost)).toEqual(new Set(['No position just now: the sky is hidden here.']));
    const quiet = listen();
    const stopQuiet = replayedWalk(path, { seed, hurry: 10 }).watch(quiet.onFix, quiet.onLost);
    jest.advanceTimersByTime(1000);
    const told = quiet.fixes.length;
    stopQuiet();
    jest.advanceTimersByTime(30_000);
    expect(quiet.fixes).toHaveLength(told);
    stop();
  });
});

describe('the device’s receiver', () => {
  const real = Object.getOwnPropertyDescriptor(globalThis, 'navigator');
  const withNavigator = (value: object): void =>
    void Object.defineProperty(globalThis, 'navigator', { value, configurable: true });
  afterEach(() => {
    if (real) Object.defineProperty(globalThis, 'navigator', real);
  });

  it('tells place, error and time as the browser does, and each trouble with what to do', () => {
    let tell: ((fix: object) => void) | undefined;
    let fail: ((problem: { code: number }) => void) | undefined;
    const cleared: number[] = [];
    withNavigator({
      geolocation: {
        watchPosition: (onFix: typeof tell, onLost: typeof fail) => {
          [tell, fail] = [onFix, onLost];
          return 7;
        },
        clearWatch: (id: number) => void cleared.push(id),
      },
    });
    const heard = listen();
    const stop = devicePosition.watch(heard.onFix, heard.onLost);
    tell!({ coords: { longitude: -36, latitude: 46.5, accuracy: 4 }, timestamp: 9000 });
    expect(heard.fixes).toEqual([{ position: [-36, 46.5], accuracy: 4, time: 9 }]);
    for (const code of [1, 2, 3, 9]) fail!({ code });
    expect(heard.lost[0]).toMatch(/Allow it in the browser’s settings/);
    expect(heard.lost[1]).toMatch(/Step out from under trees and walls/);
    expect(heard.lost[3]).toBe('No position just now.');
    stop();
    expect(cleared).toEqual([7]);
  });

  it('where there is none says what to do instead', () => {
    withNavigator({});
    const heard = listen();
    devicePosition.watch(heard.onFix, heard.onLost)();
    expect(heard.lost).toEqual(['This device tells no position. Draw the outline, or tape it.']);
  });
});
