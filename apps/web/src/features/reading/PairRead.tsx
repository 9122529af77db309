import type { Pair } from '@glenfold/agronomy';
import { Box, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material';
import { Words } from '../../ui/Words.tsx';
import { colours } from '../../ui/theme.ts';
import { Opens } from '../../ui/working.tsx';

/** The bad half of a lawn read against its healthy half. */
export function PairRead({ pair: { words, lines } }: { readonly pair: Pair }) {
  return (
    <Box component="section" aria-label="The bad and the healthy half" sx={{ my: 1.5, maxWidth: 780 }}>
      <Typography variant="h3">The bad half against the healthy half</Typography>
      <Typography>
        <Words>{words}</Words>
      </Typography>
      <Box component="details" sx={{ '& summary': { cursor: 'pointer', color: colours.slate } }}>
        <summary>Both halves, value by value</summary>
        <Table size="small">
          <TableHead>
            <TableRow>
              <TableCell>Measure</TableCell>
              <TableCell>Bad half</TableCell>
              <TableCell>Healthy half</TableCell>
              <TableCell>More than chance</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {lines.map(({ key, name, bad, healthy, differs, working }) => (
              <TableRow key={key} sx={differs ? { '& td': { fontWeight: 700 } } : {}}>
                <TableCell>{name}</TableCell>
                <TableCell>
                  <Words>{bad}</Words>
                </TableCell>
                <TableCell>
                  <Words>{healthy}</Words>
                </TableCell>
                <TableCell>
                  {differs === null ? (
                    'nobody can say'
                  ) : (
                    <Opens title={`${name}, both halves`} told={differs ? 'differs' : 'no'} working={working} />
                  )}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Box>
    </Box>
  );
}
