import type { SiteAnswer } from '@glenfold/contract';
import { Autocomplete, type AutocompleteRenderInputParams, TextField } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { queries } from '../api/queries.ts';
import { useSettled } from './useSettled.ts';

interface SitePickerProps {
  readonly label: string;
  /** Ids of the chosen sites. */
  readonly value: readonly string[];
  readonly onChange: (siteIds: string[]) => void;
  readonly several?: boolean;
  /** What stands there while none is chosen. */
  readonly none?: string;
  readonly problem?: string | undefined;
}

/** Sites chosen by a few letters of their name or place, however many there are. */
export function SitePicker({ label, value, onChange, several = false, none, problem }: SitePickerProps) {
  const [text, setText] = useState('');
  const { data: chosen } = useQuery(queries.sitesNamed(value));
  const asked = useSettled(chosen?.sites.some(({ name }) => name === text) ? '' : text);
  const { data: found, isFetching } = useQuery(queries.sites(asked));
  const own = chosen?.sites ?? [];
  const shared = {
    options: found?.sites ?? [],
    loading: isFetching,
    filterOptions: (options: SiteAnswer[]) => options,
    getOptionLabel: ({ name }: SiteAnswer) => name,
    getOptionKey: ({ id }: SiteAnswer) => id,
    isOptionEqualToValue: (one: SiteAnswer, other: SiteAnswer) => one.id === other.id,
    inputValue: text,
    onInputChange: (_event: unknown, typed: string) => setText(typed),
    noOptionsText: 'No site of this name',
    sx: { minWidth: 260, maxWidth: several ? 720 : 320, flex: '1 1 260px' },
    renderInput: (params: AutocompleteRenderInputParams) => (
      <TextField
        {...params}
        label={label}
        error={!!problem}
        helperText={problem}
        placeholder={own.length === 0 ? none : undefined}
        slotProps={{ ...params.slotProps, inputLabel: { ...params.slotProps.inputLabel, shrink: true } }}
      />
    ),
  };
  return several ? (
    <Autocomplete<SiteAnswer, true>
      {...shared}
      multiple
      value={own}
      onChange={(_event, sites) => onChange(sites.map(({ id }) => id))}
    />
  ) : (
    <Autocomplete<SiteAnswer>
      {...shared}
      value={own[0] ?? null}
      onChange={(_event, site) => onChange(site ? [site.id] : [])}
    />
  );
}
