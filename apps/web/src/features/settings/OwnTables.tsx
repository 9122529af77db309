import {
  extractantNames,
  extractants,
  nutrientSymbol,
  nutrients,
  ratings,
  soilGroups,
  yearlyRates,
  convert,
} from '@glenfold/agronomy';
import { type SettingValue } from '@glenfold/contract';
import { Box, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material';
import { Fields } from '../../ui/FormDialog.tsx';
import { NumberField } from '../../ui/NumberField.tsx';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { Words } from '../../ui/Words.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Choice, capital } from './Choice.tsx';
import { Decided, type Fill, Rows } from './Decided.tsx';
import { SourceFields, thisYear } from './SourceFields.tsx';
import type { Scope } from './scope.ts';

interface PartProps {
  readonly scope: Scope;
}

/** The bands of the local laboratory or the state. */
export function Bands({ scope }: PartProps) {
  return (
    <Decided
      kind="bands"
      scope={scope}
      name="Bands of one’s own"
      general="None: nutrients are rated by the general tables of their extractant (see Tables, Soil tests)."
      start={{ tables: [{ name: '', source: '', date: thisYear(), extractant: 'mehlich-3', rows: [] }] }}
      tell={({ tables }) => (
        <>
          {tables.length === 0 && <Typography>None here.</Typography>}
          {tables.map(({ name, source, date, extractant, rows }) => (
            <Box key={extractant} sx={{ mb: 2 }}>
              <Typography>
                <strong>{name}</strong>, {extractantNames[extractant as 'olsen']}; {source}, {date}
              </Typography>
              <Table size="small" sx={{ maxWidth: 620 }}>
                <TableHead>
                  <TableRow>
                    <TableCell>mg/kg (ppm)</TableCell>
                    <TableCell>Low from</TableCell>
                    <TableCell>Medium</TableCell>
                    <TableCell>Very high from</TableCell>
                  </TableRow>
                </TableHead>
                <TableBody>
                  {rows.map(({ nutrient, soilGroup, veryLowBelow, low, high, veryHighFrom }) => (
                    <TableRow key={`${nutrient} ${soilGroup ?? ''}`}>
                      <TableCell>
                        {nutrientSymbol(nutrient as 'p')}
                        {soilGroup && `, ${soilGroup}`}
                      </TableCell>
                      <TableCell>{veryLowBelow ?? `${low / 2} (half of medium)`}</TableCell>
                      <TableCell>
                        {low}–{high}
                      </TableCell>
                      <TableCell>{veryHighFrom ?? `${high * 2} (twice medium)`}</TableCell>
                    </TableRow>
                  ))}
                </TableBody>
              </Table>
            </Box>
          ))}
        </>
      )}
    >
      {({ typed, set, problem }) => (
        <Rows
          rows={typed.tables}
          onRows={(tables) => set({ tables })}
          fresh={{ name: '', source: '', date: thisYear(), extractant: 'olsen', rows: [] }}
          another="Another extractant"
          columns="1fr"
          label={({ name }) => `the table ${name}`}
        >
          {(table, at, change) => (
            <Box sx={{ display: 'grid', gap: 2, borderLeft: `2px solid ${colours.line}`, pl: 2 }}>
              <SourceFields typed={table} set={change} problem={problem} at={`tables.${at}.`} />
              <Choice
                label="Extractant"
                value={table.extractant}
                values={extractants}
                names={extractantNames}
                problem={problem(`tables.${at}.extractant`)}
                help="Numbers of one extractant say nothing of another"
                onChange={(extractant) => change({ extractant: extractant! })}
              />
              {problem(`tables.${at}.rows`) && <Typography role="alert">{problem(`tables.${at}.rows`)}</Typography>}
              <Rows
                rows={table.rows}
                onRows={(rows) => change({ rows })}
                fresh={{
                  nutrient: 'p',
                  soilGroup: null,
                  veryLowBelow: null,
                  low: '',
                  high: '',
                  veryHighFrom: null,
                }}
                another="Another nutrient"
                columns="1fr 1fr 1fr 1fr 1fr 1fr"
                label={({ nutrient }) => `the band of ${nutrientSymbol(nutrient)}`}
              >
                {(row, index, changeRow) => {
                  const path = `tables.${at}.rows.${index}.`;
                  const number = (key: 'veryLowBelow' | 'low' | 'high' | 'veryHighFrom', label: string) => (
                    <NumberField
                      narrow
                      label={label}
                      value={row[key]}
                      onChange={(value) => changeRow({ [key]: value })}
                      problem={problem(`${path}${key}`)}
                    />
                  );
                  return (
                    <>
                      <Choice
                        label="Nutrient"
                        value={row.nutrient}
                        values={nutrients}
                        names={Object.fromEntries(nutrients.map((key) => [key, nutrientSymbol(key)]))}
                        onChange={(nutrient) => changeRow({ nutrient: nutrient! })}
                      />
                      <Choice
                        label="Soil"
                        value={row.soilGroup}
                        values={soilGroups}
                        none="all"
                        onChange={(soilGroup) => changeRow({ soilGroup })}
                      />
                      {number('veryLowBelow', 'Low from')}
                      {number('low', 'Medium from')}
                      {number('high', 'Medium to')}
                      {number('veryHighFrom', 'Very high from')}
                    </>
                  );
                }}
              </Rows>
            </Box>
          )}
        </Rows>
      )}
    </Decided>
  );
}

type ByRating = SettingValue<'yearlyRates'>['p'];
const general = (of: 'p' | 'k'): ByRating =>
  Object.fromEntries(
    ratings.map((rating) => [rating, convert(yearlyRates[of][rating], 'lb/1000ft2', 'g/m2')]),
  ) as unknown as ByRating;

/** What a rating gets in a year. */
export function YearlyRates({ scope }: PartProps) {
  const { say } = useUnits();
  const line = (label: string, rates: ByRating | null | undefined) =>
    rates && (
      <TableRow>
        <TableCell>
          <Words>{label}</Words>
        </TableCell>
        {ratings.map((rating) => (
          <TableCell key={rating}>{rates[rating] === 0 ? 'none' : say('nutrientRate', rates[rating])}</TableCell>
        ))}
      </TableRow>
    );
  const fields = ({ typed, set, problem }: Fill<'yearlyRates'>, key: 'p' | 'pEstablishing' | 'k', label: string) => (
    <>
      <Typography variant="h3">
        <Words>{label}</Words>
      </Typography>
      <Fields columns={5}>
        {ratings.map((rating) => (
          <QuantityField
            key={rating}
            label={capital(rating)}
            sense="nutrientRate"
            value={(typed[key] as Readonly<Record<string, number | string | null>> | null | undefined)?.[rating]}
            onChange={(value) => set({ [key]: { ...(typed[key] ?? general('p')), [rating]: value } as never })}
            problem={problem(`${key}.${rating}`)}
          />
        ))}
      </Fields>
    </>
  );
  return (
    <Decided
      kind="yearlyRates"
      scope={scope}
      name="Yearly rates of one’s own"
      general="None: the general table of this application, scaled by the grass’s need (see Tables, Soil tests)."
      start={{ name: '', source: '', date: thisYear(), p: general('p'), pEstablishing: null, k: general('k') }}
      tell={({ name, source, date, p, pEstablishing, k }) => (
        <>
          <Typography>
            <strong>{name}</strong>; {source}, {date}. Used as they stand, not scaled by the grass.
          </Typography>
          <Table size="small">
            <TableHead>
              <TableRow>
                <TableCell>A year</TableCell>
                {ratings.map((rating) => (
                  <TableCell key={rating}>{rating}</TableCell>
                ))}
              </TableRow>
            </TableHead>
            <TableBody>
              {line('P₂O₅', p)}
              {line('P₂O₅ while establishing', pEstablishing)}
              {line('K₂O', k)}
            </TableBody>
          </Table>
        </>
      )}
    >
      {(fill) => (
        <>
          <SourceFields typed={fill.typed} set={fill.set} problem={fill.problem} />
          {fields(fill, 'p', 'P₂O₅ a year on grown turf')}
          {fields(fill, 'pEstablishing', 'P₂O₅ while a lawn is being established (empty: as grown turf)')}
          {fields(fill, 'k', 'K₂O a year')}
          <Typography sx={{ color: colours.faded }}>
            The caps of a pass hold whatever the table says. Phosphorus stays under the rules of the place.
          </Typography>
        </>
      )}
    </Decided>
  );
}
