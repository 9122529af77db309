import { plainLabel, printedUnit, readIn, tellResult, unitOfOutput, inLine } from '@glenfold/agronomy';
import { Box, Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material';
import { colours } from './theme.ts';
import { useUnits } from './units.tsx';
import { Words } from './Words.tsx';

type Outputs = Readonly<Record<string, string>>;
const isRow = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** How one value of a result is told; nothing for what has no place in a line. */
function useTell(outputs: Outputs): (path: string, value: unknown) => string {
  const { system } = useUnits();
  const tell = (path: string, value: unknown): string => {
    if (typeof value === 'number') return tellResult(value, unitOfOutput(outputs, path), system);
    if (typeof value === 'boolean') return value ? 'yes' : 'no';
    if (typeof value === 'string') return value;
    if (Array.isArray(value)) {
      // Two numbers are a range.
      const range = value.length === 2 && value.every((one) => typeof one === 'number');
      return value.map((one) => tell(path, one)).join(range ? ' to ' : ', ');
    }
    if (isRow(value))
      return Object.entries(value)
        .map(([name, one]) =>
          // What has a name is told by it.
          name === 'name' ? String(one) : `${inLine(plainLabel(name))} ${tell(`${path}.${name}`, one)}`,
        )
        .join(typeof value.name === 'string' ? ' ' : ', ');
    return 'none';
  };
  return tell;
}

interface ResultOfProps {
  readonly outputs: Outputs;
  readonly result: Readonly<Record<string, unknown>>;
}

/** What came out, the first of it large; lists of rows as tables. */
export function ResultOf({ outputs, result }: ResultOfProps) {
  const tell = useTell(outputs);
  const { system } = useUnits();
  const unit = (path: string): string => printedUnit(readIn(unitOfOutput(outputs, path), system));
  const known = Object.entries(result).filter(([, value]) => value !== undefined);
  const [main, ...rest] = known.filter(([, value]) => !(Array.isArray(value) && value.some(isRow)));
  const tables = known.filter(([, value]) => Array.isArray(value) && value.some(isRow));
  return (
    <>
      {main && (
        <>
          <Box sx={{ color: colours.faded }}>{plainLabel(main[0])}</Box>
          <Box sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '2.1rem', lineHeight: 1.2, mb: 1 }}>
            <Words>{tell(main[0], main[1])}</Words>
          </Box>
        </>
      )}
      {rest.length > 0 && (
        <Box
          component="dl"
          sx={{ display: 'grid', gridTemplateColumns: 'minmax(120px, auto) 1fr', columnGap: 2, rowGap: 0.5, m: 0 }}
        >
          {rest.map(([name, value]) => [
            <Box component="dt" key={name} sx={{ color: colours.faded }}>
              {plainLabel(name)}
            </Box>,
            <Box component="dd" key={`${name} value`} sx={{ m: 0, fontWeight: 700 }}>
              <Words>{tell(name, value)}</Words>
            </Box>,
          ])}
        </Box>
      )}
      {tables.map(([name, value]) => {
        const rows = (value as readonly unknown[]).filter(isRow);
        const columns = [...new Set(rows.flatMap((row) => Object.keys(row)))];
        // A column of numbers has its unit at its head, once.
        const unitOf = (column: string): string =>
          rows.every((row) => typeof row[column] === 'number') ? unit(`${name}.${column}`) : '';
        const cell = (row: Readonly<Record<string, unknown>>, column: string): string => {
          if (row[column] === undefined) return '–';
          const told = tell(`${name}.${column}`, row[column]);
          const own = unitOf(column);
          return own !== '' && told.endsWith(` ${own}`) ? told.slice(0, -own.length - 1) : told;
        };
        return (
          <Box key={name} sx={{ overflowX: 'auto', mt: 2 }}>
            <Box sx={{ fontWeight: 700 }}>{plainLabel(name)}</Box>
            <Table size="small" aria-label={plainLabel(name)}>
              <TableHead>
                <TableRow>
                  {columns.map((column) => (
                    <TableCell key={column}>
                      <Words>{[plainLabel(column), unitOf(column)].filter(Boolean).join(', ')}</Words>
                    </TableCell>
                  ))}
                </TableRow>
              </TableHead>
              <TableBody>
                {rows.map((row, index) => (
                  <TableRow key={index}>
                    {columns.map((column) => (
                      <TableCell key={column}>
                        <Words>{cell(row, column)}</Words>
                      </TableCell>
                    ))}
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          </Box>
        );
      })}
    </>
  );
}
