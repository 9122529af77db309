import { present } from '@glenfold/agronomy';
import { type PriceToldAnswer, type SitePriceAnswer, withReadableDays } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { Words } from './Words.tsx';
import { Cautions } from './bits.tsx';
import { colours } from './theme.ts';

/** What is another since a price was told, line by line down to the price of today. */
function Since({
  told: { on, by, sum, changes },
  what,
  now,
  money,
}: {
  readonly told: PriceToldAnswer;
  /** "Agreed". */
  readonly what: string;
  readonly now: number;
  readonly money: (value: number) => string;
}) {
  const head = withReadableDays(`${what} on ${on}${by ? ` by ${by}` : ''}`);
  if (changes.length === 0)
    return (
      <Typography>
        {head}: <strong>{money(sum)}</strong>. Nothing is another since.
      </Typography>
    );
  const row = { display: 'flex', justifyContent: 'space-between', gap: 2, py: 0.5, maxWidth: 680 } as const;
  const figures = { flex: 'none', fontVariantNumeric: 'tabular-nums', fontWeight: 700 } as const;
  return (
    <Box component="section" aria-label={head} sx={{ mt: 1 }}>
      <Box sx={row}>
        <span>{head}</span>
        <Box component="span" sx={figures}>
          {money(sum)}
        </Box>
      </Box>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {changes.map(({ zone, words, on: since, difference }) => (
          <Box
            component="li"
            key={`${zone} ${words}`}
            sx={{ ...row, borderTop: `1px solid ${colours.line}`, color: colours.slate }}
          >
            <span>
              <Words>{withReadableDays([zone, words].filter(Boolean).join('. ') + (since ? `, ${since}` : ''))}</Words>
            </span>
            <Box component="span" sx={figures}>
              {difference === 0 ? '' : `${money(Math.abs(difference))} ${difference < 0 ? 'less' : 'more'}`}
            </Box>
          </Box>
        ))}
      </Box>
      <Box sx={{ ...row, borderTop: `2px solid ${colours.ink}` }}>
        <span>As it stands</span>
        <Box component="span" sx={figures}>
          {money(now)}
        </Box>
      </Box>
    </Box>
  );
}

/** What the year costs as its owner is told it, and what is another since it was agreed to or written. */
export function YearPrice({
  price: { sum, currency, unpriced, most, quote, report, over },
  children,
}: {
  readonly price: SitePriceAnswer;
  readonly children?: ReactNode;
}) {
  const money = (value: number): string => present('money', value, 'metric', currency).text;
  return (
    <Box component="section" aria-label="The price of the year" sx={{ mb: 3 }}>
      <Typography sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.15rem' }}>
        The year costs {money(sum)}
        {unpriced.length > 0 && (
          <Box component="span" sx={{ fontWeight: 400, fontSize: '1rem' }}>
            , without {unpriced.join('; ')} (no price yet)
            {most !== null && `; at most ${money(most)} with what was agreed for it`}
          </Box>
        )}
      </Typography>
      {quote && <Since told={quote} what="Agreed" now={sum} money={money} />}
      {report && report.sum !== (quote?.sum ?? sum) && (
        <Since told={report} what="Written in the report" now={sum} money={money} />
      )}
      {over.length > 0 && (
        <Cautions
          texts={[`Above what was agreed to at most: ${over.join('; ')}. It is asked first, before it is done.`]}
        />
      )}
      {children}
    </Box>
  );
}
