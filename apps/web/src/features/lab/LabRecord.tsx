import {
  type Analyte,
  advisedUnitWords,
  extractantNames,
  routineAnalytes,
  sheetOrder,
  waterPh,
} from '@glenfold/agronomy';
import { type LabResultAnswer, type ZoneAnswer, withReadableDays } from '@glenfold/contract';
import { Box, Button, Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { AdviceForm } from './AdviceForm.tsx';
import { amountText, headName, unitText, valueText } from './fieldNames.ts';
import { Words } from '../../ui/Words.tsx';
import { useUndo } from '../../ui/undo.tsx';
import { useUnits } from '../../ui/units.tsx';

interface LabRecordProps {
  readonly siteId: string;
  readonly zones: readonly ZoneAnswer[];
  readonly results: readonly LabResultAnswer[];
  /** Offered to those who may correct and delete. */
  readonly onCorrect?: (result: LabResultAnswer) => void;
}

const isRoutine = (analyte: Analyte): boolean => routineAnalytes.some((one) => one === analyte);

/** A value with its unit; a pH that was measured in salt stands as water would have read it. */
function ValueCell({ analyte, result }: { readonly analyte: Analyte; readonly result: LabResultAnswer }) {
  const value = result.values[analyte];
  const converted = analyte === 'soilPh' && !value ? waterPh(result.values) : undefined;
  return (
    <TableCell sx={{ whiteSpace: 'nowrap', fontWeight: analyte === 'soilPh' ? 700 : 400 }}>
      {value ? amountText(analyte, value) : (converted?.toFixed(1) ?? '–')}
      <Box sx={{ fontSize: '0.85rem', color: colours.faded, fontWeight: 400 }}>
        <Words>{value ? unitText(analyte, value) : converted === undefined ? '' : 'from salt'}</Words>
      </Box>
    </TableCell>
  );
}

/** Every result of the site as its laboratory printed it, newest first. */
export function LabRecord({ siteId, zones, results, onCorrect }: LabRecordProps) {
  const { say } = useUnits();
  const { remove } = useUndo();
  const [advised, setAdvised] = useState<{ readonly result: LabResultAnswer; readonly name: string } | null>(null);
  return (
    <Box sx={{ overflowX: 'auto' }}>
      <Table size="small">
        <TableHead>
          <TableRow>
            {['Zone', 'Sampled', ...routineAnalytes.map(headName), ''].map((heading, index) => (
              <TableCell key={index} component={heading === '' ? 'td' : 'th'}>
                {heading}
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {results.map((result) => {
            const own = zones.filter(({ id }) => result.zoneIds.includes(id));
            const heirs = result.inherited.flatMap(({ zoneId, of }) =>
              zones.flatMap(({ id, name: heir }) => (id === zoneId ? [{ heir, of }] : [])),
            );
            const name = own.map((zone) => zone.name).join(', ') || (heirs[0]?.of ?? 'Ground that is gone');
            const replaced = result.supersededById !== null;
            const beside = sheetOrder.filter((analyte) => result.values[analyte] && !isRoutine(analyte));
            return (
              <TableRow key={result.id} sx={replaced ? { opacity: 0.72 } : {}}>
                <TableCell>
                  <Box
                    component={Link}
                    to={stepPath(siteId, 'reading', result.zoneIds[0] ?? result.inherited[0]?.zoneId)}
                    sx={{ color: colours.ink, fontWeight: 700 }}
                  >
                    {name}
                  </Box>
                  <Box sx={{ fontSize: '0.85rem', color: colours.faded }}>
                    {result.origin}, {extractantNames[result.extractant]}
                  </Box>
                  {replaced && (
                    <Box sx={{ fontSize: '0.85rem', color: colours.ochre, fontWeight: 700 }}>
                      Superseded: the laboratory amended it. Kept to be read; nothing rests on it.
                    </Box>
                  )}
                  {result.supersedesId && <Box sx={{ fontSize: '0.85rem' }}>Takes the place of the one below.</Box>}
                  {heirs.length > 0 && (
                    <Box sx={{ fontSize: '0.85rem' }}>Speaks for {heirs.map(({ heir }) => heir).join(', ')} too.</Box>
                  )}
                  {beside.length > 0 && (
                    <Box sx={{ fontSize: '0.85rem', maxWidth: 300 }}>
                      <Words>{`Also ${beside.map((analyte) => valueText(analyte, result.values[analyte]!)).join(', ')}.`}</Words>
                    </Box>
                  )}
                  {result.beside && (
                    <Box sx={{ fontSize: '0.85rem', maxWidth: 300 }}>
                      The report also said {result.beside.split('; ').join(', ')}.
                    </Box>
                  )}
                  {result.advised.length > 0 && (
                    <Box sx={{ fontSize: '0.85rem', maxWidth: 300 }}>
                      <Words>{`It advises ${result.advised
                        .map(({ what, amount, unit, words }) =>
                          `${what} ${amount === null || unit === null ? (words ?? '') : `${amount} ${advisedUnitWords[unit]}`}`.trim(),
                        )
                        .join(', ')}.`}</Words>
                    </Box>
                  )}
                  {result.advice && (
                    <Box sx={{ fontSize: '0.85rem', maxWidth: 300 }}>The laboratory advises: {result.advice}</Box>
                  )}
                  {result.questions.map((question) => (
                    <Box key={question} sx={{ fontSize: '0.85rem', color: colours.slate, maxWidth: 260 }}>
                      <Words>{question}</Words>
                    </Box>
                  ))}
                </TableCell>
                <TableCell sx={{ whiteSpace: 'nowrap' }}>
                  {withReadableDays(result.sampledOn ?? 'no date')}
                  <Box sx={{ fontSize: '0.85rem', color: colours.faded }}>{say('depth', result.depth)} deep</Box>
                </TableCell>
                {routineAnalytes.map((analyte) => (
                  <ValueCell key={analyte} analyte={analyte} result={result} />
                ))}
                <TableCell sx={{ whiteSpace: 'nowrap', textAlign: 'right' }}>
                  {onCorrect && !replaced && own.length > 0 && (
                    <>
                      <Button
                        size="small"
                        onClick={() => onCorrect(result)}
                        aria-label={`Correct the result of ${name} of ${result.sampledOn ?? 'no date'}`}
                      >
                        Correct
                      </Button>
                      <Button
                        size="small"
                        onClick={() => setAdvised({ result, name })}
                        aria-label={`The laboratory’s advice for ${name}`}
                      >
                        Its advice
                      </Button>
                      <Button
                        size="small"
                        onClick={() => remove(`/lab-results/${result.id}`, `The result of ${name}`)}
                        aria-label={`Delete the result of ${name} of ${result.sampledOn ?? 'no date'}`}
                      >
                        Delete
                      </Button>
                    </>
                  )}
                </TableCell>
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
      {advised && <AdviceForm {...advised} onClose={() => setAdvised(null)} />}
    </Box>
  );
}
