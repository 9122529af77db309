import { shapeCorners } from '@glenfold/agronomy';
import type { PlanePoint } from '@glenfold/agronomy/geometry';
import { TextField } from '@mui/material';
import { useState } from 'react';
import { QuantityField } from '../../../ui/QuantityField.tsx';
import { ShapeFields, freshShape, readShape } from '../shapes/ShapeFields.tsx';
import { Ask } from '../Ask.tsx';

interface ShapeOnSheetProps {
  readonly onClose: () => void;
  readonly onDone: (corners: readonly PlanePoint[], bearing: number) => void;
}

/** A simple shape by its lengths, for whoever has a tape and no patience with a pen. */
export function ShapeOnSheet({ onClose, onDone }: ShapeOnSheetProps) {
  const [typed, setTyped] = useState(freshShape);
  const [bearing, setBearing] = useState('0');
  const [asked, setAsked] = useState(false);
  const degrees = Number(bearing);
  const bearingFault = bearing.trim() === '' || !Number.isFinite(degrees) || Math.abs(degrees) > 360;
  const done = (): void => {
    setAsked(true);
    const { taped } = readShape(typed);
    if (!taped || bearingFault) return;
    const { shape, lengths, pace = 1 } = taped;
    const metres = Object.fromEntries(Object.entries(lengths).map(([name, value]) => [name, value * pace]));
    onDone(shapeCorners(shape, metres), degrees);
  };
  return (
    <Ask title="Simple shape by its lengths" action="Put it on the plan" onClose={onClose} onDone={done}>
      <ShapeFields value={typed} onChange={setTyped} asked={asked} />
      <TextField
        label="Bearing of the first side"
        value={bearing}
        onChange={(event) => setBearing(event.target.value)}
        error={asked && bearingFault}
        helperText={asked && bearingFault ? 'Degrees from 0 to 360.' : 'Degrees from north: 0 runs north, 90 runs east'}
        slotProps={{ htmlInput: { inputMode: 'decimal' } }}
      />
    </Ask>
  );
}

/** The height at a place, as the level or the tape gives it. */
export function SpotHeight({
  onClose,
  onDone,
}: {
  readonly onClose: () => void;
  readonly onDone: (height: number) => void;
}) {
  const [height, setHeight] = useState<number | string | null>(null);
  const [asked, setAsked] = useState(false);
  const fault = typeof height !== 'number' ? 'Give a height, such as 1.25 m or 4.1 ft.' : undefined;
  return (
    <Ask
      title="Spot height"
      action="Put it on the plan"
      onClose={onClose}
      onDone={() => {
        setAsked(true);
        if (typeof height === 'number') onDone(height);
      }}
    >
      <QuantityField
        label="Height"
        sense="spotHeight"
        value={height}
        onChange={setHeight}
        autoFocus
        problem={asked ? fault : undefined}
        helperText="Above whatever all of them are counted from: higher ground, larger number"
      />
    </Ask>
  );
}
