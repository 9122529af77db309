import { SoilLayer, type ZoneAnswer, layerMaterials, newestFirst, withReadableDays } from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import DeleteIcon from '@mui/icons-material/DeleteOutlined';
import { Box, Button, IconButton, MenuItem, TextField, Typography } from '@mui/material';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { Controller, type DefaultValues, type FieldValues, useForm } from 'react-hook-form';
import { colours } from '../../../ui/theme.ts';
import { QuantityField } from '../../../ui/QuantityField.tsx';
import { Trouble } from '../../../ui/bits.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { useFacts } from './useFacts.ts';

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

interface EntriesProps<T extends object> {
  readonly title: string;
  readonly empty: string;
  readonly entries: readonly T[];
  readonly tell: (entry: T) => ReactNode;
  readonly onRemove: (entry: T) => void;
  readonly form: (close: () => void) => ReactNode;
  readonly action: string;
}

function Entries<T extends object>({ title, empty, entries, tell, onRemove, form, action }: EntriesProps<T>) {
  const [adding, setAdding] = useState(false);
  return (
    <Box component="section" sx={{ mb: 2.5 }}>
      <Typography variant="h3" sx={{ mb: 0.5 }}>
        {title}
      </Typography>
      {entries.length === 0 && <Typography sx={{ color: colours.faded }}>{empty}</Typography>}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {entries.map((entry, index) => (
          <Box
            component="li"
            key={index}
            sx={{ display: 'flex', alignItems: 'center', borderBottom: `1px solid ${colours.line}`, py: 0.25 }}
          >
            <Box sx={{ flex: 1, lineHeight: 1.3 }}>{tell(entry)}</Box>
            <IconButton size="small" aria-label="Take it out" onClick={() => onRemove(entry)}>
              <DeleteIcon fontSize="small" />
            </IconButton>
          </Box>
        ))}
      </Box>
      {adding ? (
        form(() => setAdding(false))
      ) : (
        <Button size="small" variant="outlined" sx={{ mt: 1 }} onClick={() => setAdding(true)}>
          {action}
        </Button>
      )}
    </Box>
  );
}

interface EntryFormProps<T extends FieldValues> {
  readonly kind: new () => T;
  readonly fresh: DefaultValues<T>;
  readonly onAdd: (entry: T) => void;
  readonly onClose: () => void;
  readonly children: (form: ReturnType<typeof useForm<T>>) => ReactNode;
}

function EntryForm<T extends FieldValues>({ kind, fresh, onAdd, onClose, children }: EntryFormProps<T>) {
  const form = useForm<T>({ resolver: classValidatorResolver(kind) as never, defaultValues: fresh });
  const add = form.handleSubmit((entry) => {
    onAdd({ ...entry });
    onClose();
  });
  return (
    <form onSubmit={(event) => void add(event)} noValidate>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        {children(form)}
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Button type="submit" size="small" variant="contained">
            Add it
          </Button>
          <Button size="small" onClick={onClose}>
            Cancel
          </Button>
        </Box>
      </Box>
    </form>
  );
}

const dateHelp = 'Such as 2019, 2019-05 or 2019-05-20';

/** What was spread over the soil, and what the logbook has of before. */
export function SoilHistory({ zone }: { readonly zone: ZoneAnswer }) {
  const { facts, change, saving } = useFacts(zone);
  const { say } = useUnits();
  const { layers } = facts;
  const without = <T,>(entries: readonly T[] | null | undefined, entry: T): T[] =>
    (entries ?? []).filter((other) => other !== entry);
  return (
    <>
      <Entries
        title="Laid over the soil"
        empty="Nothing is known of fill, topsoil, sand or compost. Ask who built here."
        entries={newestFirst(layers ?? [])}
        tell={({ material, depth, on, note }) => (
          <>
            <strong>
              {say('depth', depth)} {material}
            </strong>
            {on ? `, ${withReadableDays(on)}` : ', date not known'}
            {note && <Box sx={{ color: colours.faded, fontSize: '0.92rem' }}>{note}</Box>}
          </>
        )}
        onRemove={(layer) => change({ layers: without(layers, layer) })}
        action="Add a layer"
        form={(close) => (
          <EntryForm<SoilLayer>
            kind={SoilLayer}
            fresh={{ material: 'topsoil' }}
            onAdd={(layer) => change({ layers: [...(layers ?? []), layer] })}
            onClose={close}
          >
            {({ control, register, formState: { errors } }) => (
              <>
                <Controller
                  name="material"
                  control={control}
                  render={({ field }) => (
                    <TextField {...field} select label="Layer">
                      {layerMaterials.map((material) => (
                        <MenuItem key={material} value={material}>
                          {capital(material)}
                        </MenuItem>
                      ))}
                    </TextField>
                  )}
                />
                <Controller
                  name="depth"
                  control={control}
                  render={({ field }) => (
                    <QuantityField
                      label="Depth"
                      sense="depth"
                      value={field.value}
                      onChange={field.onChange}
                      problem={errors.depth?.message}
                    />
                  )}
                />
                <TextField
                  {...register('on', { setValueAs: (value: string) => value || null })}
                  label="When"
                  error={!!errors.on}
                  helperText={errors.on?.message ?? dateHelp}
                />
                <TextField {...register('note')} label="Note" error={!!errors.note} helperText={errors.note?.message} />
              </>
            )}
          </EntryForm>
        )}
      />
      <Box component="section" sx={{ mb: 2.5 }}>
        <Typography variant="h3" sx={{ mb: 0.5 }}>
          Put down before
        </Typography>
        {zone.applied.length === 0 && (
          <Typography sx={{ color: colours.faded }}>
            Nothing is known of lime, fertilizer or weedkiller. The laboratory’s form asks for the last of them.
          </Typography>
        )}
        <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {newestFirst(zone.applied).map(({ kind, on, words, rate, cce }, index) => (
            <Box
              component="li"
              key={index}
              sx={{ borderBottom: `1px solid ${colours.line}`, py: 0.5, lineHeight: 1.3 }}
            >
              <strong>{capital(kind)}</strong>, {withReadableDays(on)}
              <Box sx={{ color: colours.faded, fontSize: '0.92rem' }}>
                {words}
                {rate != null && `, ${say('limeRate', rate)}`}
                {kind === 'lime' && cce != null && ` at ${say('percent', cce)} CCE`}
                {kind === 'lime' && rate == null && ': no amount, so the lime rate does not count it'}
              </Box>
            </Box>
          ))}
        </Box>
        <Button component={Link} to={`/sites/${zone.siteId}/logbook`} size="small" variant="outlined" sx={{ mt: 1 }}>
          Add or mend it in the logbook
        </Button>
      </Box>
      <Trouble error={saving.error} />
    </>
  );
}
