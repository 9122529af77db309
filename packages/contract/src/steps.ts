/** The eight steps of a site, in working order. */
export const steps = ['ground', 'sampling', 'lab', 'reading', 'rates', 'season', 'logbook', 'proof'] as const;
export type Step = (typeof steps)[number];
