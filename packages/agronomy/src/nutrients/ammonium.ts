/** What of the nitrogen sources has no ammonium and no urea, and so loses nothing beside lime. */
const NITRATES: readonly string[] = ['calcium nitrate', 'potassium nitrate', 'sodium nitrate'];

/** Whether nitrogen of a source leaves as gas beside lime. */
export const gasesFrom = (source: string): boolean => !NITRATES.includes(source);
