import { present } from '@glenfold/agronomy';
import { Box, Button } from '@mui/material';
import type { KeyboardEvent, RefCallback } from 'react';
import { colours } from '../../../ui/theme.ts';
import { useUnits } from '../../../ui/units.tsx';
import type { Measure, SheetMap } from './sheetMap.ts';

interface SheetViewProps {
  readonly attach: RefCallback<HTMLElement>;
  readonly map: SheetMap | null;
  readonly measure: Measure | null;
  readonly label: string;
  readonly onKeyDown: (event: KeyboardEvent) => void;
  /** Whose map lies under it. */
  readonly credit?: string | undefined;
}

/** The paper: the map itself, north, scale, and what the pen measures as it moves. */
export function SheetView({ attach, map, measure, label, onKeyDown, credit }: SheetViewProps) {
  const { system, say } = useUnits();
  const length = measure && present('length', measure.length, system).text;
  const views = [
    ['+', 'Nearer', () => map?.zoom(1)],
    ['−', 'Further', () => map?.zoom(-1)],
    ['All', 'All of the site', () => map?.fit()],
  ] as const;
  return (
    <Box sx={{ position: 'relative' }}>
      <Box
        ref={attach}
        tabIndex={0}
        role="application"
        aria-label={label}
        onKeyDown={onKeyDown}
        sx={{
          height: { xs: 360, md: 'max(420px, calc(100vh - 330px))' },
          border: `1px solid ${colours.faded}`,
          background: colours.sheet,
          touchAction: 'none',
          '& .ol-scale-line': { background: colours.sheet, border: `1px solid ${colours.faded}`, borderRadius: 0 },
          '& .ol-scale-line-inner': { color: colours.ink, borderColor: colours.ink, fontSize: 12 },
        }}
      />
      <svg
        width="30"
        height="44"
        viewBox="0 0 30 44"
        role="img"
        aria-label="North is up"
        style={{ position: 'absolute', top: 10, right: 10, pointerEvents: 'none' }}
      >
        <path d="M15 42V8M15 4l-6 13 6 -4 6 4z" fill={colours.ink} stroke={colours.ink} strokeWidth="1.4" />
        <text x="21" y="42" fontSize="12" fontWeight="700" fill={colours.ink}>
          N
        </text>
      </svg>
      <Box sx={{ position: 'absolute', right: 8, bottom: 8, display: 'flex', gap: 0.5 }}>
        {views.map(([text, words, onClick]) => (
          <Button
            key={words}
            size="small"
            variant="outlined"
            aria-label={words}
            onClick={onClick}
            sx={{ background: colours.sheet, minWidth: 36, px: 1 }}
          >
            {text}
          </Button>
        ))}
      </Box>
      {credit && (
        <Box
          sx={{
            position: 'absolute',
            right: 150,
            bottom: 1,
            px: 0.75,
            maxWidth: '50%',
            background: colours.sheet,
            fontSize: '0.8rem',
            pointerEvents: 'none',
          }}
        >
          {credit}
        </Box>
      )}
      {measure && (
        <Box
          role="status"
          sx={{
            position: 'absolute',
            top: 8,
            left: 8,
            background: colours.ink,
            color: colours.paper,
            px: 1.25,
            py: 0.5,
            fontWeight: 700,
          }}
        >
          {measure.area === undefined ? length : `${say('area', measure.area)}, ${length} round`}
        </Box>
      )}
    </Box>
  );
}
