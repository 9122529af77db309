import { corePush, present, probeStop, writeBagCode } from '@glenfold/agronomy';
import type { BagAnswer } from '@glenfold/contract';
import { Box, Button, TextField } from '@mui/material';
import { useState } from 'react';
import { useLabNumber } from '../../../api/changes.ts';
import { colours } from '../../../theme.ts';
import { Empty, Trouble } from '../../../ui/bits.tsx';
import { useMay } from '../../../ui/session.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { BagPapers } from './BagPapers.tsx';
import { BagRow } from './BagRow.tsx';
import { custodyLooks } from './custodyWords.ts';

/** Bags of one site, each opening to its cores and its history. */
export function BagList({ bags, onPlan }: { readonly bags: readonly BagAnswer[]; readonly onPlan: () => void }) {
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
            {open === bag.id && <BagDetails bag={bag} />}
          </BagRow>
        ))}
      </Box>
    </Box>
  );
}

function BagDetails({ bag }: { readonly bag: BagAnswer }) {
  const { say } = useUnits();
  const depth = (value: number): string => say('depth', value);
  const pushes = bag.places.flatMap(({ pushed, recovered }) =>
    pushed === null || recovered === null ? [] : [{ pushed, recovered }],
  );
  const stop = probeStop(bag.depth, pushes);
  const cell = { borderTop: `1px solid ${colours.line}`, py: 0.25, pr: 1.5 };
  return (
    <Box sx={{ ml: 5, mt: 1, display: 'grid', gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 300px' }, gap: 3 }}>
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
          {bag.purpose}, {present('depth', bag.depth, 'metric').text} ({present('depth', bag.depth, 'us').text}),{' '}
          {bag.panels.join(', ')}
        </Box>
        {stop !== undefined && (
          <Box sx={{ borderLeft: `3px solid ${colours.ochre}`, pl: 1, my: 1 }}>
            Three or more pushes stopped, at about {depth(stop)}: that is compaction. Put it into the zone’s
            measurements.
          </Box>
        )}
        <LabNumber bag={bag} />
        <Box
          component="ol"
          aria-label={`History of bag ${writeBagCode(bag.code)}`}
          sx={{ listStyle: 'none', m: 0, p: 0, fontSize: '0.92rem' }}
        >
          {bag.custody.map(({ state, at, by, note }) => (
            <Box component="li" key={`${state} ${at}`} sx={cell}>
              <strong>{custodyLooks[state].label}</strong> {at.slice(0, 10)}, {by}
              {note && `: ${note}`}
            </Box>
          ))}
        </Box>
      </Box>
    </Box>
  );
}

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
