import type { SchoolRead } from '@glenfold/agronomy';
import type { SchoolsAnswer } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { Words } from '../../ui/Words.tsx';
import { Trouble } from '../../ui/bits.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';
import { NoTest } from '../../ui/NoTest.tsx';
import type { ZoneStepProps } from './ZoneReading.tsx';
import { readingQueries } from './api.ts';

/** Where the schools agree, and where they part. */
function Agreements({ agreements }: { readonly agreements: SchoolsAnswer['agreements'] }) {
  if (agreements.length === 0) return null;
  return (
    <Box
      component="ul"
      aria-label="Where the schools agree"
      sx={{ m: 0, mb: 2, p: 0, listStyle: 'none', display: 'grid', gap: 0.25 }}
    >
      {agreements.map(({ name, agree, words }) => (
        <li key={name}>
          <Box component="span" aria-hidden="true" sx={{ display: 'inline-block', width: 24 }}>
            {agree ? '=' : '≠'}
          </Box>
          <strong>{name}:</strong> {words}.
        </li>
      ))}
    </Box>
  );
}

function School({ school, priced }: { readonly school: SchoolRead; readonly priced: boolean }) {
  const { say } = useUnits();
  const { name, goesBy, chosen, cannot, judged, puts, cost, unpriced } = school;
  return (
    <Box
      component="section"
      aria-label={name}
      sx={{
        borderTop: `3px solid ${chosen ? colours.lichen : colours.line}`,
        pt: 1,
        minWidth: 0,
        background: chosen ? colours.lichenWash : 'none',
        px: 1.5,
        pb: 1.5,
      }}
    >
      <Typography variant="h2" component="h3">
        {name}
      </Typography>
      {chosen && <Typography sx={{ fontWeight: 700, color: colours.lichen }}>This zone is planned by it</Typography>}
      <Typography sx={{ fontSize: '0.9rem', color: colours.faded, minHeight: { md: '4.2em' } }}>
        <Words>{goesBy}</Words>
      </Typography>
      {cannot !== null ? (
        <Typography sx={{ mt: 1, color: colours.ochre, fontWeight: 700 }}>
          <Words>{cannot}</Words>
        </Typography>
      ) : (
        <>
          <Typography variant="h3" component="h4" sx={{ mt: 1 }}>
            How it reads the report
          </Typography>
          <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
            {judged.map(({ key, name: nutrient, word, wants, working }) => (
              <Box
                component="li"
                key={key}
                sx={{ display: 'grid', gridTemplateColumns: '98px 1fr', columnGap: 1, py: 0.2 }}
              >
                <span>{nutrient}</span>
                <Box
                  component="span"
                  sx={{
                    color: wants ? colours.ochre : colours.ink,
                    fontWeight: wants ? 700 : 400,
                    '& button': { fontWeight: 'inherit', textAlign: 'left' },
                  }}
                >
                  {word === null ? (
                    '—'
                  ) : working.length > 0 ? (
                    <Opens title={`${nutrient}, ${name.toLowerCase()}`} told={word} working={working} />
                  ) : (
                    word
                  )}
                </Box>
              </Box>
            ))}
          </Box>
          <Typography variant="h3" component="h4" sx={{ mt: 1.5 }}>
            What it would put down this year
          </Typography>
          {puts.length === 0 ? (
            <Typography>Nothing.</Typography>
          ) : (
            <Box component="ul" sx={{ m: 0, p: 0, listStyle: 'none' }}>
              {puts.map(({ remedy, name: put, told }) => (
                <li key={`${remedy} ${put}`}>
                  {put}: <Words>{told}</Words>
                </li>
              ))}
            </Box>
          )}
          {priced && (
            <Typography sx={{ mt: 1, fontSize: '1.1rem' }}>
              {cost ? (
                <>
                  Costs{' '}
                  <Opens title={`${name}: cost of the year`} told={say('money', cost.value)} working={cost.working} />
                </>
              ) : (
                `No price yet for ${unpriced.join(', ')}`
              )}
            </Typography>
          )}
        </>
      )}
    </Box>
  );
}

/** One report read by every school: its judgement, its program and its price, side by side. */
export function Schools({ site, zone }: ZoneStepProps) {
  const { system } = useUnits();
  const { data, error } = useQuery(readingQueries.schools(zone.id, system));
  if (error) return <Trouble error={error} />;
  if (!data) return <Typography sx={{ color: colours.faded }}>Reading by every school…</Typography>;
  const { schools, agreements, by, priced } = data;
  if (schools.every(({ judged }) => judged.length === 0)) return <NoTest siteId={site.id} zone={zone} />;
  return (
    <Box>
      <Typography variant="h1" component="h2" sx={{ fontSize: '1.5rem' }}>
        {zone.name}: one report, {schools.length === 1 ? 'one school' : `${schools.length} schools`}
      </Typography>
      <Typography sx={{ color: colours.faded, mb: 1 }}>
        The same test and ground; nothing that was changed by hand counts here. {by && <Words>{by}</Words>}{' '}
        <Link to={`/settings/advice?site=${site.id}&zone=${zone.id}`}>Choose or switch off schools</Link>
      </Typography>
      <Agreements agreements={agreements} />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', md: `repeat(${Math.min(schools.length, 4)}, minmax(0, 1fr))` },
          gap: 2,
        }}
      >
        {schools.map((school) => (
          <School key={school.key} school={school} priced={priced} />
        ))}
      </Box>
    </Box>
  );
}
