import { type BesideLab, advisedRate, advisedUnitWords, present } from '@glenfold/agronomy';
import type { LabResultAnswer } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import { colours } from './theme.ts';
import { Words } from './Words.tsx';
import { useUnits } from './units.tsx';
import { Opens } from './working.tsx';

type Advised = LabResultAnswer['advised'][number];

interface LabAdviceProps {
  readonly result: Pick<LabResultAnswer, 'advice' | 'advised'>;
  /** The same lines beside our program, where it is at hand. */
  readonly beside?: readonly BesideLab[] | undefined;
}

/** Why ours is another amount, and what need not be bought. */
function Difference({ line: { why, open, saved } }: { readonly line: BesideLab }) {
  const { say } = useUnits();
  if (why.length === 0 && open === null && saved === null) return null;
  return (
    <Box component="ul" sx={{ gridColumn: '1 / -1', m: 0, pl: 2.5, fontSize: '0.92rem' }}>
      {why.map((sentence) => (
        <li key={sentence}>
          <Words>{sentence}</Words>
        </li>
      ))}
      {open && (
        <Box component="li" sx={{ color: colours.ochre, fontWeight: 700 }}>
          <Words>{open}</Words>
        </Box>
      )}
      {saved && (
        <li>
          Need not be bought: about{' '}
          <Opens title="Need not be bought" told={say('money', saved.value)} working={saved.working} />
        </li>
      )}
    </Box>
  );
}

/** What one line of advice says, as it was printed and in the reader’s unit. */
function theirWords(one: Advised, told: (rate: number) => string, us: boolean): string {
  const rate = advisedRate(one);
  const amount =
    rate === undefined || one.unit === null
      ? (one.words ?? '')
      : rate === 0
        ? 'none'
        : `${one.amount} ${advisedUnitWords[one.unit]}${one.unit === 'lb/1000ft2' && us ? '' : ` = ${told(rate)}`}`;
  return [
    amount,
    [one.product ? `of ${one.product}` : '', one.target ? `up to ${one.target}` : ''].filter(Boolean).join(', '),
  ]
    .filter(Boolean)
    .join(' ');
}

/** What the laboratory itself advises, in its own words and amounts, beside ours. */
export function LabAdvice({ result: { advice, advised }, beside }: LabAdviceProps) {
  const { system, say } = useUnits();
  const told = (rate: number): string => present('productRate', rate, system).text;
  if (!advice && advised.length === 0) return null;
  const saved = (beside ?? []).reduce((sum, line) => sum + (line.saved?.value ?? 0), 0);
  return (
    <Box
      component="aside"
      aria-label="The laboratory’s own advice"
      sx={{
        borderLeft: `3px solid ${colours.slate}`,
        background: colours.slateWash,
        px: 2,
        py: 1,
        my: 1,
        maxWidth: 820,
      }}
    >
      <Typography variant="h3">The laboratory’s own advice</Typography>
      {advised.length > 0 && (
        <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
          {advised.map((one, index) => {
            const line = beside?.[index];
            const own = line?.ours ?? null;
            return (
              <Box
                component="li"
                key={index}
                sx={{
                  display: 'grid',
                  gridTemplateColumns: { xs: '1fr', sm: '110px 1fr 1fr' },
                  columnGap: 2,
                  py: 0.5,
                }}
              >
                <strong>{one.what}</strong>
                <span>
                  <Words>{theirWords(one, told, system === 'us')}</Words>
                </span>
                {own !== null && (
                  <span>
                    <Words>{`ours this year: ${own > 0 ? told(own) : 'none'}`}</Words>
                  </span>
                )}
                {line && <Difference line={line} />}
              </Box>
            );
          })}
        </Box>
      )}
      {saved >= 1 && (
        <Typography sx={{ fontWeight: 700 }}>
          Together about {say('money', saved)} of the laboratory’s list need not be bought.
        </Typography>
      )}
      {advice && (
        <Typography sx={{ whiteSpace: 'pre-line' }}>
          <Words>{advice}</Words>
        </Typography>
      )}
    </Box>
  );
}
