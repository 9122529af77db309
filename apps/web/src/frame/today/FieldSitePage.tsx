import { type EntryKind, capital, entryKinds, rateUnitOf } from '@glenfold/agronomy';
import { type ZoneAnswer, accessKeys, accessWords, withReadableDays } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useEffect, useState } from 'react';
import { Link, useParams, useSearchParams } from 'react-router';
import { cardKinds, entryToSend } from '../../features/cards/cardStore.ts';
import { fieldKinds, loadToSend, measuresToSend, photoToSend } from '../../features/field/fieldStore.ts';
import { SiteSketch } from '../../features/sampling/SiteSketch.tsx';
import { type PackedSite, packSite, walkerOf } from '../../features/sampling/walk/walkStore.ts';
import type { KeptPhoto } from '../../offline/photos.ts';
import type { Entry } from '../../offline/outbox.ts';
import { useOutbox } from '../../offline/useOutbox.ts';
import { measuredDepths, senseOfRate } from '../../ui/entryFields.ts';
import { FormDialog } from '../../ui/FormDialog.tsx';
import { LoadForm } from '../../ui/LoadForm.tsx';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { Trouble } from '../../ui/bits.tsx';
import { PhoneLink } from '../../ui/PhoneLink.tsx';
import { FieldFrame } from '../../ui/field/FieldFrame.tsx';
import { TakePhoto } from '../../ui/field/TakePhoto.tsx';
import { WaitingPhotos } from '../../ui/field/WaitingPhotos.tsx';
import { keepPages } from '../../ui/keepPages.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { deviceZone, todayIn } from '../../ui/today.ts';
import { useUnits } from '../../ui/units.tsx';

const nobody = (): void => undefined;
/** What is written down at a site. */
const siteKinds = [...fieldKinds, ...cardKinds];
const IDLE = { isPending: false, error: null } as const;
type Typed = number | string | null;

interface FormProps {
  readonly pack: PackedSite;
  readonly today: string;
  readonly add: (entry: Entry) => Promise<void>;
  readonly onClose: () => void;
}

function ZoneChoice({
  zones,
  value,
  onChange,
}: {
  readonly zones: readonly ZoneAnswer[];
  readonly value: string;
  readonly onChange: (id: string) => void;
}) {
  return (
    <TextField select label="On which zone" value={value} onChange={(event) => onChange(event.target.value)}>
      {zones.map(({ id, name }) => (
        <MenuItem key={id} value={id}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** What a knife or a probe shows: what is left empty stays as it was. */
function Measure({ pack, add, onClose }: FormProps) {
  const [zoneId, setZoneId] = useState(pack.zones[0]?.id ?? '');
  const [typed, setTyped] = useState<Readonly<Record<string, Typed>>>({});
  const [error, setError] = useState<Error | null>(null);
  const { say } = useUnits();
  const zone = pack.zones.find(({ id }) => id === zoneId);
  const save = async (): Promise<void> => {
    const wrong = Object.values(typed).find((value) => typeof value === 'string');
    const input = Object.fromEntries(Object.entries(typed).filter(([, value]) => typeof value === 'number'));
    const fault =
      wrong !== undefined
        ? `“${wrong}” is no depth: write it like 1 in or 2.5 cm.`
        : Object.keys(input).length === 0
          ? 'Write at least one of the three.'
          : null;
    if (fault || !zone) {
      setError(new Error(fault ?? 'Choose a zone.'));
      return;
    }
    await add(measuresToSend(walkerOf(pack), { siteId: pack.site.id, zoneId, zone: zone.name, input }));
    onClose();
  };
  return (
    <FormDialog
      small
      title="Thatch and roots"
      action="Keep it"
      onClose={onClose}
      onSave={() => void save()}
      saving={{ isPending: false, error }}
    >
      <ZoneChoice zones={pack.zones} value={zoneId} onChange={setZoneId} />
      {measuredDepths.map(([key, label, help]) => {
        const last = zone?.[key];
        return (
          <QuantityField
            key={key}
            label={label}
            sense="depth"
            value={typed[key] ?? null}
            onChange={(value) => setTyped({ ...typed, [key]: value })}
            helperText={last == null ? help : `${help}. Last: ${say('depth', last)}`}
          />
        );
      })}
    </FormDialog>
  );
}

/** What was done without a card. */
function WithoutCard({ pack, today, add, onClose }: FormProps) {
  const [zoneId, setZoneId] = useState(pack.zones[0]?.id ?? '');
  const [kind, setKind] = useState<EntryKind>('fertilizer');
  const [on, setOn] = useState(today);
  const [words, setWords] = useState('');
  const [rate, setRate] = useState<Typed>(null);
  const [error, setError] = useState<Error | null>(null);
  const unit = rateUnitOf(kind);
  const save = async (): Promise<void> => {
    const fault =
      words.trim() === ''
        ? 'Say in words what was done, such as the product on the bag.'
        : typeof rate === 'string'
          ? `“${rate}” is no amount: write it with its unit, or leave it empty.`
          : on > today
            ? 'That day has not come yet.'
            : null;
    if (fault || typeof rate === 'string') {
      setError(new Error(fault!));
      return;
    }
    await add(
      entryToSend(walkerOf(pack), {
        ...{
          id: crypto.randomUUID(),
          zoneId,
          on,
          kind,
          state: 'done',
          words: words.trim(),
          doneBy: pack.person || null,
        },
        ...(rate === null ? {} : { rate, unit }),
      }),
    );
    onClose();
  };
  return (
    <FormDialog
      small
      title="Work without a card"
      action="Keep it"
      onClose={onClose}
      onSave={() => void save()}
      saving={{ isPending: false, error }}
    >
      <ZoneChoice zones={pack.zones} value={zoneId} onChange={setZoneId} />
      <TextField select label="What" value={kind} onChange={(event) => setKind(event.target.value as EntryKind)}>
        {entryKinds.map((one) => (
          <MenuItem key={one} value={one}>
            {capital(one)}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        label="In words"
        value={words}
        onChange={(event) => setWords(event.target.value)}
        helperText="Such as urea 46-0-0, one bag along the path"
      />
      <QuantityField
        label="How much"
        sense={senseOfRate[unit]}
        value={rate}
        onChange={setRate}
        helperText="Leave it empty where nobody knows: it is said, not assumed"
      />
      <TextField
        type="date"
        label="On"
        value={on}
        onChange={(event) => setOn(event.target.value)}
        slotProps={{ inputLabel: { shrink: true } }}
      />
    </FormDialog>
  );
}

/** Pictures of a zone: made small here, seen before they arrive, and taken back while they wait. */
function Photos({ pack, today, add, waiting, onClose }: FormProps & { readonly waiting: readonly Entry[] }) {
  const [zoneId, setZoneId] = useState(pack.zones[0]?.id ?? '');
  const [caption, setCaption] = useState('');
  const zones = new Set(pack.zones.map(({ id }) => id));
  const here = waiting.filter((one): one is Entry<KeptPhoto> => one.kind === 'site photo' && zones.has((one.body as KeptPhoto).zoneId)); // prettier-ignore
  return (
    <FormDialog small title="Photos" action="Done" onClose={onClose} onSave={onClose} saving={IDLE}>
      <ZoneChoice zones={pack.zones} value={zoneId} onChange={setZoneId} />
      <TextField label="What it shows" value={caption} onChange={(event) => setCaption(event.target.value)} />
      <TakePhoto
        label="Photo of the zone"
        onPhoto={async (taken) => {
          const photo = { ...taken, takenOn: today, caption: caption.trim() || null };
          await add(photoToSend(walkerOf(pack), { zoneId, photo }));
          setCaption('');
        }}
      >
        Take a photo
      </TakePhoto>
      <WaitingPhotos photos={here} />
    </FormDialog>
  );
}

/** What is known of a zone, for who stands on it. */
function ZoneKnown({ zone }: { readonly zone: ZoneAnswer }) {
  const { say } = useUnits();
  const depths = measuredDepths.flatMap(([key, label]) => (zone[key] == null ? [] : [`${label.toLowerCase()} ${say('depth', zone[key])}`])); // prettier-ignore
  const last = zone.applied.at(-1);
  return (
    <Box component="li" sx={{ borderTop: `1px solid ${colours.line}`, py: 0.75 }}>
      <strong>{zone.name}</strong>, {say('area', zone.area)}
      {depths.length > 0 && `, ${depths.join(', ')}`}
      {last && (
        <Box sx={{ color: colours.faded }}>{withReadableDays(`Last: ${last.words || last.kind}, ${last.on}`)}</Box>
      )}
    </Box>
  );
}

const forms = ['photo', 'load', 'measure', 'work'] as const;
type FormName = (typeof forms)[number];
const formNames: Readonly<Record<FormName, string>> = {
  ...{ photo: 'Photos', load: 'A delivery', measure: 'Thatch and roots', work: 'Work without a card' },
};

/** A site in the hand: how to get in, what is known of it, and all that can be written down there without a connection. */
export function FieldSitePage() {
  const { siteId = '' } = useParams();
  const [search, setSearch] = useSearchParams();
  const { data: pack, error } = useQuery({
    ...{ queryKey: ['site in the hand', siteId], queryFn: () => packSite(siteId) },
    ...{ networkMode: 'always' as const, staleTime: 0, retry: false },
  });
  const { waiting, add } = useOutbox(siteKinds, nobody);
  useEffect(() => void keepPages([`/field/${siteId}`]), [siteId]);
  const asked = search.get('do');
  const open = forms.find((one) => one === asked);
  const close = (): void => setSearch({}, { replace: true });
  const body = (): ReactNode => {
    if (!pack) return error ? <Trouble error={error} /> : <Typography>Opening the site…</Typography>;
    const { site, zones, things } = pack;
    const props = { pack, add, onClose: close, today: todayIn(site.timeZone ?? deviceZone()) };
    return (
      <>
        {accessKeys.map((key) =>
          site.access?.[key] ? (
            <Typography key={key}>
              <strong>{accessWords[key]}:</strong> {site.access[key]}
            </Typography>
          ) : null,
        )}
        {(site.contacts ?? []).map(({ name, phone, role }) => (
          <Typography key={name}>
            {name} ({role})
            {phone && (
              <>
                {', '}
                <PhoneLink phone={phone} />
              </>
            )}
          </Typography>
        ))}
        {zones.some(({ geometry }) => geometry) && (
          <SiteSketch
            zones={zones}
            features={things.features}
            cores={[]}
            label={`Drawing of ${site.name}`}
            size="hand"
          />
        )}
        <Box
          component="section"
          aria-label="Write down"
          sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}
        >
          {forms.map((one) => (
            <Button
              key={one}
              variant="outlined"
              disabled={zones.length === 0}
              onClick={() => setSearch({ do: one })}
              sx={{ minHeight: 56 }}
            >
              {formNames[one]}
            </Button>
          ))}
          <Button variant="outlined" component={Link} to={`/tests/${siteId}`} sx={{ minHeight: 56 }}>
            A test
          </Button>
          <Button variant="outlined" component={Link} to={`/walk/${siteId}`} sx={{ minHeight: 56 }}>
            The walk
          </Button>
        </Box>
        <Typography sx={{ color: colours.faded }}>All of these work without a connection.</Typography>
        <Box component="ul" aria-label="Zones" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {zones.map((zone) => (
            <ZoneKnown key={zone.id} zone={zone} />
          ))}
        </Box>
        <Typography sx={{ color: colours.faded }}>
          <Link to={stepPath(siteId, 'ground')}>The facts of a zone</Link> are changed with a connection only.
        </Typography>
        {open === 'photo' && <Photos {...props} waiting={waiting} />}
        {open === 'load' && (
          <LoadForm
            siteId={siteId}
            today={props.today}
            what={search.get('what') ?? ''}
            keep={{ ...IDLE, mutate: (input, onKept) => void add(loadToSend(walkerOf(pack), input)).then(onKept) }}
            onClose={close}
          />
        )}
        {open === 'measure' && <Measure {...props} />}
        {open === 'work' && <WithoutCard {...props} />}
      </>
    );
  };
  return (
    <FieldFrame back="/today" title={pack?.site.name} heading>
      <Box sx={{ p: 2, display: 'flex', flexDirection: 'column', gap: 1.25, flex: 1 }}>{body()}</Box>
    </FieldFrame>
  );
}
