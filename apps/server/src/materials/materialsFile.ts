import {
  InputError,
  type MaterialRow,
  type StockedMaterial,
  materialColumns,
  readMaterialRow,
} from '@glenfold/agronomy';
import papaparse from 'papaparse';
import { Problem, refuse } from '../platform/problem.ts';
import { threaded } from '../platform/threaded.ts';

function readFile(csv: string, currency: string): StockedMaterial[] {
  const { data, meta } = papaparse.parse<MaterialRow>(csv.trim(), { header: true, skipEmptyLines: true });
  if (data.length === 0 || !meta.fields?.some((field) => /^name$|^product$/i.test(field.trim())))
    throw new Problem(
      422,
      'Not a materials file',
      `The file needs a first line with columns, "name" among them, and a line for each material. Nothing was taken. Known columns: ${materialColumns.join(', ')}.`,
    );
  const read = data.flatMap((row, index): StockedMaterial[] => {
    try {
      return [readMaterialRow(unescaped(row), index, currency)];
    } catch (error) {
      if (!(error instanceof InputError)) throw error;
      const message = error.message.slice(error.field.length).trim();
      const column = error.field.replace(/^\d+\./, '');
      return refuse([{ field: error.field, message: `Line ${index + 2}, ${column} ${message}. Nothing was taken.` }]);
    }
  });
  const names = new Set<string>();
  const twice = read.findIndex(({ material }) => names.size === names.add(material.name.toLowerCase()).size);
  if (twice >= 0)
    refuse([
      {
        field: `${twice}.name`,
        message: `Line ${twice + 2}: ${read[twice]!.material.name} stands in the file twice. Nothing was taken.`,
      },
    ]);
  return read;
}

/** Cells that were kept from being formulas, as they were. */
const unescaped = (row: MaterialRow): MaterialRow =>
  Object.fromEntries(Object.entries(row).map(([column, text]) => [column, text?.replace(/^'(?=[=+\-@])/, '')]));

/** A materials file as rows, all of it or nothing. @throws a refusal that names the line */
export const materialsFile = threaded(import.meta.url, 'materialsFile', readFile);
