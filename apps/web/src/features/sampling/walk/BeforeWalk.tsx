import { Box, Button, Checkbox, FormControlLabel, Typography } from '@mui/material';
import { colours } from '../../../ui/theme.ts';

const checks = [
  'The bucket is clean plastic: a galvanised or used one spoils zinc and more',
  'Buried lines and irrigation are marked on the ground; where they are not, ask before any core',
  'The soil is not wet or frozen: a handful crumbles',
  'Every core goes to the same depth',
] as const;
const advice = [
  'Push aside thatch, mulch and stones first: they are not soil.',
  'Clay sticks in the tube: a wipe of cooking oil helps. Never a penetrating oil, it spoils the test.',
  'No probe? A spade: cut a hole, then an even slice from its side, as thick above as below.',
  'Keep off spots where a bag was spilled, and out of drip lines that are no zone of their own.',
] as const;

interface BeforeWalkProps {
  readonly cores: number;
  readonly seen: readonly string[];
  readonly onSeen: (seen: readonly string[]) => void;
  readonly onStart: () => void;
}

/** What is checked before the first core. */
export function BeforeWalk({ cores, seen, onSeen, onStart }: BeforeWalkProps) {
  const left = checks.filter((words) => !seen.includes(words)).length;
  return (
    <Box sx={{ p: 2, display: 'flex', flexDirection: 'column', gap: 1, flex: 1 }}>
      <Typography variant="h1">Before the first core</Typography>
      {checks.map((words) => (
        <FormControlLabel
          key={words}
          sx={{ m: 0, py: 0.75, borderTop: `1px solid ${colours.line}`, alignItems: 'flex-start', gap: 1 }}
          control={
            <Checkbox
              sx={{ p: 0.5, '& svg': { fontSize: 32 } }}
              checked={seen.includes(words)}
              onChange={({ target }) => onSeen(target.checked ? [...seen, words] : seen.filter((one) => one !== words))}
            />
          }
          label={<Box sx={{ fontSize: '1.1rem', lineHeight: 1.3, pt: 0.5 }}>{words}</Box>}
        />
      ))}
      <Box component="ul" sx={{ m: 0, pl: 2.5, fontSize: '0.98rem', color: colours.faded }}>
        {advice.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </Box>
      <Box sx={{ flex: 1 }} />
      <Button variant="contained" sx={{ minHeight: 68, fontSize: '1.3rem' }} disabled={left > 0} onClick={onStart}>
        {left > 0 ? `${left} still to check` : `Walk ${cores === 1 ? '1 core' : `${cores} cores`}`}
      </Button>
    </Box>
  );
}
