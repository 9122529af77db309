import { mowingAdvice } from '../jobs/mowingAdvice.ts';
import type { ZoneFacts } from '../reading/zoneFacts.ts';
import type { UnitSystem } from '../units/present.ts';

/** How a lawn is mown by its owner; nothing on a bed. */
export function careOf({ grass, shade, surface, clippings, garden }: ZoneFacts, system: UnitSystem) {
  if (!grass || garden) return [];
  const advice = mowingAdvice(
    { grass, top: shade !== 'full sun', fineTurf: surface === 'fine turf', clippings },
    system,
  );
  return advice
    ? [{ does: advice.words, without: 'A lawn cut short in heat or shade thins, whatever it was given.' }]
    : [];
}
