import RedoIcon from '@mui/icons-material/Redo';
import UndoIcon from '@mui/icons-material/Undo';
import type { GroundFeatureAnswer, ZoneAnswer } from '@glenfold/contract';
import { Box, Button, Divider, ListSubheader, Menu, MenuItem } from '@mui/material';
import { type ReactNode, useState } from 'react';
import { colours } from '../../../ui/theme.ts';
import { type Question, type Task, drawGroups } from './tasks.ts';
import type { useStrokes } from './useStrokes.ts';

interface DrawingToolsProps {
  readonly task: Task;
  readonly zone: ZoneAnswer | undefined;
  readonly thing: GroundFeatureAnswer | undefined;
  readonly strokes: ReturnType<typeof useStrokes>;
  readonly onTask: (task: Task) => void;
  readonly onAsk: (question: Question) => void;
  readonly onRemove: () => void;
  readonly more?: ReactNode;
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** A button with a menu of tools. */
export function ToolMenu({
  label,
  disabled = false,
  children,
}: {
  readonly label: string;
  readonly disabled?: boolean;
  /** Given what makes an entry that closes the menu. */
  readonly children: (item: (label: string, run: () => void, disabled?: boolean) => ReactNode) => ReactNode;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const item = (entry: string, run: () => void, off = false): ReactNode => (
    <MenuItem
      key={entry}
      dense
      disabled={off}
      onClick={() => {
        setAnchor(null);
        run();
      }}
    >
      {entry}
    </MenuItem>
  );
  return (
    <>
      <Button
        variant="outlined"
        disabled={disabled}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        {label} ▾
      </Button>
      <Menu
        anchorEl={anchor}
        open={!!anchor}
        onClose={() => setAnchor(null)}
        slotProps={{ paper: { sx: { border: `1px solid ${colours.ink}`, minWidth: 220 } } }}
      >
        {children(item)}
      </Menu>
    </>
  );
}

/** What the pen can do, what can be done to the chosen thing, and the way back. */
export function DrawingTools({ task, zone, thing, strokes, onTask, onAsk, onRemove, more }: DrawingToolsProps) {
  const drawnZone = !!zone?.geometry;
  const chosen = drawnZone || !!thing;
  const toggle = (to: 'edit' | 'split' | 'join', label: string, disabled: boolean) => (
    <Button
      variant={task.do === to ? 'contained' : 'outlined'}
      disabled={disabled}
      aria-pressed={task.do === to}
      onClick={() => onTask(task.do === to ? { do: 'choose' } : { do: to })}
    >
      {label}
    </Button>
  );
  return (
    <Box
      role="toolbar"
      aria-label="Plan"
      sx={{
        display: 'flex',
        flexWrap: 'wrap',
        gap: 0.5,
        mb: 1,
        '& .MuiButton-root': {
          px: { md: 0.8 },
          minWidth: 0,
          minHeight: { md: 36 },
          fontSize: { md: '0.92rem' },
          whiteSpace: 'nowrap',
        },
      }}
    >
      {zone && !zone.geometry && (
        <Button variant="contained" onClick={() => onTask({ do: 'outline' })}>
          Draw {zone.name}
        </Button>
      )}
      <ToolMenu label="Draw">
        {(item) => [
          item('Zone', () => onTask({ do: 'draw', kind: 'zone' })),
          item('Simple shape by its lengths…', () => onAsk({ ask: 'shape' })),
          ...drawGroups.flatMap(([title, kinds]) => [
            <Divider key={`${title} line`} />,
            <ListSubheader key={title} sx={{ lineHeight: 2, background: 'none' }}>
              {title}
            </ListSubheader>,
            ...kinds.map((kind) => item(capital(kind), () => onTask({ do: 'draw', kind }))),
          ]),
        ]}
      </ToolMenu>
      {toggle('edit', 'Move corners', !chosen)}
      {toggle('split', 'Split', !drawnZone)}
      {toggle('join', 'Join', !drawnZone)}
      <ToolMenu label="Part off" disabled={!drawnZone && thing?.kind !== 'tree'}>
        {(item) => [
          item('A strip along an edge', () => onTask({ do: 'strip' }), !drawnZone),
          item('A piece, left out of the zone', () => onTask({ do: 'cut' }), !drawnZone),
          item('The ground under the chosen tree…', () => onAsk({ ask: 'canopy ring' }), thing?.kind !== 'tree'),
        ]}
      </ToolMenu>
      <Button variant="outlined" disabled={!zone && !thing} onClick={onRemove}>
        Delete
      </Button>
      {more}
      <Box sx={{ flex: 1 }} />
      <Button
        variant="outlined"
        disabled={!strokes.last || strokes.isPending}
        onClick={strokes.undo}
        aria-label={strokes.last ? `Undo: ${strokes.last}` : 'Undo'}
        sx={{ width: 38, '&&': { px: 0 } }}
      >
        <UndoIcon fontSize="small" />
      </Button>
      <Button
        variant="outlined"
        disabled={!strokes.next || strokes.isPending}
        onClick={strokes.redo}
        aria-label={strokes.next ? `Redo: ${strokes.next}` : 'Redo'}
        sx={{ width: 38, '&&': { px: 0 } }}
      >
        <RedoIcon fontSize="small" />
      </Button>
    </Box>
  );
}
