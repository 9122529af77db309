import { type Calculator, calculators } from '@glenfold/agronomy';

/** Calculators under the headings that an advisor looks for them by; the first word of their names says which. */
const headings: ReadonlyArray<readonly [title: string, ...names: string[]]> = [
  ['Ground', 'area', 'pace', 'rebuild'],
  ['Signs', 'trouble'],
  ['Sampling', 'sampling'],
  ['Soil', 'texture', 'soil', 'drainage', 'cation', 'salt', 'gypsum', 'balance'],
  ['Reading and needs', 'rating', 'requirement', 'nutrient'],
  ['Lime', 'lime'],
  ['Lowering pH', 'sulfur', 'acidity'],
  ['Compost, sand and mixes', 'organic', 'compost', 'mix', 'topdress', 'coring'],
  ['Feeding', 'nitrogen', 'product'],
  ['Seed', 'seed'],
  ['Water', 'water'],
  ['Season and forecast', 'season', 'forecast', 'test'],
  ['Spreader and sprayer', 'spread', 'spray'],
];

/** The address of a calculation. */
export const pathOf = ({ calculator }: Pick<Calculator, 'calculator'>): string =>
  `/pocket/${calculator.replace('.', '/')}`;

export interface Subject {
  readonly title: string;
  readonly calculators: readonly Calculator[];
}

const first = ({ calculator }: Calculator): string => calculator.split('.')[0] ?? '';

/** All of them, also one whose name nobody has put under a heading yet. */
export const subjects: readonly Subject[] = [
  ...headings.map(([title, ...names]) => ({
    title,
    calculators: [...calculators.values()].filter((one) => names.includes(first(one))),
  })),
  {
    title: 'More',
    calculators: [...calculators.values()].filter(
      (one) => !headings.some(([, ...names]) => names.includes(first(one))),
    ),
  },
].filter((subject) => subject.calculators.length > 0);

/** Whether a calculator has the letters in its title, its name or its heading. */
export function found(text: string, { title, calculator }: Calculator, heading: string): boolean {
  const letters = text.trim().toLowerCase();
  return `${title} ${calculator} ${heading}`.toLowerCase().includes(letters);
}
