import type { SectionSum } from '@glenfold/agronomy';
import { Box, Link as MuiLink, Typography } from '@mui/material';
import { Link } from 'react-router';
import { Cautions } from '../../ui/bits.tsx';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';

const names: Readonly<Record<SectionSum['section'], string>> = { now: 'Now', next: 'Next', later: 'Later' };

/** How far the cost of a section goes into its budget. */
function Reach({ cost, budget }: { readonly cost: number; readonly budget: number }) {
  const share = budget > 0 ? cost / budget : Number(cost > 0) * 2;
  const whole = Math.max(1, share);
  return (
    <Box
      role="img"
      aria-label={`${Math.round(share * 100)} % of the budget`}
      sx={{
        position: 'relative',
        height: 12,
        border: `1px solid ${colours.ink}`,
        maxWidth: 260,
        background: colours.sheet,
      }}
    >
      <Box
        sx={{
          width: `${(Math.min(share, 1) / whole) * 100}%`,
          height: '100%',
          background: colours.slate,
          position: 'absolute',
        }}
      />
      {share > 1 && (
        <Box
          sx={{
            position: 'absolute',
            left: `${(1 / whole) * 100}%`,
            right: 0,
            height: '100%',
            background: `repeating-linear-gradient(45deg, ${colours.ochre} 0 3px, ${colours.sheet} 3px 6px)`,
          }}
        />
      )}
    </Box>
  );
}

/** What each section of the ground comes to, against the budget of its year. */
export function SectionTable({
  siteId,
  sections,
}: {
  readonly siteId: string;
  readonly sections: readonly SectionSum[];
}) {
  const { say } = useUnits();
  if (sections.length === 0) return null;
  return (
    <Box component="section" aria-labelledby="sections" sx={{ mt: 3 }}>
      <Typography variant="h1" component="h2" id="sections" sx={{ mb: 0.5 }}>
        Section by section
      </Typography>
      {sections.map(({ section, year, budget, zones, area, cost, unpricedWork, over }) => (
        <Box
          key={section}
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: '1fr', sm: '110px minmax(0, 1fr) 290px' },
            columnGap: 3,
            py: 1,
            borderTop: `1px solid ${colours.line}`,
          }}
        >
          <Box sx={{ fontFamily: 'Bitter, serif', fontWeight: 700 }}>
            {names[section]}
            {year && `, ${year}`}
          </Box>
          <Box>
            {zones.join(', ')} <span style={{ color: colours.faded }}>{say('area', area)}</span>
            {over && <Cautions texts={[over]} />}
            {cost && unpricedWork.length > 0 && (
              <Cautions texts={[`Not in it, for want of a price: ${unpricedWork.join('; ')}.`]} />
            )}
          </Box>
          <Box>
            {cost ? (
              <Opens title={`Section ${section}`} told={say('money', cost.value)} working={cost.working} />
            ) : (
              'cost open'
            )}
            {budget === null ? (
              <MuiLink component={Link} to={`${stepPath(siteId, 'ground')}?view=Sections`} sx={{ ml: 1 }}>
                set a budget
              </MuiLink>
            ) : (
              <>
                {' '}
                of {say('money', budget)}
                {cost && <Reach cost={cost.value} budget={budget} />}
              </>
            )}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
