import { defineCalculator } from '../calculators/calculator.ts';
import { type Field, InputError, choice, optional, quantity, shown } from '../calculators/fields.ts';
import { QuantityError, parseQuantity } from '../units/quantity.ts';
import { type WorkingBook, figure } from '../working/working.ts';

const SOURCE = 'Plane geometry; a triangle by its three sides is Heron’s formula';
/** A lawn is no longer than this in one length, m. */
const LONGEST = 2000;

/** A length of a shape: what it is called in an input, and how a person with a tape is told to take it. */
interface ShapeLength {
  readonly name: LengthName;
  readonly label: string;
}

const lengthNames = [
  'length',
  'width',
  'cutLength',
  'cutWidth',
  'sideA',
  'sideB',
  'sideC',
  'sideD',
  'diagonal',
  'across',
  'parallelOne',
  'parallelTwo',
  'between',
] as const;
export type LengthName = (typeof lengthNames)[number];
type Lengths = Readonly<Partial<Record<LengthName, number>>>;
/** [x, y] in m. */
type Corner = readonly [x: number, y: number];

export const shapeNames = ['rectangle', 'triangle', 'l', 'circle', 'trapezium', 'four sides'] as const;
export type ShapeName = (typeof shapeNames)[number];

/** What is taped of each simple shape, in the order in which one walks round it. */
export const shapeLengths: Readonly<Record<ShapeName, readonly ShapeLength[]>> = {
  rectangle: [
    { name: 'length', label: 'Length' },
    { name: 'width', label: 'Width' },
  ],
  triangle: [
    { name: 'sideA', label: 'Side A' },
    { name: 'sideB', label: 'Side B' },
    { name: 'sideC', label: 'Side C' },
  ],
  l: [
    { name: 'length', label: 'Whole length' },
    { name: 'width', label: 'Whole width' },
    { name: 'cutLength', label: 'Length of the missing corner' },
    { name: 'cutWidth', label: 'Width of the missing corner' },
  ],
  circle: [{ name: 'across', label: 'Straight across the middle' }],
  trapezium: [
    { name: 'parallelOne', label: 'One parallel side' },
    { name: 'parallelTwo', label: 'The other parallel side' },
    { name: 'between', label: 'Square across between them' },
  ],
  'four sides': [
    { name: 'sideA', label: 'Side A' },
    { name: 'sideB', label: 'Side B' },
    { name: 'sideC', label: 'Side C' },
    { name: 'sideD', label: 'Side D' },
    { name: 'diagonal', label: 'Diagonal, from the start of A to the end of B' },
  ],
};

function triangle(one: number, two: number, three: number): number {
  const half = (one + two + three) / 2;
  return Math.sqrt(Math.max(0, half * (half - one) * (half - two) * (half - three)));
}

function checkTriangle(sides: ReadonlyArray<readonly [name: string, length: number]>): void {
  const total = sides.reduce((sum, [, length]) => sum + length, 0);
  for (const [name, length] of sides)
    if (length >= total - length)
      throw new InputError(
        name,
        `is ${figure(length)} m, as long as ${sides.flatMap(([other]) => (other === name ? [] : [other])).join(' and ')} together (${figure(total - length)} m): that closes no triangle; measure the three again`,
      );
}

interface Measured {
  readonly area: number;
  readonly perimeter: number;
  readonly formula: string;
  readonly numbers: string;
}

type Get = (name: LengthName) => number;

const measures: Readonly<Record<ShapeName, (get: Get) => Measured>> = {
  rectangle(get) {
    const [length, width] = [get('length'), get('width')];
    return {
      area: length * width,
      perimeter: 2 * (length + width),
      formula: 'length × width',
      numbers: `${figure(length)} × ${figure(width)} m`,
    };
  },
  triangle(get) {
    const sides = (['sideA', 'sideB', 'sideC'] as const).map((name) => [name, get(name)] as const);
    checkTriangle(sides);
    const [one, two, three] = sides.map(([, length]) => length) as [number, number, number];
    return {
      area: triangle(one, two, three),
      perimeter: one + two + three,
      formula: '√(s (s − A) (s − B) (s − C)), s half of the sides together',
      numbers: `s ${figure((one + two + three) / 2)} m; sides ${figure(one)}, ${figure(two)}, ${figure(three)} m`,
    };
  },
  l(get) {
    const [length, width, cutLength, cutWidth] = [get('length'), get('width'), get('cutLength'), get('cutWidth')];
    if (cutLength >= length) throw new InputError('cutLength', 'is no shorter than the whole length: nothing is left');
    if (cutWidth >= width) throw new InputError('cutWidth', 'is no shorter than the whole width: nothing is left');
    return {
      area: length * width - cutLength * cutWidth,
      perimeter: 2 * (length + width),
      formula: 'length × width − missing corner',
      numbers: `${figure(length)} × ${figure(width)} − ${figure(cutLength)} × ${figure(cutWidth)} m`,
    };
  },
  circle(get) {
    const across = get('across');
    return {
      area: (Math.PI * across ** 2) / 4,
      perimeter: Math.PI * across,
      formula: 'π × across² / 4',
      numbers: `π × (${figure(across)} m)² / 4`,
    };
  },
  trapezium(get) {
    const [one, two, between] = [get('parallelOne'), get('parallelTwo'), get('between')];
    // The slanting sides are not taped: taken as equal, they are the shortest there can be.
    const slant = Math.hypot(between, (one - two) / 2);
    return {
      area: ((one + two) / 2) * between,
      perimeter: one + two + 2 * slant,
      formula: '(one side + the other) / 2 × between',
      numbers: `(${figure(one)} + ${figure(two)}) / 2 × ${figure(between)} m`,
    };
  },
  'four sides'(get) {
    const [one, two, three, four] = [get('sideA'), get('sideB'), get('sideC'), get('sideD')];
    const diagonal = get('diagonal');
    checkTriangle([
      ['sideA', one],
      ['sideB', two],
      ['diagonal', diagonal],
    ]);
    checkTriangle([
      ['sideC', three],
      ['sideD', four],
      ['diagonal', diagonal],
    ]);
    return {
      area: triangle(one, two, diagonal) + triangle(three, four, diagonal),
      perimeter: one + two + three + four,
      formula: 'triangle A, B, diagonal + triangle C, D, diagonal',
      numbers: `${figure(triangle(one, two, diagonal))} + ${figure(triangle(three, four, diagonal))} m²`,
    };
  },
};

/** A length by its unit, or a plain number: metres, or paces where a pace is given. */
interface TypedLength {
  readonly value: number;
  readonly plain: boolean;
}

function lengthField(): Field<TypedLength | undefined, true> {
  const metres = quantity('m', { above: 0, max: LONGEST });
  return {
    description: `m (or paces, when pace is given), above 0, up to ${LONGEST} m (optional)`,
    optional: true,
    shape: metres.shape,
    read(raw, path) {
      if (raw === undefined || raw === null) return undefined;
      if (typeof raw !== 'number' && typeof raw !== 'string')
        throw new InputError(path, `was given ${shown(raw)}; wanted a length`);
      let plain = true;
      try {
        parseQuantity(raw, '');
      } catch (error) {
        if (!(error instanceof QuantityError)) throw error;
        plain = false;
      }
      return { value: metres.read(raw, path), plain };
    },
  };
}

/** The lengths that the shape has, in m; what is missing or does not belong to it is refused. */
function lengthsOf(
  shape: ShapeName,
  given: Readonly<Partial<Record<LengthName, TypedLength | undefined>>>,
  pace: number | undefined,
): Lengths {
  const wanted = shapeLengths[shape].map(({ name }) => name);
  const read: Partial<Record<LengthName, number>> = {};
  for (const name of lengthNames) {
    const typed = given[name];
    if (!typed && wanted.includes(name))
      throw new InputError(name, `was given nothing; a ${shape} is measured by ${wanted.join(', ')}`);
    if (typed && !wanted.includes(name))
      throw new InputError(name, `is no length of a ${shape}; it is measured by ${wanted.join(', ')}`);
    if (typed) read[name] = typed.plain ? typed.value * (pace ?? 1) : typed.value;
  }
  return read;
}

function measure(shape: ShapeName, lengths: Lengths): Measured {
  return measures[shape]((name) => lengths[name]!);
}

/** Uncertainty of the area, one standard deviation, where each length is uncertain by a share of itself. */
function spreadOf(shape: ShapeName, lengths: Lengths, share: number): number {
  const { area } = measure(shape, lengths);
  const sum = Object.entries(lengths).reduce((total, [name, value]) => {
    try {
      return total + (measure(shape, { ...lengths, [name]: value * (1 + share) }).area - area) ** 2;
    } catch (error) {
      // The longer side closes nothing: the shape is as flat as its lengths are uncertain.
      if (error instanceof InputError) return total + area ** 2;
      throw error;
    }
  }, 0);
  return Math.sqrt(sum);
}

function notePace(pace: number | undefined, book: WorkingBook): void {
  if (pace !== undefined)
    book.warn(`Lengths given as plain numbers are paces of ${figure(pace)} m; a tape is surer than a stride.`);
}

/**
 * Area of a simple shape by taped or paced lengths.
 *
 * @param shape and the lengths that {@link shapeLengths} lists for it, m; `pace` m of one pace: plain numbers are then
 *   paces; `spread` % by which a length may be off (a tape 1, a calibrated pace what `pace.length` says).
 * @returns `area` m², `perimeter` m (of a trapezium with equal slants), `uncertainty` m², one standard deviation.
 * @throws {InputError} for lengths that close no shape, are missing, or belong to another shape.
 */
export const areaShape = defineCalculator({
  name: 'area.shape',
  title: 'Area of a simple shape by its lengths',
  source: SOURCE,
  inputs: {
    shape: choice(shapeNames, { square: 'rectangle', trapezoid: 'trapezium', quadrilateral: 'four sides' }),
    ...(Object.fromEntries(lengthNames.map((name) => [name, lengthField()])) as Record<
      LengthName,
      Field<TypedLength | undefined, true>
    >),
    pace: optional(quantity('m', { min: 0.3, max: 2, why: 'of one pace' })),
    spread: optional(quantity('%', { min: 0, max: 50 })),
  },
  outputs: { area: 'm2', perimeter: 'm', uncertainty: 'm2' },
  compute({ shape, pace, spread, ...given }, book) {
    const lengths = lengthsOf(shape, given, pace);
    const share = (spread ?? (pace === undefined ? 1 : 5)) / 100;
    const { area, perimeter, formula, numbers } = measure(shape, lengths);
    book.step({
      label: `Area of the ${shape === 'l' ? 'L' : shape}`,
      formula,
      numbers,
      result: area,
      unit: 'm2',
      source: SOURCE,
    });
    const uncertainty = spreadOf(shape, lengths, share);
    book.step({
      label: 'Uncertainty of the area',
      formula: '√Σ (change of the area when one length is off by its share)²',
      numbers: `each length ± ${figure(share * 100)} %`,
      result: uncertainty,
      unit: 'm2',
    });
    notePace(pace, book);
    return { area, perimeter, uncertainty };
  },
});

const CIRCLE_CORNERS = 72;

/** Where two sides of a triangle over [0, 0]–[base, 0] meet, on the side of positive y. */
function apex(base: number, fromStart: number, fromEnd: number): Corner {
  const x = (base ** 2 + fromStart ** 2 - fromEnd ** 2) / (2 * base);
  return [x, Math.sqrt(Math.max(0, fromStart ** 2 - x ** 2))];
}

const corners: Readonly<Record<ShapeName, (get: Get) => readonly Corner[]>> = {
  rectangle: (get) => [
    [0, 0],
    [get('length'), 0],
    [get('length'), get('width')],
    [0, get('width')],
  ],
  triangle: (get) => [[0, 0], [get('sideA'), 0], apex(get('sideA'), get('sideC'), get('sideB'))],
  l(get) {
    const [length, width] = [get('length'), get('width')];
    const [notchX, notchY] = [length - get('cutLength'), width - get('cutWidth')];
    return [
      [0, 0],
      [length, 0],
      [length, notchY],
      [notchX, notchY],
      [notchX, width],
      [0, width],
    ];
  },
  circle(get) {
    const step = (2 * Math.PI) / CIRCLE_CORNERS;
    // As much ground as the circle: its corners stand a hair outside.
    const radius = (get('across') / 2) * Math.sqrt(step / Math.sin(step));
    return Array.from({ length: CIRCLE_CORNERS }, (_, index): Corner => [
      radius * Math.cos(index * step),
      radius * Math.sin(index * step),
    ]);
  },
  trapezium(get) {
    const [one, two, between] = [get('parallelOne'), get('parallelTwo'), get('between')];
    const inset = (one - two) / 2;
    return [
      [0, 0],
      [one, 0],
      [one - inset, between],
      [inset, between],
    ];
  },
  'four sides'(get) {
    const diagonal = get('diagonal');
    const [bx, by] = apex(diagonal, get('sideA'), get('sideB'));
    const [dx, dy] = apex(diagonal, get('sideD'), get('sideC'));
    return [
      [0, 0],
      [bx, -by],
      [diagonal, 0],
      [dx, dy],
    ];
  },
};

/**
 * The corners of a simple shape on its own sheet, counter-clockwise, m; its first side, or a diagonal, lies along x.
 *
 * @throws {InputError} as {@link areaShape} does.
 */
export function shapeCorners(shape: ShapeName, lengths: Lengths): readonly Corner[] {
  measure(shape, lengths);
  return corners[shape]((name) => lengths[name]!);
}
