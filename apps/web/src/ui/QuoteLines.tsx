import type { QuoteAnswer, QuoteLineAnswer, QuoteWord } from '@glenfold/contract';
import { Box, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { present } from '@glenfold/agronomy';
import { Words } from './Words.tsx';
import { Cautions } from './bits.tsx';
import { colours } from './theme.ts';

interface QuoteLinesProps {
  readonly quote: QuoteAnswer;
  /** What is being said, by line. */
  readonly said: Readonly<Record<string, QuoteWord>>;
  /** Nothing where it can only be read. */
  readonly onSay?: ((id: string, answer: QuoteWord) => void) | undefined;
  /** What a line with an open price may cost at most, as it is typed. */
  readonly ceilings?: Readonly<Record<string, string>>;
  readonly onCeiling?: (id: string, typed: string) => void;
}

const verdicts: Readonly<Record<QuoteWord, string>> = { accepted: 'yes', declined: 'no' };

function Line({
  line,
  quote,
  said,
  onSay,
  ceilings = {},
  onCeiling,
}: Omit<QuoteLinesProps, 'said'> & { readonly line: QuoteLineAnswer; readonly said: QuoteWord | null }) {
  const { id, name, amount, words, when, caution, price, ceiling, priceOpen } = line;
  return (
    <Box
      component="li"
      aria-label={`${name}, ${line.zone}`}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr auto', sm: 'minmax(0, 1fr) 150px 90px 120px' },
        columnGap: 2,
        rowGap: 0.5,
        py: 1,
        borderTop: `1px solid ${colours.line}`,
        ...(said === 'declined' ? { color: colours.faded } : {}),
      }}
    >
      <Box sx={{ gridColumn: { xs: '1 / -1', sm: 'auto' } }}>
        <strong>
          <Words>{name}</Words>
        </strong>
        {amount && (
          <>
            {', '}
            <Words>{amount}</Words>
          </>
        )}
        <Box sx={{ fontSize: '0.93rem', maxWidth: 620 }}>
          <Words>{words}</Words>
          {caution && <Cautions texts={[caution]} />}
          {onSay && priceOpen && said === 'accepted' && (
            <TextField
              size="small"
              label={`Yes, up to (${quote.currency})`}
              value={ceilings[id] ?? (ceiling === null ? '' : String(ceiling))}
              onChange={(event) => onCeiling?.(id, event.target.value)}
              helperText="Its price is open: what it may cost at most"
              sx={{ mt: 1, maxWidth: 320 }}
            />
          )}
        </Box>
      </Box>
      <Box>{when}</Box>
      <Box sx={{ textAlign: 'right', fontVariantNumeric: 'tabular-nums' }}>
        {price === null
          ? quote.total === null
            ? ''
            : 'price open'
          : present('money', price, 'metric', quote.currency).text}
        {ceiling !== null && `, up to ${present('money', ceiling, 'metric', quote.currency).text}`}
      </Box>
      {onSay ? (
        <ToggleButtonGroup
          exclusive
          size="small"
          value={said}
          aria-label={`Answer to ${name}, ${line.zone}`}
          onChange={(_event, next: QuoteWord | null) => next && onSay(id, next)}
          sx={{ alignSelf: 'start', justifySelf: 'end', gridColumn: { xs: '1 / -1', sm: 'auto' } }}
        >
          {(['accepted', 'declined'] as const).map((answer) => (
            <ToggleButton key={answer} value={answer} sx={{ px: 1.5, textTransform: 'none' }}>
              {verdicts[answer]}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      ) : (
        <Box
          sx={{
            textAlign: 'right',
            color: said === 'accepted' ? colours.lichen : said === 'declined' ? colours.ochre : colours.faded,
          }}
        >
          {said ?? 'not answered'}
        </Box>
      )}
    </Box>
  );
}

/** What is offered, zone by zone, each line with its price and its answer. */
export function QuoteLines({ quote, said, onSay, ceilings, onCeiling }: QuoteLinesProps) {
  const zones = [...new Set(quote.lines.map(({ zone }) => zone))];
  return zones.map((zone) => (
    <Box key={zone} component="section" aria-label={`Offered for ${zone}`} sx={{ mb: 1.5 }}>
      <Typography variant="h3" sx={{ mb: 0.5 }}>
        {zone}
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {quote.lines
          .filter((line) => line.zone === zone)
          .map((line) => (
            <Line
              key={line.id}
              line={line}
              quote={quote}
              said={said[line.id] ?? line.answer}
              onSay={onSay}
              {...(ceilings && onCeiling ? { ceilings, onCeiling } : {})}
            />
          ))}
      </Box>
    </Box>
  ));
}

/** What it comes to: all of it, and what of it is accepted. */
export function QuoteSums({ quote }: Pick<QuoteLinesProps, 'quote'>) {
  const { visits, total, unpriced, accepted, ceilings, currency } = quote;
  const money = (value: number): string => present('money', value, 'metric', currency).text;
  return (
    <Typography component="div" sx={{ my: 1 }}>
      {total !== null && (
        <>
          {unpriced > 0 ? 'What has a price' : 'All of it'} <strong>{money(total)}</strong>
          {unpriced > 0 &&
            `; ${unpriced === 1 ? 'one line has' : `${unpriced} lines have`} none yet: ask before you say yes`}
        </>
      )}
      {visits !== null && `, with ${money(visits)} of visits whatever is accepted`}
      {accepted !== null && (
        <>
          {'. Accepted: '}
          <strong>{money(accepted)}</strong>
          {ceilings !== null && `, and at most ${money(ceilings)} more for what has no price yet`}
        </>
      )}
      .
    </Typography>
  );
}
