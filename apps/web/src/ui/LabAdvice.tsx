import { type AdvisedKind, type Treatment, advisedRate, advisedUnitWords, present } from '@glenfold/agronomy';
import type { LabResultAnswer } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import { colours } from './theme.ts';
import { Words } from './Words.tsx';
import { useUnits } from './units.tsx';

type Brought = keyof Treatment['brings'];
/** What of our treatments an advice is to be laid beside: a product of its own, or a nutrient of all of them. */
const ours: Readonly<Partial<Record<AdvisedKind, { readonly remedy: Treatment['remedy'] } | { readonly nutrient: Brought }>>> = {
  lime: { remedy: 'lime' },
  sulfur: { remedy: 'sulfur' },
  gypsum: { remedy: 'gypsum' },
  nitrogen: { nutrient: 'n' },
  phosphate: { nutrient: 'p2o5' },
  potash: { nutrient: 'k2o' },
  magnesium: { nutrient: 'mg' },
}; // prettier-ignore

/** What our program puts down of it in the year, g/m². */
function oursOf(kind: AdvisedKind, treatments: readonly Treatment[]): number | undefined {
  const match = ours[kind];
  if (!match) return undefined;
  if ('nutrient' in match)
    return treatments.reduce((sum, { brings }) => sum + brings[match.nutrient], 0);
  return treatments
    .filter(({ remedy }) => remedy === match.remedy)
    .reduce((sum, { rate }) => sum + (rate?.value ?? 0), 0);
} // prettier-ignore

interface LabAdviceProps {
  readonly result: Pick<LabResultAnswer, 'advice' | 'advised'>;
  /** Of our program, to be laid beside it. */
  readonly treatments?: readonly Treatment[];
}

/** What the laboratory itself advises, in its own words and amounts, beside ours. */
export function LabAdvice({ result: { advice, advised }, treatments }: LabAdviceProps) {
  const { system } = useUnits();
  const told = (rate: number): string => present('productRate', rate, system).text;
  if (!advice && advised.length === 0) return null;
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
        maxWidth: 760,
      }}
    >
      <Typography variant="h3">The laboratory’s own advice</Typography>
      {advised.length > 0 && (
        <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
          {advised.map((one, index) => {
            const [rate, own] = [advisedRate(one), treatments && oursOf(one.what, treatments)];
            const more = [one.product ? `of ${one.product}` : '', one.target ? `up to ${one.target}` : '']
              .filter(Boolean)
              .join(', ');
            return (
              <Box
                component="li"
                key={index}
                sx={{
                  display: 'grid',
                  gridTemplateColumns: { xs: '1fr', sm: '110px 1fr 1fr' },
                  columnGap: 2,
                  py: 0.25,
                }}
              >
                <strong>{one.what}</strong>
                <span>
                  <Words>
                    {[
                      rate === undefined || one.unit === null
                        ? (one.words ?? '')
                        : rate === 0
                          ? 'none'
                          : `${one.amount} ${advisedUnitWords[one.unit]}${one.unit === 'lb/1000ft2' && system === 'us' ? '' : ` = ${told(rate)}`}`,
                      more,
                    ]
                      .filter(Boolean)
                      .join(' ')}
                  </Words>
                </span>
                {own !== undefined && (
                  <span>
                    <Words>{`ours this year: ${own > 0 ? told(own) : 'none'}`}</Words>
                  </span>
                )}
              </Box>
            );
          })}
        </Box>
      )}
      {advice && (
        <Typography sx={{ whiteSpace: 'pre-line' }}>
          <Words>{advice}</Words>
        </Typography>
      )}
    </Box>
  );
}
