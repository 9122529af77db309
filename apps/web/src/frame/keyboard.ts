import { useEffect } from 'react';
import { isTyping } from '../ui/typing.ts';

/** Keys of the whole application, for the list that `?` shows. */
export const keyList: ReadonlyArray<readonly [keys: string, what: string]> = [
  ['/', 'find a site, a zone or a bag by its code'],
  ['[ and ]', 'previous and next zone'],
  ['1 – 8', 'go to a step'],
  ['w', 'open the working of the main number'],
  ['?', 'show these keys'],
];

/** On this device: whether single keys act. Who speaks to the machine, or whose hand slips, may want none that does. */
export const KEYS_ACT = 'single keys act';

const keysAct = (): boolean => localStorage.getItem(KEYS_ACT) !== 'false';

/** Act on single keys, but not while somebody types in a field or a dialog is open. */
export function useKeys(actions: Readonly<Record<string, () => void>>): void {
  useEffect(() => {
    const listen = (event: KeyboardEvent): void => {
      const target = event.target as HTMLElement;
      const typing = target.closest('input, textarea, select, [contenteditable], [role="combobox"], [role="listbox"]');
      const action = actions[event.key];
      if (
        !action ||
        !keysAct() ||
        typing ||
        isTyping() ||
        event.ctrlKey ||
        event.metaKey ||
        event.altKey ||
        document.querySelector('[role="dialog"]')
      )
        return;
      event.preventDefault();
      action();
    };
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, [actions]);
}
