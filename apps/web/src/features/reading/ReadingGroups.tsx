import { type ReadingLine, readingGroups } from '@glenfold/agronomy';
import { Box, Button, Typography } from '@mui/material';
import { type ReactNode, useState } from 'react';
import { ReadingBar } from '../../ui/ReadingBar.tsx';
import { Words } from '../../ui/Words.tsx';
import { colours } from '../../ui/theme.ts';
import { PhPicture } from './PhPicture.tsx';

interface LineProps {
  readonly line: ReadingLine;
  readonly first: boolean;
  readonly band: readonly [low: number, high: number];
}

/** What is said of a value: what it means here, what of the number itself, how near a border it lies, what it was. */
function Line({ line, first, band }: LineProps) {
  const { bar, says, beside, spread, border, earlier, change } = line;
  const [picture, setPicture] = useState(false);
  const acts = bar.acts;
  return (
    <ReadingBar bar={bar} first={first} spread={spread} earlier={earlier.filter(({ apart }) => apart === null)}>
      <Typography sx={{ fontWeight: acts ? 700 : 400, color: acts ? colours.ochre : colours.ink, fontSize: '0.95rem' }}>
        <Words>{says}</Words>
      </Typography>
      {[beside, border?.words ?? null, change].map((words, index) =>
        words === null ? null : (
          <Typography key={index} sx={{ fontSize: '0.9rem', color: index === 1 ? colours.ink : colours.faded }}>
            <Words>{words}</Words>
          </Typography>
        ),
      )}
      {bar.key === 'soilPh' && (
        <>
          <Button size="small" sx={{ ml: -1 }} onClick={() => setPicture(!picture)} aria-expanded={picture}>
            {picture ? 'Fold the drawing' : 'What pH does to each nutrient'}
          </Button>
          {picture && <PhPicture ph={bar.figure.value} band={band} />}
        </>
      )}
    </ReadingBar>
  );
}

const heads: Readonly<Record<(typeof readingGroups)[number], string>> = {
  acidity: 'Acidity',
  'structure and water': 'Structure and water',
  'organic matter and exchange': 'Organic matter and exchange',
  nutrients: 'Nutrients',
  salts: 'Salts',
};

interface ReadingGroupsProps {
  readonly lines: readonly ReadingLine[];
  readonly band: readonly [low: number, high: number];
  /** What was not measured of structure, and where it is. */
  readonly children?: ReactNode;
}

/** The readings of a zone in their parts, in the order in which a soil is read. */
export function ReadingGroups({ lines, band, children }: ReadingGroupsProps) {
  return readingGroups.map((group) => {
    const own = lines.filter((line) => line.group === group);
    if (own.length === 0 && group !== 'structure and water') return null;
    return (
      <Box key={group} component="section" aria-label={heads[group]} sx={{ mt: 2.5 }}>
        <Typography variant="h2" component="h3" sx={{ borderBottom: `2px solid ${colours.ink}`, pb: 0.25 }}>
          {heads[group]}
        </Typography>
        {own.map((line) => (
          <Line key={line.bar.key} line={line} first={line.bar.key === 'soilPh'} band={band} />
        ))}
        {group === 'structure and water' && children}
      </Box>
    );
  });
}
