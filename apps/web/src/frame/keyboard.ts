import { useEffect } from 'react';
import { isTyping } from '../ui/typing.ts';

/** Keys of the whole application, for the list that `?` shows. */
export const keyList: ReadonlyArray<readonly [keys: string, what: string]> = [
  ['/', 'find a site, a zone or a bag by its code'],
  ['[ and ]', 'previous and next zone'],
  ['g, then 1 – 8', 'go to a step'],
  ['w', 'open the working of the main number'],
  ['?', 'show these keys'],
];

/** On this device: whether single keys act. Who speaks to the machine, or whose hand slips, may want none that does. */
export const KEYS_ACT = 'single keys act';

const keysAct = (): boolean => localStorage.getItem(KEYS_ACT) !== 'false';

/** Before a key that leads elsewhere, so that a number typed beside its field leads nowhere. */
const PREFIX = 'g';
/** How long it waits for the other, ms. */
const WAITS = 2000;

/**
 * Act on keys, but not while somebody types in a field or a dialog is open.
 * @param actions by key, or by "g 4" for one after the other
 */
export function useKeys(actions: Readonly<Record<string, () => void>>): void {
  useEffect(() => {
    let prefixAt = -Infinity;
    const listen = (event: KeyboardEvent): void => {
      const target = event.target as HTMLElement;
      const elsewhere =
        target.closest('input, textarea, select, [contenteditable], [role="combobox"], [role="listbox"]') !== null ||
        isTyping() ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        document.querySelector('[role="dialog"]') !== null;
      const after = event.timeStamp - prefixAt < WAITS ? `${PREFIX} ` : '';
      prefixAt = event.key === PREFIX && !elsewhere ? event.timeStamp : -Infinity;
      const action = actions[`${after}${event.key}`];
      if (!action || elsewhere || !keysAct()) return;
      event.preventDefault();
      action();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [actions]);
}
