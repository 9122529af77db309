import { climateTable } from '@glenfold/agronomy';
import { type NormalsInput, type SiteAnswer, SiteInput, siteInput } from '@glenfold/contract';
import { Autocomplete, Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { useSaveSite } from '../../api/changes.ts';
import { Fields, FormDialog } from '../../ui/FormDialog.tsx';
import { NumberField } from '../../ui/NumberField.tsx';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { colours } from '../../ui/theme.ts';
import { useSession } from '../../ui/session.tsx';
import { useTyped } from '../../ui/useTyped.ts';

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const empty = (): NormalsInput => ({ low: Array(12).fill(null) as number[], high: Array(12).fill(null) as number[], rain: Array(12).fill(null) as number[], source: '' }); // prettier-ignore
const lines = [
  ['low', 'Mean low', 'temperature'],
  ['high', 'Mean high', 'temperature'],
  ['rain', 'Rain', 'rainfall'],
] as const;

/** Where a site lies, which day it is there, and what its year is like. */
export function PlaceForm({ site: opened, onClose }: { readonly site: SiteAnswer; readonly onClose: () => void }) {
  const [site] = useState(opened);
  const { practice } = useSession();
  const saving = useSaveSite();
  const { typed, set, problem, check } = useTyped(SiteInput, siteInput(site), saving.error);
  const send = (input: SiteInput): void =>
    saving.mutate({ seen: site, input, opened: siteInput(site), onTheirs: onClose }, { onSuccess: onClose });
  const [longitude = null, latitude = null] = (typed.position ?? []) as Array<number | string | null>;
  const setPosition = (change: Array<number | string | null>): void =>
    set({ position: change.every((part) => part === null) ? null : (change as never) });
  const normals = typed.normals;
  const setMonth = (key: 'low' | 'high' | 'rain', month: number, value: number | string | null): void =>
    set({ normals: { ...normals!, [key]: normals![key].map((one, at) => (at === month ? value : one)) } });
  const pick = climateTable.climates.find(({ name }) => name === typed.climate);
  return (
    <>
      <FormDialog
        title={`Place and climate of ${site.name}`}
        action="Save"
        onClose={onClose}
        onSave={() => check(send)}
        saving={saving}
        wide
      >
        <Fields columns={3}>
          <Autocomplete
            options={Intl.supportedValuesOf('timeZone')}
            value={typed.timeZone ?? null}
            onChange={(_event, timeZone) => set({ timeZone })}
            renderInput={(params) => (
              <TextField
                {...params}
                label="Time zone"
                error={!!problem('timeZone')}
                helperText={problem('timeZone') ?? `Empty: that of the practice, ${practice?.timeZone}`}
              />
            )}
          />
          <NumberField
            label="Latitude"
            unit="° N"
            value={latitude}
            onChange={(value) => setPosition([longitude, value])}
            problem={problem('position')}
            helperText="Minus south of the equator; where the ground is drawn, it is known"
          />
          <NumberField
            label="Longitude"
            unit="° E"
            value={longitude}
            onChange={(value) => setPosition([value, latitude])}
            helperText="Minus west of Greenwich"
          />
        </Fields>
        <TextField
          select
          label="Climate class"
          value={typed.climate ?? ''}
          onChange={(event) => set({ climate: event.target.value || null })}
          helperText={
            problem('climate') ??
            (pick
              ? `${pick.what}. Made-up normals: they stand in until you have the place’s own.`
              : 'Stands in until there are normals; not known: nothing is assumed')
          }
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        >
          <MenuItem value="">not known</MenuItem>
          {climateTable.climates.map(({ name, what }) => (
            <MenuItem key={name} value={name}>
              {name}: {what}
            </MenuItem>
          ))}
        </TextField>
        {normals ? (
          <>
            <Typography variant="h3">Normals of its own</Typography>
            <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, columnGap: 4 }}>
              {[0, 6].map((from) => (
                <Box
                  key={from}
                  sx={{
                    display: 'grid',
                    gridTemplateColumns: '40px repeat(3, minmax(0, 1fr))',
                    columnGap: 1.5,
                    alignItems: 'start',
                  }}
                >
                  <span />
                  {lines.map(([key, label]) => (
                    <Box key={key} sx={{ color: colours.faded, fontSize: '0.88rem' }}>
                      {label}
                    </Box>
                  ))}
                  {MONTHS.slice(from, from + 6).map((name, index) => [
                    <Box key={name} sx={{ pt: 0.5 }}>
                      {name}
                    </Box>,
                    ...lines.map(([key, label, sense]) => (
                      <QuantityField
                        key={`${name} ${key}`}
                        variant="standard"
                        sense={sense}
                        value={normals[key][from + index]}
                        onChange={(value) => setMonth(key, from + index, value)}
                        problem={problem(`normals.${key}.${from + index}`)}
                        aria-label={`${label} of ${name}`}
                      />
                    )),
                  ])}
                </Box>
              ))}
            </Box>
            {lines.map(
              ([key]) =>
                problem(`normals.${key}`) && (
                  <Typography key={key} role="alert">
                    {problem(`normals.${key}`)}
                  </Typography>
                ),
            )}
            <Fields columns={3}>
              <TextField
                label="Of which station, of which years"
                value={normals.source}
                onChange={(event) => set({ normals: { ...normals, source: event.target.value } })}
                error={!!problem('normals.source')}
                helperText={problem('normals.source')}
              />
              {(['lastFrost', 'firstFrost'] as const).map((key) => (
                <TextField
                  key={key}
                  label={key === 'lastFrost' ? 'Common last frost, month-day' : 'Common first frost, month-day'}
                  value={normals[key] ?? ''}
                  onChange={(event) => set({ normals: { ...normals, [key]: event.target.value || null } })}
                  error={!!problem(`normals.${key}`)}
                  helperText={problem(`normals.${key}`) ?? 'Such as 04-20'}
                />
              ))}
            </Fields>
            <Box>
              <Button onClick={() => set({ normals: null })}>Leave the normals out</Button>
            </Box>
          </>
        ) : (
          <Box>
            <Button variant="outlined" size="small" onClick={() => set({ normals: empty() })}>
              Enter normals of its own
            </Button>
          </Box>
        )}
      </FormDialog>
    </>
  );
}
