import {
  type PointDesign,
  depthAdvice,
  grassNames,
  pointDesigns,
  samplingCoreVolume,
  samplingTables,
  samplingTiming,
  volumeAdvice,
  type DraftChoices,
  noChoices,
} from '@glenfold/agronomy';
import { type BagInput, feeOf } from '@glenfold/contract';
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
import { Link } from 'react-router';
import { useState } from 'react';

import { queries } from '../../../api/queries.ts';
import type { StepProps } from '../../../ui/stepProps.ts';
import { stepPath } from '../../../ui/steps.ts';
import { colours } from '../../../ui/theme.ts';
import { QuantityField } from '../../../ui/QuantityField.tsx';
import { Cautions, Trouble } from '../../../ui/bits.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { useSessionState } from '../../../ui/useSessionState.ts';
import { SiteSketch } from '../SiteSketch.tsx';
import { BagDraft } from './BagDraft.tsx';
import { ErrorChart } from './ErrorChart.tsx';
import { LabChoice } from './LabChoice.tsx';
import { useDesign } from './useDesign.ts';
import { useTimeZone } from '../../../ui/session.tsx';
import { todayIn } from '../../../ui/today.ts';
import {
  type Settings,
  amount,
  designWords,
  firstSettings,
  soils,
  useDrafts,
  usualDepth,
  wrongWith,
} from './useDrafts.ts';
import { samplingQueries, usePlanBags } from '../api.ts';

/** What one bag of a usual laboratory takes, mL, until one is chosen. */
const BAG_VOLUME = 500;

/** Who shares a bag, how many cores, how deep, where, and on what day. */
export function DesignPanel({ site, zones, results, onPlanned }: StepProps & { readonly onPlanned: () => void }) {
  const { system, say } = useUnits();
  const { data: things } = useQuery(queries.groundThings(site.id));
  const { data: bags } = useQuery(samplingQueries.bags(site.id));
  const plan = usePlanBags(site.id);
  const today = todayIn(useTimeZone(site));
  const [settings, setSettings] = useSessionState<Settings>(
    `glenfold.sampling.${site.id}`,
    firstSettings(usualDepth(zones, results), today),
  );
  const { data: laboratories = [] } = useQuery(samplingQueries.laboratories());
  const [choices, setChoices] = useState<DraftChoices>(noChoices);
  const choose = (next: Partial<DraftChoices>): void => setChoices((last) => ({ ...last, ...next }));
  const set = (next: Partial<Settings>): void => setSettings((last) => ({ ...last, ...next }));
  const { purpose, design, seed } = settings;
  const [depth, probe, edge, clear] = [settings.depth, settings.probe, settings.edge, settings.clear].map(amount);

  const laboratory = laboratories.find(({ name }) => name === settings.laboratory);
  const bagVolume = laboratory?.volume ?? BAG_VOLUME;
  const { openZones, asks, drafts, wanted, task } = useDrafts(
    { zones, things, bags, results },
    settings,
    choices,
    bagVolume,
  );
  const { designed, progress, error: stopped } = useDesign(task);

  const applied = openZones.flatMap(({ applied }) => applied);
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
  const depthWords = depth === undefined ? [] : depthAdvice(depth, purpose, results[0]?.depth, system, laboratory);
  const question = samplingTables.questions.find(({ name }) => name === settings.question);
  const panels = samplingTables.panels.filter(({ name }) => question?.panels.includes(name));

  const fee = feeOf(laboratory, question?.panels ?? []);
  const paired = wanted.some(({ part }) => part);
  const seedbed = wanted.some((draft) => draft.purpose === 'new seedbed');

  const ready = designed && progress === null && wanted.length > 0 && depth && probe && designed.problems.length === 0;
  const send = (): void => {
    if (!designed || !depth || !probe) return;
    const input = wanted.map((draft): BagInput => ({
      ...{ purpose: draft.purpose, depth, probe, design, seed },
      ...(laboratory ? { laboratory: laboratory.name } : {}),
      ...(draft.purpose === 'new seedbed' && settings.grassWanted ? { grassWanted: settings.grassWanted } : {}),
      ...(draft.part ? { note: `The ${draft.part} half of a pair.` } : {}),
      edge: edge ?? 0,
      clear: clear ?? 0,
      panels: [...(question?.panels ?? ['routine'])],
      plannedFor: settings.day || null,
      cores: designed.cores
        .filter(({ bag }) => bag === draft.key)
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
        {laboratories.length > 0 && (
          <LabChoice
            laboratories={laboratories}
            chosen={settings.laboratory}
            panels={question?.panels ?? []}
            onChoose={(name) => set({ laboratory: name })}
            onDepth={(value) => set({ depth: value })}
          />
        )}
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
            problem={wrongWith(settings.depth, '4 in or 10 cm')}
            onChange={(value) => set({ depth: value })}
          />
          <QuantityField
            sense="depth"
            label="Probe, inside"
            value={settings.probe}
            problem={wrongWith(settings.probe, '0.75 in or 2 cm')}
            onChange={(value) => set({ probe: value })}
          />
          <QuantityField
            sense="length"
            label="Off the edges"
            value={settings.edge}
            problem={wrongWith(settings.edge, '3 ft or 1 m')}
            onChange={(value) => set({ edge: value })}
          />
          <QuantityField
            sense="length"
            label="Off buried lines"
            value={settings.clear}
            problem={wrongWith(settings.clear, '3 ft or 1 m')}
            onChange={(value) => set({ clear: value })}
          />
          {paired && (
            <QuantityField
              sense="length"
              label="Trouble reaches"
              value={settings.reach}
              problem={wrongWith(settings.reach, '10 ft or 3 m')}
              onChange={(value) => set({ reach: value })}
            />
          )}
          {seedbed && (
            <TextField
              select
              label="To grow there"
              value={settings.grassWanted}
              onChange={(event) => set({ grassWanted: event.target.value })}
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
            >
              <MenuItem value="">what grows now</MenuItem>
              {grassNames.map((name) => (
                <MenuItem key={name} value={name}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
          )}
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
          control={<Checkbox checked={choices.alone} onChange={(event) => choose({ alone: event.target.checked })} />}
          label="Every zone a bag of its own"
        />
        {asks.map(({ words, of }) => (
          <Box key={words} sx={{ borderLeft: `4px solid ${colours.ochre}`, pl: 1.5, mb: 1, fontSize: '0.92rem' }}>
            Say once: {words} of{' '}
            {of.map(({ id, name }, index) => (
              <span key={id}>
                {index > 0 ? ', ' : ''}
                <Link to={stepPath(site.id, 'ground', id)}>{name}</Link>
              </span>
            ))}
            , known of the others. Nothing else keeps these bags apart.
          </Box>
        ))}
        {drafts.map((draft) => (
          <BagDraft key={draft.key} draft={draft} others={drafts} choices={choices} onChoose={choose} />
        ))}
      </Box>
      {/* In sight while the bags beside it are decided. */}
      <Box sx={{ alignSelf: 'start', position: { lg: 'sticky' }, top: 8 }}>
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
        {designed?.problems.map(({ bag, words }) => (
          <Trouble key={bag + words} error={new Error(words)} />
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
              ...(volume < bagVolume ? { color: colours.ochre, fontWeight: 700 } : {}),
            }}
          >
            {fewest} cores bring about {Math.round(volume / 10) * 10} mL; a bag wants {bagVolume} mL.{' '}
            {volumeAdvice(volume, bagVolume, fewest) ?? 'They fill it.'}
          </Typography>
        )}
        {fee !== null && wanted.length > 0 && (
          <Typography sx={{ mt: 1 }}>
            {laboratory!.name} asks {say('money', fee * wanted.length)} for {wanted.length}{' '}
            {wanted.length === 1 ? 'bag' : 'bags'}.
          </Typography>
        )}
        <Trouble error={stopped ?? plan.error} />
        <Button variant="contained" size="large" disabled={!ready || plan.isPending} onClick={send} sx={{ mt: 2 }}>
          Plan {wanted.length} {wanted.length === 1 ? 'bag' : 'bags'}
        </Button>
      </Box>
    </Box>
  );
}
