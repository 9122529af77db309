import type { AuditEntryAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useInfiniteQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { colours } from '../../ui/theme.ts';
import { More } from '../../ui/More.tsx';
import { Words } from '../../ui/Words.tsx';
import { Trouble } from '../../ui/bits.tsx';
import { type NamesById, fieldName, fieldValue } from '../../ui/recordWords.ts';
import { useUnits } from '../../ui/units.tsx';
import { practiceQueries } from './api.ts';

const deeds = {
  add: 'added',
  change: 'changed',
  delete: 'deleted',
  restore: 'brought back',
  erase: 'erased the client of',
} as const;

const kinds: Readonly<Record<string, string>> = {
  'bag custody': 'where a bag is,',
  bag: 'bag',
  'calendar link': 'calendar address',
  'core tap': 'touch of a walk',
  entry: 'logbook entry:',
  'field test': 'test of our own,',
  'ground feature': 'thing on the plan',
  'history import': 'history',
  'lab import': 'laboratory’s file',
  'lab profile': 'laboratory’s way,',
  'lab question': 'question to a laboratory',
  'lab report': 'laboratory’s file',
  'sample zone': 'zone of a sample,',
  'lab result': 'result of',
  'load check': 'load at the gate,',
  plan: 'plan of',
  prediction: 'what is foretold of',
  membership: 'member',
  setting: 'decision:',
  sample: 'sample',
  'share link': 'share link',
  'site date': 'date to be ready for:',
  underlay: 'image under the plan',
  'zone photo': 'photo',
};

function Values({ entry, named }: { readonly entry: AuditEntryAnswer; readonly named: NamesById }) {
  const { say } = useUnits();
  const { before, after } = entry;
  const fields = Object.keys(after ?? before ?? {});
  const told = (values: AuditEntryAnswer['after'], field: string): string =>
    fieldValue(field, values?.[field], say, named);
  return (
    <Box
      component="dl"
      sx={{
        display: 'grid',
        gridTemplateColumns: 'minmax(110px, 160px) minmax(0, 1fr)',
        columnGap: 2,
        m: 0,
        mt: 0.5,
        fontSize: '0.95rem',
      }}
    >
      {fields.map((field) => [
        <Box component="dt" key={field} sx={{ color: colours.faded }}>
          {fieldName(field)}
        </Box>,
        <Box component="dd" key={`${field} value`} sx={{ m: 0, overflowWrap: 'anywhere' }}>
          {before && after ? (
            <>
              <Words>{told(before, field)}</Words> →{' '}
              <strong>
                <Words>{told(after, field)}</Words>
              </strong>
            </>
          ) : (
            <Words>{told(after ?? before, field)}</Words>
          )}
        </Box>,
      ])}
    </Box>
  );
}

/** What people call the record where its own name would not tell: a bag by its code. */
function nameOf({ kind, recordId, before, after }: AuditEntryAnswer, named: NamesById): string | undefined {
  if (kind === 'bag') return named.get(recordId);
  const bagId = (after ?? before)?.bagId;
  return kind === 'bag custody' && typeof bagId === 'string' ? named.get(bagId) : undefined;
}

function Entry({ entry, named }: { readonly entry: AuditEntryAnswer; readonly named: NamesById }) {
  const [open, setOpen] = useState(entry.action === 'change');
  const { at, by, action, kind, recordName } = entry;
  const name = nameOf(entry, named) ?? named.get(recordName) ?? recordName;
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', sm: '132px minmax(0, 1fr) auto' },
        columnGap: 2,
        py: 1,
        borderTop: `1px solid ${colours.line}`,
      }}
    >
      <Box sx={{ color: colours.faded, fontSize: '0.92rem' }}>
        {new Date(at).toLocaleString([], { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })}
      </Box>
      <Box>
        <strong>{by}</strong> {deeds[action]} {kinds[kind] ?? kind}
        {name && (
          <>
            {' '}
            <strong>{name}</strong>
          </>
        )}
        {open && <Values entry={entry} named={named} />}
      </Box>
      {action !== 'change' && (
        <Button size="small" sx={{ minHeight: 26, py: 0 }} onClick={() => setOpen(!open)} aria-expanded={open}>
          {open ? 'Less' : 'All of it'}
        </Button>
      )}
    </Box>
  );
}

/** Who changed which record, when, from what to what. */
export function Changes() {
  const pages = useInfiniteQuery({ ...practiceQueries.audit(), staleTime: 0 });
  const { data, error } = pages;
  const entries = useMemo(() => data?.pages.flatMap((page) => page.entries) ?? [], [data]);
  const named = useMemo(
    () =>
      new Map([
        ...entries.map(({ recordId, recordName }) => [recordId, recordName] as const),
        ...(data?.pages.flatMap(({ names }) => Object.entries(names)) ?? []),
      ]),
    [entries, data],
  );
  return (
    <>
      <Typography sx={{ mb: 2, maxWidth: 680 }}>
        Written by the database with each change, and by nobody’s hand: it cannot be altered or left out. Where a client
        was erased, figures are left.
      </Typography>
      <Trouble error={error} />
      <Box component="ol" aria-label="Changes, newest first" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {entries.map((entry) => (
          <Entry key={entry.id} entry={entry} named={named} />
        ))}
      </Box>
      <More pages={pages}>Earlier changes</More>
    </>
  );
}
