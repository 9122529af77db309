import {
  capital,
  type Day,
  type DayFlag,
  type DayNumber,
  type DayWord,
  dayFactLabel,
  dayFlags,
  dayNumbers,
  dayWords,
  factsAsked,
  judgeDay,
} from '@glenfold/agronomy';
import type { CardAnswer } from '@glenfold/contract';
import { Box, MenuItem, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';

/** What a verdict says in large letters, and in which colour. */
const looks = {
  go: ['Go', colours.lichen],
  look: ['Look first', colours.slate],
  wait: ['Wait', colours.ochre],
  never: ['Never today', colours.ochre],
} as const;

interface DayVerdictProps {
  readonly card: CardAnswer;
  readonly day: Day;
  readonly onDay: (day: Day) => void;
}

const isNumber = (fact: string): fact is DayNumber => Object.hasOwn(dayNumbers, fact);
const isWord = (fact: string): fact is DayWord => Object.hasOwn(dayWords, fact);

/** What nobody measures on a lawn with a phone in hand: the normals tell it. */
const BY_NORMALS: ReadonlySet<string> = new Set([
  ...['growth', 'growthDays', 'daysToFrost', 'slope', 'bare', 'blackout', 'pulverised', 'fineSeed'],
]);

/** One fact of the day, asked for in the shape it has. */
function Fact({
  fact,
  day,
  onDay,
}: {
  readonly fact: DayNumber | DayWord | DayFlag;
  readonly day: Day;
  readonly onDay: (day: Day) => void;
}) {
  const label = capital(dayFactLabel(fact));
  const set = (value: unknown): void => onDay({ ...day, [fact]: value ?? undefined });
  if (isNumber(fact))
    return (
      <QuantityField
        label={label}
        sense={dayNumbers[fact].sense}
        value={day[fact] ?? null}
        onChange={(value) => set(typeof value === 'number' ? value : undefined)}
      />
    );
  if (isWord(fact))
    return (
      <TextField
        select
        label={label}
        value={day[fact] ?? ''}
        onChange={(event) => set(event.target.value || undefined)}
      >
        <MenuItem value="">not looked at</MenuItem>
        {dayWords[fact].words.map((word) => (
          <MenuItem key={word} value={word}>
            {word}
          </MenuItem>
        ))}
      </TextField>
    );
  const said = day[fact];
  return (
    <Box>
      <Typography sx={{ fontSize: '0.92rem' }}>{capital(dayFlags[fact])}</Typography>
      <ToggleButtonGroup
        exclusive
        value={said === undefined ? null : said ? 'yes' : 'no'}
        onChange={(_event, value: 'yes' | 'no' | null) => set(value === null ? undefined : value === 'yes')}
        aria-label={capital(dayFlags[fact])}
      >
        <ToggleButton value="yes">yes</ToggleButton>
        <ToggleButton value="no">no</ToggleButton>
      </ToggleButtonGroup>
    </Box>
  );
}

/** Go, wait or never: by what the normals tell and what somebody sees on the day. */
export function DayVerdict({ card, day, onDay }: DayVerdictProps) {
  const { system } = useUnits();
  if (!card.windowJob)
    return <Typography>No rule of the day for this work: the label, or the firm that does it, decides.</Typography>;
  const { verdict, reasons, unknown } = judgeDay(card.windowJob, day, card.since, { system });
  // Nothing speaks against it, and not all was looked at.
  const [word, colour] = looks[verdict === 'go' && unknown.length > 0 ? 'look' : verdict];
  const asked = factsAsked(card.windowJob).filter((fact) => !BY_NORMALS.has(fact));
  return (
    <Box sx={{ display: 'grid', gap: 1.5 }}>
      <Box role="status" aria-label="Verdict">
        <Typography
          sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '2.1rem', color: colour, lineHeight: 1.1 }}
        >
          {word}
        </Typography>
        {reasons.map((reason) => (
          <Typography key={reason} sx={{ color: reason.startsWith('Not known') ? colours.faded : colours.ink }}>
            {reason}
          </Typography>
        ))}
      </Box>
      <Box component="details" open={unknown.length > 0}>
        <Box component="summary" sx={{ cursor: 'pointer', fontWeight: 700, py: 1 }}>
          What the day is like
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1.5, pt: 1, alignItems: 'end' }}>
          {asked.map((fact) => (
            <Fact key={fact} fact={fact} day={day} onDay={onDay} />
          ))}
        </Box>
        <Typography sx={{ color: colours.faded, fontSize: '0.92rem', mt: 1 }}>
          Soil warmth and growth stand as an ordinary year has them until you put in your own.
        </Typography>
      </Box>
    </Box>
  );
}
