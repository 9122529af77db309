import type { TakenPhoto } from '../../ui/field/TakePhoto.tsx';
import { withReadableDays } from '@glenfold/contract';
import { type FieldTestKind, fieldTestKinds, fieldTestOf } from '@glenfold/agronomy';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { touch } from '../../api/touches.ts';
import { useOutbox } from '../../offline/useOutbox.ts';
import { Trouble } from '../../ui/bits.tsx';
import { FieldFrame } from '../../ui/field/FieldFrame.tsx';
import { keepPages } from '../../ui/keepPages.ts';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { useNow } from './DrainageForm.tsx';
import { TestDrawing } from './TestDrawing.tsx';
import { TestScreen } from './TestScreen.tsx';
import { type KeptTest, type TestEdit, beginTest, changeTest, dropTest, dueOf, openSite, photoToSend, testKinds, testsOf, toSend, workerOf } from './testStore.ts'; // prettier-ignore

const nothing: readonly KeptTest[] = [];

/** Tests of a site on the phone: begun, read and closed without a connection. */
export function TestsPage() {
  const { siteId = '' } = useParams();
  const [search, setSearch] = useSearchParams();
  const { system } = useUnits();
  const client = useQueryClient();
  const now = useNow();
  const { data: site, error } = useQuery({
    ...{ queryKey: ['tests taken along', siteId, system], queryFn: () => openSite(siteId, system) },
    ...{ networkMode: 'always' as const, staleTime: 0, retry: false },
  });
  const { data: tests = nothing, refetch } = useQuery({
    ...{ queryKey: ['tests here', siteId, site !== undefined], queryFn: () => testsOf(siteId) },
    ...{ networkMode: 'always' as const, staleTime: 0 },
  });
  const outbox = useOutbox(
    testKinds,
    useCallback(() => {
      void touch(client, 'fieldTest');
      void touch(client, 'photo');
    }, [client]),
  );
  const [taken, setTaken] = useState<ReadonlyArray<TakenPhoto & { readonly testId: string }>>([]);
  const [zoneId, setZoneId] = useState(search.get('zone') ?? '');
  useEffect(() => void keepPages([`/tests/${siteId}`]), [siteId]);
  const opened = tests.find(({ id }) => id === search.get('test'));
  const zoneOf = (id: string) => site?.zones.find((zone) => zone.id === id);
  // One after the other: what is typed first is kept, and sent, first.
  const last = useRef<Promise<void>>(Promise.resolve());
  const change = (test: KeptTest, edit: TestEdit): Promise<void> => {
    last.current = last.current.catch(() => undefined).then(async () => {
      const changed = await changeTest(test, edit);
      await refetch();
      await outbox.add(toSend(workerOf(site!), changed));
    });
    return last.current;
  };
  const addPhoto = async (test: KeptTest, photo: TakenPhoto): Promise<void> => {
    // A test that nothing was read of is not sent: what it was photographed for is the first of it.
    if (test.revision === 0) await change(test, () => ({}));
    await outbox.add(photoToSend(workerOf(site!), test, photo));
    setTaken((last) => [...last, { ...photo, testId: test.id }]);
  };
  const begin = async (kind: FieldTestKind): Promise<void> => {
    const test = await beginTest(site!, zoneId, kind);
    await refetch();
    setSearch({ test: test.id });
  };
  const zone = opened && zoneOf(opened.zoneId);
  const open = tests.filter(({ closed }) => !closed);
  const done = tests.filter(({ closed }) => closed);
  return (
    <FieldFrame
      back={opened ? `/tests/${siteId}` : '/today'}
      title={site?.siteName}
      heading={!opened}
    >
      <Box sx={{ p: 2, display: 'flex', flexDirection: 'column', gap: 1.5, flex: 1 }}>
        <Trouble error={error} />
        {outbox.refused.map(({ id, refused }) => (
          <Typography key={id} role="alert" sx={{ color: colours.ochre }}>
            {refused}
          </Typography>
        ))}
        {outbox.refused.length > 0 && <Button onClick={() => void outbox.letGo()}>I have read it</Button>}
        {site && opened && zone && (
          <TestScreen
            key={opened.id}
            test={opened}
            site={site}
            zone={zone}
            taken={taken.filter(({ testId }) => testId === opened.id)}
            onChange={(edit) => void change(opened, edit)}
            onPhoto={(photo) => addPhoto(opened, photo)}
            onLeave={() => setSearch({})}
            onDrop={() => void dropTest(opened.id).then(() => refetch()).then(() => setSearch({}))}
          />
        )}
        {site && !opened && (
          <>
            {open.length > 0 && (
              <Box component="section" aria-labelledby="open">
                <Typography variant="h2" id="open">
                  Going on
                </Typography>
                {open.map((test) => {
                  const due = dueOf(test, now);
                  return (
                    <Box
                      component="button"
                      type="button"
                      key={test.id}
                      onClick={() => setSearch({ test: test.id })}
                      sx={{ font: 'inherit', color: 'inherit', textAlign: 'left', width: '100%', display: 'flex', gap: 1.5, alignItems: 'center', background: 'none', border: 0, borderTop: `1px solid ${colours.line}`, borderLeft: `5px solid ${due?.late ? colours.ochre : colours.slate}`, py: 1, pl: 1, cursor: 'pointer' }}
                    >
                      <TestDrawing kind={test.kind} size={64} />
                      <span>
                        <strong>{`${fieldTestOf[test.kind].title}, ${zoneOf(test.zoneId)?.name ?? ''}`}</strong>
                        <br />
                        <span style={{ color: due?.late ? colours.ochre : colours.ink }}>{due?.words ?? `begun ${withReadableDays(test.on)}`}</span>
                      </span>
                    </Box>
                  );
                })}
              </Box>
            )}
            <Box component="section" aria-labelledby="begin">
              <Typography variant="h2" id="begin" sx={{ mb: 1 }}>
                Begin a test
              </Typography>
              <TextField select label="On which zone" value={zoneOf(zoneId) ? zoneId : ''} onChange={(event) => setZoneId(event.target.value)} fullWidth>
                {site.zones.map(({ id, name }) => (
                  <MenuItem key={id} value={id}>
                    {name}
                  </MenuItem>
                ))}
              </TextField>
              {zoneOf(zoneId) && (
                <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, mt: 1 }}>
                  {fieldTestKinds.map((kind) => (
                    <Box
                      component="button"
                      type="button"
                      key={kind}
                      onClick={() => void begin(kind)}
                      sx={{ font: 'inherit', color: colours.ink, background: colours.sheet, border: `1px solid ${colours.faded}`, p: 1, textAlign: 'left', cursor: 'pointer' }}
                    >
                      <TestDrawing kind={kind} size={92} />
                      <div style={{ fontWeight: 700 }}>{fieldTestOf[kind].title}</div>
                      <div style={{ fontSize: '0.88rem', lineHeight: 1.25 }}>{fieldTestOf[kind].about}</div>
                    </Box>
                  ))}
                </Box>
              )}
            </Box>
            {done.length > 0 && (
              <Box component="section" aria-labelledby="done">
                <Typography variant="h2" id="done">
                  Done
                </Typography>
                {done.map((test) => (
                  <Box key={test.id} sx={{ borderTop: `1px solid ${colours.line}`, py: 0.5, display: 'flex', justifyContent: 'space-between' }}>
                    <span>{`${withReadableDays(test.on)}: ${fieldTestOf[test.kind].title}, ${zoneOf(test.zoneId)?.name ?? ''}`}</span>
                    <Button size="small" onClick={() => setSearch({ test: test.id })}>
                      Open
                    </Button>
                  </Box>
                ))}
              </Box>
            )}
          </>
        )}
      </Box>
    </FieldFrame>
  );
} // prettier-ignore
