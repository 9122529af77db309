import type { PlannedWalkAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { api } from '../../../api/client.ts';
import { colours } from '../../../ui/theme.ts';
import { Trouble } from '../../../ui/bits.tsx';
import { FieldFrame } from '../../../ui/field/FieldFrame.tsx';
import { WHY_KEPT, askToKeep, keepPages } from '../../../ui/keepPages.ts';
import { all, signedIn } from '../../../offline/outbox.ts';
import { type PackedSite, packSite, packedSites, takeOverOld } from './walkStore.ts';
import { localTime } from '../../../ui/today.ts';

/** Cores of a packed site that wait. */
const waiting = ({ bags }: PackedSite): number =>
  bags
    .filter(({ state }) => state === 'planned')
    .reduce((sum, { places }) => sum + places.filter(({ state }) => state === 'waiting').length, 0);

const nothing = { packs: [], kept: 0 } as const;

/** What is taken along for the day: opens without a connection, and fetches all that is planned while there is one. */
export function WalksPage() {
  // What is on the device is read like what a server has: it can change under another tab.
  const { data: held = nothing, refetch } = useQuery({
    queryKey: ['taken along'],
    queryFn: async () => {
      await takeOverOld();
      return { packs: await packedSites(), kept: (await all()).filter(({ refused }) => !refused).length };
    },
    networkMode: 'always',
    staleTime: 0,
  });
  const { packs } = held;
  const [busy, setBusy] = useState(false);
  const [told, setTold] = useState('');
  const [error, setError] = useState<Error | null>(null);
  useEffect(() => void keepPages(['/walk']), []);
  const fetchAll = async (): Promise<void> => {
    setBusy(true);
    setError(null);
    try {
      await signedIn();
      const planned = await api<PlannedWalkAnswer[]>('GET', '/walks');
      const sites = planned.map(({ siteId }) => siteId);
      for (const siteId of sites) await packSite(siteId);
      await keepPages(['/walk', ...sites.map((siteId) => `/walk/${siteId}`)]);
      setTold(
        sites.length === 0
          ? 'Nothing is planned to be walked.'
          : `All that is planned is on this device. ${await askToKeep()}`,
      );
      await refetch();
    } catch (problem) {
      setError(problem as Error);
    } finally {
      setBusy(false);
    }
  };
  const open = packs.filter((pack) => waiting(pack) > 0);
  return (
    <FieldFrame back="/" title="Walks on this device">
      <Box sx={{ p: 2, display: 'flex', flexDirection: 'column', gap: 1.5, flex: 1 }}>
        <Typography variant="h1">Taken along</Typography>
        {open.length === 0 && (
          <Typography>Nothing yet. With a connection, fetch what is planned; then it opens without one.</Typography>
        )}
        <Box component="ul" aria-label="Walks" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {open.map((pack) => (
            <Box component="li" key={pack.site.id} sx={{ borderTop: `1px solid ${colours.line}` }}>
              <Box
                component={Link}
                to={`/walk/${pack.site.id}`}
                sx={{ display: 'block', py: 1.25, color: colours.ink, textDecoration: 'none' }}
              >
                <Box sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.25rem' }}>{pack.site.name}</Box>
                {waiting(pack)} cores to take; fetched {localTime(pack.packedAt)} by {pack.person}
              </Box>
            </Box>
          ))}
        </Box>
        <Box role="status">{told}</Box>
        <Trouble error={error} />
        <Box sx={{ flex: 1 }} />
        <Typography sx={{ color: colours.faded, fontSize: '0.93rem' }}>{WHY_KEPT}</Typography>
        <Button
          variant="contained"
          disabled={busy}
          onClick={() => void fetchAll()}
          sx={{ minHeight: 68, fontSize: '1.2rem' }}
        >
          {busy ? 'Fetching…' : 'Fetch all that is planned'}
        </Button>
      </Box>
    </FieldFrame>
  );
}
