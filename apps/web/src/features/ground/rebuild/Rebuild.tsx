import { InputError, type UnitSystem, convert, fillMaterials, rebuildVolume } from '@glenfold/agronomy';
import type { ZoneAnswer } from '@glenfold/contract';
import DeleteIcon from '@mui/icons-material/DeleteOutlined';
import {
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  IconButton,
  MenuItem,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material';
import { colours } from '../../../ui/theme.ts';
import { QuantityField } from '../../../ui/QuantityField.tsx';
import { Cautions } from '../../../ui/bits.tsx';
import { IntoProgram } from './IntoProgram.tsx';
import type { Layer, Wanted } from './wanted.ts';
import { useSessionState } from '../../../ui/useSessionState.ts';
import { useUnits } from '../../../ui/units.tsx';
import { Opens } from '../../../ui/working.tsx';

export /** Even numbers in the person's own units. */
const firstIn = (system: UnitSystem): Wanted => ({
  zones: null,
  layers: [{ material: 'topsoil', depth: system === 'us' ? convert(4, 'in', 'cm') : 10, price: null }],
  truck: system === 'us' ? convert(10, 'yd3', 'm3') : 8,
  payload: null,
  haul: null,
});

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
const cautions = [
  'Have buried lines marked before anything is dug or tipped. Keep machines back from walls, banks and trees: roots die under fill.',
  'Fill may need a permit, and must be clean: ask for its source in writing.',
];

/** Run, or tell what is wrong with what is typed. */
function compute({ layers, truck, payload, haul }: Wanted, zones: readonly ZoneAnswer[]) {
  try {
    const outcome = rebuildVolume({
      zones: zones.map(({ name, area }) => ({ name, area })),
      layers: layers.map(({ material, depth, price }) => ({ material, depth, ...(price === null ? {} : { price }) })),
      truck,
      ...(payload === null ? {} : { payload }),
      ...(haul === null ? {} : { haul }),
    });
    return { outcome };
  } catch (error) {
    if (error instanceof InputError) return { fault: error };
    throw error;
  }
}

interface RebuildProps {
  readonly siteId: string;
  readonly zones: readonly ZoneAnswer[];
  readonly zone: ZoneAnswer | undefined;
}

/** Layers over zones: what to order, in loads and money. */
export function Rebuild({ siteId, zones, zone }: RebuildProps) {
  const { say, system } = useUnits();
  const fresh = firstIn(system);
  const [wanted, setWanted] = useSessionState<Wanted>(`glenfold.rebuild.${siteId}`, fresh);
  const set = (part: Partial<Wanted>): void => setWanted({ ...wanted, ...part });
  const { layers } = wanted;
  const ids = wanted.zones ?? (zone ? [zone.id] : []);
  const chosen = zones.filter(({ id }) => ids.includes(id));
  const setLayer = (index: number, part: Partial<Layer>): void =>
    set({ layers: layers.map((layer, place) => (place === index ? { ...layer, ...part } : layer)) });
  const { outcome, fault } = chosen.length > 0 ? compute(wanted, chosen) : {};
  const faultOf = (field: string): string | undefined => (fault?.field === field ? `${fault.message}.` : undefined);
  const result = outcome?.result;
  return (
    <Box
      component="section"
      aria-label="Fill and topsoil"
      sx={{
        display: 'grid',
        gap: 4,
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: 'minmax(0, 430px) minmax(0, 1fr)' },
      }}
    >
      <Box>
        <Typography variant="h3" sx={{ mb: 0.5 }}>
          Zones to rebuild
        </Typography>
        <Box sx={{ display: 'grid', mb: 2 }}>
          {zones.map(({ id, name, area }) => (
            <FormControlLabel
              key={id}
              control={
                <Checkbox
                  size="small"
                  checked={ids.includes(id)}
                  onChange={(_event, on) => set({ zones: on ? [...ids, id] : ids.filter((other) => other !== id) })}
                />
              }
              label={`${name}, ${say('area', area)}`}
            />
          ))}
        </Box>
        <Typography variant="h3" sx={{ mb: 1 }}>
          Layers, from the bottom up
        </Typography>
        {layers.map((layer, index) => (
          <Box key={index} sx={{ display: 'flex', gap: 1, mb: 1.25, alignItems: 'flex-start' }}>
            <TextField
              select
              label="Material"
              value={layer.material}
              onChange={(event) => setLayer(index, { material: event.target.value })}
              sx={{ flex: 1.3 }}
            >
              {fillMaterials.materials.map(({ name }) => (
                <MenuItem key={name} value={name}>
                  {capital(name)}
                </MenuItem>
              ))}
            </TextField>
            <QuantityField
              label="Firmed depth"
              sense="depth"
              value={layer.depth}
              onChange={(depth) => setLayer(index, { depth })}
              problem={faultOf(`layers.${index}.depth`)}
              sx={{ flex: 1 }}
            />
            <QuantityField
              label="Price"
              sense="volumePrice"
              value={layer.price}
              onChange={(price) => setLayer(index, { price })}
              problem={faultOf(`layers.${index}.price`)}
              sx={{ flex: 1 }}
            />
            <IconButton
              aria-label={`Take out the ${layer.material}`}
              disabled={layers.length === 1}
              onClick={() => set({ layers: layers.filter((_layer, place) => place !== index) })}
            >
              <DeleteIcon />
            </IconButton>
          </Box>
        ))}
        <Button
          size="small"
          variant="outlined"
          disabled={layers.length >= 12}
          onClick={() => set({ layers: [...layers, ...fresh.layers] })}
        >
          Add a layer
        </Button>
        <Typography variant="h3" sx={{ mt: 2.5, mb: 1 }}>
          The truck
        </Typography>
        <Box sx={{ display: 'flex', gap: 1 }}>
          <QuantityField
            label="Load"
            sense="volume"
            value={wanted.truck}
            onChange={(truck) => set({ truck })}
            problem={faultOf('truck')}
          />
          <QuantityField
            label="May carry"
            sense="tonnes"
            value={wanted.payload}
            onChange={(payload) => set({ payload })}
            problem={faultOf('payload')}
            helperText="Open: full by volume"
          />
          <QuantityField
            label="Haul a load"
            sense="money"
            value={wanted.haul}
            onChange={(haul) => set({ haul })}
            problem={faultOf('haul')}
          />
        </Box>
      </Box>
      <Box>
        {chosen.length === 0 && <Typography>Choose the zones that are rebuilt.</Typography>}
        {outcome && result && (
          <>
            <Typography variant="h2" component="h3" sx={{ mb: 0.5 }}>
              <Opens
                title="Fill and topsoil"
                told={`${result.loads} loads`}
                working={outcome.working}
                first
                size="large"
              />
              , {say('volume', result.loose)} loose
            </Typography>
            <Typography sx={{ mb: 2 }}>
              For {say('area', result.area)}, {say('tonnes', result.mass)} in all
              {result.cost === undefined ? '. Set the prices to see the cost.' : `, ${say('money', result.cost)}.`}
            </Typography>
            <Table size="small" sx={{ maxWidth: 720 }}>
              <TableHead>
                <TableRow>
                  <TableCell>Layer</TableCell>
                  <TableCell align="right">In place</TableCell>
                  <TableCell align="right">To order, loose</TableCell>
                  <TableCell align="right">Weight</TableCell>
                  <TableCell align="right">Loads</TableCell>
                  <TableCell align="right">Cost</TableCell>
                </TableRow>
              </TableHead>
              <TableBody>
                {result.layers.map((layer, index) => (
                  <TableRow key={index}>
                    <TableCell>{capital(layer.material)}</TableCell>
                    <TableCell align="right">{say('volume', layer.firm)}</TableCell>
                    <TableCell align="right" sx={{ fontWeight: 700 }}>
                      {say('volume', layer.loose)}
                    </TableCell>
                    <TableCell align="right">{say('tonnes', layer.mass)}</TableCell>
                    <TableCell align="right">{layer.loads}</TableCell>
                    <TableCell align="right">
                      {layer.cost === undefined ? 'no price' : say('money', layer.cost)}
                    </TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
            <IntoProgram wanted={wanted} zones={chosen} />
            <Cautions
              texts={[
                ...outcome.working.flatMap((entry) =>
                  entry.kind === 'warning' || entry.kind === 'cap' ? [entry.text] : [],
                ),
                ...cautions,
              ]}
            />
          </>
        )}
        {fault && (
          <Typography role="alert" sx={{ color: colours.ochre }}>
            {fault.message}.
          </Typography>
        )}
      </Box>
    </Box>
  );
}
