import { basisName, bufferNames, extractantNames, panel } from '@glenfold/agronomy';
import type { LabResultAnswer, ZoneAnswer } from '@glenfold/contract';
import { Box, Button, Table, TableBody, TableCell, TableHead, TableRow } from '@mui/material';
import { Link } from 'react-router';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { asRead } from './fieldNames.ts';
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

/** Every result of the site as its laboratory printed it, newest first. */
export function LabRecord({ siteId, zones, results, onCorrect }: LabRecordProps) {
  const { say } = useUnits();
  const { remove } = useUndo();
  return (
    <Box sx={{ overflowX: 'auto' }}>
      <Table size="small">
        <TableHead>
          <TableRow>
            {[
              'Zone',
              'Sampled',
              'pH',
              'Buffer',
              ...panel.map((nutrient) => basisName(nutrient, 'element')),
              'OM',
              '',
            ].map((heading, index) => (
              <TableCell key={index}>{heading}</TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {results.map((result) => {
            const zone = zones.find(({ id }) => id === result.zoneId);
            return (
              <TableRow key={result.id}>
                <TableCell>
                  <Box
                    component={Link}
                    to={stepPath(siteId, 'reading', result.zoneId)}
                    sx={{ color: colours.ink, fontWeight: 700 }}
                  >
                    {zone?.name}
                  </Box>
                  <Box sx={{ fontSize: '0.85rem', color: colours.faded }}>
                    {result.origin}, {extractantNames[result.extractant]}
                  </Box>
                  {result.beside && (
                    <Box sx={{ fontSize: '0.85rem', maxWidth: 300 }}>
                      The report also said {result.beside.split('; ').join(', ')}.
                    </Box>
                  )}
                  {result.questions.map((question) => (
                    <Box key={question} sx={{ fontSize: '0.85rem', color: colours.slate, maxWidth: 260 }}>
                      <Words>{question}</Words>
                    </Box>
                  ))}
                </TableCell>
                <TableCell sx={{ whiteSpace: 'nowrap' }}>
                  {result.sampledOn ?? 'no date'}
                  <Box sx={{ fontSize: '0.85rem', color: colours.faded }}>{say('depth', result.depth)} deep</Box>
                </TableCell>
                <TableCell sx={{ fontWeight: 700 }}>{asRead(result.soilPh)}</TableCell>
                <TableCell>
                  {result.bufferPh === null ? '–' : asRead(result.bufferPh)}
                  <Box sx={{ fontSize: '0.85rem', color: colours.faded }}>
                    {result.bufferMethod && bufferNames[result.bufferMethod]}
                  </Box>
                </TableCell>
                {panel.map((nutrient) => {
                  const reported = result.nutrients[nutrient];
                  return (
                    <TableCell key={nutrient} sx={{ whiteSpace: 'nowrap' }}>
                      {reported ? `${reported.belowDetection ? '<' : ''}${reported.value}` : '–'}
                      <Box sx={{ fontSize: '0.85rem', color: colours.faded }}>
                        {reported && (
                          <Words>{`${reported.basis === 'oxide' ? `${basisName(nutrient, 'oxide')} ` : ''}${reported.unit === 'mg/kg' ? 'ppm' : reported.unit}`}</Words>
                        )}
                      </Box>
                    </TableCell>
                  );
                })}
                <TableCell sx={{ whiteSpace: 'nowrap' }}>
                  {result.organicMatter === null ? '–' : `${result.organicMatter} %`}
                </TableCell>
                <TableCell sx={{ whiteSpace: 'nowrap', textAlign: 'right' }}>
                  {onCorrect && (
                    <>
                      <Button
                        size="small"
                        onClick={() => onCorrect(result)}
                        aria-label={`Correct the result of ${zone?.name} of ${result.sampledOn ?? 'no date'}`}
                      >
                        Correct
                      </Button>
                      <Button
                        size="small"
                        onClick={() => remove(`/lab-results/${result.id}`, `The result of ${zone?.name ?? 'the zone'}`)}
                        aria-label={`Delete the result of ${zone?.name} of ${result.sampledOn ?? 'no date'}`}
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
    </Box>
  );
}
