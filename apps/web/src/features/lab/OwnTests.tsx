import { fieldTestOf } from '@glenfold/agronomy';
import type { ZoneAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { Words } from '../../ui/Words.tsx';
import { colours } from '../../ui/theme.ts';
import { useMay } from '../../ui/session.tsx';
import { useUndo } from '../../ui/undo.tsx';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';
import { queries } from '../../api/queries.ts';
import { labQueries } from './api.ts';

/** Tests with one's own hands on a site: what each says, and what is due. */
export function OwnTests({ siteId, zones }: { readonly siteId: string; readonly zones: readonly ZoneAnswer[] }) {
  const { system } = useUnits();
  const { data: tests = [] } = useQuery(labQueries.fieldTests(siteId, system));
  const { data: photos = [] } = useQuery(queries.photos(siteId));
  const may = useMay();
  const { remove } = useUndo();
  const nameOf = (id: string): string => zones.find((zone) => zone.id === id)?.name ?? 'a zone that is gone';
  return (
    <>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'baseline', gap: 2, mb: 1, flexWrap: 'wrap' }}>
        <Typography sx={{ maxWidth: 560 }}>
          Drainage hole, jar, core, ring, drops, fizz, probe, cups and cover: on the phone, without a connection.
        </Typography>
        {may('field.write') && (
          <Button variant="contained" component={Link} to={`/tests/${siteId}`}>
            Go out and test
          </Button>
        )}
      </Box>
      {tests.length === 0 && <Typography sx={{ color: colours.faded }}>None yet.</Typography>}
      {tests.map((test) => (
        <Box component="article" key={test.id} aria-label={`${fieldTestOf[test.kind].title}, ${nameOf(test.zoneId)}`} sx={{ borderTop: `1px solid ${colours.line}`, borderLeft: `4px solid ${test.closed ? colours.lichen : colours.slate}`, pl: 1.5, py: 1, display: 'flex', gap: 2, flexWrap: 'wrap' }}>
          <Box sx={{ flex: '1 1 420px' }}>
            <Typography sx={{ color: colours.faded, fontSize: '0.92rem' }}>
              {[fieldTestOf[test.kind].title, nameOf(test.zoneId), test.on, test.doneBy ?? ''].filter(Boolean).join(', ')}
            </Typography>
            {test.title ? (
              <Box sx={{ fontSize: '1.1rem' }}>
                {!test.closed && test.kind === 'drainage' ? 'So far: ' : ''}
                {test.working.length > 0 ? <Opens title={fieldTestOf[test.kind].title} told={test.title} working={test.working} /> : <strong>{test.title}</strong>}
              </Box>
            ) : (
              <Typography>Nothing is read yet.</Typography>
            )}
            {test.words.map((words) => (
              <Typography key={words}>
                <Words>{words}</Words>
              </Typography>
            ))}
            <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mt: 0.5 }}>
              {photos.filter(({ fieldTestId }) => fieldTestId === test.id).map(({ id, small, address }, index) => (
                <a key={id} href={address} target="_blank" rel="noreferrer">
                  <img src={small} alt={`Photo ${index + 1} of the test`} style={{ height: 84, border: `1px solid ${colours.line}`, display: 'block' }} />
                </a>
              ))}
            </Box>
            {test.next && test.next.what !== 'done' && <Typography sx={{ color: colours.ochre, fontWeight: 700 }}>{test.next.words}</Typography>}
          </Box>
          <Box>
            {may('field.write') && (
              <Button size="small" component={Link} to={`/tests/${siteId}?test=${test.id}`}>
                Open
              </Button>
            )}
            {may('work.delete') && (
              <Button size="small" onClick={() => remove(`/field-tests/${test.id}`, fieldTestOf[test.kind].title)} aria-label={`Delete the ${fieldTestOf[test.kind].title} of ${nameOf(test.zoneId)}`}>
                Delete
              </Button>
            )}
          </Box>
        </Box>
      ))}
    </>
  );
} // prettier-ignore
