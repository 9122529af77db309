import { writeBagCode } from '@glenfold/agronomy';
import { type BagLineAnswer, type BagState, custodyStates } from '@glenfold/contract';
import { Box, Button, Checkbox, Menu, MenuItem } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';

import { colours } from '../../../ui/theme.ts';
import { Trouble } from '../../../ui/bits.tsx';
import { useMay } from '../../../ui/session.tsx';
import { useUndo } from '../../../ui/undo.tsx';
import { Parcel } from './Parcel.tsx';
import { custodyLooks, standing } from './custodyWords.ts';
import { samplingQueries, useMoveBags, useTakeAgain } from '../api.ts';

interface BagRowProps {
  readonly bag: BagLineAnswer;
  readonly chosen: boolean;
  readonly onChoose: (chosen: boolean) => void;
  /** The site's name, where bags of several stand together. */
  readonly withSite?: boolean;
  readonly children?: ReactNode;
}

/** The code as it stands on the bag. */
export function Code({ code }: { readonly code: string }) {
  return (
    <Box
      component="span"
      sx={{
        fontFamily: 'Bitter, serif',
        fontWeight: 700,
        fontSize: '1.05rem',
        border: `1px solid ${colours.ink}`,
        px: 0.75,
        background: colours.sheet,
        whiteSpace: 'nowrap',
        minWidth: 94,
        textAlign: 'center',
      }}
    >
      {writeBagCode(code)}
    </Box>
  );
}

const stepBefore = (state: BagState): BagState | undefined =>
  custodyStates[(custodyStates as readonly BagState[]).indexOf(state) - 1];

/** One bag: what it is, where it stands and for how long, and what comes next. */
export function BagRow({ bag, chosen, onChoose, withSite = false, children }: BagRowProps) {
  const may = useMay();
  const move = useMoveBags();
  const again = useTakeAgain();
  const { remove } = useUndo();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [sending, setSending] = useState(false);
  const { data: laboratories = [] } = useQuery(samplingQueries.laboratories());
  const { label, next } = custodyLooks[bag.state];
  // A laboratory that lets know by itself is waited for; the step stays in the menu.
  const tells = ['sent', 'at the lab'].includes(bag.state) && laboratories.some(({ name }) => name === bag.laboratory);
  const report = bag.state === 'reported';
  // For a slip of the finger: one step.
  const before = stepBefore(bag.state);
  const ended = bag.state === 'lost' || bag.state === 'spoiled';
  const close = (): void => setAnchor(null);
  const to = (state: BagLineAnswer['state']): void => {
    close();
    move.mutate({ bagIds: [bag.id], state });
  };
  return (
    <Box component="li" sx={{ borderTop: `1px solid ${colours.line}`, py: 1.25 }}>
      <Box sx={{ display: 'flex', gap: 1.25, alignItems: 'center', flexWrap: 'wrap' }}>
        <Checkbox
          checked={chosen}
          onChange={(event) => onChoose(event.target.checked)}
          sx={{ p: 0.5 }}
          slotProps={{ input: { 'aria-label': `Choose bag ${writeBagCode(bag.code)}` } }}
        />
        <Code code={bag.code} />
        <Box sx={{ flex: 1, minWidth: 180, lineHeight: 1.3 }}>
          {withSite && (
            <Link to={`/sites/${bag.siteId}/sampling`} style={{ color: colours.ink, fontWeight: 700 }}>
              {bag.siteName}
            </Link>
          )}
          {withSite && ': '}
          {bag.zoneNames.join(', ')}
          <Box sx={{ fontSize: '0.9rem', color: colours.faded }}>
            {bag.state === 'planned' ? `${bag.cored} of ${bag.cores} cores` : `${bag.cored} cores`}
            {bag.laboratory && `, ${bag.laboratory}`}
            {bag.labNumber && `, no. ${bag.labNumber}`}
            {bag.parcel && `, parcel ${bag.parcel}`}
          </Box>
        </Box>
        <Box sx={{ width: 150, lineHeight: 1.3 }}>
          <strong>{label}</strong>
          <Box
            sx={{
              fontSize: '0.9rem',
              ...(bag.overdue > 0 ? { color: colours.ochre, fontWeight: 700 } : { color: colours.faded }),
            }}
          >
            {bag.state === 'planned' && bag.plannedFor ? `for ${bag.plannedFor}` : standing(bag.days)}
            {bag.overdue > 0 && `, ${bag.overdue} over`}
          </Box>
        </Box>
        {may('field.write') && (
          <Box sx={{ display: 'flex', gap: 0.75, width: { sm: 230 }, justifyContent: 'flex-end' }}>
            {bag.state === 'planned' && (
              <Button size="small" variant="outlined" component={Link} to={`/walk/${bag.siteId}`}>
                Walk
              </Button>
            )}
            {report && (
              <Button size="small" variant="contained" component={Link} to={`/sites/${bag.siteId}/lab`}>
                Read the report
              </Button>
            )}
            {next && !tells && !report && (
              <Button
                size="small"
                variant="outlined"
                disabled={move.isPending}
                onClick={() => (next[0] === 'sent' ? setSending(true) : to(next[0]))}
              >
                {next[1]}
              </Button>
            )}
            {ended && (
              <Button size="small" variant="outlined" disabled={again.isPending} onClick={() => again.mutate(bag.id)}>
                Take again
              </Button>
            )}
            {bag.state !== 'read' && !ended && (
              <Button
                size="small"
                aria-label={`More about bag ${writeBagCode(bag.code)}`}
                onClick={(event) => setAnchor(event.currentTarget)}
                sx={{ minWidth: 32 }}
              >
                ⋯
              </Button>
            )}
            <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
              {next && (tells || report) && (
                <MenuItem onClick={() => to(next[0])}>{report ? 'It was read elsewhere' : next[1]}</MenuItem>
              )}
              {before && (
                <MenuItem onClick={() => to(before)}>Back to {custodyLooks[before].label.toLowerCase()}</MenuItem>
              )}
              <MenuItem onClick={() => to('lost')}>It was lost</MenuItem>
              <MenuItem onClick={() => to('spoiled')}>It was spoiled</MenuItem>
              {bag.state === 'planned' && may('work.delete') && (
                <MenuItem
                  onClick={() => {
                    close();
                    remove(`/bags/${bag.id}`, `bag ${writeBagCode(bag.code)}`);
                  }}
                >
                  Delete
                </MenuItem>
              )}
            </Menu>
          </Box>
        )}
      </Box>
      <Trouble error={move.error ?? again.error} />
      {sending && <Parcel bags={[bag]} onClose={() => setSending(false)} />}
      {children}
    </Box>
  );
}
