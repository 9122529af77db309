import {
  type PointDesign,
  apartBecause,
  depthAdvice,
  pointDesigns,
  samplingCoreVolume,
  samplingTables,
  samplingTiming,
  volumeAdvice,
} from '@glenfold/agronomy';
import type { BagInput } from '@glenfold/contract';
import {
  Box,
  Button,
  Checkbox,
  FormControlLabel,
  LinearProgress,
  MenuItem,
  TextField,
  Typography,
} from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { usePlanBags } from '../../../api/changes.ts';
import { queries } from '../../../api/queries.ts';
import type { StepProps } from '../../../frame/stepProps.ts';
import { colours } from '../../../theme.ts';
import { QuantityField } from '../../../ui/QuantityField.tsx';
import { Cautions, Trouble } from '../../../ui/bits.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { useSessionState } from '../../../ui/useSessionState.ts';
import { SiteSketch } from '../SiteSketch.tsx';
import { ErrorChart } from './ErrorChart.tsx';
import { useDesign } from './useDesign.ts';
import { type Draft, type Settings, amount, designWords, first, soils, useDrafts } from './useDrafts.ts';

/** What one bag of a usual laboratory takes, mL. */
const BAG_VOLUME = 500;

/** Who shares a bag, how many cores, how deep, where, and on what day. */
export function DesignPanel({ site, zones, results, onPlanned }: StepProps & { readonly onPlanned: () => void }) {
  const { system, say } = useUnits();
  const { data: things } = useQuery(queries.groundThings(site.id));
  const { data: bags } = useQuery(queries.bags(site.id));
  const plan = usePlanBags(site.id);
  const [settings, setSettings] = useSessionState<Settings>(`glenfold.sampling.${site.id}`, {
    ...first,
    // The same depth as last time, unless another is wanted.
    depth: results[0]?.depth ?? first.depth,
  });
  const [alone, setAlone] = useState(false);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [ownCores, setOwnCores] = useState<ReadonlyMap<string, number>>(new Map());
  const set = (next: Partial<Settings>): void => setSettings((last) => ({ ...last, ...next }));
  const { purpose, design, seed } = settings;
  const [depth, probe, edge, clear] = [settings.depth, settings.probe, settings.edge, settings.clear].map(amount);

  const { openZones, drafts, wanted, task } = useDrafts({ zones, things, bags }, settings, { alone, left, ownCores });
  const { designed, progress } = useDesign(task);

  const applied = openZones.flatMap(({ facts }) => facts.applications ?? []);
  const tested = results.flatMap(({ sampledOn }) => sampledOn ?? []);
  const latitude = openZones.flatMap(({ geometry }) => geometry?.coordinates.flat(3)[1] ?? [])[0] ?? 46;
  const timing = /^\d{4}-\d\d-\d\d$/.test(settings.day)
    ? samplingTiming({
        on: settings.day,
        latitude,
        applied,
        tested,
        soil: settings.soil === 'not looked at yet' ? undefined : settings.soil,
      })
    : [];
  const most = Math.max(0, ...wanted.map(({ cores }) => cores));
  const fewest = Math.min(...wanted.map(({ cores }) => cores));
  const volume =
    depth && probe && wanted.length > 0
      ? samplingCoreVolume({ diameter: probe, depth, cores: fewest }).result.volume
      : undefined;
  const depthWords = depth === undefined ? [] : depthAdvice(depth, purpose, results[0]?.depth, system);
  const question = samplingTables.questions.find(({ name }) => name === settings.question);
  const panels = samplingTables.panels.filter(({ name }) => question?.panels.includes(name));

  const problemZones = new Set(designed?.problems.map(({ zoneId }) => zoneId));
  const ready = designed && progress === null && wanted.length > 0 && depth && probe && problemZones.size === 0;
  const send = (): void => {
    if (!designed || !depth || !probe) return;
    const input = wanted.map((draft): BagInput => ({
      ...{ purpose, depth, probe, design, seed },
      edge: edge ?? 0,
      clear: clear ?? 0,
      panels: [...(question?.panels ?? ['routine'])],
      plannedFor: settings.day || null,
      cores: designed.cores
        .filter(({ zoneId }) => draft.zones.some(({ id }) => id === zoneId))
        .map(({ zoneId, place, turn }) => ({
          zoneId,
          turn,
          ...(place ? { place: [...place] as [number, number] } : {}),
        })),
    }));
    plan.mutate({ bags: input }, { onSuccess: onPlanned });
  };

  if (openZones.length === 0)
    return (
      <Typography sx={{ maxWidth: 620 }}>
        Every zone has a bag planned already. Walk them, or delete a planned bag under Bags to plan it anew.
      </Typography>
    );
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: '392px minmax(0, 1fr)' }, gap: 3 }}>
      <Box>
        <TextField
          select
          fullWidth
          label="Question"
          value={settings.question}
          onChange={(event) => set({ question: event.target.value })}
        >
          {samplingTables.questions.map(({ name }) => (
            <MenuItem key={name} value={name}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <Box component="dl" sx={{ m: 0, my: 1, fontSize: '0.92rem' }}>
          {panels.map(({ name, analytes, answers, silent }) => (
            <Box key={name} sx={{ borderLeft: `3px solid ${colours.slate}`, pl: 1, mb: 0.75 }}>
              <Box component="dt" sx={{ fontWeight: 700 }}>
                {name[0]!.toUpperCase() + name.slice(1)} panel: {analytes}
              </Box>
              <Box component="dd" sx={{ m: 0 }}>
                {answers}{' '}
                <Box component="span" sx={{ color: colours.faded }}>
                  {silent}
                </Box>
              </Box>
            </Box>
          ))}
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.25, mt: 1.5 }}>
          <TextField select label="Purpose" value={purpose} onChange={(event) => set({ purpose: event.target.value })}>
            {samplingTables.purposes.map(({ name }) => (
              <MenuItem key={name} value={name}>
                {name}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            type="date"
            label="Day"
            value={settings.day}
            onChange={(event) => set({ day: event.target.value })}
            slotProps={{ inputLabel: { shrink: true } }}
          />
          <QuantityField
            sense="depth"
            label="Depth"
            value={settings.depth}
            onChange={(value) => set({ depth: value })}
          />
          <QuantityField
            sense="depth"
            label="Probe, inside"
            value={settings.probe}
            onChange={(value) => set({ probe: value })}
          />
          <QuantityField
            sense="length"
            label="Off the edges"
            value={settings.edge}
            onChange={(value) => set({ edge: value })}
          />
          <QuantityField
            sense="length"
            label="Off buried lines"
            value={settings.clear}
            onChange={(value) => set({ clear: value })}
          />
          <TextField
            select
            label="Places"
            value={design}
            onChange={(event) => set({ design: event.target.value as PointDesign })}
          >
            {pointDesigns.map((name) => (
              <MenuItem key={name} value={name}>
                {designWords[name]}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            select
            label="The soil is"
            value={settings.soil}
            onChange={(event) => set({ soil: event.target.value as Settings['soil'] })}
          >
            {soils.map((name) => (
              <MenuItem key={name} value={name}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        </Box>
        {samplingTables.purposes
          .filter(({ name }) => name === purpose && name !== 'routine')
          .map(({ name, says }) => (
            <Typography key={name} sx={{ mt: 1, fontSize: '0.92rem' }}>
              {says}
            </Typography>
          ))}
        <Cautions texts={[...timing.map(({ words }) => words), ...depthWords]} />

        <Typography variant="h2" sx={{ mt: 2.5 }}>
          Who shares a bag
        </Typography>
        <FormControlLabel
          control={<Checkbox checked={alone} onChange={(event) => setAlone(event.target.checked)} />}
          label="Every zone a bag of its own"
        />
        {drafts.map((draft) => (
          <BagDraft
            key={draft.key}
            draft={draft}
            taken={!left.has(draft.key)}
            onTake={(take) =>
              setLeft((last) => new Set(take ? [...last].filter((key) => key !== draft.key) : [...last, draft.key]))
            }
            onCores={(cores) => setOwnCores((last) => new Map([...last, [draft.key, cores]]))}
            others={drafts}
          />
        ))}
      </Box>
      <Box>
        <SiteSketch
          zones={zones}
          features={things?.features ?? []}
          cores={(designed?.cores ?? []).flatMap(({ place, turn }) =>
            place
              ? [
                  {
                    id: String(turn),
                    place,
                    state: 'waiting' as const,
                    text: most > 0 && designed!.cores.length <= 60 ? String(turn) : undefined,
                  },
                ]
              : [],
          )}
          way={designed?.way ?? []}
          strong={new Set(wanted.flatMap((draft) => draft.zones.map(({ id }) => id)))}
          label="Places of the cores, and the walk through them"
        />
        {progress !== null && (
          <LinearProgress variant="determinate" value={100 * progress} aria-label="Working out the places" />
        )}
        {designed && (
          <Typography sx={{ mt: 0.75 }}>
            {designed.cores.length} cores in {wanted.length} {wanted.length === 1 ? 'bag' : 'bags'}
            {designed.length > 0 &&
              `; ${say('length', designed.length)} on foot from the gate and back, ${task.gate ? 'the shortest way found' : 'from the first core, since no gate is drawn'}`}
            .{' '}
            <Button size="small" onClick={() => set({ seed: seed + 1 })}>
              Other places
            </Button>
          </Typography>
        )}
        {designed?.problems.map(({ zoneId, words }) => (
          <Trouble key={zoneId} error={new Error(words)} />
        ))}
        {wanted.some((draft) => draft.zones.some(({ id }) => !zones.find((zone) => zone.id === id)?.geometry)) && (
          <Typography sx={{ fontSize: '0.92rem', color: colours.faded }}>
            Zones that are not drawn have no places: walk a Z over them and count.
          </Typography>
        )}
        <Typography variant="h2" sx={{ mt: 2 }}>
          What the cores buy
        </Typography>
        {wanted.length > 0 && <ErrorChart cores={fewest} />}
        {volume !== undefined && (
          <Typography
            sx={{
              mt: 1,
              fontSize: '0.92rem',
              ...(volume < BAG_VOLUME ? { color: colours.ochre, fontWeight: 700 } : {}),
            }}
          >
            {fewest} cores bring about {Math.round(volume / 10) * 10} mL; a bag wants {BAG_VOLUME} mL.{' '}
            {volumeAdvice(volume, BAG_VOLUME, fewest) ?? 'They fill it.'}
          </Typography>
        )}
        <Trouble error={plan.error} />
        <Button variant="contained" size="large" disabled={!ready || plan.isPending} onClick={send} sx={{ mt: 2 }}>
          Plan {wanted.length} {wanted.length === 1 ? 'bag' : 'bags'}
        </Button>
      </Box>
    </Box>
  );
}

interface BagDraftProps {
  readonly draft: Draft;
  readonly taken: boolean;
  readonly onTake: (take: boolean) => void;
  readonly onCores: (cores: number) => void;
  readonly others: readonly Draft[];
}

function BagDraft({ draft, taken, onTake, onCores, others }: BagDraftProps) {
  const names = draft.zones.map(({ name }) => name).join(', ');
  const mixed = others.length > 1 && draft.zones.length > 1;
  return (
    <Box sx={{ borderTop: `1px solid ${colours.line}`, py: 1, display: 'flex', gap: 1, alignItems: 'flex-start' }}>
      <Checkbox
        checked={taken}
        onChange={(event) => onTake(event.target.checked)}
        slotProps={{ input: { 'aria-label': `Sample ${names}` } }}
        sx={{ p: 0.5 }}
      />
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <strong>{names}</strong>
        <Box sx={{ fontSize: '0.88rem', color: colours.faded }}>
          {draft.why}
          {mixed && apartBecause(draft.zones[0]!, draft.zones[1]!).join(', ')}
        </Box>
      </Box>
      <TextField
        type="number"
        label="cores"
        value={draft.cores}
        onChange={(event) => onCores(Math.max(1, Math.min(200, Math.round(Number(event.target.value)) || 1)))}
        sx={{ width: 84 }}
        slotProps={{ htmlInput: { min: 1, max: 200, 'aria-label': `Cores of ${names}` } }}
      />
    </Box>
  );
}
