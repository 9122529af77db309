import type { ReferenceTable } from '@glenfold/agronomy';
import { Box, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material';
import { colours } from '../../ui/theme.ts';
import { Words } from '../../ui/Words.tsx';

/** Where a table comes from: under every one of them. */
export function Provenance({ table }: { readonly table: ReferenceTable }) {
  return (
    <Typography sx={{ color: colours.faded, fontSize: '0.85rem', mt: 0.5, maxWidth: 820 }}>
      <Words>{`${table.source}. In: ${table.basis}. For: ${table.region}; ${table.date}.`}</Words>
    </Typography>
  );
}

/** A table as it was published, with where it comes from. */
export function PublishedTable({ table }: { readonly table: ReferenceTable }) {
  return (
    <Box component="section" sx={{ mb: 3.5 }}>
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        <Words>{table.title}</Words>
      </Typography>
      <Box sx={{ overflowX: 'auto' }}>
        <Table size="small" sx={{ width: 'auto', minWidth: { md: 440 } }}>
          <TableHead>
            <TableRow>
              {table.columns.map((column) => (
                <TableCell key={column} sx={{ pr: 3 }}>
                  <Words>{column}</Words>
                </TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody>
            {table.rows.map((cells) => (
              <TableRow key={cells.join()}>
                {cells.map((cell, index) => (
                  <TableCell key={index} sx={{ pr: 3, fontWeight: index === 0 ? 700 : 400 }}>
                    <Words>{cell}</Words>
                  </TableCell>
                ))}
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Box>
      <Provenance table={table} />
    </Box>
  );
}
