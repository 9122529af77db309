import type { BesideCell, BesideRow } from '@glenfold/agronomy';
import type { BesideZoneAnswer, SiteReadingsAnswer } from '@glenfold/contract';
import PrintIcon from '@mui/icons-material/Print';
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Fragment, useState } from 'react';
import { useNavigate } from 'react-router';
import { Words } from '../../ui/Words.tsx';
import { Trouble } from '../../ui/bits.tsx';
import { placeOnBar } from '../../ui/placeOnBar.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';
import { ShadedPlan } from './ShadedPlan.tsx';
import type { ZoneStepProps } from './ZoneReading.tsx';
import { readingQueries } from './api.ts';

const BAR = 104;

/** A value on its own words, small: where it lies, its shadow, and what is wanted. */
function SmallBar({ bar, spread }: BesideCell) {
  const { limits, scale, figure, acts } = bar;
  if (!limits) return null;
  const steps = scale?.words.length ?? limits.length + 1;
  const wanted = scale?.wanted ?? 2;
  const x = (value: number): number => (placeOnBar(value, limits) / steps) * BAR;
  return (
    <svg width={BAR} height="12" aria-hidden="true" style={{ display: 'block' }}>
      <rect y="4" width={BAR} height="5" fill={colours.line} opacity="0.45" />
      <rect
        x={(wanted / steps) * BAR}
        y="4"
        width={BAR / steps}
        height="5"
        fill={colours.lichenWash}
        stroke={colours.lichen}
        strokeWidth="0.8"
      />
      {spread && (
        <rect
          x={x(spread.low)}
          y="3"
          width={Math.max(2, x(spread.high) - x(spread.low))}
          height="7"
          fill={colours.ink}
          opacity="0.18"
        />
      )}
      <path d={`M${x(figure.value)} 12l-4 -8v-3h8v3z`} fill={acts ? colours.ochre : colours.ink} />
    </svg>
  );
}

function Cell({ cell, name }: { readonly cell: BesideCell | null; readonly name: string }) {
  if (!cell) return <Box sx={{ color: colours.faded }}>—</Box>;
  const { bar, told, word, difference } = cell;
  return (
    <Box sx={{ '& button': { fontWeight: bar.acts ? 700 : 400 } }}>
      <Opens title={name} told={told} working={bar.figure.working} />
      <SmallBar {...cell} />
      <Box sx={{ fontSize: '0.82rem', color: bar.acts ? colours.ochre : colours.faded }}>
        {word ?? (bar.unrated ? 'not rated' : '')}
      </Box>
      {difference && (
        <Box
          sx={{
            fontSize: '0.82rem',
            fontWeight: difference.differs ? 700 : 400,
            color: difference.differs ? colours.ink : colours.faded,
          }}
        >
          {difference.told}
          {difference.differs === false ? ', by chance' : ''}
        </Box>
      )}
    </Box>
  );
}

type Sort = { readonly key: string; readonly down: boolean } | null;

/** Zones in the order of a row, or as they are walked; what was not measured last. */
function sorted(zones: readonly BesideZoneAnswer[], rows: readonly BesideRow[], sort: Sort): BesideZoneAnswer[] {
  const row = rows.find(({ key }) => key === sort?.key);
  if (!sort || !row) return [...zones];
  const value = (zoneId: string): number | undefined =>
    row.cells.find((cell) => cell?.zoneId === zoneId)?.bar.figure.value;
  return [...zones].sort((one, other) => {
    const [a, b] = [value(one.zoneId), value(other.zoneId)];
    if (a === undefined || b === undefined) return Number(a === undefined) - Number(b === undefined);
    return sort.down ? b - a : a - b;
  });
}

const cellOf = (row: BesideRow, zoneId: string): BesideCell | null =>
  row.cells.find((cell) => cell?.zoneId === zoneId) ?? null;

/** The word under which each zone stands in the row that is sorted by: runs of the same word are one group. */
function groupsOf(zones: readonly BesideZoneAnswer[], row: BesideRow | undefined) {
  if (!row) return [];
  const groups: Array<{ word: string; count: number }> = [];
  for (const { zoneId } of zones) {
    const word = cellOf(row, zoneId)?.word ?? 'not measured';
    const last = groups.at(-1);
    if (last?.word === word) last.count += 1;
    else groups.push({ word, count: 1 });
  }
  return groups;
}

interface GridProps {
  readonly answer: SiteReadingsAnswer;
  readonly sort: Sort;
  readonly onSort: (sort: Sort) => void;
  readonly shaded: string | undefined;
  readonly onShade: (key: string) => void;
  readonly chosen: string;
  readonly onChoose: (zoneId: string) => void;
}

function Grid({ answer: { zones, rows }, sort, onSort, shaded, onShade, chosen, onChoose }: GridProps) {
  const order = sorted(zones, rows, sort);
  const groups = groupsOf(
    order,
    rows.find(({ key }) => key === sort?.key),
  );
  const number = (zoneId: string): number => zones.findIndex((zone) => zone.zoneId === zoneId) + 1;
  const edge = `1px solid ${colours.line}`;
  const fixed = { position: 'sticky', left: 0, background: colours.paper, zIndex: 1 } as const;
  const turn = (key: string): Sort =>
    sort?.key !== key ? { key, down: false } : sort.down ? null : { key, down: true };
  return (
    <Box sx={{ overflowX: 'auto', border: edge, background: colours.sheet }}>
      <Box
        component="table"
        sx={{
          borderCollapse: 'collapse',
          minWidth: '100%',
          '& td, & th': { p: 0.75, textAlign: 'left', verticalAlign: 'top' },
        }}
      >
        <caption style={{ position: 'absolute', width: 1, height: 1, overflow: 'hidden', clipPath: 'inset(50%)' }}>
          Every zone, measure by measure
        </caption>
        <thead>
          <tr>
            <Box
              component="th"
              scope="col"
              sx={{ ...fixed, minWidth: 158, fontWeight: 400, color: colours.faded, borderRight: edge }}
            >
              {sort ? 'Sorted; press again to turn' : 'In walking order'}
            </Box>
            {order.map((zone) => (
              <Box
                component="th"
                scope="col"
                key={zone.zoneId}
                aria-current={zone.zoneId === chosen ? 'true' : undefined}
                sx={{
                  minWidth: 128,
                  borderRight: edge,
                  background: zone.zoneId === chosen ? colours.lichenWash : 'none',
                }}
              >
                <Button
                  size="small"
                  onClick={() => onChoose(zone.zoneId)}
                  sx={{ p: 0, minHeight: 24, textAlign: 'left', lineHeight: 1.2, justifyContent: 'start' }}
                >
                  {number(zone.zoneId)} {zone.name}
                </Button>
                <Box sx={{ fontWeight: 400, fontSize: '0.82rem', color: colours.faded }}>
                  {zone.grass}
                  <br />
                  {zone.sampledOn ?? 'no dated test'}
                  {zone.borrowed && ', not its own'}
                </Box>
                <Box sx={{ fontWeight: 700, fontSize: '0.85rem', color: zone.first ? colours.ochre : colours.lichen }}>
                  {zone.first
                    ? `${zone.first.label}, ${zone.first.standing === 'suspected' ? 'suspected' : zone.first.degree}`
                    : 'nothing limits'}
                </Box>
              </Box>
            ))}
          </tr>
          {groups.length > 0 && (
            <tr>
              <Box component="th" sx={{ ...fixed, fontWeight: 400, color: colours.faded, borderRight: edge }}>
                Grouped by its words
              </Box>
              {groups.map(({ word, count }, index) => (
                <Box
                  component="th"
                  scope="colgroup"
                  colSpan={count}
                  key={`${word} ${index}`}
                  sx={{ borderRight: edge, borderTop: `2px solid ${colours.ink}` }}
                >
                  {word} ({count})
                </Box>
              ))}
            </tr>
          )}
        </thead>
        <tbody>
          {rows.map((row, index) => (
            <Fragment key={row.key}>
              {row.group !== rows[index - 1]?.group && (
                <tr>
                  <Box
                    component="th"
                    scope="rowgroup"
                    colSpan={order.length + 1}
                    sx={{ borderTop: `1px solid ${colours.ink}`, color: colours.faded, fontSize: '0.85rem' }}
                  >
                    <Box component="span" sx={{ ...fixed, background: 'none' }}>
                      {row.group}
                    </Box>
                  </Box>
                </tr>
              )}
              <Box component="tr" sx={{ borderTop: edge }}>
                <Box
                  component="th"
                  scope="row"
                  aria-sort={sort?.key === row.key ? (sort.down ? 'descending' : 'ascending') : 'none'}
                  sx={{
                    ...fixed,
                    fontWeight: 400,
                    borderRight: edge,
                    background: shaded === row.key ? colours.slateWash : colours.paper,
                  }}
                >
                  <Button
                    size="small"
                    sx={{ p: 0, minHeight: 24, textAlign: 'left', lineHeight: 1.2, justifyContent: 'start' }}
                    onClick={() => {
                      onSort(turn(row.key));
                      onShade(row.key);
                    }}
                  >
                    {row.name}
                    {sort?.key === row.key ? (sort.down ? ' ↓' : ' ↑') : ''}
                  </Button>
                </Box>
                {order.map(({ zoneId }) => (
                  <Box component="td" key={zoneId} sx={{ borderRight: edge }}>
                    <Cell cell={cellOf(row, zoneId)} name={row.name} />
                  </Box>
                ))}
              </Box>
            </Fragment>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

/** All zones of a site side by side: sorted and grouped by any measure, laid beside one of them, on the drawing, on paper. */
export function Beside({ site, zone, zones }: ZoneStepProps) {
  const { system } = useUnits();
  const navigate = useNavigate();
  const [against, setAgainst] = useState('');
  const [sort, setSort] = useState<Sort>(null);
  const [shaded, setShaded] = useState('soilPh');
  const { data, error } = useQuery(readingQueries.siteReadings(site.id, system, against === '' ? null : against));
  if (error) return <Trouble error={error} />;
  if (!data) return <Typography sx={{ color: colours.faded }}>Reading all zones…</Typography>;
  const row = data.rows.find(({ key }) => key === shaded) ?? data.rows[0];
  const print = `/api/sites/${site.id}/readings.pdf?units=${system}&shaded=${row?.key ?? ''}${against === '' ? '' : `&against=${against}`}`;
  const doubted = data.zones.filter(({ doubts }) => doubts.length > 0);
  return (
    <Box>
      <Box
        sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'start', justifyContent: 'space-between', mb: 1 }}
      >
        <Box sx={{ flex: '1 1 320px', minWidth: 0 }}>
          <Typography variant="h1" component="h2" sx={{ fontSize: '1.5rem' }}>
            {data.zones.length} zones side by side
          </Typography>
          <Typography sx={{ color: colours.faded, maxWidth: 560 }}>
            Press a measure to sort the zones by it, to group them by its words and to shade the drawing; press a zone
            to choose it.
          </Typography>
          <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', mt: 1.5, alignItems: 'center' }}>
            <TextField
              select
              label="Differences from"
              value={against}
              onChange={(event) => setAgainst(event.target.value)}
              sx={{ minWidth: 220 }}
            >
              <MenuItem value="">no zone</MenuItem>
              {data.zones.map(({ zoneId, name }) => (
                <MenuItem key={zoneId} value={zoneId}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
            <Button variant="outlined" startIcon={<PrintIcon />} href={print} target="_blank">
              Print on one page
            </Button>
            {sort && <Button onClick={() => setSort(null)}>Walking order</Button>}
          </Box>
          {doubted.length > 0 && (
            <Typography sx={{ fontSize: '0.9rem', mt: 1, color: colours.faded, maxWidth: 620 }}>
              <strong>Weigh less: </strong>
              <Words>{doubted.map(({ name, doubts }) => `${name}: ${doubts.join(' ')}`).join(' ')}</Words>
            </Typography>
          )}
        </Box>
        {row && (
          <Box sx={{ flex: '0 1 420px' }}>
            <ShadedPlan
              zones={zones}
              row={row}
              chosen={zone.id}
              onChoose={(zoneId) => void navigate(stepPath(site.id, 'reading', zoneId))}
            />
          </Box>
        )}
      </Box>
      {data.rows.length === 0 ? (
        <Typography>Nothing was measured here yet.</Typography>
      ) : (
        <Grid
          answer={data}
          sort={sort}
          onSort={setSort}
          shaded={row?.key}
          onShade={setShaded}
          chosen={zone.id}
          onChoose={(zoneId) => void navigate(stepPath(site.id, 'reading', zoneId))}
        />
      )}
    </Box>
  );
}
