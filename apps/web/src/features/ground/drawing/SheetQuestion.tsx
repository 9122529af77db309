import type { DrawnGeometry } from '@glenfold/agronomy';
import type { PlanePoint } from '@glenfold/agronomy/geometry';
import type { NewZone, GroundFeatureAnswer, DrawingAnswer, ZoneAnswer, ZoneGeometry } from '@glenfold/contract';
import { MenuItem, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { Ask } from '../Ask.tsx';
import { LengthField, LengthQuestion, NewZoneForm, isLength } from './dialogs.tsx';
import { ShapeOnSheet, SpotHeight } from './shapeQuestions.tsx';
import type { Question } from './tasks.ts';

interface SheetQuestionProps {
  readonly question: Question;
  readonly plan: DrawingAnswer;
  readonly zone: ZoneAnswer | undefined;
  readonly thing: GroundFeatureAnswer | undefined;
  readonly trouble: Error | null;
  readonly onClose: () => void;
  readonly onNewZone: (zone: NewZone) => void;
  readonly onOutlineOf: (zone: ZoneAnswer, geometry: ZoneGeometry) => void;
  readonly onShape: (corners: readonly PlanePoint[], bearing: number) => void;
  readonly onSpotHeight: (geometry: DrawnGeometry, height: number) => void;
  readonly onTree: (geometry: DrawnGeometry, canopyRadius: number) => void;
  readonly onStripWidth: (edge: DrawnGeometry, width: number) => void;
  readonly onCanopy: (zone: ZoneAnswer, ring: number | undefined) => void;
  readonly onPart: (part: NewZone, rest: DrawnGeometry) => void;
  readonly onJoin: (other: ZoneAnswer) => void;
}

/** The question that stands between the pen and the stroke. */
export function SheetQuestion({ question, plan, zone, thing, trouble, onClose, ...on }: SheetQuestionProps) {
  switch (question.ask) {
    case 'new zone':
      return (
        <NewZoneForm
          title="A new zone"
          zones={plan.zones}
          geometry={question.geometry as ZoneGeometry}
          onClose={onClose}
          onDone={on.onNewZone}
          onOutlineOf={(of) => on.onOutlineOf(of, question.geometry as ZoneGeometry)}
        />
      );
    case 'shape':
      return <ShapeOnSheet onClose={onClose} onDone={on.onShape} />;
    case 'spot height':
      return <SpotHeight onClose={onClose} onDone={(height) => on.onSpotHeight(question.geometry, height)} />;
    case 'tree':
      return (
        <LengthQuestion
          title="A tree"
          action="Put it on the plan"
          label="Radius of the canopy"
          help="From the stem to the drip line"
          first={3}
          error={trouble}
          onClose={onClose}
          onDone={(radius) => on.onTree(question.geometry, radius)}
        />
      );
    case 'strip width':
      return (
        <LengthQuestion
          title={`Strip along ${zone?.name}`}
          action="Part it off"
          label="Width of the strip"
          help="From the edge into the lawn: what scorches beside paving is often a foot or two"
          first={0.6}
          error={trouble}
          onClose={onClose}
          onDone={(width) => on.onStripWidth(question.edge, width)}
        />
      );
    case 'canopy ring':
      return <UnderTree plan={plan} thing={thing} trouble={trouble} onClose={onClose} onDone={on.onCanopy} />;
    case 'parted':
      return (
        <NewZoneForm
          title={question.title}
          zones={plan.zones}
          like={zone}
          suggestion={question.suggestion}
          geometry={question.part as ZoneGeometry}
          onClose={onClose}
          onDone={(part) => on.onPart(part, question.rest)}
        />
      );
    case 'join': {
      const other = plan.zones.find(({ id }) => id === question.other);
      return (
        other && (
          <Ask
            title={`Join ${other.name} to ${zone?.name}`}
            action="Join them"
            error={trouble}
            onClose={onClose}
            onDone={() => on.onJoin(other)}
          >
            <Typography>
              {zone?.name} keeps its name, label and facts. {other.name} goes, with its results out of sight; undoing
              brings all of it back.
            </Typography>
          </Ask>
        )
      );
    }
  }
}

interface UnderTreeProps {
  readonly plan: DrawingAnswer;
  readonly thing: GroundFeatureAnswer | undefined;
  readonly trouble: Error | null;
  readonly onClose: () => void;
  readonly onDone: (zone: ZoneAnswer, ring: number | undefined) => void;
}

/** Which zone's ground under a tree becomes a zone, and whether all of it or a ring. */
function UnderTree({ plan, thing, trouble, onClose, onDone }: UnderTreeProps) {
  const drawn = plan.zones.filter(({ geometry }) => geometry);
  const [of, setOf] = useState(drawn[0]?.id ?? '');
  const [what, setWhat] = useState<'all' | 'ring'>('all');
  const [ring, setRing] = useState<number | string | null>(1.5);
  const [asked, setAsked] = useState(false);
  const done = (): void => {
    setAsked(true);
    const zone = drawn.find(({ id }) => id === of);
    if (zone && (what === 'all' || isLength(ring, 0.2)))
      onDone(zone, what === 'ring' && typeof ring === 'number' ? ring : undefined);
  };
  return (
    <Ask
      title={`Ground under ${thing?.name ?? 'the tree'}`}
      action="Part it off"
      error={trouble}
      onClose={onClose}
      onDone={done}
    >
      <TextField select label="Out of" value={of} onChange={(event) => setOf(event.target.value)}>
        {drawn.map(({ id, name }) => (
          <MenuItem key={id} value={id}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <TextField select label="What" value={what} onChange={(event) => setWhat(event.target.value as 'all' | 'ring')}>
        <MenuItem value="all">All under the canopy</MenuItem>
        <MenuItem value="ring">A ring at the canopy’s edge</MenuItem>
      </TextField>
      {what === 'ring' && (
        <LengthField
          label="Width of the ring"
          value={ring}
          onChange={setRing}
          asked={asked}
          least={0.2}
          help="Half to each side of the drip line"
        />
      )}
    </Ask>
  );
}
