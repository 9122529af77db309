import { type QuoteAnswer, QuoteInput, type QuoteState, withReadableDays } from '@glenfold/contract';
import { Box, Button, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { AnswerQuote } from '../../ui/AnswerQuote.tsx';
import { FormDialog } from '../../ui/FormDialog.tsx';
import { NumberField } from '../../ui/NumberField.tsx';
import { QuoteLines, QuoteSums } from '../../ui/QuoteLines.tsx';
import { YearPrice } from '../../ui/YearPrice.tsx';
import { Cautions, Trouble } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { colours } from '../../ui/theme.ts';
import { dayOf } from '../../ui/today.ts';
import { useUnits } from '../../ui/units.tsx';
import { useTyped } from '../../ui/useTyped.ts';
import { ratesQueries, useOffer, useSayFor, useTakeOver, useWithdraw } from './api.ts';

const DAYS = 30;
const told: Readonly<Record<QuoteState, string>> = {
  open: 'waits for its owner',
  answered: 'is answered: take the answers over',
  'taken over': 'is in the program',
  withdrawn: 'was withdrawn',
  expired: 'was not answered in time',
};

interface OfferProps {
  readonly siteId: string;
  /** What has no price yet, by name and zone. */
  readonly open: readonly string[];
}

/** Offer the program as it stands: for how long, and in what words. */
export function OfferButton({ siteId, open: unpriced }: OfferProps) {
  const [open, setOpen] = useState(false);
  const may = useMay();
  if (!may('work.write')) return null;
  return (
    <>
      <Button variant="outlined" onClick={() => setOpen(true)}>
        Offer as a quote
      </Button>
      {open && <OfferDialog siteId={siteId} open={unpriced} onClose={() => setOpen(false)} />}
    </>
  );
}

function OfferDialog({ siteId, open, onClose }: OfferProps & { readonly onClose: () => void }) {
  const { system } = useUnits();
  const offer = useOffer(siteId, system);
  const { typed, set, problem, check } = useTyped(QuoteInput, { days: DAYS, note: null }, offer.error);
  return (
    <FormDialog
      title="Offer the program as a quote"
      action="Offer it"
      onClose={onClose}
      onSave={() => check((input) => offer.mutate(input, { onSuccess: onClose }))}
      saving={offer}
      small
    >
      <Typography>
        Its owner reads it in the report, by account or by link, and says yes or no to each line. What was offered
        before is withdrawn.
      </Typography>
      {open.length > 0 && (
        <Cautions
          texts={[`No price yet, and offered so: ${open.join('; ')}. Set them first, or agree on them by word.`]}
        />
      )}
      <NumberField
        label="Stands for"
        unit="days"
        value={typed.days}
        onChange={(days) => set({ days: days as number })}
        problem={problem('days')}
      />
      <TextField
        label="Note to the owner"
        value={typed.note ?? ''}
        onChange={(event) => set({ note: event.target.value })}
        error={!!problem('note')}
        helperText={problem('note')}
        multiline
        minRows={2}
      />
    </FormDialog>
  );
}

/** A quote that stands: what was said to it, and what comes of that. */
function Standing({ quote }: { readonly quote: QuoteAnswer }) {
  const may = useMay();
  const take = useTakeOver(quote.id);
  const withdraw = useWithdraw(quote.id);
  const say = useSayFor(quote.id);
  const [writing, setWriting] = useState(false);
  const { state, offeredAt, validUntil, answeredBy, answerWords, lines, open, pdf } = quote;
  const declined = lines.filter(({ answer }) => answer === 'declined').length;
  const done = state === 'taken over';
  return (
    <Box
      component="section"
      aria-label="The quote"
      sx={{ borderLeft: `3px solid ${done ? colours.lichen : colours.slate}`, px: 1.5, py: 0.5, mb: 2 }}
    >
      <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'baseline' }}>
        <Typography sx={{ flex: '1 1 320px' }}>
          The quote of {withReadableDays(dayOf(new Date(offeredAt)))} <strong>{told[state]}</strong>
          {open && `, until ${withReadableDays(validUntil)}`}.
          {answeredBy &&
            ` ${answeredBy}: ${lines.filter(({ answer }) => answer === 'accepted').length} yes, ${declined} no.`}
          {answerWords && ` “${answerWords}”`}
        </Typography>
        <Button size="small" href={pdf} target="_blank">
          On paper (PDF)
        </Button>
        {may('work.write') && open && (
          <Button size="small" onClick={() => setWriting(!writing)}>
            {writing ? 'Close the answers' : 'Write down the answers'}
          </Button>
        )}
        {may('work.write') && answeredBy && !done && (
          <Button size="small" variant="contained" disabled={take.isPending} onClick={() => take.mutate(undefined)}>
            {declined > 0 ? `Leave out what was declined (${declined})` : 'Take it over'}
          </Button>
        )}
        {may('work.write') && !done && (
          <Button size="small" disabled={withdraw.isPending} onClick={() => withdraw.mutate(undefined)}>
            Withdraw
          </Button>
        )}
      </Box>
      <Trouble error={take.error ?? withdraw.error} />
      {writing && open ? (
        <AnswerQuote quote={quote} saying={say} action="Keep the answers" by={answeredBy ?? ''} />
      ) : (
        <Box component="details" sx={{ '& > summary': { cursor: 'pointer', color: colours.slate } }}>
          <summary>What was offered</summary>
          <QuoteLines quote={quote} said={{}} />
          <QuoteSums quote={quote} />
        </Box>
      )}
    </Box>
  );
}

/**
 * What its owner was told that the year costs, beside what the program comes to now.
 * @param now of the program as it stands; nothing while something has no price
 */
export function PriceTold({ siteId, now }: { readonly siteId: string; readonly now: number | null }) {
  const { say } = useUnits();
  const { data } = useQuery(ratesQueries.price(siteId));
  const price = data?.price;
  if (!price) return null;
  const differs = now !== null && Math.abs(now - price.sum) >= 0.005;
  return (
    <Box
      component="details"
      open={differs || price.over.length > 0}
      sx={{ mb: 2, '& > summary': { cursor: 'pointer', color: colours.slate } }}
    >
      <summary>What its owner was told it costs: {say('money', price.sum)}</summary>
      <YearPrice price={price}>
        {differs && (
          <Typography sx={{ color: colours.ochre, mt: 1 }}>
            The program below comes to {say('money', now)}. Its owner reads of the difference once it is handed over, or
            offered anew.
          </Typography>
        )}
      </YearPrice>
    </Box>
  );
}

/** What is offered of a site’s program; nothing while nothing is. */
export function SiteQuote({ siteId }: { readonly siteId: string }) {
  const { data } = useQuery(ratesQueries.quote(siteId));
  return data?.quote ? <Standing key={data.quote.id} quote={data.quote} /> : null;
}
