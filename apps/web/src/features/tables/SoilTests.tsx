import {
  type ReferenceTable,
  type SufficiencyRow,
  extractantNames,
  limitsOf,
  nutrientSymbol,
  present,
  ratings,
  sufficiencySets,
} from '@glenfold/agronomy';
import { Box, Typography, useMediaQuery } from '@mui/material';
import { Fragment } from 'react';
import { colours } from '../../ui/theme.ts';
import { Provenance, PublishedTable } from './PublishedTable.tsx';

/** Drawing widths: the numbers keep their size on a phone. */
const widths = { desk: 500, phone: 260 } as const;

const soils = (row: SufficiencyRow): string => (row.soilGroup ? ` on ${row.soilGroup}` : '');

/** The five words of a nutrient as a scale, its limits above. */
function Scale({ row }: { readonly row: SufficiencyRow }) {
  const phone = useMediaQuery('(max-width: 599px)');
  const width = phone ? widths.phone : widths.desk;
  const segment = width / 5;
  const limits = limitsOf(row);
  const ours = [row.veryLowBelow === undefined, false, false, row.veryHighFrom === undefined];
  const told = limits.map((limit) => present('concentration', limit, 'metric').number);
  return (
    <svg
      viewBox={`0 0 ${width} 25`}
      width="100%"
      role="img"
      aria-label={`${nutrientSymbol(row.nutrient)}${soils(row)}: low from ${told[0]}, medium from ${told[1]}, high from ${told[2]}, very high from ${told[3]} mg/kg`}
      style={{ display: 'block', maxHeight: 30 }}
    >
      <defs>
        <pattern id="medium" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0v6" stroke={colours.lichen} strokeWidth="1.6" opacity="0.6" />
        </pattern>
      </defs>
      <rect x="0.5" y="14" width={width - 1} height="9" fill={colours.sheet} stroke={colours.faded} strokeWidth="0.7" />
      <rect x={2 * segment} y="14" width={segment} height="9" fill="url(#medium)" />
      {limits.map((limit, index) => (
        <Fragment key={limit}>
          <path d={`M${(index + 1) * segment} 12v11`} stroke={colours.faded} strokeWidth="0.9" />
          <text x={(index + 1) * segment} y="10" textAnchor="middle" fontSize="12" fill={colours.ink}>
            {told[index]}
            {ours[index] ? '*' : ''}
          </text>
        </Fragment>
      ))}
    </svg>
  );
}

/** The bands of every extractant on the five words, so that a laboratory's sheet can be laid beside them. */
export function SoilTests({ tables }: { readonly tables: readonly ReferenceTable[] }) {
  const [drawn, others] = [tables.slice(0, sufficiencySets.length), tables.slice(sufficiencySets.length)];
  const columns = { display: 'grid', gridTemplateColumns: { xs: '92px 1fr', sm: '150px minmax(0, 560px)' } };
  return (
    <>
      <Typography sx={{ maxWidth: 760, mb: 2 }}>
        mg/kg of the element, each word from its lower limit on. Find the extractant on the laboratory’s report: the
        numbers of one mean nothing in another, and none is turned into another unless a published regression is asked
        for by name. A limit with * is ours: half of the bottom of medium, or twice its top.
      </Typography>
      {sufficiencySets.map((set, index) => (
        <Box component="section" key={set.extractant} sx={{ mb: 3, maxWidth: 720 }}>
          <Box sx={{ ...columns, alignItems: 'end', borderBottom: `1px solid ${colours.ink}`, pb: 0.25 }}>
            <Typography variant="h2" sx={{ fontSize: { xs: '1.05rem', sm: '1.3rem' } }}>
              {extractantNames[set.extractant].charAt(0).toUpperCase() + extractantNames[set.extractant].slice(1)}
            </Typography>
            <Box
              aria-hidden
              sx={{ display: 'grid', gridTemplateColumns: 'repeat(5, 1fr)', textAlign: 'center', color: colours.faded }}
            >
              {ratings.map((rating) => (
                <Box key={rating} sx={{ fontSize: { xs: '0.7rem', sm: '0.85rem' } }}>
                  {rating}
                </Box>
              ))}
            </Box>
          </Box>
          {set.rows.map((row) => (
            <Box
              key={`${row.nutrient} ${row.soilGroup ?? ''}`}
              sx={{ ...columns, alignItems: 'end', py: 0.5, borderBottom: `1px solid ${colours.line}` }}
            >
              <Box sx={{ lineHeight: 1.15 }}>
                <strong>{nutrientSymbol(row.nutrient)}</strong>
                {soils(row)}
                {row.uncertain && <Box sx={{ color: colours.faded, fontSize: '0.8rem' }}>least certain</Box>}
              </Box>
              <Scale row={row} />
            </Box>
          ))}
          {drawn[index] && <Provenance table={drawn[index]} />}
        </Box>
      ))}
      {others.map((table) => (
        <PublishedTable key={table.title} table={table} />
      ))}
    </>
  );
}
