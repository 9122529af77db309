import type { SeasonZoneAnswer } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import { Opens } from '../../ui/working.tsx';
import { spanWords } from '../../ui/days.ts';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';

const row = { borderTop: `1px solid ${colours.line}`, py: 1 } as const;

/** Water and mowing of a zone: this week and the next by normals, a sowing by day. */
export function Care({ zone }: { readonly zone: SeasonZoneAnswer }) {
  const { say } = useUnits();
  const { water, mowing, seedWater, firstCut } = zone;
  return (
    <Box component="section" aria-label="Water and mowing">
      <Typography variant="h2" sx={{ mb: 0.5 }}>
        Water and mowing
      </Typography>
      {seedWater.length > 0 && (
        <Box sx={row}>
          <strong>New seed</strong>
          {seedWater.map(({ from, to, words }) => (
            <Box key={from}>
              {spanWords(from, to)}: {words}
            </Box>
          ))}
          {firstCut && <Box>{firstCut}</Box>}
        </Box>
      )}
      {water.map(({ week, water: amount, use, rain, words, working }, index) => (
        <Box key={week} sx={row}>
          <strong>{index === 0 ? 'This week' : 'Next week'}</strong>
          {amount > 0 ? (
            <>
              {': '}
              <Opens title="Water of the week" told={say('rainfall', amount)} working={working} />
              {`. The grass uses ${say('rainfall', use)}, rain brings ${say('rainfall', rain)}. `}
            </>
          ) : (
            `: the grass uses ${say('rainfall', use)}, rain brings ${say('rainfall', rain)}. `
          )}
          {words}
        </Box>
      ))}
      {water.length === 0 && (
        <Typography sx={row}>
          Water is reckoned once the place has its climate and its position: set both under “About the site”.
        </Typography>
      )}
      {mowing && (
        <Box sx={row}>
          <strong>Mowing</strong>: {mowing}
        </Box>
      )}
    </Box>
  );
}
