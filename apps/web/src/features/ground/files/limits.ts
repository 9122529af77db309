/** Largest file that is read, bytes. */
export const LARGEST_FILE = 20_000_000;
/** Most items that come at once. */
export const MOST_ITEMS = 2000;
