import { type SettingKind, type SettingValue, settingKinds, settingPlaces } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { type ReactNode, useState } from 'react';

import { Trouble } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { colours } from '../../ui/theme.ts';
import { useUndo } from '../../ui/undo.tsx';
import { type Typing, useTyped } from '../../ui/useTyped.ts';
import { type Scope, useDecision } from './scope.ts';
import { useDecide } from '../../api/decide.ts';

export interface Fill<K extends SettingKind> {
  readonly typed: Typing<SettingValue<K>>;
  readonly set: (change: Partial<Typing<SettingValue<K>>>) => void;
  readonly problem: (field: string) => string | undefined;
}

interface DecidedProps<K extends SettingKind> {
  readonly kind: K;
  readonly scope: Scope;
  /** What a first decision begins with. */
  readonly start: Typing<SettingValue<K>>;
  /** What holds while nobody has decided. */
  readonly general: string;
  readonly name: string;
  readonly children: (fill: Fill<K>) => ReactNode;
}

type FormProps<K extends SettingKind> = DecidedProps<K> & {
  readonly own: { readonly id: string; readonly version: number; readonly value: object } | undefined;
  readonly begin: Typing<SettingValue<K>>;
  readonly onDone: () => void;
};

function DecisionForm<K extends SettingKind>({
  kind,
  scope,
  name,
  own: opened,
  begin,
  onDone,
  children,
}: FormProps<K>) {
  const [own] = useState(opened);
  const saving = useDecide(kind, scope.at === 'zone' ? { zoneId: scope.zoneId } : { siteId: scope.siteId });
  const { mutate, error, isPending } = saving;
  const { remove } = useUndo();
  const may = useMay();
  const Kind = settingKinds[kind] as unknown as new () => SettingValue<K>;
  const { typed, set, problem, check } = useTyped<SettingValue<K>>(Kind, begin, error, 'value.');
  return (
    <Box
      component="form"
      aria-label={name}
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        check((input) => mutate({ seen: own, input, opened: own?.value, onTheirs: onDone }, { onSuccess: onDone }));
      }}
      sx={{ display: 'grid', gap: 2, maxWidth: 980 }}
    >
      {children({ typed, set, problem })}
      <Trouble error={error?.fields.length === 0 ? error : null} />
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button type="submit" variant="contained" disabled={isPending}>
          {own ? 'Save' : `Decide for ${scope.name}`}
        </Button>
        <Button onClick={onDone}>Leave as it was</Button>
        {own && may('work.delete') && (
          <Button onClick={() => remove(`/settings/${own.id}`, name)}>
            {scope.at === 'practice' ? 'Back to the general rule' : 'Take the decision back'}
          </Button>
        )}
      </Box>
    </Box>
  );
}

/** A decision for a scope: what holds and who decided it, and the form to decide otherwise. */
export function Decided<K extends SettingKind>(
  props: DecidedProps<K> & { readonly tell: (value: SettingValue<K>) => ReactNode },
) {
  const { kind, scope, start, general, name, tell } = props;
  const { known, error, own, above } = useDecision(kind, scope);
  const [open, setOpen] = useState(false);
  const may = useMay();
  if (!known) return <Trouble error={error} />;
  const holds = own ?? above;
  const here = scope.at === 'practice' || settingPlaces[kind].includes(scope.at);
  const whose = own
    ? `Decided for ${scope.name}`
    : above
      ? `Decided for ${above.zoneId ? 'the zone' : above.siteId ? 'the site' : 'the whole practice'}`
      : 'General';
  return (
    <Box component="section" aria-label={name} sx={{ borderTop: `2px solid ${colours.ink}`, pt: 1.5, mb: 4 }}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'baseline', flexWrap: 'wrap', mb: 1 }}>
        <Typography variant="h2">{name}</Typography>
        <Typography sx={{ color: own ? colours.slate : colours.faded }}>{whose}</Typography>
        {!open && here && may('work.write') && (
          <Button size="small" variant="outlined" onClick={() => setOpen(true)} aria-label={`Change: ${name}`}>
            {own ? 'Change' : scope.at === 'practice' ? 'Decide' : `Decide otherwise for ${scope.name}`}
          </Button>
        )}
      </Box>
      {!here && !open && (
        <Typography sx={{ color: colours.faded, mb: 1 }}>
          {settingPlaces[kind].length === 0
            ? 'This stands for the whole practice.'
            : 'This is decided for a site or the whole practice.'}
        </Typography>
      )}
      {open ? (
        <DecisionForm
          {...props}
          own={own}
          begin={(holds?.value as Typing<SettingValue<K>> | undefined) ?? start}
          onDone={() => setOpen(false)}
        />
      ) : (
        <Box sx={{ maxWidth: 860 }}>
          {holds ? tell(holds.value as SettingValue<K>) : <Typography>{general}</Typography>}
        </Box>
      )}
    </Box>
  );
}

interface RowsProps<R> {
  readonly rows: readonly R[];
  readonly onRows: (rows: R[]) => void;
  readonly fresh: R;
  readonly another: string;
  readonly columns: string;
  readonly label: (row: R, at: number) => string;
  readonly children: (row: R, at: number, set: (change: Partial<R>) => void) => ReactNode;
}

/** A list of records of one form: one a row, to be left out and added. */
export function Rows<R extends object>({ rows, onRows, fresh, another, columns, label, children }: RowsProps<R>) {
  return (
    <>
      {rows.map((row, at) => (
        <Box key={at} sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: `${columns} auto` }, gap: 1.5 }}>
          {children(row, at, (change) =>
            onRows(rows.map((one, index) => (index === at ? { ...one, ...change } : one))),
          )}
          <Button
            onClick={() => onRows(rows.filter((_, index) => index !== at))}
            aria-label={`Leave out ${label(row, at)}`}
          >
            Leave out
          </Button>
        </Box>
      ))}
      <Box>
        <Button variant="outlined" size="small" onClick={() => onRows([...rows, fresh])}>
          {another}
        </Button>
      </Box>
    </>
  );
}
