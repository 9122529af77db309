import { grassWords } from '@glenfold/agronomy';
import type { LabResultAnswer, Step, ZoneAnswer } from '@glenfold/contract';
import { Box } from '@mui/material';
import { useDeferredValue, useEffect, useMemo, useRef } from 'react';
import { Link } from 'react-router';
import { colours } from '../ui/theme.ts';
import { CoreStick } from '../ui/CoreStick.tsx';
import { newestOf, phText } from '../ui/results.ts';
import { useUnits } from '../ui/units.tsx';
import { stepPath } from '../ui/steps.ts';

/** Zones that a tall window shows at once. */
const IN_SIGHT = 30;

/** Height of what stands over the column, px. */
const ABOVE = 158;

/** Scroll a list so that one of its entries is in sight; the page itself stays where it is. */
function bringIn(list: Element, entry: Element): void {
  const [outer, inner] = [list.getBoundingClientRect(), entry.getBoundingClientRect()];
  const by = (from: number, to: number, start: number, end: number): number =>
    start < from ? start - from : Math.max(0, end - to);
  list.scrollTop += by(outer.top, outer.bottom, inner.top, inner.bottom);
  list.scrollLeft += by(outer.left, outer.right, inner.left, inner.right);
}

interface ZoneColumnProps {
  readonly siteId: string;
  readonly step: Step;
  readonly zones: readonly ZoneAnswer[];
  readonly chosen: string | undefined;
  readonly results: readonly LabResultAnswer[];
}

/** The zones as core sticks; the chosen one stays chosen from step to step. */
export function ZoneColumn({ siteId, step, zones, chosen, results }: ZoneColumnProps) {
  const { say } = useUnits();
  // Of hundreds of zones those in sight come first, and the work beside them before the rest.
  const drawn = useDeferredValue(zones, zones.slice(0, IN_SIGHT));
  // The first of a zone is its newest.
  const newest = useMemo(() => new Map(zones.map(({ id }) => [id, newestOf(results, id)])), [zones, results]);
  const column = useRef<HTMLElement>(null);
  useEffect(() => {
    const link = column.current?.querySelector('[aria-current]');
    if (column.current && link) bringIn(column.current, link);
  }, [chosen, drawn]);
  return (
    <Box
      component="nav"
      ref={column}
      aria-label="Zones"
      sx={{
        display: 'flex',
        flexDirection: { xs: 'row', md: 'column' },
        overflowX: 'auto',
        borderBottom: { xs: `1px solid ${colours.line}`, md: 0 },
        // Many zones scroll by themselves: the work beside them stays in sight.
        position: { md: 'sticky' },
        top: 0,
        alignSelf: 'start',
        maxHeight: { md: `max(300px, calc(100vh - ${ABOVE}px))` },
        overflowY: { md: 'auto' },
        // Dressed from here: hundreds of zones with styles of their own take long to draw.
        '& > a': {
          display: 'flex',
          gap: 1.25,
          alignItems: 'center',
          flex: { xs: '0 0 190px', md: 'none' },
          px: 1.5,
          py: 1,
          color: colours.ink,
          textDecoration: 'none',
          borderLeft: '4px solid transparent',
          borderBottom: { md: `1px solid ${colours.line}` },
          contentVisibility: 'auto',
          containIntrinsicHeight: 'auto 75px',
        },
        '& > a[aria-current], & > a:hover': { background: colours.sheet },
        '& > a[aria-current]': { borderLeftColor: colours.ink },
        '& > a > div': { minWidth: 0, lineHeight: 1.25 },
        '& > a > div > div': {
          fontSize: '0.85rem',
          color: colours.faded,
          whiteSpace: 'nowrap',
          overflow: 'hidden',
          textOverflow: 'ellipsis',
        },
      }}
    >
      {drawn.map((zone) => {
        const result = newest.get(zone.id);
        return (
          <Link
            key={zone.id}
            to={stepPath(siteId, step, zone.id)}
            aria-current={zone.id === chosen ? 'true' : undefined}
          >
            <CoreStick zone={zone} result={result} />
            <div>
              <strong>{zone.name}</strong>
              <div>{grassWords(zone.grass, zone.facts.mix)}</div>
              <div>
                {say('area', zone.area)}
                {result && `, pH ${phText(result)}`}
              </div>
            </div>
          </Link>
        );
      })}
    </Box>
  );
}
