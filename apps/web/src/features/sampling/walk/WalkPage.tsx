import { writeBagCode } from '@glenfold/agronomy';
import { Plane, type Position, compassPoint } from '@glenfold/agronomy/geometry';
import type { CoreTapInput } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useEffect, useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { devicePosition } from '../../../position/devicePosition.ts';
import { replayedWalk } from '../../../position/replayedWalk.ts';
import { colours } from '../../../ui/theme.ts';
import { Trouble } from '../../../ui/bits.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { SiteSketch } from '../SiteSketch.tsx';
import { AllIn } from './AllIn.tsx';
import { BeforeWalk } from './BeforeWalk.tsx';
import { CoreForm } from './CoreForm.tsx';
import { FieldFrame } from '../../../ui/field/FieldFrame.tsx';
import { keepPages } from '../../../ui/keepPages.ts';
import { useWakeLock } from '../../../ui/field/useWakeLock.ts';
import { deviceZone, todayIn } from '../../../ui/today.ts';
import { useOnTheWay } from './onTheWay.ts';
import { type WalkedCore, useWalk } from './useWalk.ts';
import { type PackedSite, walkerOf } from './walkStore.ts';

type Walk = ReturnType<typeof useWalk>;
interface Me {
  readonly position: Position;
  readonly accuracy: number;
}

interface WayToProps {
  readonly core: WalkedCore;
  /** How many the bag takes. */
  readonly of: number;
  readonly zone: string | undefined;
  readonly me: Me | null;
  readonly lost: string | null;
}

/** Where the device is, from itself or from the stand-in. */
function useMe(source: 'device' | 'practice' | null, path: readonly Position[]) {
  const [me, setMe] = useState<Me | null>(null);
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
  const walk = useWalk(siteId);
  const { pack, cores, error } = walk;
  useEffect(() => {
    // The pages of the walk stay on the device, so that it opens without a connection.
    void keepPages(['/walk', `/walk/${siteId}`]);
  }, [siteId]);
  return (
    <FieldFrame back="/today" title={pack?.site.name}>
      {!pack ? (
        <Box sx={{ p: 2 }}>{error ? <Trouble error={error} /> : 'Taking the site along…'}</Box>
      ) : cores.length === 0 ? (
        <Box sx={{ p: 2 }}>
          <Typography variant="h1">No bag to walk</Typography>
          <Typography sx={{ mt: 1 }}>Every planned bag of this site is cored, or none is planned.</Typography>
        </Box>
      ) : (
        <Walking pack={pack} walk={walk} />
      )}
    </FieldFrame>
  );
}

/** What the way says: nothing arrives, or somebody else was first. */
function Told({ walk: { trouble, kept, notices, letGo } }: { readonly walk: Walk }) {
  return (
    <>
      {trouble && kept > 0 && (
        <Box role="note" sx={{ background: colours.ochreWash, px: 2, py: 0.5, fontSize: '0.92rem' }}>
          {trouble.startsWith('No connection')
            ? 'No connection: every tap is kept on this device and sent later.'
            : trouble}
        </Box>
      )}
      {notices.length > 0 && (
        <Box role="alert" sx={{ background: colours.ochreWash, px: 2, py: 1, fontSize: '0.92rem' }}>
          {notices.map(({ tapId, words }) => (
            <div key={tapId}>{words}</div>
          ))}
          <Button size="small" onClick={letGo}>
            Read
          </Button>
        </Box>
      )}
    </>
  );
}

/** Which core is next, and the way to it. */
function WayTo({ core, of, zone, me, lost }: WayToProps) {
  const { say } = useUnits();
  const away = me && core.place ? wayTo(me.position, core.place) : null;
  return (
    <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'baseline', gap: 1 }}>
      <Box sx={{ lineHeight: 1.25, minWidth: 0 }}>
        <Box sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.35rem' }}>
          Core {core.number} of {of}
        </Box>
        <Box sx={{ fontSize: '0.95rem' }}>
          {zone}, bag <strong>{writeBagCode(core.code)}</strong>
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
          <Box sx={{ fontSize: '0.92rem' }}>{core.place ? (lost ?? '') : 'no place: walk a Z'}</Box>
        )}
      </Box>
    </Box>
  );
}

/** A site that is on the device, core after core. */
function Walking({ pack, walk }: { readonly pack: PackedSite; readonly walk: Walk }) {
  const { cores } = walk;
  const open = cores.filter(({ state }) => state === 'waiting');
  const next = open[0];
  const { person, practiceId } = walkerOf(pack);
  const way = useOnTheWay(
    { siteId: pack.site.id, person: person?.id ?? practiceId, day: todayIn(pack.site.timeZone ?? deviceZone()) },
    next?.id ?? null,
  );
  const [source, setSource] = useState<'device' | 'practice' | null>(null);
  useWakeLock(way.begun);
  const path = useMemo(() => cores.flatMap(({ place }) => (place ? [place] : [])), [pack]); // eslint-disable-line react-hooks/exhaustive-deps -- the practice walk does not begin anew with each core
  const { me, lost } = useMe(source, path);
  const last = [...cores]
    .filter(({ state, at }) => state !== 'waiting' && at)
    .sort((one, other) => (other.at ?? '').localeCompare(one.at ?? ''))[0];
  const zone = pack.zones.find(({ id }) => id === next?.zoneId);
  const tap = (made: Omit<CoreTapInput, 'id' | 'at'>): void => {
    way.leaveCore();
    void walk.tap(made);
  };
  const undo = last && (() => tap({ coreId: last.id, state: 'waiting' }));
  if (!way.begun)
    return (
      <BeforeWalk
        cores={open.length}
        seen={way.seen}
        onSeen={(seen) => way.change({ seen })}
        onStart={() => way.change({ begun: true })}
      />
    );
  return (
    <>
      <Told walk={walk} />
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
          <WayTo
            core={next}
            of={cores.filter(({ bagId }) => bagId === next.bagId).length}
            zone={zone?.name}
            me={me}
            lost={lost}
          />
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
          <CoreForm
            key={next.id}
            wanted={next.depth}
            core={way.core}
            moisture={way.moisture}
            onCore={way.changeCore}
            onMoisture={(moisture) => way.change({ moisture })}
            onTap={(made) => tap({ coreId: next.id, ...made })}
            onPhoto={async (file) => {
              const id = await walk.takePhoto(next, file);
              way.changePhotos((ids) => [...ids, id]);
            }}
            onUndo={undo}
            onTakenBack={(id) => way.changePhotos((ids) => ids.filter((one) => one !== id))}
            waiting={walk.photos.filter(({ id }) => way.core.photos.includes(id))}
          />
          <Box sx={{ textAlign: 'center', fontSize: '0.95rem' }}>
            {cores.length - open.length} of {cores.length} done
          </Box>
        </Box>
      ) : (
        <AllIn codes={[...new Set(cores.map(({ code }) => code))]} onUndo={undo} />
      )}
    </>
  );
}
