/** The five words of a reading, from too little to too much. */
export const ratings = ['very low', 'low', 'medium', 'high', 'very high'] as const;
export type Rating = (typeof ratings)[number];

const spellings: Readonly<Record<string, Rating>> = {
  ...{ vl: 'very low', l: 'low', m: 'medium', h: 'high', vh: 'very high' },
  ...{ deficient: 'very low', 'below optimum': 'low', insufficient: 'low', marginal: 'low' },
  ...{
    adequate: 'medium',
    sufficient: 'medium',
    optimum: 'medium',
    optimal: 'medium',
    normal: 'medium',
    med: 'medium',
  },
  ...{ moderate: 'medium', 'above optimum': 'high', excessive: 'very high', excess: 'very high' },
};

/** The rating that a word of a report means; nothing where it is none. */
export function ratingOf(word: string): Rating | undefined {
  const plain = word
    .trim()
    .toLowerCase()
    .replace(/[\s_-]+/g, ' ');
  return ratings.find((rating) => rating === plain) ?? spellings[plain];
}
