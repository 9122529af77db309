import type { Degree, Ranked, RankedLimit } from '@glenfold/agronomy';
import { Box, Button, Typography } from '@mui/material';
import { useState } from 'react';
import { colours } from '../../ui/theme.ts';
import { Words } from '../../ui/Words.tsx';

/** Plans handed over before degrees were told have none. */
const marks: Readonly<Record<Degree, readonly [filled: number, words: string]>> = {
  small: [1, 'a little'],
  clear: [2, 'clearly'],
  severe: [3, 'severely'],
};

/** How much it limits, as marks of a probe: one, two or three; open where it is only suspected. */
function Mark({ degree, standing }: Pick<RankedLimit, 'degree' | 'standing'>) {
  const [filled, words] = marks[degree];
  const open = standing === 'suspected';
  return (
    <svg width="22" height="16" role="img" aria-label={words} style={{ flex: 'none', marginTop: 4 }}>
      {[0, 1, 2].map((index) => (
        <rect
          key={index}
          x={1 + index * 7}
          y={10 - index * 4}
          width="5"
          height={5 + index * 4}
          fill={index < filled && !open ? colours.ochre : 'none'}
          stroke={index < filled ? colours.ochre : colours.line}
          strokeDasharray={open ? '2 1.5' : undefined}
        />
      ))}
    </svg>
  );
}

const standings = { measured: 'measured', seen: 'by what was seen', suspected: 'suspected' } as const;

/** What speaks for it or against it, with its points. */
function Pieces({ head, pieces }: { readonly head: string; readonly pieces: RankedLimit['for'] }) {
  if (pieces.length === 0) return null;
  return (
    <div>
      <strong>{head}</strong>{' '}
      <Words>{pieces.map(({ words, points }) => `${words} (${Math.abs(points)})`).join('; ')}</Words>.
    </div>
  );
}

function Limit({ limit, first }: { readonly limit: RankedLimit; readonly first: boolean }) {
  const { label, degree, standing, what, evidence, remedy, cost, costMeans, shows, after, doubt, check } = limit;
  return (
    <Box component="li" sx={{ display: 'flex', gap: 1.25, py: 0.6, fontSize: first ? '1rem' : '0.95rem' }}>
      <Mark degree={degree} standing={standing} />
      <Box sx={{ minWidth: 0 }}>
        <span>
          <strong>
            {label}
            {standing === 'measured' ? '' : `, ${standings[standing]}`}.
          </strong>{' '}
          {!first && (
            <>
              <Words>{what}</Words>{' '}
            </>
          )}
          <Box component="span" sx={{ color: colours.faded }}>
            <Words>{evidence}</Words>
          </Box>
        </span>
        {after.length > 0 && (
          <Box sx={{ color: colours.ochre, fontWeight: 700 }}>First: {after.join(', ').toLowerCase()}.</Box>
        )}
        <Box
          component="details"
          sx={{ '& summary': { cursor: 'pointer', color: colours.slate, width: 'fit-content' } }}
        >
          <summary>
            <Words>{`Remedy: ${remedy}`}</Words>
          </summary>
          <Box sx={{ display: 'grid', gap: 0.25, py: 0.5, pl: 1.5, borderLeft: `2px solid ${colours.line}` }}>
            <div>
              <strong>Costs</strong> {cost}: {costMeans}. <strong>Shows</strong> <Words>{shows}</Words>.
            </div>
            <Pieces head="For it:" pieces={limit.for} />
            <Pieces head="Against it:" pieces={limit.against} />
            {doubt && (
              <div>
                <strong>Weighs less:</strong> <Words>{doubt}</Words>
              </div>
            )}
            {check && (
              <div>
                <strong>What settles it:</strong> <Words>{`${check.what} (${check.effort}). ${check.settles}`}</Words>
              </div>
            )}
          </Box>
        </Box>
      </Box>
    </Box>
  );
}

/** Limits that are shown at once; all that are more than small are. */
const AT_ONCE = 5;

/** What limits a zone, most first, each with its evidence, its remedy and what comes before it. */
export function Limits({ ranked: { limits, setAside } }: { readonly ranked: Ranked }) {
  const [all, setAll] = useState(false);
  const count = Math.max(AT_ONCE, limits.filter(({ degree }) => degree !== 'small').length);
  // One more is not folded away: its line takes no more room than the button.
  const shown = all || limits.length <= count + 1 ? limits : limits.slice(0, count);
  const folded = limits.slice(shown.length);
  return (
    <>
      {limits.length > 0 && (
        <Box
          component="ol"
          aria-label="What limits this zone, most first"
          sx={{ m: 0, mt: 1, mb: 1, p: 0, listStyle: 'none', maxWidth: 780 }}
        >
          {shown.map((limit, index) => (
            <Limit key={limit.key} limit={limit} first={index === 0} />
          ))}
        </Box>
      )}
      {(folded.length > 0 || all) && (
        <Button size="small" sx={{ ml: -1, mb: 1, textAlign: 'left' }} aria-expanded={all} onClick={() => setAll(!all)}>
          {all ? 'The first ones only' : `And a little: ${folded.map(({ label }) => label.toLowerCase()).join(', ')}`}
        </Button>
      )}
      {setAside.length > 0 && (
        <Typography sx={{ fontSize: '0.92rem', color: colours.faded, maxWidth: 780, mb: 1 }}>
          <strong>Looked into and set aside. </strong>
          <Words>
            {setAside
              .map(({ label, against }) => `${label}: ${against.map(({ words }) => words).join('; ')}`)
              .join('. ')}
          </Words>
          .
        </Typography>
      )}
    </>
  );
}
