import type { FeatureKind, DrawnGeometry } from '@glenfold/agronomy';
import {
  type Fault,
  type Outline,
  type Parted,
  GeometryError,
  type Position,
  cutOut,
  mend,
  merge,
  splitBy,
  stripAlong,
  underCanopy,
} from '@glenfold/agronomy/geometry';
import type { NewZone, DrawingAnswer, TilesAnswer, ZoneAnswer, ZoneGeometry } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import {
  type ReactNode,
  type Ref,
  useCallback,
  useEffect,
  useImperativeHandle,
  useMemo,
  useRef,
  useState,
} from 'react';
import { colours } from '../../../ui/theme.ts';
import { useMay } from '../../../ui/session.tsx';
import { SheetQuestion } from './SheetQuestion.tsx';
import { SheetNotices } from './SheetNotices.tsx';
import { SheetView } from './SheetView.tsx';
import { DrawingTools } from './DrawingTools.tsx';
import { type Measure, type SheetItem, type SheetMark, type ZoneDress, shapeOf } from './sheetMap.ts';
import { type Stroke, inputOf } from './strokes.ts';
import { type Question, type Task, instructionOf } from './tasks.ts';
import { useFaults } from './useFaults.ts';
import { useSheetMap } from './useSheetMap.ts';
import { useStrokes } from './useStrokes.ts';

interface DrawingEditorProps {
  /** Where the site lies. */
  readonly position: readonly number[] | null | undefined;
  readonly siteId: string;
  readonly plan: DrawingAnswer;
  readonly chosen: SheetItem | null;
  readonly onChoose: (item: SheetItem | null) => void;
  /** How zones are dressed, where not by their hatching. */
  readonly dress?: ReadonlyMap<string, ZoneDress> | null;
  readonly marks?: readonly SheetMark[];
  /** Map tiles are asked for only while they are wanted. */
  readonly tiles?: TilesAnswer | null;
  /** More tools, of those who use the plan. */
  readonly tools?: ReactNode;
  /** Given the pen, for what is begun beside the plan. */
  readonly ref?: Ref<Pen>;
}

/** What can be done on the plan from beside it. */
export interface Pen {
  /** Have a place pointed at. */
  readonly mark: (words: string, onMarked: (at: Position) => void) => void;
  /** Make two zones of one: asks for the new one's name. */
  readonly part: (zone: ZoneAnswer, parted: Parted, title: string, suggestion: string) => void;
  /** A new zone of an outline that was found elsewhere: asks for its name. */
  readonly newZone: (geometry: DrawnGeometry) => void;
  readonly make: (stroke: Stroke) => Promise<void>;
  /** Where an image or a walk is laid when nothing is drawn yet. */
  readonly show: () => void;
}

const CHOOSE: Task = { do: 'choose' };
const NO_MARKS: readonly SheetMark[] = [];

/** The ground drawn to scale, and the pen. */
export function DrawingEditor({
  siteId,
  plan,
  chosen,
  onChoose,
  dress = null,
  marks = NO_MARKS,
  tiles = null,
  position,
  tools,
  ref,
}: DrawingEditorProps) {
  const mayDraw = useMay()('work.write');
  const { map, attach } = useSheetMap({ plan, chosen, dress, marks, tiles, position });
  const [task, setTask] = useState<Task>(CHOOSE);
  const [question, setQuestion] = useState<Question | null>(null);
  const [measure, setMeasure] = useState<Measure | null>(null);
  const [trouble, setTrouble] = useState<Error | null>(null);
  const strokes = useStrokes(siteId);
  const { unsaved } = strokes;
  const zone = chosen?.what === 'zone' ? plan.zones.find(({ id }) => id === chosen.id) : undefined;
  const thing = chosen?.what === 'feature' ? plan.features.find(({ id }) => id === chosen.id) : undefined;
  const outline = zone?.geometry as Outline | undefined;

  const rest = useCallback((): void => {
    map?.rest();
    setTask(CHOOSE);
    setMeasure(null);
  }, [map]);
  /** Put the pen down and show the plan as it is saved. */
  const drop = useCallback((): void => {
    rest();
    setQuestion(null);
    map?.show(plan);
  }, [map, rest, plan]);

  const drawn = useMemo(() => plan.zones.filter((entry) => entry.geometry), [plan]);
  const { faults, looking } = useFaults(drawn);
  useEffect(() => map?.showFaults(faults.map((fault) => fault.outline)), [map, faults]);

  const make = async (stroke: Stroke): Promise<void> => {
    rest();
    setQuestion(null);
    setTrouble(null);
    await strokes.make(stroke);
  };
  /** Cut or join; what cannot be is said, and the pen stays where it was. */
  const attempt = <T,>(work: () => T): T | undefined => {
    try {
      setTrouble(null);
      return work();
    } catch (error) {
      if (!(error instanceof GeometryError)) throw error;
      setTrouble(error);
      return undefined;
    }
  };
  const redrawn = (which: ZoneAnswer, to: Outline) => [
    { id: which.id, from: which.geometry, to: to as ZoneGeometry, typedArea: which.area },
  ];
  const askForPart = (parted: Parted, title: string, suggestion: string): void => {
    rest();
    setQuestion({
      ask: 'parted',
      title,
      suggestion,
      rest: parted.rest as DrawnGeometry,
      part: parted.part as DrawnGeometry,
    });
  };

  /** Corners were moved: the pen stays where it is, for the next of them. */
  const edited = (geometry: DrawnGeometry): void => {
    setTrouble(null);
    if (zone) void strokes.make({ name: `Move corners of ${zone.name}`, redrawn: redrawn(zone, geometry as Outline) });
    if (thing) {
      const from = inputOf(thing);
      void strokes.make({ name: `Move ${thing.kind}`, changed: [{ id: thing.id, from, to: { ...from, geometry } }] });
    }
  };
  // What a click means depends on the task, so the map is told anew each time.
  useEffect(() => {
    map?.listen({
      onMeasure: (next) => setMeasure(next),
      onEdited: (geometry) => edited(geometry),
      onChoose: (item) => {
        setTrouble(null);
        if (task.do !== 'join') onChoose(item);
        else if (item?.what === 'zone' && item.id !== zone?.id) setQuestion({ ask: 'join', other: item.id });
      },
    });
  });

  const drawnKind = (kind: FeatureKind | 'zone', geometry: DrawnGeometry): void => {
    if (kind === 'zone') setQuestion({ ask: 'new zone', geometry });
    else if (kind === 'tree') setQuestion({ ask: 'tree', geometry });
    else if (kind === 'spot height') setQuestion({ ask: 'spot height', geometry });
    else void make({ name: `Draw ${kind}`, newFeatures: [{ kind, geometry }] });
  };
  const lineOf = (geometry: DrawnGeometry): Position[] =>
    geometry.type === 'LineString' ? geometry.coordinates.map(([east = 0, north = 0]) => [east, north]) : [];

  const takeUp = (next: Task): void => {
    if (!map) return;
    const pen = map;
    rest();
    setTask(next);
    if (next.do === 'draw') pen.draw(shapeOf(next.kind), (geometry) => drawnKind(next.kind, geometry));
    else if (next.do === 'edit' && chosen) pen.edit(chosen);
    else if (zone && next.do === 'outline')
      pen.draw('Polygon', (geometry) => {
        void make({ name: `Outline of ${zone.name}`, redrawn: redrawn(zone, geometry as Outline) });
      });
    else if (zone && outline && next.do === 'split')
      pen.draw('LineString', (geometry) => {
        const parts = attempt(() => splitBy(outline, lineOf(geometry)));
        if (!parts) {
          takeUp(next);
          return;
        }
        const [kept, ...others] = parts;
        const part = others.reduce((one, other) => ({
          type: 'MultiPolygon',
          coordinates: [one, other].flatMap(({ type, coordinates }) =>
            type === 'Polygon' ? [coordinates] : coordinates,
          ),
        }));
        askForPart({ rest: kept!, part }, `Split ${zone.name}`, `${zone.name}, other part`);
      });
    else if (zone && outline && next.do === 'cut')
      pen.draw('Polygon', (geometry) => {
        const left = attempt(() => cutOut(outline, geometry as Outline));
        if (left) void make({ name: `Cut out of ${zone.name}`, redrawn: redrawn(zone, left) });
        else takeUp(next);
      });
    else if (zone && next.do === 'strip')
      pen.draw('LineString', (edge) => {
        rest();
        setQuestion({ ask: 'strip width', edge });
      });
  };

  const hand: Pen = {
    mark: (words, onMarked) => {
      if (!map) return;
      rest();
      setTrouble(null);
      setTask({ do: 'mark', words });
      map.draw('Point', ({ coordinates }) => {
        const [longitude = 0, latitude = 0] = coordinates.flat(3);
        drop();
        onMarked([longitude, latitude]);
      });
    },
    part: (of, parted, title, suggestion) => {
      onChoose({ what: 'zone', id: of.id });
      askForPart(parted, title, suggestion);
    },
    newZone: (geometry) => {
      rest();
      setQuestion({ ask: 'new zone', geometry });
    },
    make,
    show: () => map?.fit(),
  };
  // The pen stays the same for those who hold it, whatever is drawn meanwhile.
  const held = useRef(hand);
  useEffect(() => {
    held.current = hand;
  });
  useImperativeHandle(
    ref,
    () => ({
      mark: (...to) => held.current.mark(...to),
      part: (...to) => held.current.part(...to),
      newZone: (...to) => held.current.newZone(...to),
      make: (...to) => held.current.make(...to),
      show: () => held.current.show(),
    }),
    [],
  );

  const begin = (next: Task): void => {
    setTrouble(null);
    takeUp(next);
  };

  // Enter closes, Backspace takes back, Esc puts the pen down, Ctrl+Z and Ctrl+Y undo and redo.
  const keys = (event: React.KeyboardEvent): void => {
    const command = event.ctrlKey || event.metaKey;
    if (event.key === 'Escape') drop();
    else if (event.key === 'Enter' && task.do !== 'choose') map?.finish();
    else if (event.key === 'Backspace') map?.takeBack();
    else if (command && event.key.toLowerCase() === 'z' && !event.shiftKey) strokes.undo();
    else if (command && (event.key.toLowerCase() === 'y' || (event.key.toLowerCase() === 'z' && event.shiftKey)))
      strokes.redo();
    else return;
    event.preventDefault();
  };

  const partZone = (part: NewZone, left: DrawnGeometry): void => {
    if (zone)
      void make({
        name: `Part ${part.name} from ${zone.name}`,
        redrawn: redrawn(zone, left as Outline),
        newZones: [{ ...part, partOf: zone.id }],
      });
  };
  const mended = (fault: Fault): void => {
    const outlines = attempt(() =>
      mend(
        drawn.map(({ geometry }) => geometry as Outline),
        fault,
      ),
    );
    if (outlines)
      void make({
        name: `Mend the ${fault.kind}`,
        redrawn: [...outlines].flatMap(([at, to]) => redrawn(drawn[at]!, to)),
      });
  };
  return (
    <Box sx={{ minWidth: 0 }}>
      {mayDraw && (
        <DrawingTools
          task={task}
          zone={zone}
          thing={thing}
          strokes={strokes}
          onTask={begin}
          more={tools}
          onAsk={(next) => {
            rest();
            setTrouble(null);
            setQuestion(next);
          }}
          onRemove={() => {
            if (!chosen) return;
            void make({ name: `Delete ${zone?.name ?? thing?.kind}`, removed: [chosen] });
            onChoose(null);
          }}
        />
      )}
      {!mayDraw && tools && <Box sx={{ display: 'flex', gap: 0.75, mb: 1 }}>{tools}</Box>}
      <SheetView
        credit={tiles?.attribution}
        attach={attach}
        map={map}
        measure={measure}
        label={`Plan of the ground, north up: ${drawn.map(({ name }) => name).join(', ') || 'nothing drawn yet'}`}
        onKeyDown={keys}
      />
      {mayDraw && (
        <Typography sx={{ mt: 0.75, color: colours.faded }} aria-live="polite">
          {instructionOf(task, zone?.name ?? thing?.name ?? thing?.kind)}
          {task.do !== 'choose' && ' Esc puts the pen down.'}
        </Typography>
      )}
      <SheetNotices
        trouble={question ? null : trouble}
        unsaved={unsaved}
        onLetGo={() => {
          strokes.letGo();
          drop();
        }}
        faults={faults}
        nameOf={(place) => drawn[place]?.name ?? ''}
        looking={looking}
        onMend={mayDraw ? mended : null}
      />
      {question && (
        <SheetQuestion
          question={question}
          plan={plan}
          zone={zone}
          thing={thing}
          trouble={trouble}
          onClose={drop}
          onShape={(corners, bearing) => {
            const geometry = map?.layShape(corners, bearing);
            if (geometry) setQuestion({ ask: 'new zone', geometry });
          }}
          onSpotHeight={(geometry, height) =>
            void make({ name: 'Take a spot height', newFeatures: [{ kind: 'spot height', geometry, height }] })
          }
          onStripWidth={(edge, width) => {
            const parted = outline && attempt(() => stripAlong(outline, lineOf(edge), width));
            if (parted) askForPart(parted, `Strip along ${zone!.name}`, `${zone!.name}, strip`);
          }}
          onCanopy={(of, ring) => {
            if (thing?.geometry.type !== 'Point' || !of.geometry) return;
            const [longitude = 0, latitude = 0] = thing.geometry.coordinates;
            const parted = attempt(() =>
              underCanopy(of.geometry as Outline, [longitude, latitude], thing.canopyRadius ?? 3, ring),
            );
            if (!parted) return;
            onChoose({ what: 'zone', id: of.id });
            askForPart(
              parted,
              ring === undefined ? 'Ground under the tree' : 'Ring at the canopy’s edge',
              `${of.name}, under the tree`,
            );
          }}
          onPart={partZone}
          onJoin={(other) => {
            const joined = outline && other.geometry && attempt(() => merge(outline, other.geometry as Outline));
            if (zone && joined)
              void make({
                name: `Join ${other.name} to ${zone.name}`,
                redrawn: redrawn(zone, joined),
                removed: [{ what: 'zone', id: other.id, into: zone.id }],
              });
            else setQuestion(null);
          }}
          onOutlineOf={(of, to) => void make({ name: `Draw ${of.name}`, redrawn: redrawn(of, to) })}
          onNewZone={(added) => void make({ name: `Draw ${added.name}`, newZones: [added] })}
          onTree={(geometry, canopyRadius) =>
            void make({ name: 'Draw tree', newFeatures: [{ kind: 'tree', geometry, canopyRadius }] })
          }
        />
      )}
    </Box>
  );
}
