import type { Judged } from '@glenfold/agronomy';
import type { ZoneProgramAnswer } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { Words } from '../../ui/Words.tsx';
import { Cautions } from '../../ui/bits.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';

/** Why zones of the same pH get different lime. */
export function Comparisons({ answer }: { readonly answer: ZoneProgramAnswer }) {
  const { comparisons } = answer.program;
  if (comparisons.length === 0) return null;
  return (
    <Box
      component="aside"
      aria-label="Why other zones differ"
      sx={{
        background: colours.slateWash,
        borderLeft: `3px solid ${colours.slate}`,
        px: 2,
        py: 1.25,
        my: 1,
        maxWidth: 640,
      }}
    >
      <Typography variant="h3" gutterBottom>
        Same pH, another answer
      </Typography>
      {comparisons.map(({ otherZone, words, reasons }) => (
        <Box key={otherZone} sx={{ mb: 1 }}>
          <Typography sx={{ fontWeight: 700 }}>{words}</Typography>
          <Box component="ul" sx={{ m: 0, pl: 2.25 }}>
            {reasons.map((reason) => (
              <li key={reason}>{reason}</li>
            ))}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

const standings: Readonly<Record<Judged['status'], string>> = {
  none: 'none',
  refused: 'not here',
  'cannot say': 'cannot say yet',
};

interface RowProps {
  readonly name: string;
  readonly columns: Readonly<Record<'xs' | 'sm', string>>;
  readonly children: ReactNode;
}

/** A line with its name before it. */
function Row({ name, columns, children }: RowProps) {
  return (
    <Box
      component="li"
      sx={{
        display: 'grid',
        gridTemplateColumns: columns,
        columnGap: 3,
        py: 0.75,
        borderTop: `1px solid ${colours.line}`,
      }}
    >
      <Box sx={{ fontWeight: 700 }}>
        <Words>{name}</Words>
      </Box>
      {children}
    </Box>
  );
}

/** What was looked at and is not given: one line each, with its reason. */
export function JudgedRows({ rows }: { readonly rows: readonly Judged[] }) {
  if (rows.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="judged" sx={{ borderTop: `2px solid ${colours.ink}`, mt: 2, pt: 1.5 }}>
      <Typography variant="h2" id="judged" sx={{ fontSize: '1.15rem', mb: 0.5 }}>
        Also looked at
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {rows.map(({ name, status, words, cautions }) => (
          <Row key={name} name={name} columns={{ xs: '1fr 1fr', sm: '118px 132px minmax(0, 1fr)' }}>
            <Box sx={{ color: status === 'refused' ? colours.ochre : colours.faded }}>{standings[status]}</Box>
            <Box sx={{ gridColumn: { xs: '1 / -1', sm: 'auto' }, maxWidth: 640 }}>
              <Words>{words}</Words>
              <Cautions texts={cautions} />
            </Box>
          </Row>
        ))}
      </Box>
    </Box>
  );
}

/** What is other than in the year that is sold to everybody, and why. */
export function AgainstUsual({ usual }: Pick<ZoneProgramAnswer['program'], 'usual'>) {
  const { say } = useUnits();
  if (!usual) return null;
  const { name, differences, saved } = usual;
  return (
    <Box component="section" aria-labelledby="usual" sx={{ borderTop: `2px solid ${colours.ink}`, mt: 2, pt: 1.5 }}>
      <Typography variant="h2" id="usual" sx={{ fontSize: '1.15rem', mb: 0.5 }}>
        Against the usual year, “{name}”
      </Typography>
      {differences.length === 0 && <Typography>Nothing is other than usual here.</Typography>}
      {saved && (
        <Typography component="div">
          What need not be bought of it saves{' '}
          <Opens title="Not bought of the usual year" told={say('money', saved.value)} working={saved.working} />.
        </Typography>
      )}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {differences.map(({ name: what, usual: was, here, why }) => (
          <Row key={what} name={what} columns={{ xs: '1fr', sm: '118px 190px minmax(0, 1fr)' }}>
            <Box>
              {here}
              <Box sx={{ color: colours.faded }}>usually {was}</Box>
            </Box>
            <Box sx={{ maxWidth: 640 }}>
              <Words>{why}</Words>
            </Box>
          </Row>
        ))}
      </Box>
    </Box>
  );
}
