import { type ShareLinkAnswer, ShareLinkInput, type SiteAnswer, withReadableDays } from '@glenfold/contract';
import { classValidatorResolver } from '@hookform/resolvers/class-validator';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Controller, useForm } from 'react-hook-form';

import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { colours } from '../../ui/theme.ts';
import { useMay } from '../../ui/session.tsx';
import { CopyLine, Trouble } from '../../ui/bits.tsx';
import { dayOf } from '../../ui/today.ts';
import { reportQueries, useRevokeLink, useShare } from './api.ts';

const spans = [
  [7, 'a week'],
  [30, 'a month'],
  [90, 'three months'],
  [366, 'a year'],
] as const;

const stateWords = { open: 'open until', expired: 'was open until', revoked: 'revoked; was open until' } as const;

function LinkLine({ link }: { readonly link: ShareLinkAnswer }) {
  const revoke = useRevokeLink();
  const { id, purpose, madeBy, expiresAt, state } = link;
  return (
    <Box
      component="li"
      sx={{ display: 'flex', gap: 2, alignItems: 'center', py: 0.75, borderTop: `1px solid ${colours.line}` }}
    >
      <Box sx={{ flex: 1, color: state === 'open' ? colours.ink : colours.faded }}>
        <strong>{purpose}</strong>, {stateWords[state]} {withReadableDays(dayOf(new Date(expiresAt)))}, made by {madeBy}
        <Trouble error={revoke.error} />
      </Box>
      {state === 'open' && (
        <Button size="small" variant="outlined" onClick={() => revoke.mutate(id)} aria-label={`Revoke ${purpose}`}>
          Revoke
        </Button>
      )}
    </Box>
  );
}

/** Addresses that show one site's report, and nothing else, to whoever holds them. */
export function ShareForm({
  site,
  onClose,
}: {
  readonly site: Pick<SiteAnswer, 'id' | 'name'>;
  readonly onClose: () => void;
}) {
  const may = useMay();
  const { data: links = [] } = useQuery(reportQueries.shareLinks(site.id));
  const [made, setMade] = useState<ShareLinkAnswer | null>(null);
  const { control, register, handleSubmit, reset, formState } = useForm<ShareLinkInput>({
    resolver: classValidatorResolver(ShareLinkInput),
    defaultValues: { purpose: '', days: 30 },
  });
  const share = useShare(site.id);
  const make = handleSubmit((input) =>
    share.mutate(input, {
      onSuccess: (link) => {
        setMade(link);
        reset();
      },
    }),
  );
  return (
    <DialogFrame
      title={`Share the report of ${site.name}`}
      onClose={onClose}
      onSubmit={() => void make()}
      actions={
        <>
          <Button onClick={onClose}>Close</Button>
        </>
      }
    >
      <Typography sx={{ mb: 2 }}>
        {may('work.read')
          ? 'Whoever holds the link reads the plans you handed over for this site, with what the products cost, and nothing else. '
          : 'Whoever holds the link reads this report, with its prices, and may answer a quote in your place. It ends on its day, when you take it back, and with your own access. '}
        No password is asked: send it to the one it is for.
      </Typography>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'start', flexWrap: 'wrap' }}>
        <TextField
          {...register('purpose')}
          label="Who it is for"
          error={!!formState.errors.purpose}
          helperText={formState.errors.purpose?.message}
          sx={{ flex: 1, minWidth: 180 }}
        />
        <Controller
          name="days"
          control={control}
          render={({ field }) => (
            <TextField {...field} select label="Opens for" sx={{ width: 140 }}>
              {spans.map(([days, words]) => (
                <MenuItem key={days} value={days}>
                  {words}
                </MenuItem>
              ))}
            </TextField>
          )}
        />
        <Button type="submit" variant="contained" disabled={share.isPending} sx={{ minHeight: 40 }}>
          Make a link
        </Button>
      </Box>
      <Trouble error={share.error} />
      {made?.address && (
        <Box
          role="status"
          sx={{ background: colours.lichenWash, borderLeft: `3px solid ${colours.lichen}`, p: 1.5, mt: 2 }}
        >
          <Typography sx={{ mb: 1 }}>
            The link for {made.purpose}. Copy it now: it is not kept, and cannot be shown again.
          </Typography>
          <CopyLine text={made.address} label="Link" />
        </Box>
      )}
      {links.length > 0 && (
        <Box component="ul" aria-label="Links" sx={{ listStyle: 'none', m: 0, mt: 2, p: 0 }}>
          {links.map((link) => (
            <LinkLine key={link.id} link={link} />
          ))}
        </Box>
      )}
    </DialogFrame>
  );
}
