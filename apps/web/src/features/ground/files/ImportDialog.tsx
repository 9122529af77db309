import { type FeatureKind, exclusionKinds, findGrass, lineKinds, pointKinds, soilGroups } from '@glenfold/agronomy';
import { type Position, areaOf } from '@glenfold/agronomy/geometry';
import { type GroundFeatureInput, type DrawingAnswer, type NewZone, ZoneFactsInput, clippingsHabits, intensities, shades, surfaces } from '@glenfold/contract'; // prettier-ignore
import {
  Box,
  Button,
  Checkbox,
  MenuItem,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import { wrap } from 'comlink';
import { useRef, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { DialogFrame } from '../../../ui/DialogFrame.tsx';
import { colours } from '../../../ui/theme.ts';
import { useUnits } from '../../../ui/units.tsx';
import type { Stroke } from '../drawing/strokes.ts';
import { utmCodeAt } from './coordinateSystems.ts';
import type { FoundFile, FoundItem, ItemKind } from './found.ts';
import { LARGEST_FILE } from './limits.ts';
import { orBroken } from '../../../ui/worker.ts';
import type { ReadFileWork } from './readFile.worker.ts';
import type { ReadOutcome } from './readOutcome.ts';

interface Opened {
  readonly name: string;
  readonly bytes: Uint8Array;
}

type Choice = ItemKind | 'leave out';

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** What an item can become, by how it is drawn. */
function kindsFor({ geometry }: FoundItem): readonly ItemKind[] {
  if (!geometry) return ['zone'];
  if (geometry.type === 'Point') return pointKinds;
  return geometry.type === 'LineString' ? lineKinds : ['zone', ...exclusionKinds];
}

interface ImportDialogProps {
  readonly plan: DrawingAnswer;
  readonly near: Position | null;
  readonly onClose: () => void;
  readonly onImport: (stroke: Stroke) => Promise<void>;
}

/** A foreign file, looked through before anything of it is drawn; all that is ticked comes, or nothing. */
export function ImportDialog({ plan, near, onClose, onImport }: ImportDialogProps) {
  const [opened, setOpened] = useState<Opened | null>(null);
  const [outcome, setOutcome] = useState<ReadOutcome | null>(null);
  const [reading, setReading] = useState(false);
  const [choices, setChoices] = useState<Readonly<Record<number, Choice>>>({});
  const worker = useRef<Worker | null>(null);
  const stop = (): void => {
    worker.current?.terminate();
    worker.current = null;
    setReading(false);
  };
  const [exchanged, setExchanged] = useState(false);
  const read = async (file: Opened, system?: string, about = false): Promise<void> => {
    stop();
    setOpened(file);
    setOutcome(null);
    setChoices({});
    setReading(true);
    setExchanged(about);
    const started = new Worker(new URL('./readFile.worker.ts', import.meta.url), { type: 'module' });
    worker.current = started;
    const work = wrap<ReadFileWork>(started).read(file.name, file.bytes, { near, system, exchanged: about });
    const found = await orBroken<ReadOutcome>(started, work).catch((error: unknown): ReadOutcome => ({
      trouble: (error as Error).message,
      needsSystem: false,
    }));
    if (worker.current !== started) return;
    setOutcome(found);
    stop();
  };
  const take = async ([file]: readonly File[]): Promise<void> => {
    if (!file) return;
    if (file.size > LARGEST_FILE) {
      const size = (file.size / 1e6).toFixed(1);
      setOutcome({
        trouble: `${file.name} has ${size} MB; ${LARGEST_FILE / 1e6} MB are read at most. Export only this property from where it came, or simplify its outlines.`,
        needsSystem: false,
      });
      return;
    }
    await read({ name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) });
  };
  const { getRootProps, getInputProps, open, isDragActive } = useDropzone({
    noClick: true,
    multiple: false,
    onDrop: (files) => void take(files),
  });
  const file = outcome && 'file' in outcome ? outcome.file : null;
  const choiceOf = (item: FoundItem): Choice =>
    choices[item.place] ?? (item.fault || item.doubtful ? 'leave out' : item.kind);
  const taken = file?.items.filter((item) => choiceOf(item) !== 'leave out') ?? [];
  const leave = (): void => {
    stop();
    onClose();
  };
  const bring = async (): Promise<void> => {
    if (!file) return;
    leave();
    await onImport(strokeOf(file, taken, choiceOf, plan));
  };
  return (
    <DialogFrame
      title="Bring in a file"
      onClose={leave}
      width="md"
      actions={
        <>
          {file && (
            <Typography sx={{ flex: 1, pl: 2 }}>
              {taken.length} of {file.items.length} come. Nothing is drawn before you say so, and one undo takes all of
              it back.
            </Typography>
          )}
          <Button onClick={leave}>Cancel</Button>
          {file && (
            <Button variant="contained" disabled={taken.length === 0} onClick={() => void bring()}>
              Bring in {taken.length}
            </Button>
          )}
        </>
      }
    >
      <div {...getRootProps()}>
        <input {...getInputProps({ 'aria-label': 'File of outlines' })} />
        {!file && (
          <Box
            sx={{
              border: `1.5px dashed ${isDragActive ? colours.ochre : colours.faded}`,
              px: 3,
              py: 4,
              textAlign: 'center',
            }}
          >
            <Typography sx={{ mb: 1.5 }}>
              GeoJSON, KML, KMZ or a zipped shapefile with outlines, lines and places; GPX with a walk round the lawn or
              waypoints; or a CSV table of zones with their areas. Up to 20 MB.
            </Typography>
            <Button variant="contained" onClick={open} disabled={reading}>
              Choose a file
            </Button>
            {reading && (
              <Typography sx={{ mt: 1.5 }} aria-live="polite">
                Reading {opened?.name}… <Button onClick={stop}>Stop</Button>
              </Typography>
            )}
          </Box>
        )}
        {outcome && 'trouble' in outcome && (
          <Typography role="alert" sx={{ mt: 2, borderLeft: `3px solid ${colours.ochre}`, pl: 1.5 }}>
            {outcome.trouble}
          </Typography>
        )}
        {outcome && 'trouble' in outcome && outcome.needsSystem && opened && (
          <SystemQuestion near={near} onSay={(system) => void read(opened, system)} />
        )}
        {file && (
          <FoundTable
            file={file}
            choiceOf={choiceOf}
            onChoose={(place, to) => setChoices({ ...choices, [place]: to })}
            onNone={() => setChoices(Object.fromEntries(file.items.map(({ place }) => [place, 'leave out'])))}
            onExchange={() => void read(opened!, undefined, !exchanged)}
          />
        )}
      </div>
    </DialogFrame>
  );
}

/** The file’s items as one stroke on the plan. */
function strokeOf(
  { name }: FoundFile,
  items: readonly FoundItem[],
  choiceOf: (item: FoundItem) => Choice,
  plan: DrawingAnswer,
): Stroke {
  const taken = new Set(plan.zones.map(({ label }) => label.toLowerCase()));
  const freeLabel = (wanted: unknown): string => {
    const told = typeof wanted === 'string' ? wanted.trim().slice(0, 20) : '';
    const tries = [
      ...(told ? [told] : []),
      ...Array.from({ length: 3000 }, (_, index) => `${told || 'Z'}-${index + 1}`),
    ];
    const label = tries.find((candidate) => !taken.has(candidate.toLowerCase()))!;
    taken.add(label.toLowerCase());
    return label;
  };
  const wordOf = (value: unknown, known: readonly string[], usual: string): string =>
    typeof value === 'string' && known.includes(value) ? value : usual;
  const metres = (value: unknown): number | null => (Number(value) > 0 && Number(value) < 200 ? Number(value) : null);
  const newZones: NewZone[] = [];
  const newFeatures: GroundFeatureInput[] = [];
  for (const item of items) {
    const kind = choiceOf(item) as ItemKind;
    const { geometry, properties } = item;
    const kept = Object.keys(properties).length > 0 ? properties : null;
    const {
      canopy_radius_m: canopyRadius,
      height_m: height,
      surface,
      intensity,
      shade,
      clippings,
      soilGroup,
    } = properties;
    if (kind !== 'zone' && geometry)
      newFeatures.push({
        ...{ kind, geometry, name: item.name, properties: kept },
        ...(kind === 'tree' ? { canopyRadius: metres(canopyRadius) } : {}),
        ...(metres(height) === null ? {} : { height: metres(height) }),
      });
    else {
      const outline = geometry as NewZone['geometry'];
      newZones.push({
        name: item.name ?? `Zone ${item.place}`,
        label: freeLabel(properties.label),
        grass: typeof properties.grass === 'string' && isGrass(properties.grass) ? properties.grass : 'tall fescue',
        surface: wordOf(surface, surfaces, 'turf') as NewZone['surface'],
        intensity: wordOf(intensity, intensities, 'medium') as NewZone['intensity'],
        shade: wordOf(shade, shades, 'full sun') as NewZone['shade'],
        clippings: wordOf(clippings, clippingsHabits, 'returned') as NewZone['clippings'],
        soilGroup: soilGroups.find((group) => group === soilGroup) ?? null,
        area: outline ? Math.max(1, areaOf(outline)) : (item.area ?? 1),
        geometry: outline ?? null,
        ...factsIn(properties),
      });
    }
  }
  return { name: `Bring in ${name}`, newZones, newFeatures };
}

/** What another plan of ours tells of the ground; what is none of it stays a property of the file. */
function factsIn({ facts, ...others }: FoundItem['properties']): Pick<NewZone, 'facts' | 'properties'> {
  const read = typeof facts === 'object' && facts !== null ? plainToInstance(ZoneFactsInput, facts) : null;
  const known = read && validateSync(read, { whitelist: true, forbidNonWhitelisted: true }).length === 0;
  const kept = { ...others, ...(facts === undefined || known ? {} : { facts }) };
  return { properties: Object.keys(kept).length > 0 ? kept : null, ...(known ? { facts: read } : {}) };
}

function isGrass(name: string): boolean {
  try {
    return findGrass(name).name === name;
  } catch {
    return false;
  }
}

interface SystemQuestionProps {
  readonly near: Position | null;
  readonly onSay: (system: string) => void;
}

/** Which coordinate system the numbers are in, where the file does not say. */
function SystemQuestion({ near, onSay }: SystemQuestionProps) {
  const [system, setSystem] = useState(near ? utmCodeAt(near) : 'EPSG:3857');
  return (
    <Box sx={{ display: 'flex', gap: 1, mt: 2, alignItems: 'flex-start' }}>
      <TextField
        label="Coordinate system"
        value={system}
        onChange={(event) => setSystem(event.target.value)}
        helperText={
          near
            ? `${utmCodeAt(near)} is the UTM zone of this site; EPSG:3857 is Web Mercator; or the EPSG number of your state or country`
            : 'EPSG:32601 to 32660 are UTM zones north, 32701 to 32760 south; or the EPSG number of your state or country'
        }
        sx={{ flex: 1 }}
      />
      <Button variant="contained" onClick={() => onSay(system)}>
        Read it so
      </Button>
    </Box>
  );
}

interface FoundTableProps {
  readonly file: FoundFile;
  readonly choiceOf: (item: FoundItem) => Choice;
  readonly onChoose: (place: number, choice: Choice) => void;
  /** Nothing of it comes, to begin from. */
  readonly onNone: () => void;
  /** Read it with latitude and longitude the other way about. */
  readonly onExchange: () => void;
}

const SHOWN = 200;

/** Each item of the file: what it is to become, what was put right, and what keeps it away. */
function FoundTable({ file, choiceOf, onChoose, onNone, onExchange }: FoundTableProps) {
  const { say } = useUnits();
  const size = ({ geometry, area, uncertainty }: FoundItem): string => {
    const sure = uncertainty === undefined ? '' : ` ± ${say('area', uncertainty)}`;
    if (geometry?.type === 'Polygon' || geometry?.type === 'MultiPolygon')
      return `${say('area', areaOf(geometry))}${sure}`;
    return area === undefined ? '' : say('area', area);
  };
  return (
    <>
      <Typography sx={{ fontWeight: 700 }}>{file.name}</Typography>
      {file.notes.map((note) => (
        <Typography key={note}>{note}</Typography>
      ))}
      <Box sx={{ display: 'flex', gap: 1, mt: 0.5, ml: -0.75 }}>
        <Button size="small" onClick={onNone}>
          Untick all
        </Button>
        {file.items.some(({ geometry }) => geometry) && (
          <Button size="small" onClick={onExchange}>
            It lies elsewhere: exchange latitude and longitude
          </Button>
        )}
      </Box>
      <Table size="small" sx={{ mt: 1 }}>
        <TableHead>
          <TableRow>
            <TableCell padding="checkbox" component="td" />
            <TableCell>In the file</TableCell>
            <TableCell>Becomes</TableCell>
            <TableCell align="right">Area</TableCell>
            <TableCell>What was put right</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {file.items.slice(0, SHOWN).map((item) => {
            const choice = choiceOf(item);
            const name = item.name ?? `Item ${item.place}`;
            return (
              <TableRow key={item.place}>
                <TableCell padding="checkbox">
                  <Checkbox
                    size="small"
                    checked={choice !== 'leave out'}
                    disabled={item.fault !== undefined}
                    onChange={(_event, on) => onChoose(item.place, on ? item.kind : 'leave out')}
                    slotProps={{ input: { 'aria-label': `Bring in ${name}` } }}
                  />
                </TableCell>
                <TableCell>{name}</TableCell>
                <TableCell>
                  {item.fault ? (
                    'stays out'
                  ) : (
                    <TextField
                      select
                      size="small"
                      variant="standard"
                      value={choice === 'leave out' ? item.kind : choice}
                      onChange={(event) => onChoose(item.place, event.target.value as FeatureKind | 'zone')}
                      slotProps={{ htmlInput: { 'aria-label': `${name} becomes` } }}
                    >
                      {kindsFor(item).map((kind) => (
                        <MenuItem key={kind} value={kind}>
                          {capital(kind)}
                        </MenuItem>
                      ))}
                    </TextField>
                  )}
                </TableCell>
                <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
                  {size(item)}
                </TableCell>
                <TableCell sx={item.fault ? { color: colours.ochre } : {}}>
                  {item.fault ?? item.repairs.join(' ')}
                </TableCell>
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
      {file.items.length > SHOWN && (
        <Typography sx={{ mt: 1, color: colours.faded }}>
          and {file.items.length - SHOWN} more, as guessed; what has a fault among them stays out.
        </Typography>
      )}
    </>
  );
}
