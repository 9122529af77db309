import { type BagState, bagStates } from '@glenfold/contract';
import { Box, Button, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { type SyntheticEvent, useState } from 'react';
import { queries } from '../../../api/queries.ts';
import { colours } from '../../../theme.ts';
import { Empty, Trouble } from '../../../ui/bits.tsx';
import { BagPapers } from './BagPapers.tsx';
import { BagRow } from './BagRow.tsx';
import { custodyLooks } from './custodyWords.ts';

const done: readonly BagState[] = ['read', 'lost', 'spoiled'];

/** What is where and for how long, across all sites, overdue first; a code finds its bag. */
export function Board() {
  const { data: bags, error } = useQuery(queries.board());
  const [typed, setTyped] = useState('');
  const [asked, setAsked] = useState('');
  const found = useQuery({ ...queries.bagByCode(asked), enabled: asked !== '' });
  const [only, setOnly] = useState<BagState | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  if (!bags) return <Trouble error={error} />;
  const count = (state: BagState): number => bags.filter((bag) => bag.state === state).length;
  const list =
    asked !== '' && found.data
      ? [found.data]
      : bags
          .filter(({ state }) => (only ? state === only : !done.includes(state)))
          .sort((one, other) => other.overdue - one.overdue || other.days - one.days);
  const find = (event: SyntheticEvent): void => {
    event.preventDefault();
    setAsked(typed.trim());
  };
  return (
    <Box sx={{ px: { xs: 2, md: 3 }, py: 2, maxWidth: 1180 }}>
      <Typography variant="h1" gutterBottom>
        Bags of all sites
      </Typography>
      <Box component="form" onSubmit={find} sx={{ display: 'flex', gap: 1, mb: 1, maxWidth: 520 }}>
        <TextField
          fullWidth
          label="Scan or type a bag’s code"
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value);
            if (event.target.value === '') setAsked('');
          }}
          placeholder="K7F-4Q2"
        />
        <Button type="submit" variant="contained">
          Find
        </Button>
      </Box>
      <Trouble error={asked === '' ? null : found.error} />
      <Box
        role="group"
        aria-label="Where they are"
        sx={{ display: 'flex', flexWrap: 'wrap', borderTop: `2px solid ${colours.ink}`, mb: 2, mt: 1.5 }}
      >
        {bagStates
          .filter((state) => !['lost', 'spoiled'].includes(state) || count(state) > 0)
          .map((state) => (
            <Button
              key={state}
              aria-pressed={only === state}
              onClick={() => setOnly(only === state ? null : state)}
              sx={{
                display: 'block',
                textAlign: 'left',
                lineHeight: 1.25,
                borderRadius: 0,
                borderLeft: `2px solid ${colours.ink}`,
                px: 1.25,
                py: 0.5,
                flex: '1 1 92px',
                background: only === state ? colours.sheet : 'none',
              }}
            >
              <Box sx={{ fontFamily: 'Bitter, serif', fontSize: '1.4rem' }}>{count(state)}</Box>
              {custodyLooks[state].label}
            </Button>
          ))}
      </Box>
      {list.length === 0 ? (
        <Empty title={only ? 'None here' : 'Nothing is out'}>
          {only ? 'No bag stands there now.' : 'No bag waits to be cored, dried, sent or read.'}
        </Empty>
      ) : (
        <>
          <BagPapers bags={bags.filter(({ id }) => chosen.has(id))} />
          <Box component="ul" aria-label="Bags" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {list.map((bag) => (
              <BagRow
                key={bag.id}
                bag={bag}
                withSite
                chosen={chosen.has(bag.id)}
                onChoose={(take) =>
                  setChosen((last) => new Set(take ? [...last, bag.id] : [...last].filter((id) => id !== bag.id)))
                }
              />
            ))}
          </Box>
        </>
      )}
    </Box>
  );
}
