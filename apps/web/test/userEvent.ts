import userEvent, { type Options } from '@testing-library/user-event';

/** Nothing waits between keys, and the style of every ancestor is not read at every click: a page is tried in half the time. */
const quick: Options = { delay: null, pointerEventsCheck: 0 };

const { setup, click, clear, keyboard, tab, type, upload } = userEvent;

/** What a person does in the simulated browser. */
export default {
  setup: (options: Options = {}) => setup({ ...quick, ...options }),
  click: (element: Element) => click(element, quick),
  clear: (element: Element) => clear(element),
  keyboard: (text: string) => keyboard(text, quick),
  tab: () => tab(quick),
  type: (element: Element, text: string) => type(element, text, quick),
  upload: (element: HTMLElement, files: File | File[]) => upload(element, files, quick),
};
