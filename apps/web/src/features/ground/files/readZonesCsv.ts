import { QuantityError, convert, grasses, parseQuantity } from '@glenfold/agronomy';
import papaparse from 'papaparse';
import { FileError, type FoundFile, type FoundItem } from './found.ts';

const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '');

/** The column that one of these words names. */
function column(headers: readonly string[], words: readonly string[]): string | undefined {
  return headers.find((header) => words.some((word) => plain(header.split(/[([]/)[0]!).startsWith(word)));
}

/** The unit in a header such as "area (ft2)" or "area_m2". */
function unitIn(header: string): string | undefined {
  const [, bracketed] = header.split(/[([]/);
  const inside = bracketed?.split(/[)\]]/)[0]?.trim();
  const unit = inside || /[_ ](m2|m²|ft2|ft²|sqft|sq ft|ha|ac|acres?|hectares?|yd2)$/i.exec(header)?.[1];
  return unit?.replace(/^sqft$/i, 'sq ft');
}

/** How a table writes its numbers: told by its own cells, where one of them can be read one way only. */
type Comma = 'decimals' | 'thousands' | 'unsaid';

function commaOf(cells: readonly string[], parted: string): Comma {
  // Whoever parts columns by semicolons does so because the comma is taken.
  if (parted === ';' || cells.some((cell) => /\d,\d{1,2}(?!\d)|\d,\d{4}|\.\d{3},\d/.test(cell))) return 'decimals';
  return cells.some((cell) => /\d,\d{3}(,\d{3}|\.\d)/.test(cell)) ? 'thousands' : 'unsaid';
}

/** m², or why it is none. */
function readArea(cell: string, unit: string | undefined, comma: Comma): number | string {
  const open = /^\D*(\d{1,3}),(\d{3})(?![\d,.])/.exec(cell);
  // In feet and yards commas are thousands; of metres nobody can tell.
  if (open && comma === 'unsaid' && !/ft|yd|foot|feet|yard|ac/i.test(`${unit ?? ''} ${cell}`))
    return `Its area is ${cell}, which may be ${open[1]}.${open[2]} or ${open[1]}${open[2]}: write one of the two in the file.`;
  const text =
    comma === 'decimals'
      ? cell.replace(/\.(?=\d{3}\b)/g, '').replace(/(?<=\d),(?=\d)/, '.')
      : cell.replace(/(?<=\d),(?=\d{3}\b)/g, '');
  try {
    const area = unit && /^[\d.\s]+$/.test(text) ? convert(Number(text), unit, 'm2') : parseQuantity(text, 'm2');
    if (!(area >= 1 && area <= 1e6)) return `Its area is ${cell}: 1 to 1,000,000 m² is wanted.`;
    return area;
  } catch (error) {
    if (error instanceof QuantityError) return `Its area is “${cell}”, which ${error.message}.`;
    return `Its area is “${cell}” ${unit ?? ''}, which cannot be read.`;
  }
}

/**
 * Zones by their areas from a table: a column with names, one with areas, their unit in the header or with each.
 *
 * @throws {FileError} where the columns cannot be told
 */
export function readZonesCsv(name: string, text: string): FoundFile {
  const { data, meta } = papaparse.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
  });
  const headers = meta.fields ?? [];
  const nameColumn = column(headers, ['zone', 'name', 'lawn', 'plot']);
  const areaColumn = column(headers, ['area', 'size', 'squaremet', 'squarefe', 'sqft', 'm2', 'ft2']);
  if (!nameColumn || !areaColumn)
    throw new FileError(
      `A table of zones has a column with names and one with areas, such as “Zone, Area (ft2)”. Its columns are: ${headers.join(', ') || 'none'}.`,
    );
  const unit = unitIn(areaColumn) ?? (/^(m2|sqft|ft2)$/.test(plain(areaColumn)) ? plain(areaColumn) : undefined);
  const labelColumn = column(headers, ['label', 'bag', 'code']);
  const grassColumn = column(headers, ['grass', 'turf', 'species']);
  const cells = data.map((row) => row[areaColumn]?.trim() ?? '');
  const comma = commaOf(cells, meta.delimiter);
  const items = data.map((row, index): FoundItem => {
    const area = readArea(cells[index]!, unit, comma);
    const told = grassColumn ? (row[grassColumn]?.trim() ?? '') : '';
    const grass = grasses.find((entry) => [entry.name, entry.label].some((word) => plain(word) === plain(told)));
    const zoneName = row[nameColumn]?.trim() ?? '';
    const fault = typeof area === 'string' ? area : zoneName === '' ? 'It has no name.' : undefined;
    const label = labelColumn ? row[labelColumn]?.trim() : undefined;
    return {
      place: index + 1,
      name: zoneName.slice(0, 80) || null,
      geometry: null,
      ...(typeof area === 'number' ? { area } : {}),
      kind: 'zone',
      properties: { ...row, ...(label ? { label } : {}), ...(grass ? { grass: grass.name } : {}) },
      repairs: told !== '' && !grass ? [`“${told}” is no grass known here: choose one after.`] : [],
      ...(fault === undefined ? {} : { fault }),
    };
  });
  if (items.length === 0) throw new FileError('The table has a header, but no zones below it.');
  const read = unit ? [`Areas were read in ${unit}.`] : ['Areas without a unit were read in m².'];
  return { name, items, notes: read };
}
