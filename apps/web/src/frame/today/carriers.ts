import { cardKinds } from '../../features/cards/cardStore.ts';
import { fieldKinds } from '../../features/field/fieldStore.ts';
import { testKinds } from '../../features/fieldTests/testStore.ts';
import { walkKinds } from '../../features/sampling/walk/walkStore.ts';
import { carry, sendAll } from '../../offline/sender.ts';

/** All that a device can keep is sent from now on, whatever page is open. */
export function carryAll(): void {
  carry([...cardKinds, ...walkKinds, ...testKinds, ...fieldKinds]);
  void sendAll();
}
