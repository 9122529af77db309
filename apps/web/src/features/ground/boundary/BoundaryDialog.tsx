import {
  type Fix,
  type Outline,
  Plane,
  GeometryError,
  type Position,
  type WalkedArea,
  partsOf,
  walkedArea,
  type PlanePoint,
  endsOf,
  perMetreWithin,
  placedIn,
} from '@glenfold/agronomy/geometry';
import type { ZoneAnswer } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useMemo, useState } from 'react';
import { devicePosition } from '../../../position/devicePosition.ts';
import { replayedWalk } from '../../../position/replayedWalk.ts';
import { DialogFrame } from '../../../ui/DialogFrame.tsx';
import { colours } from '../../../ui/theme.ts';
import { Cautions } from '../../../ui/bits.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { useBoundary } from './useBoundary.ts';

interface BoundaryDialogProps {
  readonly zone: ZoneAnswer | undefined;
  /** Where the site is, for a practice walk where nothing is drawn. */
  readonly site: Position;
  readonly onClose: () => void;
  readonly onNewZone: (outline: Outline) => void;
  readonly onOutline: (zone: ZoneAnswer, outline: Outline) => void;
}

/** A made-up lawn about a place, for a practice walk. */
function practicePath([longitude, latitude]: Position): Position[] {
  const plane = new Plane([longitude, latitude]);
  return (
    [
      [0, 0],
      [28, 3],
      [34, 17],
      [16, 25],
      [-2, 19],
    ] as const
  ).map((corner) => plane.toMap(corner));
}

/** The way round an outline, its first part only. */
function pathRound(outline: Outline): Position[] {
  const ring = partsOf(outline)[0]?.[0] ?? [];
  return ring.slice(0, -1).map(([longitude = 0, latitude = 0]) => [longitude, latitude]);
}

/** Walk a boundary with the device in the hand: record, look at the area and how sure it is, keep it or not. */
export function BoundaryDialog({ zone, site, onClose, onNewZone, onOutline }: BoundaryDialogProps) {
  const { say } = useUnits();
  const { walk, record, pause, discard } = useBoundary();
  const path = zone?.geometry ? pathRound(zone.geometry) : practicePath(site);
  const sources = [devicePosition, replayedWalk(path)];
  const [source, setSource] = useState(0);
  const { fixes, lost, recording } = walk;
  const walked = useMemo((): { readonly area?: WalkedArea; readonly trouble?: string } => {
    if (recording || fixes.length === 0) return {};
    try {
      return { area: walkedArea(fixes) };
    } catch (error) {
      if (error instanceof GeometryError) return { trouble: error.message };
      throw error;
    }
  }, [fixes, recording]);
  const last = fixes.at(-1);
  const { area } = walked;
  const leave = (): void => {
    discard();
    onClose();
  };
  return (
    <DialogFrame
      title="Walk a boundary"
      held
      onClose={leave}
      actions={
        <>
          <Button onClick={leave}>Cancel</Button>
          {!recording && fixes.length === 0 && (
            <Button variant="contained" onClick={() => record(sources[source]!)}>
              Begin to walk
            </Button>
          )}
          {recording && (
            <Button variant="contained" onClick={pause} sx={{ minHeight: 52, minWidth: 160 }}>
              I am back at the start
            </Button>
          )}
          {!recording && fixes.length > 0 && (
            <Button variant="outlined" onClick={discard}>
              Walk it again
            </Button>
          )}
          {area && zone && !zone.geometry && (
            <Button variant="contained" onClick={() => onOutline(zone, area.outline)}>
              This is {zone.name}
            </Button>
          )}
          {area && (
            <Button variant={zone && !zone.geometry ? 'outlined' : 'contained'} onClick={() => onNewZone(area.outline)}>
              Make it a zone
            </Button>
          )}
        </>
      }
    >
      {fixes.length === 0 && !recording && (
        <>
          <Typography sx={{ mb: 2 }}>
            Hold the device high and level. Begin at a corner, walk the edge of the lawn at an even pace, stand a moment
            at each corner, and come back to where you began.
          </Typography>
          <TextField
            select
            fullWidth
            label="Positions from"
            value={source}
            onChange={(event) => setSource(Number(event.target.value))}
          >
            {sources.map(({ name }, index) => (
              <MenuItem key={name} value={index}>
                {name}
              </MenuItem>
            ))}
          </TextField>
          <Cautions
            texts={['Look where you walk: water, walls and roads first, the screen second. Stand still to read it.']}
          />
        </>
      )}
      {(recording || fixes.length > 0) && (
        <>
          <TrackSketch fixes={fixes} outline={area?.outline} />
          <Typography aria-live="polite" sx={{ mt: 1.5, fontWeight: 700, fontSize: '1.15rem' }}>
            {recording
              ? lost
                ? lost
                : last
                  ? `${fixes.length} positions, the last good to ${say('length', last.accuracy)}`
                  : 'Waiting for the first position…'
              : area
                ? `${say('area', area.area)}, give or take ${say('area', area.uncertainty)}`
                : 'This walk makes no area.'}
          </Typography>
          {area && (
            <Typography>
              {say('length', area.perimeter)} round, closed over a gap of {say('length', area.gap)}. {area.used}{' '}
              positions used, {area.dropped} left out as too uncertain or too far off. In 95 of 100 walks like this the
              true area lies within that.
            </Typography>
          )}
          {walked.trouble && <Typography role="alert">{walked.trouble}</Typography>}
          {sources[source]!.simulated && (
            <Typography sx={{ color: colours.slate, mt: 0.5 }}>
              Simulated: nobody walked this. It shows what a receiver’s errors do.
            </Typography>
          )}
        </>
      )}
    </DialogFrame>
  );
}

const SIZE = 300;

/** What the receiver told, and the outline that comes of it. */
function TrackSketch({ fixes, outline }: { readonly fixes: readonly Fix[]; readonly outline: Outline | undefined }) {
  const [first] = fixes;
  if (!first) return <Box sx={{ height: SIZE, border: `1px solid ${colours.line}` }} />;
  const plane = new Plane(first.position);
  const points = fixes.map(({ position }) => plane.toPlane(position));
  const ring = outline ? pathRound(outline).map((position) => plane.toPlane(position)) : [];
  const ends = endsOf([...points, ...ring]);
  const box = { x: 20, y: 20, width: SIZE - 40, height: SIZE - 40 };
  const place = placedIn(ends, box, perMetreWithin(ends, box, 12));
  const at = (point: PlanePoint): string =>
    place(point)
      .map((value) => value.toFixed(1))
      .join(' ');
  const [startX, startY] = at(points[0]!).split(' ');
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      width="100%"
      height={SIZE}
      role="img"
      aria-label="The walk so far, north up"
      style={{ border: `1px solid ${colours.line}`, background: colours.sheet }}
    >
      {ring.length > 0 && (
        <path d={`M${ring.map(at).join('L')}Z`} fill={colours.lichenWash} stroke={colours.ink} strokeWidth="2" />
      )}
      <path d={`M${points.map(at).join('L')}`} fill="none" stroke={colours.slate} strokeWidth="1.2" opacity="0.8" />
      <circle cx={startX} cy={startY} r="5" fill={colours.ochre} />
    </svg>
  );
}
