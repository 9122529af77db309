import { dateOrders, extractantNames } from '@glenfold/agronomy';
import { type LabProfileAnswer, type LabProfileInput, labProfileInput } from '@glenfold/contract';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { FormDialog } from '../../../ui/FormDialog.tsx';
import { Empty, Trouble } from '../../../ui/bits.tsx';
import { download } from '../../../ui/download.ts';
import { useMay } from '../../../ui/session.tsx';
import { colours } from '../../../ui/theme.ts';
import { useUndo } from '../../../ui/undo.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { labQueries, useSaveWay } from '../api.ts';
import { BufferMethodField, ExtractantField } from '../MethodFields.tsx';
import { ColumnCard } from './ReviewColumns.tsx';

/** A laboratory's way, to be changed. */
function WayForm({ way, onClose }: { readonly way: LabProfileAnswer; readonly onClose: () => void }) {
  const save = useSaveWay();
  const [typed, setTyped] = useState<LabProfileInput>(labProfileInput(way));
  const set = (change: Partial<LabProfileInput>): void => setTyped({ ...typed, ...change });
  return (
    <FormDialog
      title={`How ${way.name} arranges its files`}
      action="Save"
      wide
      onClose={onClose}
      onSave={() => save.mutate({ seen: way, input: typed, onTheirs: onClose }, { onSuccess: onClose })}
      saving={save}
      byField={false}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: { sm: 'repeat(4, 1fr)' }, gap: 2 }}>
        <TextField label="Laboratory" value={typed.name} onChange={(event) => set({ name: event.target.value })} />
        <ExtractantField value={typed.extractant} onChange={(extractant) => set({ extractant })} />
        <BufferMethodField value={typed.bufferMethod} onChange={(bufferMethod) => set({ bufferMethod })} />
        <TextField
          select
          label="Dates like 03/04/2026"
          value={typed.dateOrder ?? ''}
          onChange={(event) => set({ dateOrder: (event.target.value || null) as LabProfileInput['dateOrder'] })}
        >
          <MenuItem value="">as the file tells</MenuItem>
          {dateOrders.map((order) => (
            <MenuItem key={order} value={order}>
              {order}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(136px, 1fr))', gap: 1 }}>
        {typed.columns.map((column, index) => (
          <ColumnCard
            key={`${index} ${column.header}`}
            column={column}
            isFresh={false}
            asksLimit={column.field !== null}
            onChange={({ advised = null, ...changed }) =>
              set({
                columns: typed.columns.map((one, other) =>
                  other === index ? { ...one, ...changed, header: one.header, advised } : one,
                ),
              })
            }
          />
        ))}
      </Box>
    </FormDialog>
  );
}

/** What is kept of each laboratory, how its sample is read today, and the ways out and in. */
export function WaysPage() {
  const { data: ways } = useQuery(labQueries.ways());
  const may = useMay();
  const { say } = useUnits();
  const { remove } = useUndo();
  const save = useSaveWay();
  const [opened, setOpened] = useState<LabProfileAnswer | null>(null);
  const [refusal, setRefusal] = useState<Error | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const takeIn = async (picked: File | undefined): Promise<void> => {
    if (!picked) return;
    setRefusal(null);
    try {
      const read = JSON.parse(await picked.text()) as LabProfileInput;
      save.mutate({ input: labProfileInput(read) });
    } catch {
      setRefusal(new Error(`${picked.name} is no laboratory’s way: choose the JSON file that was exported here.`));
    }
  };
  if (!ways) return null;
  return (
    <Box component="main" sx={{ maxWidth: 900, mx: 'auto', p: 3 }}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, flexWrap: 'wrap', mb: 2 }}>
        <Box sx={{ maxWidth: 560 }}>
          <Typography variant="h1">Laboratories’ ways</Typography>
          <Typography>
            Learned once from a file that you put right, and applied to the next. Each keeps a sample file that is read
            anew whenever you look here.
          </Typography>
        </Box>
        {may('work.write') && (
          <Box>
            <Button variant="outlined" onClick={() => file.current?.click()}>
              Take in a way
            </Button>
            <input
              ref={file}
              type="file"
              accept="application/json,.json"
              hidden
              aria-label="A laboratory’s way"
              onChange={(event) => void takeIn(event.target.files?.[0])}
            />
          </Box>
        )}
      </Box>
      <Trouble error={refusal ?? save.error} />
      {ways.length === 0 && (
        <Empty title="None yet">
          Drop a laboratory’s file in the Lab step of a site, put its columns right, and choose “Keep this way”.
        </Empty>
      )}
      {ways.map((way) => (
        <Box
          component="section"
          key={way.id}
          aria-label={way.name}
          sx={{ borderTop: `1px solid ${colours.faded}`, py: 1.5, display: 'flex', gap: 2, flexWrap: 'wrap' }}
        >
          <Box sx={{ flex: '1 1 420px' }}>
            <Typography variant="h3">{way.name}</Typography>
            <Typography>
              {[
                `${way.columns.filter(({ field, advised }) => field ?? advised).length} of ${way.columns.length} columns read`,
                way.extractant ? extractantNames[way.extractant] : 'extractant as the file says',
                way.depth === null ? '' : `${say('depth', way.depth)} deep`,
                way.dateOrder ? `dates ${way.dateOrder}` : '',
              ]
                .filter(Boolean)
                .join('; ')}
              .
            </Typography>
            {way.trial && (
              <Typography sx={{ color: way.trial.passes ? colours.lichen : colours.ochre, fontWeight: 700 }}>
                {way.trial.passes
                  ? `${way.sample!.fileName} is read as it was kept: ${way.sample!.rows.length} ${way.sample!.rows.length === 1 ? 'sample' : 'samples'}.`
                  : `${way.sample!.fileName} is read otherwise now. ${way.trial.differences.join(' ')}`}
              </Typography>
            )}
          </Box>
          <Box sx={{ display: 'flex', gap: 1, alignItems: 'start' }}>
            <Button
              size="small"
              aria-label={`Export ${way.name}`}
              onClick={() =>
                download(`${way.name}.json`, `${JSON.stringify(labProfileInput(way), null, 2)}\n`, 'application/json')
              }
            >
              Export
            </Button>
            {may('work.write') && (
              <Button size="small" aria-label={`Change ${way.name}`} onClick={() => setOpened(way)}>
                Change
              </Button>
            )}
            {may('work.delete') && (
              <Button
                size="small"
                aria-label={`Delete ${way.name}`}
                onClick={() => remove(`/lab-profiles/${way.id}`, `The way of ${way.name}`)}
              >
                Delete
              </Button>
            )}
          </Box>
        </Box>
      ))}
      {opened && <WayForm key={opened.id} way={opened} onClose={() => setOpened(null)} />}
    </Box>
  );
}
