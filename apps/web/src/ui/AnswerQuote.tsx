import type { QuoteAnswer, QuoteAnswersInput, QuoteWord } from '@glenfold/contract';
import { Box, Button, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { ApiProblem } from '../api/client.ts';
import { QuoteLines, QuoteSums } from './QuoteLines.tsx';
import { Trouble } from './bits.tsx';

interface Saying {
  readonly mutate: (input: QuoteAnswersInput, then: { readonly onSuccess: () => void }) => void;
  readonly isPending: boolean;
  readonly error: Error | null;
}

/** A quote to be answered line by line, by its owner or by whoever writes down what the owner says. */
export function AnswerQuote({
  quote,
  saying,
  action,
  by: known,
}: {
  readonly quote: QuoteAnswer;
  readonly saying: Saying;
  readonly action: string;
  /** Who decides, where that is known. */
  readonly by: string;
}) {
  const [said, setSaid] = useState<Readonly<Record<string, QuoteWord>>>({});
  const [by, setBy] = useState(quote.answeredBy ?? known);
  const [words, setWords] = useState(quote.answerWords ?? '');
  const [ceilings, setCeilings] = useState<Readonly<Record<string, string>>>({});
  const open = new Set(quote.lines.flatMap(({ id, priceOpen }) => (priceOpen ? [id] : [])));
  /** "$80" or "80"; what is no number goes as it is, and is refused in words. */
  const money = (typed = ''): number | null => {
    const plain = typed.replace(quote.currency, '').replace(/[\s,]/g, '');
    return plain === '' ? null : ((Number.isNaN(Number(plain)) ? typed : Number(plain)) as number);
  };
  const answered = quote.lines.filter(({ id, answer }) => said[id] ?? answer).length;
  const faults = saying.error instanceof ApiProblem ? saying.error.fields : [];
  const fault = (field: string): string | undefined => faults.find((one) => one.field === field)?.message;
  const send = (): void =>
    saying.mutate(
      {
        lines: Object.entries(said).map(([id, answer]) => ({
          ...{ id, answer },
          ...(answer === 'accepted' && open.has(id) ? { ceiling: money(ceilings[id]) } : {}),
        })),
        by,
        words: words || null,
        version: quote.version,
      },
      { onSuccess: () => setSaid({}) },
    );
  return (
    <Box
      component="form"
      aria-label="Answer to the quote"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      <Button
        size="small"
        variant="outlined"
        sx={{ mb: 1 }}
        onClick={() =>
          setSaid({
            ...said,
            ...Object.fromEntries(
              quote.lines.filter(({ priceOpen }) => !priceOpen).map(({ id }) => [id, 'accepted'] as const),
            ),
          })
        }
      >
        {quote.lines.some(({ priceOpen }) => priceOpen) ? 'Yes to all that has a price' : 'Yes to all'}
      </Button>
      <QuoteLines
        quote={quote}
        said={said}
        onSay={(id, answer) => setSaid({ ...said, [id]: answer })}
        ceilings={ceilings}
        onCeiling={(id, typed) => setCeilings({ ...ceilings, [id]: typed })}
      />
      <QuoteSums quote={quote} />
      <Box sx={{ display: 'grid', gap: 1.5, gridTemplateColumns: { xs: '1fr', sm: '240px 1fr auto' }, maxWidth: 860 }}>
        <TextField
          label="Who decides"
          required
          value={by}
          onChange={(event) => setBy(event.target.value)}
          error={!!fault('by')}
          helperText={fault('by')}
        />
        <TextField
          label="Words to the practice"
          value={words}
          onChange={(event) => setWords(event.target.value)}
          error={!!fault('words')}
          helperText={fault('words')}
        />
        <Button type="submit" variant="contained" disabled={saying.isPending || Object.keys(said).length === 0}>
          {action}
        </Button>
      </Box>
      <Typography role="status" sx={{ mt: 0.5 }}>
        {answered} of {quote.lines.length} answered
        {Object.keys(said).length > 0 ? ', not sent yet.' : '.'}
      </Typography>
      <Trouble error={faults.some(({ field }) => field === 'by' || field === 'words') ? null : saying.error} />
    </Box>
  );
}
