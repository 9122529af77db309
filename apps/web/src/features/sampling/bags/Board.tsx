import { writeBagCode } from '@glenfold/agronomy';
import { type BagLineAnswer, type BagState, bagStates } from '@glenfold/contract';
import { Box, Button, TextField, Typography } from '@mui/material';
import { useInfiniteQuery, useQueries, useQueryClient } from '@tanstack/react-query';
import { Suspense, type SyntheticEvent, useEffect, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { colours } from '../../../ui/theme.ts';
import { Empty, Trouble } from '../../../ui/bits.tsx';
import { deferred } from '../../../ui/deferred.tsx';
import { More } from '../../../ui/More.tsx';
import { useMay } from '../../../ui/session.tsx';
import { BagPapers } from './BagPapers.tsx';
import { BagRow } from './BagRow.tsx';
import { Laboratories } from './Laboratories.tsx';
import { LaboratoryPost } from './LaboratoryPost.tsx';
import { custodyLooks } from './custodyWords.ts';
import { samplingQueries } from '../api.ts';

const ScanDialog = deferred(async () => (await import('../scan/ScanDialog.tsx')).ScanDialog);

/** What is where and for how long, across all sites, overdue first; codes find their bags, one after the other. */
export function Board() {
  const may = useMay();
  const client = useQueryClient();
  const [address] = useSearchParams();
  const [typed, setTyped] = useState('');
  const [found, setFound] = useState<readonly string[]>([]);
  const [told, setTold] = useState<string | undefined>();
  const [trouble, setTrouble] = useState<Error | null>(null);
  const [scanning, setScanning] = useState(false);
  const [only, setOnly] = useState<BagState | null>(null);
  const pages = useInfiniteQuery(samplingQueries.board(only));
  const gathered = useQueries({ queries: found.map((code) => samplingQueries.bagByCode(code)) });
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());

  /** Put the bag of a code in front, and choose it: several scanned in a row go on together. */
  const find = async (code: string): Promise<void> => {
    setTrouble(null);
    try {
      const bag = await client.query({ ...samplingQueries.bagByCode(code), staleTime: 0 });
      const name = `Bag ${writeBagCode(bag.code)}`;
      client.setQueryData(samplingQueries.bagByCode(bag.code).queryKey, bag);
      const twice = found.includes(bag.code);
      setTold(twice ? `${name} is here already: it was scanned twice.` : `${name} is found.`);
      if (!twice) setFound([...found, bag.code]);
      setChosen((last) => new Set([...last, bag.id]));
      setTyped('');
    } catch (problem) {
      setTold((problem as Error).message);
      setTrouble(problem as Error);
    }
  };
  const asked = address.get('code');
  useEffect(() => {
    // eslint-disable-next-line react-hooks/set-state-in-effect -- what the address asks for is looked up once
    if (asked) void find(asked);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only a new address asks anew
  }, [asked]);

  if (!pages.data) return <Trouble error={pages.error} />;
  const { counts } = pages.data.pages[0]!;
  const count = (state: BagState): number =>
    counts.filter((one) => one.state === state).reduce((sum, one) => sum + one.count, 0);
  const listed = pages.data.pages.flatMap(({ bags }) => bags);
  const list = found.length > 0 ? gathered.flatMap(({ data }) => data ?? []) : listed;
  const submit = (event: SyntheticEvent): void => {
    event.preventDefault();
    if (typed.trim() !== '') void find(typed.trim());
  };
  const all = (): void => {
    setFound([]);
    setChosen(new Set());
    setTold(undefined);
    setTrouble(null);
  };
  const ofBag = (bag: BagLineAnswer, take: boolean): void =>
    setChosen((last) => new Set(take ? [...last, bag.id] : [...last].filter((id) => id !== bag.id)));
  return (
    <Box component="main" sx={{ px: { xs: 2, md: 3 }, py: 2, maxWidth: 1180, width: '100%' }}>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, alignItems: 'center', mb: 1 }}>
        <Typography variant="h1">Bags of all sites</Typography>
        <Box sx={{ flex: 1 }} />
        {may('field.write') && count('planned') > 0 && (
          <Button variant="outlined" component={Link} to="/today">
            Take the walks along
          </Button>
        )}
      </Box>
      <Box component="form" onSubmit={submit} sx={{ display: 'flex', gap: 1, mb: 1, maxWidth: 620, flexWrap: 'wrap' }}>
        <TextField
          label="Scan or type a bag’s code"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          placeholder="K7F-4Q2"
          sx={{ flex: '1 1 220px' }}
        />
        <Button type="submit" variant="contained">
          Find
        </Button>
        <Button variant="outlined" onClick={() => setScanning(true)}>
          Use the camera
        </Button>
        {found.length > 0 && <Button onClick={all}>Show all bags</Button>}
      </Box>
      <Box role="status" aria-label="Found" sx={{ fontWeight: 700 }}>
        {trouble ? '' : told}
      </Box>
      <Trouble error={trouble} />
      {scanning && (
        <Suspense fallback={null}>
          <ScanDialog told={told} onCode={(text) => void find(text)} onClose={() => setScanning(false)} />
        </Suspense>
      )}
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
              onClick={() => {
                all();
                setOnly(only === state ? null : state);
              }}
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
      <LaboratoryPost counts={counts} />
      {list.length === 0 ? (
        <Empty title={only ? 'None here' : 'Nothing is out'}>
          {only ? 'No bag stands there now.' : 'No bag waits to be cored, dried, sent or read.'}
        </Empty>
      ) : (
        <>
          <BagPapers bags={list.filter(({ id }) => chosen.has(id))} />
          <Box component="ul" aria-label="Bags" sx={{ listStyle: 'none', m: 0, p: 0 }}>
            {list.map((bag) => (
              <BagRow
                key={bag.id}
                bag={bag}
                withSite
                chosen={chosen.has(bag.id)}
                onChoose={(take) => ofBag(bag, take)}
              />
            ))}
          </Box>
          {found.length === 0 && <More pages={pages}>More bags</More>}
        </>
      )}
      <Laboratories />
    </Box>
  );
}
