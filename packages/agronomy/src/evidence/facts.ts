/** What is known of a zone as numbers, with their unit. */
export const numberFacts = {
  /** Hours by which the sun falls short of what the grass needs; negative where there is more. */
  sunShort: 'h',
  slope: '%',
  thatch: 'cm',
  rootDepth: 'cm',
  /** Depth at which a probe stops. */
  probeStop: 'cm',
  /** Drop of a test hole, of its slowest layer where that is known. */
  drop: 'mm/h',
  /** How long a drop of water stands. */
  waterDrop: 's',
  ph: 'pH',
  /** By how much the pH stands below, or above, what the grass wants. */
  phBelow: '',
  phAbove: '',
  organicMatter: '%',
  /** Share of the zone under canopies. */
  canopy: '%',
  /** Deepest standing water by the spot heights. */
  hollow: 'cm',
  /** Border along paving and walls. */
  paved: 'm',
  /** Subsoil and fill, and sand, in the soil's history. */
  fillDepth: 'cm',
  sandDepth: 'cm',
  lastFedMonths: '',
  /** dS/m above what the grass bears. */
  saltiness: '',
} as const;

/** What is known of a zone in words of a list. */
export const wordFacts = {
  shade: ['full sun', 'part', 'deep'],
  irrigation: ['none', 'hose', 'sprinkler', 'in-ground'],
  use: ['ornamental', 'play', 'sport', 'walked across', 'driven on'],
  air: ['open', 'sheltered', 'still'],
  surface: ['turf', 'fine turf', 'seedbed'],
  soilGroup: ['sand', 'loam', 'clay'],
  drySpell: ['held', 'thinned', 'browned', 'died'],
  aspect: ['toward the sun', 'away from the sun', 'across'],
  clippings: ['returned', 'removed'],
  seaside: ['yes', 'no'],
} as const;

export type NumberFact = keyof typeof numberFacts;
export type WordFact = keyof typeof wordFacts;
/** What is known of a zone: nothing where it is not. */
export type Evidence = Readonly<Partial<Record<NumberFact, number | undefined>>> & {
  readonly [K in WordFact]?: (typeof wordFacts)[K][number] | undefined;
};
export const numberNames = Object.keys(numberFacts) as NumberFact[];
export const wordNames = Object.keys(wordFacts) as WordFact[];

/** What each is called where it is not known. */
export const factLabels: Readonly<Record<NumberFact | WordFact, string>> = {
  sunShort: 'hours of sun',
  slope: 'slope',
  thatch: 'thatch',
  rootDepth: 'root depth',
  probeStop: 'depth at which a probe stops',
  drop: 'how fast a test hole drains',
  waterDrop: 'how long a drop of water stands',
  ph: 'pH',
  phBelow: 'pH',
  phAbove: 'pH',
  organicMatter: 'organic matter',
  canopy: 'canopies on the plan',
  hollow: 'spot heights',
  paved: 'paving on the plan',
  fillDepth: 'soil history',
  sandDepth: 'soil history',
  lastFedMonths: 'last feeding',
  saltiness: 'salinity',
  shade: 'shade',
  irrigation: 'how it is watered',
  use: 'what it is used for',
  air: 'air movement',
  surface: 'surface',
  soilGroup: 'soil',
  drySpell: 'how it stood in the last dry spell',
  aspect: 'which way it faces',
  clippings: 'clippings',
  seaside: 'sea wind',
};
