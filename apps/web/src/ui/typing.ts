/** Say that keys belong to a part of the page that is no field, such as a grid with a chosen cell. */
export function typing(on: boolean): void {
  if (on) document.body.dataset.typing = 'yes';
  else delete document.body.dataset.typing;
}

/** Whether they do. */
export const isTyping = (): boolean => document.body.dataset.typing !== undefined;
