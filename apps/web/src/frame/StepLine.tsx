import type { Step, StepState } from '@glenfold/contract';
import { Box } from '@mui/material';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { colours } from '../ui/theme.ts';
import { stepNames, stepPath } from '../ui/steps.ts';

const marks: Readonly<Record<StepState['state'], { fill: string; stroke: string; word: string }>> = {
  done: { fill: colours.lichen, stroke: colours.lichen, word: 'done' },
  act: { fill: colours.ochre, stroke: colours.ochre, word: 'to do' },
  waiting: { fill: colours.paper, stroke: colours.faded, word: 'waiting' },
  later: { fill: 'none', stroke: colours.line, word: 'not built yet' },
};

interface StepLineProps {
  readonly siteId: string;
  readonly zoneId: string | undefined;
  readonly current: Step;
  readonly states: readonly StepState[];
}

/** The eight steps on one line, drawn like the graduations of a probe laid on its side. */
export function StepLine({ siteId, zoneId, current, states }: StepLineProps) {
  const line = useRef<HTMLElement>(null);
  useEffect(() => {
    const chosen = line.current?.querySelector<HTMLElement>('[aria-current="step"]');
    if (line.current && chosen) line.current.scrollLeft = chosen.offsetLeft - 60;
  }, [current]);
  return (
    <Box
      component="nav"
      ref={line}
      aria-label="Steps"
      sx={{ overflowX: 'auto', borderBottom: `1px solid ${colours.line}`, background: colours.sheet }}
    >
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: `repeat(${states.length}, minmax(136px, 1fr))`,
          minWidth: 'min-content',
        }}
      >
        {states.map(({ step, words, state }, index) => {
          const { fill, stroke, word } = marks[state];
          const chosen = step === current;
          return (
            <Box
              key={step}
              component={Link}
              to={stepPath(siteId, step, zoneId)}
              aria-current={chosen ? 'step' : undefined}
              aria-label={`${index + 1} ${stepNames[step]}, ${words} (${word})`}
              sx={{
                color: state === 'later' ? colours.faded : colours.ink,
                textDecoration: 'none',
                display: 'block',
                '&:hover .name': { textDecoration: 'underline' },
              }}
            >
              <svg width="100%" height="22" aria-hidden style={{ display: 'block' }}>
                <line x1="0" x2="100%" y1="1" y2="1" stroke={colours.ink} strokeWidth="2" />
                {[0.25, 0.5, 0.75].map((share) => (
                  <line
                    key={share}
                    x1={`${share * 100}%`}
                    x2={`${share * 100}%`}
                    y1="1"
                    y2={share === 0.5 ? 8 : 6}
                    stroke={colours.faded}
                  />
                ))}
                <line
                  x1="14"
                  x2="14"
                  y1="1"
                  y2={chosen ? 22 : 14}
                  stroke={colours.ink}
                  strokeWidth={chosen ? 4 : 1.5}
                />
                <circle cx="27" cy="14" r="4.5" fill={fill} stroke={stroke} strokeWidth="1.6" />
              </svg>
              <Box
                sx={{
                  pl: '11px',
                  pb: 0.75,
                  pr: 0.5,
                  borderLeft: chosen ? `4px solid ${colours.ink}` : '4px solid transparent',
                  ml: '12px',
                  mt: '-1px',
                  paddingLeft: '6px',
                }}
              >
                <Box
                  className="name"
                  sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '0.98rem', lineHeight: 1.15 }}
                >
                  {stepNames[step]}
                </Box>
                <Box
                  sx={{
                    fontSize: '0.8rem',
                    color: state === 'act' ? colours.ochre : colours.faded,
                    fontWeight: state === 'act' ? 700 : 400,
                    whiteSpace: 'nowrap',
                  }}
                >
                  {words}
                </Box>
              </Box>
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
