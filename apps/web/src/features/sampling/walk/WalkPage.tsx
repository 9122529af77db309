import { corePush, writeBagCode } from '@glenfold/agronomy';
import { Plane, type Position, compassPoint } from '@glenfold/agronomy/geometry';
import { soilMoistures } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useEffect, useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { devicePosition } from '../../../position/devicePosition.ts';
import { replayedWalk } from '../../../position/replayedWalk.ts';
import { colours } from '../../../ui/theme.ts';
import { Trouble } from '../../../ui/bits.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { useSessionState } from '../../../ui/useSessionState.ts';
import { SiteSketch } from '../SiteSketch.tsx';
import { BeforeWalk } from './BeforeWalk.tsx';
import { DepthStepper } from './DepthStepper.tsx';
import { NoteDialog, SkipDialog } from './WalkDialogs.tsx';
import { FieldFrame } from '../../../ui/field/FieldFrame.tsx';
import { keepPages } from '../../../ui/keepPages.ts';
import { useWakeLock } from '../../../ui/field/useWakeLock.ts';
import { type WalkedCore, useWalk } from './useWalk.ts';

/** Where the device is, from itself or from the stand-in. */
function useMe(source: 'device' | 'practice' | null, path: readonly Position[]) {
  const [me, setMe] = useState<{ readonly position: Position; readonly accuracy: number } | null>(null);
  const [lost, setLost] = useState<string | null>(null);
  useEffect(() => {
    if (!source || (source === 'practice' && path.length < 2)) return undefined;
    const from = source === 'device' ? devicePosition : replayedWalk(path, { hurry: 4 });
    return from.watch(
      ({ position, accuracy }) => {
        setMe({ position, accuracy });
        setLost(null);
      },
      (words) => setLost(words),
    );
  }, [source, path]);
  return { me, lost };
}

/** How far a core is, and in which direction. */
function wayTo(me: Position, to: Position): { readonly distance: number; readonly bearing: number } {
  const [east, north] = new Plane(me).toPlane(to);
  return { distance: Math.hypot(east, north), bearing: ((Math.atan2(east, north) * 180) / Math.PI + 360) % 360 };
}

/** The walk through a site's cores: one hand, gloves, glare, and no connection. */
export function WalkPage() {
  const { siteId = '' } = useParams();
  const { say } = useUnits();
  const walk = useWalk(siteId);
  const { pack, cores, kept } = walk;
  const [begun, setBegun] = useSessionState<boolean>(`glenfold.walk.${siteId}`, false);
  const [source, setSource] = useState<'device' | 'practice' | null>(null);
  const [skipping, setSkipping] = useState(false);
  const [noting, setNoting] = useState(false);
  const [note, setNote] = useState('');
  const [pushed, setPushed] = useState<number | null>(null);
  const [recovered, setRecovered] = useState<number | null>(null);
  const [photos, setPhotos] = useState(0);
  const [photoTrouble, setPhotoTrouble] = useState<Error | null>(null);
  const [moisture, setMoisture] = useState<string | null>(null);
  useWakeLock(begun);
  useEffect(() => {
    // The pages of the walk stay on the device, so that it opens without a connection.
    void keepPages(['/walk', `/walk/${siteId}`]);
  }, [siteId]);
  const path = useMemo(() => cores.flatMap(({ place }) => (place ? [place] : [])), [pack]); // eslint-disable-line react-hooks/exhaustive-deps -- the practice walk does not begin anew with each core
  const { me, lost } = useMe(source, path);

  const open = cores.filter(({ state }) => state === 'waiting');
  const next = open[0];
  const last = [...cores]
    .filter(({ state, at }) => state !== 'waiting' && at)
    .sort((one, other) => (other.at ?? '').localeCompare(one.at ?? ''))[0];
  const zone = pack?.zones.find(({ id }) => id === next?.zoneId);
  const wanted = next?.depth ?? 10;
  const deep = pushed ?? wanted;
  const long = recovered ?? deep;
  const reading = corePush(wanted, deep, long);
  const away = me && next?.place ? wayTo(me.position, next.place) : null;

  const tap = async (core: WalkedCore, touch: Omit<Parameters<typeof walk.tap>[0], 'coreId'>): Promise<void> => {
    await walk.tap({ coreId: core.id, ...touch });
    setPushed(null);
    setRecovered(null);
    setNote('');
    setPhotos(0);
  };
  const photograph = async (core: WalkedCore, file: File): Promise<void> => {
    setPhotoTrouble(null);
    try {
      await walk.takePhoto(core, file);
      setPhotos((last) => last + 1);
    } catch (failure) {
      setPhotoTrouble(failure as Error);
    }
  };
  const frame = { back: '/today', title: pack?.site.name };
  if (!pack)
    return (
      <FieldFrame {...frame}>
        <Box sx={{ p: 2 }}>{walk.error ? <Trouble error={walk.error} /> : 'Taking the site along…'}</Box>
      </FieldFrame>
    );
  if (cores.length === 0)
    return (
      <FieldFrame {...frame}>
        <Box sx={{ p: 2 }}>
          <Typography variant="h1">No bag to walk</Typography>
          <Typography sx={{ mt: 1 }}>Every planned bag of this site is cored, or none is planned.</Typography>
        </Box>
      </FieldFrame>
    );
  if (!begun)
    return (
      <FieldFrame {...frame}>
        <BeforeWalk cores={open.length} onStart={() => setBegun(true)} />
      </FieldFrame>
    );
  return (
    <FieldFrame {...frame}>
      {walk.trouble && kept > 0 && (
        <Box role="note" sx={{ background: colours.ochreWash, px: 2, py: 0.5, fontSize: '0.92rem' }}>
          {walk.trouble.startsWith('No connection')
            ? 'No connection: every tap is kept on this device and sent later.'
            : walk.trouble}
        </Box>
      )}
      {walk.notices.length > 0 && (
        <Box role="alert" sx={{ background: colours.ochreWash, px: 2, py: 1, fontSize: '0.92rem' }}>
          {walk.notices.map(({ tapId, words }) => (
            <div key={tapId}>{words}</div>
          ))}
          <Button size="small" onClick={walk.letGo}>
            Read
          </Button>
        </Box>
      )}
      <SiteSketch
        zones={pack.zones}
        features={pack.things.features}
        cores={cores.flatMap(({ id, place, state, number }) =>
          place
            ? [{ id, place, state, next: id === next?.id, text: id === next?.id ? String(number) : undefined }]
            : [],
        )}
        me={me?.position ?? null}
        strong={new Set(zone ? [zone.id] : [])}
        about={[
          ...cores.filter(({ zoneId }) => zoneId === next?.zoneId).flatMap(({ place }) => (place ? [place] : [])),
          ...(me ? [me.position] : []),
        ]}
        label="Cores of this zone and where you are"
        size="hand"
      />
      {next ? (
        <Box sx={{ px: 2, py: 1, display: 'flex', flexDirection: 'column', gap: 1, flex: 1 }}>
          <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'baseline', gap: 1 }}>
            <Box sx={{ lineHeight: 1.25, minWidth: 0 }}>
              <Box sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.35rem' }}>
                Core {next.number} of {cores.filter(({ bagId }) => bagId === next.bagId).length}
              </Box>
              <Box sx={{ fontSize: '0.95rem' }}>
                {zone?.name}, bag <strong>{writeBagCode(next.code)}</strong>
              </Box>
            </Box>
            <Box sx={{ textAlign: 'right', lineHeight: 1.15 }}>
              {away ? (
                <>
                  <Box sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.7rem', whiteSpace: 'nowrap' }}>
                    <Box
                      component="span"
                      aria-hidden
                      sx={{ display: 'inline-block', transform: `rotate(${away.bearing}deg)`, mr: 0.5 }}
                    >
                      ↑
                    </Box>
                    {say('length', away.distance)}
                  </Box>
                  <Box sx={{ fontSize: '0.92rem' }}>
                    {compassPoint(away.bearing)}
                    {me && `, ± ${say('length', me.accuracy)}`}
                  </Box>
                </>
              ) : (
                <Box sx={{ fontSize: '0.92rem' }}>{next.place ? (lost ?? '') : 'no place: walk a Z'}</Box>
              )}
            </Box>
          </Box>
          {!source && next.place && (
            <Box sx={{ display: 'flex', gap: 1 }}>
              <Button variant="outlined" sx={{ flex: 1, minHeight: 48 }} onClick={() => setSource('device')}>
                Show where I am
              </Button>
              <Button variant="outlined" sx={{ flex: 1, minHeight: 48 }} onClick={() => setSource('practice')}>
                Practice walk
              </Button>
            </Box>
          )}
          <DepthStepper label="Pushed to" value={deep} onChange={setPushed} />
          <DepthStepper label="Core came up" value={long} onChange={setRecovered} />
          {reading.finding !== 'whole' && (
            <Box sx={{ borderLeft: `3px solid ${colours.ochre}`, pl: 1, fontSize: '0.95rem' }}>{reading.words}</Box>
          )}
          <Box
            role="group"
            aria-label="Moisture by feel"
            sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 0.75 }}
          >
            {soilMoistures.map((name) => (
              <Button
                key={name}
                variant={moisture === name ? 'contained' : 'outlined'}
                aria-pressed={moisture === name}
                sx={{ minHeight: 44 }}
                onClick={() => setMoisture(moisture === name ? null : name)}
              >
                {name}
              </Button>
            ))}
          </Box>
          <Box sx={{ flex: 1 }} />
          <Button
            variant="contained"
            sx={{ minHeight: 84, fontSize: '1.6rem' }}
            onClick={() =>
              void tap(next, { state: 'cored', pushed: deep, recovered: long, moisture, note: note || null })
            }
          >
            Cored
          </Button>
          <Trouble error={photoTrouble} />
          <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)', gap: 1 }}>
            <Button variant="outlined" sx={{ minHeight: 52 }} onClick={() => setSkipping(true)}>
              Skip
            </Button>
            <Button variant="outlined" sx={{ minHeight: 52 }} onClick={() => setNoting(true)}>
              {note ? 'Note ✓' : 'Note'}
            </Button>
            <Button variant="outlined" component="label" sx={{ minHeight: 52 }}>
              {photos > 0 ? `Photo ${photos}` : 'Photo'}
              <input
                type="file"
                accept="image/*"
                capture="environment"
                hidden
                aria-label="Photo of this place"
                onChange={(event) => {
                  const file = event.target.files?.[0];
                  event.target.value = '';
                  if (file) void photograph(next, file);
                }}
              />
            </Button>
            <Button
              variant="outlined"
              sx={{ minHeight: 52 }}
              disabled={!last}
              onClick={() => last && void tap(last, { state: 'waiting' })}
            >
              Undo
            </Button>
          </Box>
          <Box sx={{ textAlign: 'center', fontSize: '0.95rem' }}>
            {cores.length - open.length} of {cores.length} done
          </Box>
        </Box>
      ) : (
        <Box sx={{ p: 2, display: 'grid', gap: 1.5 }}>
          <Typography variant="h1">All cores are in</Typography>
          <Typography>
            Break up and mix each bucket by itself, take out stones and roots, fill the bag, and write its code on it:
          </Typography>
          {[...new Map(cores.map(({ bagId, code }) => [bagId, code])).entries()].map(([bagId, code]) => (
            <Box
              key={bagId}
              sx={{
                fontFamily: 'Bitter, serif',
                fontWeight: 700,
                fontSize: '1.8rem',
                border: `2px solid ${colours.ink}`,
                px: 1.5,
                background: colours.sheet,
              }}
            >
              {writeBagCode(code)}
            </Box>
          ))}
          <Typography>Dry it in the air, in the shade. Never in an oven.</Typography>
          <Button
            variant="outlined"
            sx={{ minHeight: 52 }}
            disabled={!last}
            onClick={() => last && void tap(last, { state: 'waiting' })}
          >
            Undo last
          </Button>
        </Box>
      )}
      <SkipDialog
        open={skipping && !!next}
        onClose={() => setSkipping(false)}
        onSkip={(reason) => {
          setSkipping(false);
          if (next) void tap(next, { state: 'skipped', reason, note: note || null });
        }}
      />
      <NoteDialog open={noting} note={note} onNote={setNote} onClose={() => setNoting(false)} />
    </FieldFrame>
  );
}
