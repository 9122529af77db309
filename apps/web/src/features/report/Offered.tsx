import { type QuoteAnswer, withReadableDays } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { AnswerQuote } from '../../ui/AnswerQuote.tsx';
import { QuoteLines, QuoteSums } from '../../ui/QuoteLines.tsx';
import { colours } from '../../ui/theme.ts';
import { dayOf } from '../../ui/today.ts';
import { useSay } from './api.ts';

interface OfferedProps {
  /** Address of the report, under which it is answered. */
  readonly under: string;
  readonly quote: QuoteAnswer;
  /** Name of whoever reads it, where it is known. */
  readonly by: string;
}

/** What is offered, for its owner to say yes or no to, line by line. */
export function Offered({ under, quote, by }: OfferedProps) {
  const saying = useSay(under, quote.id);
  const { open, note, offeredAt, validUntil, pdf, state, answeredBy } = quote;
  return (
    <Box
      component="section"
      aria-labelledby="offered"
      sx={{ border: `2px solid ${open ? colours.ochre : colours.line}`, px: { xs: 1.5, sm: 2.5 }, py: 2, mb: 4 }}
    >
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', justifyContent: 'space-between' }}>
        <Typography variant="h2" id="offered">
          {open ? 'Offered to you' : 'The quote'}
        </Typography>
        <Button size="small" href={pdf} target="_blank">
          On paper (PDF)
        </Button>
      </Box>
      <Typography sx={{ mb: 1 }}>
        {withReadableDays(`Of ${dayOf(new Date(offeredAt))}, it stands until ${validUntil}.`)}{' '}
        {open && 'Take each line or leave it; you may change your mind until the practice plans the work.'}
        {state === 'expired' && 'Its days are over: ask the practice for a new one.'}
        {state === 'taken over' && 'Answered, and the work is being planned.'}
      </Typography>
      {note && <Typography sx={{ mb: 1, maxWidth: 680 }}>{note}</Typography>}
      {answeredBy && <Typography sx={{ mb: 1 }}>Last answered by {answeredBy}.</Typography>}
      {open ? (
        <AnswerQuote quote={quote} saying={saying} action="Send the answer" by={by} />
      ) : (
        <>
          <QuoteLines quote={quote} said={{}} />
          <QuoteSums quote={quote} />
        </>
      )}
    </Box>
  );
}
