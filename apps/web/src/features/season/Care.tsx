import type { WaterWeek } from '@glenfold/agronomy';
import type { SeasonZoneAnswer } from '@glenfold/contract';
import { Box, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Opens } from '../../ui/working.tsx';
import { spanWords, weekDays } from '../../ui/days.ts';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { seasonQueries } from './api.ts';

const row = { borderTop: `1px solid ${colours.line}`, py: 1 } as const;

/** What a week asks for, in a line that opens to its working. */
function Week({ name, of }: { readonly name: string; readonly of: WaterWeek }) {
  const { say } = useUnits();
  const { water, use, rain, words, working } = of;
  const uses = `the grass uses ${say('watering', use)}, rain brings ${say('watering', rain)}. `;
  return (
    <Box sx={row}>
      <strong>{name}</strong>
      {': '}
      {water > 0 ? (
        <>
          <Opens title="Water of the week" told={say('watering', water)} working={working} />
          {` is missing: ${uses}`}
        </>
      ) : (
        uses
      )}
      {words}
    </Box>
  );
}

const span = (monday: string): string => spanWords(monday, weekDays(monday)[6]!);

/** Water and mowing of a zone: this week and the next by normals, any other week that is asked for, a sowing by day. */
export function Care({ siteId, zone }: { readonly siteId: string; readonly zone: SeasonZoneAnswer }) {
  const { system } = useUnits();
  const { water, driest, mowing, seedWater, firstCut, sod } = zone;
  const [day, setDay] = useState('');
  const { data } = useQuery(seasonQueries.water(siteId, zone.zoneId, day, system));
  const other = day === '' ? driest : (data?.week ?? null);
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
      {sod && (
        <Box sx={row}>
          <strong>Sod</strong>
          {sod.water.map(({ from, to, words }) => (
            <Box key={from}>
              {from === to ? spanWords(from, from) : spanWords(from, to)}: {words}
            </Box>
          ))}
          {sod.words.map((words) => (
            <Box key={words}>{words}</Box>
          ))}
        </Box>
      )}
      {water.map((week, index) => (
        <Week key={week.week} name={index === 0 ? 'This week' : 'Next week'} of={week} />
      ))}
      {other && (
        <Week
          name={day === '' ? `The driest week of an ordinary year, ${span(other.week)}` : `Week of ${span(other.week)}`}
          of={other}
        />
      )}
      {water.length > 0 && (
        <TextField
          type="date"
          size="small"
          label="Another week, by a day in it"
          value={day}
          onChange={(event) => setDay(event.target.value)}
          slotProps={{ inputLabel: { shrink: true } }}
          sx={{ mt: 0.5, mb: 1.5, width: 230 }}
        />
      )}
      {water.length === 0 && (
        <Typography sx={row}>
          Water is reckoned once the place has its climate and its position: set both under “People, access, climate”.
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
