import { InputError, QuantityError, findGrass, parseQuantity } from '@glenfold/agronomy';
import type { NewZone } from '@glenfold/contract';

/** A line of a list of zones, as it was typed or pasted. */
export interface ZoneLine {
  readonly name: string;
  /** With its unit, or in the person's. */
  readonly area: string;
  readonly grass: string;
  readonly problem?: string;
}

const HEAD = /^(name|zone|plot|terrace)\b/i;
const GARDEN = /garden|bed\b|vegetable|border/i;

/** Lines of a list out of a spreadsheet or a message: name, area, grass, parted by tabs, semicolons or commas. */
export function linesOf(text: string): ZoneLine[] {
  return text
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line, at) => line !== '' && !(at === 0 && HEAD.test(line) && !/\d/.test(line)))
    .map((line) => {
      const [name = '', area = '', ...grass] = line.split(
        line.includes('\t') ? /\t+/ : line.includes(';') ? /;/ : /,(?!\d{3}\b)/,
      );
      return { name: name.trim(), area: area.trim(), grass: grass.join(' ').trim() };
    });
}

export const isBlankLine = ({ name, area, grass }: ZoneLine): boolean => `${name}${area}${grass}`.trim() === '';

/** The next free bag label: those of the site go on, GR-4, GR-5, …; a new site takes its initials. */
function labelsFor(siteName: string, taken: readonly string[]): () => string {
  const [known] = taken.flatMap((label) => /^(.*\D)\d+$/.exec(label)?.[1] ?? []);
  const initials = siteName
    .replace(/[^\p{L} ]/gu, '')
    .split(/\s+/)
    .map((word) => word.charAt(0).toUpperCase())
    .join('')
    .slice(0, 3);
  const prefix = known ?? `${initials || 'Z'}-`;
  const used = new Set(taken.map((label) => label.toLowerCase()));
  let number = 0;
  return () => {
    do number += 1;
    while (used.has(`${prefix}${number}`.toLowerCase()));
    return `${prefix}${number}`;
  };
}

/**
 * The zones of a list, all of them or what is wrong with its lines.
 *
 * @param areaUnit what a bare number is in
 */
export function zonesOf(
  lines: readonly ZoneLine[],
  {
    siteName,
    labels,
    areaUnit,
    grass: usual,
  }: {
    readonly siteName: string;
    readonly labels: readonly string[];
    readonly areaUnit: 'm2' | 'ft2';
    readonly grass: string;
  },
): { readonly zones: readonly NewZone[]; readonly problems: ReadonlyMap<number, string> } {
  const next = labelsFor(siteName, labels);
  const problems = new Map<number, string>();
  const zones = lines.flatMap((line, at): NewZone[] => {
    if (isBlankLine(line)) return [];
    try {
      if (line.name === '') throw new InputError('name', 'Give the zone a name.');
      if (line.area === '') throw new InputError('area', 'Its area is missing: every rate is multiplied by it.');
      const open = /^(\d{1,3}),(\d{3})(?![\d,.])/.exec(line.area);
      if (open && areaUnit === 'm2' && !/ft|yd|ac/i.test(line.area))
        throw new InputError(
          'area',
          `${line.area} may be ${open[1]}.${open[2]} or ${open[1]}${open[2]}: write one of the two.`,
        );
      const area =
        parseQuantity(line.area.replace(/(\d),(\d{1,2})(?!\d)/, '$1.$2'), areaUnit) *
        (areaUnit === 'ft2' ? 0.09290304 : 1);
      if (!(area >= 1 && area <= 1_000_000)) throw new InputError('area', 'The area is outside 1 to 1 000 000 m².');
      const bed = GARDEN.test(line.grass);
      const grass = bed ? null : line.grass === '' ? usual : findGrass(line.grass).name;
      return [
        {
          ...{ name: line.name, label: next(), area, grass, surface: bed ? 'garden bed' : 'turf' },
          ...{ intensity: 'medium', shade: 'full sun', clippings: 'returned' },
        },
      ];
    } catch (error) {
      if (error instanceof InputError)
        problems.set(
          at,
          error.field === 'grass'
            ? `“${line.grass}” is no grass of the table: choose one, or “garden bed”.`
            : error.message.replace(/^(name|area) /, ''),
        );
      else if (error instanceof QuantityError) problems.set(at, error.message);
      else throw error;
      return [];
    }
  });
  return { zones, problems };
}
