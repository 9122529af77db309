/** What of a lawn is treated: its kind of sward, or the bare bed before it. */
export const surfaces = ['turf', 'fine turf', 'seedbed'] as const;
export type Surface = (typeof surfaces)[number];
