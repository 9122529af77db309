import { type Plane, GeometryError, type Position, fitImage } from '@glenfold/agronomy/geometry';
import type { MatchInput, UnderlayAnswer } from '@glenfold/contract';
import DeleteIcon from '@mui/icons-material/DeleteOutlined';
import { Box, Button, IconButton, Slider, TextField, Typography } from '@mui/material';
import { useState } from 'react';

import { DialogFrame } from '../../../ui/DialogFrame.tsx';
import { colours } from '../../../ui/theme.ts';
import { Trouble } from '../../../ui/bits.tsx';
import { useUnits } from '../../../ui/units.tsx';
import type { ShrunkPicture } from '../../../ui/shrink.ts';
import { useLayUnder, usePlaceUnderlay } from '../api.ts';

/** A place on the image, and on the ground once it is known. */
export interface OpenMatch {
  readonly right: number;
  readonly down: number;
  readonly place: Position | null;
}

/** An image on its way under the plan: a new one, or the one that lies there. */
export interface Laying {
  readonly siteId: string;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  /** Shown while the points are marked. */
  readonly address: string;
  readonly picture: ShrunkPicture | null;
  readonly lying: UnderlayAnswer | null;
  readonly matches: readonly OpenMatch[];
  readonly opacity: number;
}

interface UnderlayDialogProps {
  readonly laying: Laying;
  readonly plane: Plane;
  readonly onChange: (laying: Laying) => void;
  /** Have a place pointed at on the plan; the dialog is away meanwhile. */
  readonly onPoint: (index: number) => void;
  readonly onClose: () => void;
}

const letters = 'ABCDEFGHIJKLMNOPQRST';

/** "46.5012, -36.0034" as a place. */
function readPlace(text: string): Position | null {
  const [latitude = NaN, longitude = NaN] = text.split(/[,;\s]+/).map(Number);
  return Math.abs(latitude) <= 90 && Math.abs(longitude) <= 180 ? [longitude, latitude] : null;
}

/** Lay an image under the plan by points that can be told on both. */
export function UnderlayDialog({ laying, plane, onChange, onPoint, onClose }: UnderlayDialogProps) {
  const { say } = useUnits();
  const layUnder = useLayUnder(laying.siteId);
  const place = usePlaceUnderlay();
  const [asked, setAsked] = useState(false);
  const { matches, opacity, width, height } = laying;
  const set = (part: Partial<Laying>): void => onChange({ ...laying, ...part });
  const setMatch = (index: number, part: Partial<OpenMatch>): void =>
    set({ matches: matches.map((match, at) => (at === index ? { ...match, ...part } : match)) });
  const known = matches.flatMap(({ right, down, place: at }): MatchInput[] =>
    at ? [{ right, down, place: [...at] }] : [],
  );
  const fit = fitted(known, plane);
  const save = (): void => {
    setAsked(true);
    if (fit.trouble) return;
    const lies = { matches: known, opacity };
    if (laying.lying)
      place.mutate(
        { seen: { id: laying.lying.id, version: laying.lying.version }, input: lies },
        { onSuccess: onClose },
      );
    else if (laying.picture)
      layUnder.mutate({ picture: { ...laying.picture, name: laying.name }, ...lies }, { onSuccess: onClose });
  };
  return (
    <DialogFrame
      title={`Lay ${laying.name} under the plan`}
      onClose={onClose}
      width="md"
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button variant="contained" disabled={layUnder.isPending || place.isPending} onClick={save}>
            Lay it under
          </Button>
        </>
      }
    >
      <Typography sx={{ mb: 1.5 }}>
        Click two or more places on the image that you can find on the ground, far apart: corners of buildings, gates,
        the ends of a wall. Then say where each of them is.
      </Typography>
      <Box sx={{ display: 'grid', gap: 2, gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 320px' } }}>
        <Box
          sx={{
            position: 'relative',
            cursor: 'crosshair',
            border: `1px solid ${colours.faded}`,
            lineHeight: 0,
            alignSelf: 'start',
          }}
          onClick={(event) => {
            const box = event.currentTarget.getBoundingClientRect();
            const right = Math.round(((event.clientX - box.left) / box.width) * width);
            const down = Math.round(((event.clientY - box.top) / box.height) * height);
            if (matches.length < letters.length) set({ matches: [...matches, { right, down, place: null }] });
          }}
        >
          <img src={laying.address} alt={laying.name} style={{ width: '100%', maxHeight: '52vh', objectFit: 'fill' }} />
          {matches.map((match, index) => (
            <Box
              key={index}
              sx={{
                position: 'absolute',
                left: `${(match.right / width) * 100}%`,
                top: `${(match.down / height) * 100}%`,
                transform: 'translate(-50%, -50%)',
                width: 24,
                height: 24,
                borderRadius: '50%',
                border: `2px solid ${colours.sheet}`,
                background: colours.ochre,
                color: colours.sheet,
                fontWeight: 700,
                lineHeight: '20px',
                textAlign: 'center',
                pointerEvents: 'none',
              }}
            >
              {letters[index]}
            </Box>
          ))}
        </Box>
        <Box>
          {matches.length === 0 && <Typography sx={{ color: colours.faded }}>No point marked yet.</Typography>}
          {matches.map((match, index) => (
            <Box key={index} sx={{ borderBottom: `1px solid ${colours.line}`, py: 0.75 }}>
              <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
                <strong>{letters[index]}</strong>
                <Button size="small" variant={match.place ? 'outlined' : 'contained'} onClick={() => onPoint(index)}>
                  {match.place ? 'Point again' : 'Point at it on the plan'}
                </Button>
                <Box sx={{ flex: 1 }} />
                <IconButton
                  size="small"
                  aria-label={`Take out point ${letters[index]}`}
                  onClick={() => set({ matches: matches.filter((_match, at) => at !== index) })}
                >
                  <DeleteIcon fontSize="small" />
                </IconButton>
              </Box>
              <PlaceField value={match.place} onChange={(at) => setMatch(index, { place: at })} />
            </Box>
          ))}
          <Typography sx={{ mt: 2 }}>How much of it shows through</Typography>
          <Slider
            value={opacity}
            min={0.1}
            max={1}
            step={0.05}
            aria-label="Opacity"
            onChange={(_event, value) => set({ opacity: value })}
          />
          {fit.told && (
            <Typography>
              The points agree to {say('length', fit.told.miss)}; a pixel is{' '}
              {say('spotHeight', fit.told.metresPerPixel)}.
              {fit.told.miss > 2 && ' That is much: look for a point that is not where it was said to be.'}
            </Typography>
          )}
          {asked && fit.trouble && (
            <Typography role="alert" sx={{ color: colours.ochre }}>
              {fit.trouble}
            </Typography>
          )}
        </Box>
      </Box>
      <Trouble error={layUnder.error ?? place.error} />
    </DialogFrame>
  );
}

function fitted(known: readonly MatchInput[], plane: Plane) {
  try {
    const told = fitImage(
      known.map(({ right, down, place: [longitude = 0, latitude = 0] }) => ({
        pixel: [right, down] as const,
        place: plane.toPlane([longitude, latitude]),
      })),
    );
    return { told };
  } catch (error) {
    if (error instanceof GeometryError) return { trouble: error.message };
    throw error;
  }
}

interface PlaceFieldProps {
  readonly value: Position | null;
  readonly onChange: (place: Position | null) => void;
}

/** Latitude and longitude, for a place that was looked up. */
function PlaceField({ value, onChange }: PlaceFieldProps) {
  const told = value ? `${value[1].toFixed(6)}, ${value[0].toFixed(6)}` : '';
  const [text, setText] = useState(told);
  const [last, setLast] = useState(told);
  if (last !== told) {
    setLast(told);
    setText(told);
  }
  const fault = text.trim() !== '' && !readPlace(text);
  return (
    <TextField
      size="small"
      fullWidth
      margin="dense"
      label="or latitude, longitude"
      value={text}
      onChange={(event) => setText(event.target.value)}
      onBlur={() => {
        if (text !== told) onChange(readPlace(text));
      }}
      error={fault}
      helperText={fault ? 'Write it as 46.5012, -36.0034.' : undefined}
    />
  );
}
