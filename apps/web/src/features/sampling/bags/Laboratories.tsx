import { bufferNames, extractantNames } from '@glenfold/agronomy';
import type { LaboratoryAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useMay } from '../../../ui/session.tsx';
import { colours } from '../../../ui/theme.ts';
import { useUndo } from '../../../ui/undo.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { Words } from '../../../ui/Words.tsx';
import { LaboratoryForm } from './LaboratoryForm.tsx';
import { samplingQueries } from '../api.ts';

/** Whom to write to and to ask. */
function Contact({ laboratory: { address, scientist, phone } }: { readonly laboratory: LaboratoryAnswer }) {
  const told = [address, [scientist && `ask ${scientist}`, phone].filter(Boolean).join(', ')].filter(Boolean);
  return told.length === 0 ? null : <Box sx={{ color: colours.faded, whiteSpace: 'pre-line' }}>{told.join('\n')}</Box>;
}

/** Where bags can be sent to: the practice's own laboratories, to be added and changed, and those that let know by themselves. */
export function Laboratories() {
  const { data: laboratories = [] } = useQuery(samplingQueries.laboratories());
  const { say } = useUnits();
  const may = useMay();
  const { remove } = useUndo();
  const [open, setOpen] = useState<LaboratoryAnswer | 'new' | null>(null);
  return (
    <Box component="section" aria-labelledby="laboratories" sx={{ mt: 4, maxWidth: 980 }}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'baseline', flexWrap: 'wrap' }}>
        <Typography variant="h2" id="laboratories">
          Laboratories
        </Typography>
        {may('work.write') && (
          <Button variant="outlined" size="small" onClick={() => setOpen('new')}>
            Add a laboratory
          </Button>
        )}
      </Box>
      {laboratories.length === 0 && (
        <Typography sx={{ mt: 1, maxWidth: 640 }}>
          None yet. Add the one that you post your bags to: its depths, bag and fees are then there when bags are
          planned, and its address stands on the form.
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: 'none', p: 0, m: 0, mt: 1 }}>
        {laboratories.map((laboratory) => {
          const { id, name, simulated, extractant, bufferMethod, depths, volume, fees, daysLeast, daysMost } =
            laboratory;
          return (
            <Box
              component="li"
              key={id ?? name}
              aria-label={name}
              sx={{
                display: 'grid',
                gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 270px) minmax(0, 1fr) auto' },
                columnGap: 3,
                py: 1.25,
                borderTop: `1px solid ${colours.line}`,
                fontSize: '0.95rem',
              }}
            >
              <Box>
                <strong>{name}</strong>
                {simulated && <Box sx={{ color: colours.faded }}>simulated: nothing is posted</Box>}
                <Contact laboratory={laboratory} />
              </Box>
              <Box>
                <div>
                  {extractantNames[extractant]},{' '}
                  {bufferMethod ? `${bufferNames[bufferMethod]} buffer` : 'no buffer, or not known'};{' '}
                  {daysLeast === daysMost ? daysLeast : `${daysLeast}–${daysMost}`} days to the report;{' '}
                  {Math.round(volume)} mL fill its bag.
                </div>
                {depths.length > 0 && (
                  <div>
                    {depths
                      .map(({ for: ground, from, to }) =>
                        from === to
                          ? `${ground} ${say('depth', from)}`
                          : `${ground} ${say('depth', from)} to ${say('depth', to)}`,
                      )
                      .join('; ')}
                  </div>
                )}
                {fees.length > 0 && (
                  <div>
                    <Words>{fees.map(({ panel, fee }) => `${panel} ${say('money', fee)}`).join(', ')}</Words>
                  </div>
                )}
              </Box>
              <Box sx={{ whiteSpace: 'nowrap' }}>
                {id && may('work.write') && (
                  <Button size="small" onClick={() => setOpen(laboratory)} aria-label={`Change ${name}`}>
                    Change
                  </Button>
                )}
                {id && may('work.delete') && (
                  <Button
                    size="small"
                    onClick={() => remove(`/laboratories/${id}`, name)}
                    aria-label={`Delete ${name}`}
                  >
                    Delete
                  </Button>
                )}
              </Box>
            </Box>
          );
        })}
      </Box>
      {open && <LaboratoryForm laboratory={open === 'new' ? undefined : open} onClose={() => setOpen(null)} />}
    </Box>
  );
}
