import type { Degree, Limitation } from '@glenfold/agronomy';
import { Box } from '@mui/material';
import { colours } from '../../ui/theme.ts';
import { Words } from '../../ui/Words.tsx';

/** Plans handed over before degrees were told have none. */
const marks: Readonly<Record<Degree, readonly [filled: number, words: string]>> = {
  small: [1, 'a little'],
  clear: [2, 'clearly'],
  severe: [3, 'severely'],
};

/** How much it limits, as marks of a probe: one, two or three. */
function Mark({ degree }: { readonly degree: Degree }) {
  const [filled, words] = marks[degree];
  return (
    <svg width="22" height="16" role="img" aria-label={words} style={{ flex: 'none', marginTop: 4 }}>
      {[0, 1, 2].map((index) => (
        <rect
          key={index}
          x={1 + index * 7}
          y={10 - index * 4}
          width="5"
          height={5 + index * 4}
          fill={index < filled ? colours.ochre : 'none'}
          stroke={index < filled ? colours.ochre : colours.line}
        />
      ))}
    </svg>
  );
}

/** What limits a zone, most first, each with its evidence. */
export function Limits({ limits }: { readonly limits: readonly Limitation[] }) {
  if (limits.length === 0) return null;
  return (
    <Box
      component="ol"
      aria-label="What limits this zone, most first"
      sx={{ m: 0, mt: 1, mb: 1.5, p: 0, listStyle: 'none', maxWidth: 760 }}
    >
      {limits.map(({ key, degree, what, evidence }, index) => (
        <Box
          component="li"
          key={key}
          sx={{ display: 'flex', gap: 1.25, py: 0.4, fontSize: index === 0 ? '1rem' : '0.95rem' }}
        >
          <Mark degree={degree} />
          <span>
            {index > 0 && (
              <strong>
                <Words>{what}</Words>{' '}
              </strong>
            )}
            <Box component="span" sx={{ color: colours.faded }}>
              <Words>{evidence}</Words>
            </Box>
          </span>
        </Box>
      ))}
    </Box>
  );
}
