import { corePush, present, probeStop, writeBagCode } from '@glenfold/agronomy';
import type { BagAnswer, SiteAnswer, ZoneAnswer } from '@glenfold/contract';
import { Box, Button, TextField } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useMeasure } from '../../../api/changes.ts';
import { colours } from '../../../ui/theme.ts';
import { Empty, Trouble } from '../../../ui/bits.tsx';
import { useMay } from '../../../ui/session.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { BagPapers } from './BagPapers.tsx';
import { WalkPapers } from './WalkPapers.tsx';
import { BagRow } from './BagRow.tsx';
import { custodyLooks } from './custodyWords.ts';
import { dayOf } from '../../../ui/today.ts';
import { samplingQueries, useLabNumber } from '../api.ts';

interface BagListProps {
  readonly site: SiteAnswer;
  readonly zones: readonly ZoneAnswer[];
  readonly bags: readonly BagAnswer[];
  readonly onPlan: () => void;
}

/** Bags of one site, each opening to its cores and its history. */
export function BagList({ site, zones, bags, onPlan }: BagListProps) {
  const may = useMay();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [open, setOpen] = useState<string | null>(null);
  if (bags.length === 0)
    return (
      <Empty title="No bag yet" {...(may('work.write') ? { action: 'Plan the cores', onClick: onPlan } : {})}>
        {may('work.write') ? 'Plan who shares a bag, how deep and how many cores.' : 'An advisor plans the bags first.'}
      </Empty>
    );
  return (
    <Box>
      <WalkPapers site={site} bags={bags} zones={zones} />
      <BagPapers bags={bags.filter(({ id }) => chosen.has(id))} />
      <Box component="ul" aria-label="Bags" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {bags.map((bag) => (
          <BagRow
            key={bag.id}
            bag={bag}
            chosen={chosen.has(bag.id)}
            onChoose={(take) =>
              setChosen((last) => new Set(take ? [...last, bag.id] : [...last].filter((id) => id !== bag.id)))
            }
          >
            <Button
              size="small"
              aria-expanded={open === bag.id}
              onClick={() => setOpen(open === bag.id ? null : bag.id)}
              sx={{ ml: 5 }}
            >
              {open === bag.id ? 'Less' : 'Cores and history'}
            </Button>
            {open === bag.id && (
              <BagDetails bag={bag} zones={zones} instead={bags.find(({ id }) => id === bag.insteadOf)} />
            )}
          </BagRow>
        ))}
      </Box>
    </Box>
  );
}

interface BagDetailsProps {
  readonly bag: BagAnswer;
  readonly zones: readonly ZoneAnswer[];
  /** The lost or spoiled bag whose cores it takes again. */
  readonly instead: BagAnswer | undefined;
}

function BagDetails({ bag, zones, instead }: BagDetailsProps) {
  const { say } = useUnits();
  const depth = (value: number): string => say('depth', value);
  const pushes = bag.places.flatMap(({ pushed, recovered }) =>
    pushed === null || recovered === null ? [] : [{ pushed, recovered }],
  );
  const stop = probeStop(bag.depth, pushes);
  const cell = { borderTop: `1px solid ${colours.line}`, py: 0.25, pr: 1.5 };
  return (
    <Box
      sx={{
        ml: { xs: 0, sm: 5 },
        mt: 1,
        display: 'grid',
        alignItems: 'start',
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) 320px' },
        gap: 3,
      }}
    >
      <Box
        component="table"
        sx={{
          borderCollapse: 'collapse',
          fontSize: '0.92rem',
          '& td, & th': { ...cell, textAlign: 'left', verticalAlign: 'top' },
        }}
      >
        <thead>
          <tr>
            <th>Core</th>
            <th>Pushed</th>
            <th>Came up</th>
            <th>What it tells</th>
          </tr>
        </thead>
        <tbody>
          {bag.places.map(({ id, number, state, pushed, recovered, moisture, reason, note, by }) => (
            <tr key={id}>
              <td>{number}</td>
              <td>{pushed === null ? '–' : depth(pushed)}</td>
              <td>{recovered === null ? '–' : depth(recovered)}</td>
              <td>
                {state === 'waiting' && 'waits'}
                {state === 'skipped' && `left out: ${reason ?? 'no reason given'}`}
                {state === 'cored' &&
                  [
                    pushed !== null && recovered !== null
                      ? { whole: 'whole', stopped: 'the push stopped', short: 'short: jammed or pressed' }[
                          corePush(bag.depth, pushed, recovered).finding
                        ]
                      : 'taken',
                    moisture,
                    note,
                    by,
                  ]
                    .filter(Boolean)
                    .join(', ')}
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
      <Box>
        <Box sx={{ fontSize: '0.92rem' }}>
          Purpose: {bag.purpose}. {present('depth', bag.depth, 'metric').text} ({present('depth', bag.depth, 'us').text}
          ) deep. Panels: {bag.panels.join(', ')}.{bag.grassWanted && ` To grow: ${bag.grassWanted}.`}
          {bag.note && ` ${bag.note}`}
          {instead && ` In place of bag ${writeBagCode(instead.code)}, which was ${instead.state}.`}
        </Box>
        {stop !== undefined && (
          <Box sx={{ borderLeft: `3px solid ${colours.ochre}`, pl: 1, my: 1 }}>
            Three or more pushes stopped, at about {depth(stop)}: that is compaction.
            <KeepStop stop={stop} zones={zones.filter(({ id }) => bag.zoneIds.includes(id))} />
          </Box>
        )}
        <LabNumber bag={bag} />
        <HiddenSoil bag={bag} />
        <Box
          component="ol"
          aria-label={`History of bag ${writeBagCode(bag.code)}`}
          sx={{ listStyle: 'none', m: 0, p: 0, fontSize: '0.92rem' }}
        >
          {bag.custody.map(({ state, at, by, note }) => (
            <Box component="li" key={`${state} ${at}`} sx={cell}>
              <strong>{custodyLooks[state].label}</strong> {dayOf(new Date(at))}, {by}
              {note && `: ${note}`}
            </Box>
          ))}
        </Box>
      </Box>
    </Box>
  );
}

/** Puts the depth at which the probe stops among what is measured of the zones. */
function KeepStop({ stop, zones }: { readonly stop: number; readonly zones: readonly ZoneAnswer[] }) {
  const may = useMay();
  const measure = useMeasure();
  const rounded = Math.round(stop * 10) / 10;
  const open = zones.filter(({ probeStop }) => probeStop !== rounded);
  if (!may('field.write')) return null;
  if (open.length === 0) return <Box>It stands among what is measured of the zone.</Box>;
  const keep = async (): Promise<void> => {
    for (const { id, version, thatch = null, rootDepth = null } of open)
      await measure.mutateAsync({ seen: { id, version }, input: { thatch, rootDepth, probeStop: rounded } });
  };
  return (
    <>
      <Button size="small" disabled={measure.isPending} onClick={() => void keep().catch(() => undefined)}>
        Keep it with {open.map(({ name }) => name).join(' and ')}
      </Button>
      <Trouble error={measure.error} />
    </>
  );
}

/** How near a bag came to the soil it was drawn from: only a simulated laboratory knows. */
function HiddenSoil({ bag }: { readonly bag: BagAnswer }) {
  const told = bag.state === 'reported' || bag.state === 'read';
  const { data } = useQuery({ ...samplingQueries.hiddenSoil(bag.id), enabled: told });
  if (!told || !data || data.values.length === 0) return null;
  return (
    <Box component="section" aria-label="The soil behind the numbers" sx={{ my: 1.5, fontSize: '0.92rem' }}>
      <strong>How near this bag came</strong>
      <Box sx={{ color: colours.faded }}>
        The laboratory is simulated, so the soil behind its numbers is known. {data.cores} cores; more of them, spread
        evenly, come nearer.
        {data.fault && ` Done to the report on purpose: ${data.fault}.`}
      </Box>
      <Box
        component="table"
        sx={{
          borderCollapse: 'collapse',
          width: '100%',
          mt: 0.5,
          '& td, & th': { ...soilCell, textAlign: 'right' },
          '& td:first-of-type': { textAlign: 'left' },
        }}
      >
        <thead>
          <tr>
            <td />
            <th>zone</th>
            <th>bag</th>
            <th>off by</th>
          </tr>
        </thead>
        <tbody>
          {data.values.map(({ analyte, unit, soil, bag: found }) => (
            <tr key={analyte}>
              <td>{unit ? `${analyte}, ${unit}` : analyte}</td>
              <td>{plainNumber(soil)}</td>
              <td>{plainNumber(found)}</td>
              <td>{unit ? signed((100 * (found - soil)) / soil, 0, ' %') : signed(found - soil, 1)}</td>
            </tr>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

const soilCell = { borderTop: `1px solid ${colours.line}`, fontWeight: 400, whiteSpace: 'nowrap', py: 0.25, pr: 1 };
const signed = (value: number, places: number, unit = ''): string =>
  `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(places)}${unit}`;
const plainNumber = (value: number): string => value.toFixed(value < 10 ? 1 : 0);

function LabNumber({ bag }: { readonly bag: BagAnswer }) {
  const may = useMay();
  const save = useLabNumber();
  const [text, setText] = useState(bag.labNumber ?? '');
  return (
    <Box sx={{ my: 1.5 }}>
      <Box sx={{ display: 'flex', gap: 1 }}>
        <TextField
          size="small"
          label="The laboratory’s number or barcode"
          value={text}
          onChange={(event) => setText(event.target.value)}
          disabled={!may('field.write')}
          fullWidth
        />
        <Button
          variant="outlined"
          disabled={save.isPending || text === (bag.labNumber ?? '')}
          onClick={() => save.mutate({ bagId: bag.id, labNumber: text || null })}
        >
          Keep
        </Button>
      </Box>
      <Trouble error={save.error} />
    </Box>
  );
}
