import {
  capital,
  InputError,
  type LoadKind,
  judgeLoad,
  loadHeats,
  loadKinds,
  loadSmells,
  loadSources,
} from '@glenfold/agronomy';
import type { LoadCheckAnswer, LoadCheckInput } from '@glenfold/contract';
import { Box, MenuItem, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { FormDialog } from './FormDialog.tsx';
import { NumberField } from './NumberField.tsx';
import { colours } from './theme.ts';

type Seen = Readonly<Record<string, unknown>>;

/** The colour of what a check says. */
export const verdictColour = { 'take it': colours.lichen, 'only for some things': colours.ochre, 'send it back': colours.ochre, 'ask first': colours.slate } as const; // prettier-ignore

interface Asked {
  readonly key: string;
  readonly label: string;
  readonly words?: readonly string[];
  readonly unit?: string;
  readonly yes?: true;
}

const soil: readonly Asked[] = [
  { key: 'source', label: 'From', words: loadSources },
  { key: 'papers', label: 'Papers or an analysis', yes: true },
  { key: 'asOrdered', label: 'As it was ordered', yes: true },
  { key: 'smell', label: 'It smells of', words: loadSmells },
  { key: 'weedSeed', label: 'Roots or seed of weeds in it', yes: true },
  { key: 'rubbish', label: 'Rubbish in it', yes: true },
  { key: 'pieces', label: 'Largest stones or grains', unit: 'mm' },
  { key: 'ec', label: 'EC', unit: 'dS/m' },
];
const asked: Readonly<Record<LoadKind, readonly Asked[]>> = {
  compost: [
    { key: 'source', label: 'Made of', words: loadSources },
    { key: 'papers', label: 'Papers or an analysis', yes: true },
    { key: 'heat', label: 'Inside it is', words: loadHeats },
    { key: 'temperature', label: 'By a thermometer', unit: '°C' },
    { key: 'smell', label: 'It smells of', words: loadSmells },
    { key: 'mature', label: 'Rotted through: nothing can be told apart', yes: true },
    { key: 'pieces', label: 'Largest pieces', unit: 'mm' },
    { key: 'weedSeed', label: 'Weed seed in it', yes: true },
    { key: 'rubbish', label: 'Glass or plastic in it', yes: true },
    { key: 'carbonToNitrogen', label: 'C:N by its papers' },
    { key: 'ec', label: 'EC by its papers', unit: 'dS/m' },
  ],
  topsoil: soil,
  sand: soil,
  fill: soil,
  seed: [
    { key: 'purity', label: 'Purity by the label', unit: '%' },
    { key: 'germination', label: 'Germination', unit: '%' },
    { key: 'weeds', label: 'Weed seed', unit: '%' },
    { key: 'coating', label: 'Coating', unit: '%' },
    { key: 'testedOn', label: 'Tested on' },
    { key: 'noxious', label: 'Noxious weeds on the label', yes: true },
  ],
};

interface LoadFormProps {
  readonly siteId: string;
  readonly today: string;
  readonly opened?: LoadCheckAnswer | undefined;
  /** What is to be brought, where that is known. */
  readonly what?: string;
  /** How it is kept: on the server, or on the device until there is a connection. */
  readonly keep: {
    readonly mutate: (input: LoadCheckInput, onKept: () => void) => void;
    readonly isPending: boolean;
    readonly error: Error | null;
  };
  readonly onClose: () => void;
}

/** A load looked over: what was seen, what it says at once, and what was decided. */
export function LoadForm({ siteId, today, opened, what = '', keep, onClose }: LoadFormProps) {
  const [id] = useState(() => opened?.id ?? crypto.randomUUID());
  const [kind, setKind] = useState<LoadKind>(opened?.kind ?? 'compost');
  const [name, setName] = useState(opened?.name ?? what);
  const [on, setOn] = useState(opened?.on ?? today);
  const [record, setRecord] = useState<Seen>((opened?.record as Seen | undefined) ?? {});
  const [decided, setDecided] = useState<LoadCheckInput['decided']>(opened?.decided ?? null);
  const [reason, setReason] = useState(opened?.reason ?? '');
  const set = (key: string, value: unknown): void =>
    setRecord(Object.fromEntries(Object.entries({ ...record, [key]: value }).filter(([, one]) => one !== undefined && one !== null && one !== '')));
  const judged = (() => {
    try {
      return judgeLoad(kind, record, on);
    } catch (error) {
      if (error instanceof InputError) return error;
      throw error;
    }
  })();
  const save = (): void => keep.mutate({ id, siteId, kind, on, name, record, decided, reason: reason || null }, onClose);
  return (
    <FormDialog title={opened ? `${opened.name}, ${opened.on}` : 'Look a load over'} action="Keep it" wide onClose={onClose} onSave={save} saving={keep} byField={false}>
      <Box sx={{ display: 'grid', gridTemplateColumns: { sm: '150px 1fr 170px' }, gap: 2 }}>
        <TextField select label="What" value={kind} onChange={(event) => setKind(event.target.value as LoadKind)}>
          {loadKinds.map((one) => (
            <MenuItem key={one} value={one}>{one}</MenuItem>
          ))}
        </TextField>
        <TextField label="Whose, and how much" value={name} onChange={(event) => setName(event.target.value)} helperText="Such as yard waste compost, 9 m³, from the depot" autoFocus />
        <TextField type="date" label="On" value={on} onChange={(event) => setOn(event.target.value)} slotProps={{ inputLabel: { shrink: true } }} />
      </Box>
      <Typography sx={{ color: colours.faded }}>Leave open what nobody looked at: it is said, not assumed.</Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr 1fr', sm: 'repeat(3, 1fr)' }, gap: 2 }}>
        {asked[kind].map(({ key, label, words, unit, yes }) =>
          words || yes ? (
            <TextField
              key={key}
              select
              label={label}
              value={yes ? (record[key] === undefined ? '' : record[key] ? 'yes' : 'no') : ((record[key] as string | undefined) ?? '')}
              onChange={(event) => set(key, event.target.value === '' ? undefined : yes ? event.target.value === 'yes' : event.target.value)}
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
            >
              <MenuItem value=""><em>not looked at</em></MenuItem>
              {(words ?? ['yes', 'no']).map((one) => (
                <MenuItem key={one} value={one}>{one}</MenuItem>
              ))}
            </TextField>
          ) : key === 'testedOn' ? (
            <TextField key={key} type="date" label={label} value={(record[key] as string | undefined) ?? ''} onChange={(event) => set(key, event.target.value || undefined)} slotProps={{ inputLabel: { shrink: true } }} />
          ) : (
            <NumberField key={key} label={label} unit={unit} value={(record[key] as number | string | undefined) ?? null} onChange={(value) => set(key, value ?? undefined)} />
          ),
        )}
      </Box>
      {judged instanceof InputError ? (
        <Typography role="alert" sx={{ color: colours.ochre, fontWeight: 700 }}>{`Not right yet: ${judged.message}.`}</Typography>
      ) : (
        <Box role="status" aria-label="What the checks say" sx={{ borderLeft: `5px solid ${verdictColour[judged.verdict]}`, pl: 1.5 }}>
          <Typography sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.25rem' }}>{capital(judged.verdict)}{judged.goodFor.length > 0 ? `: ${judged.goodFor.join('; ')}` : ''}</Typography>
          {judged.reasons.map((words) => (
            <Typography key={words}>{words}</Typography>
          ))}
          {judged.open.length > 0 && <Typography sx={{ color: colours.faded }}>Not looked at: {judged.open.join(', ')}.</Typography>}
        </Box>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: { sm: '220px 1fr' }, gap: 2 }}>
        <TextField select label="Decided" value={decided ?? ''} onChange={(event) => setDecided((event.target.value || null) as typeof decided)} slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}>
          <MenuItem value=""><em>not yet</em></MenuItem>
          {['taken', 'taken for some things', 'sent back'].map((one) => (
            <MenuItem key={one} value={one}>{one}</MenuItem>
          ))}
        </TextField>
        <TextField label="Why" value={reason} onChange={(event) => setReason(event.target.value)} />
      </Box>
    </FormDialog>
  );
} // prettier-ignore
