import type { RuleThatBinds } from '@glenfold/agronomy';
import { Box, Typography } from '@mui/material';
import { Link } from 'react-router';
import { Words } from '../../ui/Words.tsx';
import { colours } from '../../ui/theme.ts';

interface RulesThatBindProps {
  readonly rules: readonly RuleThatBinds[] | undefined;
  /** Where the rules of the place are written down. */
  readonly to?: string | undefined;
}

/** The rules of the place that bind in this program; none is claimed to be law. */
export function RulesThatBind({ rules = [], to }: RulesThatBindProps) {
  if (rules.length === 0) return null;
  return (
    <Box
      component="aside"
      aria-label="Rules of the place that bind here"
      sx={{ borderLeft: `3px solid ${colours.ochre}`, pl: 2, py: 0.5, my: 1.5, maxWidth: 820 }}
    >
      <Typography variant="h3">Rules of the place that bind here</Typography>
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
        {rules.map(({ key, words }) => (
          <li key={key}>
            <Words>{words}</Words>
          </li>
        ))}
      </Box>
      <Typography sx={{ fontSize: '0.9rem', color: colours.faded }}>
        Check your local rule: this is what the practice has written down, and the law of the place comes first.{' '}
        {to && <Link to={to}>What is written down</Link>}
      </Typography>
    </Box>
  );
}
