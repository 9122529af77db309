import type { OwnerPage } from '@glenfold/agronomy';
import { HATCH, type OwnerReportAnswer, shadedPlan, zoneHatches } from '@glenfold/contract';
import { Box, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material';
import { type ReactNode, useId } from 'react';
import { Words } from '../../ui/Words.tsx';
import { dayWords } from '../../ui/days.ts';
import { colours } from '../../ui/theme.ts';

const COVER = { width: 560, height: 260 } as const;

/** The drawing on the cover: zones hatched and numbered as their pages. */
function CoverDrawing({ outlines, siteName }: OwnerReportAnswer) {
  const own = useId();
  const shapes = shadedPlan(outlines, COVER);
  if (shapes.length === 0) return null;
  const at = (zoneId: string): number => outlines.findIndex((one) => one.zoneId === zoneId);
  return (
    <svg
      viewBox={`0 0 ${COVER.width} ${COVER.height}`}
      width="100%"
      role="img"
      aria-label={`${siteName}: ${outlines.map(({ name }, index) => `${index + 1} ${name}`).join(', ')}`}
      style={{ maxWidth: COVER.width, display: 'block' }}
    >
      <defs>
        {zoneHatches.map((strokes, index) => (
          <pattern key={strokes} id={`${own}${index}`} width={HATCH} height={HATCH} patternUnits="userSpaceOnUse">
            <path d={strokes} stroke={colours.lichen} strokeWidth="0.8" fill="none" />
          </pattern>
        ))}
      </defs>
      <rect width={COVER.width} height={COVER.height} fill={colours.sheet} stroke={colours.line} />
      {shapes.map(({ zoneId, path, at: [x, y] }) => (
        <g key={zoneId}>
          <path d={path} fill={colours.lichenWash} fillRule="evenodd" />
          <path
            d={path}
            fill={`url(#${own}${at(zoneId) % zoneHatches.length})`}
            fillRule="evenodd"
            stroke={colours.ink}
            strokeWidth="1.1"
          />
          <rect x={x - 9} y={y - 9} width="18" height="18" fill={colours.sheet} />
          <text x={x} y={y + 5} textAnchor="middle" fontSize="13" fontWeight="700" fill={colours.ink}>
            {at(zoneId) + 1}
          </text>
        </g>
      ))}
    </svg>
  );
}

function Part({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ mt: 2 }}>
      <Typography variant="h3" component="h4" gutterBottom>
        {title}
      </Typography>
      {children}
    </Box>
  );
}

function Lines({ lines }: { readonly lines: readonly ReactNode[] }) {
  return (
    <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
      {lines.map((line, index) => (
        <li key={index}>{line}</li>
      ))}
    </Box>
  );
}

/** What is done in a zone, when, why and for how much. */
function Works({ works }: Pick<OwnerPage, 'works'>) {
  if (works.length === 0) return <Typography>Nothing is put down this year.</Typography>;
  const priced = works.some(({ cost }) => cost !== null);
  return (
    <Table size="small">
      <TableHead>
        <TableRow>
          <TableCell>What</TableCell>
          <TableCell>When</TableCell>
          <TableCell>Why</TableCell>
          {priced && <TableCell align="right">Cost</TableCell>}
        </TableRow>
      </TableHead>
      <TableBody>
        {works.map(({ what, when, why, cost }, index) => (
          <TableRow key={index}>
            <TableCell sx={{ fontWeight: 700 }}>
              <Words>{what}</Words>
            </TableCell>
            <TableCell>{when ?? 'as the ground allows'}</TableCell>
            <TableCell>
              <Words>{why}</Words>
            </TableCell>
            {priced && <TableCell align="right">{cost ?? 'open'}</TableCell>}
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}

interface ZonePageProps {
  readonly page: OwnerPage;
  readonly number: number;
  readonly photos: OwnerReportAnswer['photos'];
}

/** One zone as its owner reads it. */
function ZonePage({ page, number, photos }: ZonePageProps) {
  const { name, area, grass, found, works, expect, part, cautions, notBought, saved, retest, cost, borrowed } = page;
  return (
    <Box
      component="section"
      aria-label={`${number} ${name}`}
      sx={{ borderTop: `2px solid ${colours.ink}`, mt: 4, pt: 1.5, breakBefore: 'page' }}
    >
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, flexWrap: 'wrap' }}>
        <Box>
          <Typography variant="h2" component="h3">
            {number} {name}
          </Typography>
          <Typography sx={{ color: colours.faded }}>
            {area} of {grass}
          </Typography>
          {borrowed && (
            <Typography sx={{ color: colours.ochre, fontWeight: 700 }}>
              <Words>{borrowed}</Words>
            </Typography>
          )}
        </Box>
        {cost && <Box sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.25rem' }}>{cost}</Box>}
      </Box>
      <Box sx={{ display: 'flex', gap: 3, flexWrap: 'wrap', alignItems: 'start' }}>
        <Box sx={{ flex: '1 1 320px' }}>
          <Part title="What we found">
            {found.map((words) => (
              <Typography key={words}>
                <Words>{words}</Words>
              </Typography>
            ))}
          </Part>
        </Box>
        {photos.map(({ src, caption, takenOn }) => (
          <Box component="figure" key={src} sx={{ m: 0, mt: 2 }}>
            <img
              src={src}
              alt={caption ?? `${name}, ${takenOn ?? 'no day told'}`}
              style={{ maxWidth: 210, maxHeight: 140 }}
            />
            <Box component="figcaption" sx={{ fontSize: '0.85rem', color: colours.faded }}>
              {[caption, takenOn].filter(Boolean).join(', ')}
            </Box>
          </Box>
        ))}
      </Box>
      <Part title="What is done">
        <Works works={works} />
      </Part>
      {expect.length > 0 && (
        <Part title="What to expect, and by when">
          <Lines
            lines={expect.map(({ by, words }) => (
              <Words key={words}>{`${by}: ${words}`}</Words>
            ))}
          />
        </Part>
      )}
      <Part title="Your own part, and what cannot be promised without it">
        <Lines
          lines={part.map(({ does, without }) => (
            <span key={does}>
              <strong>
                <Words>{does}</Words>
              </strong>{' '}
              <Words>{without}</Words>
            </span>
          ))}
        />
      </Part>
      {(notBought.length > 0 || saved) && (
        <Part title="Need not be bought">
          <Typography>
            <Words>
              {[
                notBought.length > 0 ? `${notBought.join(', ')}.` : '',
                saved ? `Of the laboratory’s own list, about ${saved} is saved.` : '',
              ]
                .filter(Boolean)
                .join(' ')}
            </Words>
          </Typography>
        </Part>
      )}
      {cautions.length > 0 && (
        <Part title="Take care">
          <Box sx={{ color: colours.ochre, fontSize: '0.92rem' }}>
            <Lines
              lines={cautions.map((words) => (
                <Words key={words}>{words}</Words>
              ))}
            />
          </Box>
        </Part>
      )}
      {retest && (
        <Typography sx={{ mt: 2, fontWeight: 700 }}>
          Test again from {dayWords(retest.on)}. <Words>{retest.words}</Words>
        </Typography>
      )}
    </Box>
  );
}

/** The report for an owner as a page: the same as on paper, and readable by every device. */
export function OwnerPages({
  answer,
  letter,
}: {
  readonly answer: OwnerReportAnswer;
  /** In place of the letter, while it is being written. */ readonly letter?: ReactNode;
}) {
  const { report, siteName, place, practiceName, outlines, photos } = answer;
  if (!report) return null;
  const { first, pages, cost, saved, unpriced } = report;
  return (
    <Box component="article" aria-label="The report in plain words" sx={{ maxWidth: 860 }}>
      <Typography variant="h2">{siteName}</Typography>
      <Typography sx={{ color: colours.faded, mb: 1.5 }}>
        {[place, practiceName].filter(Boolean).join(' · ')}
      </Typography>
      <CoverDrawing {...answer} />
      <Typography sx={{ fontSize: '0.9rem', color: colours.faded, mt: 0.5 }}>
        {outlines.map(({ name }, index) => `${index + 1} ${name}`).join('   ')}
      </Typography>
      <Part title={first.length > 0 ? 'To do first' : 'Nothing presses'}>
        <Box component="ol" sx={{ m: 0, pl: 3 }}>
          {first.map(({ what, where, why }) => (
            <Box component="li" key={what} sx={{ mb: 1 }}>
              <strong>
                <Words>{what}</Words>
              </strong>
              <br />
              {where.join(', ')}. <Words>{why}</Words>
            </Box>
          ))}
        </Box>
      </Part>
      {cost && (
        <Typography sx={{ fontWeight: 700, mt: 1 }}>
          The year comes to {cost}
          {unpriced.length > 0 && `, without ${unpriced.join(', ')} (no price yet)`}.
        </Typography>
      )}
      {saved && <Typography>Of what the laboratory lists, about {saved} need not be spent.</Typography>}
      <Part title="The letter">
        {letter ?? <Typography sx={{ whiteSpace: 'pre-line', maxWidth: 640 }}>{answer.letter}</Typography>}
      </Part>
      {pages.map((page, index) => (
        <ZonePage
          key={page.zoneId}
          page={page}
          number={index + 1}
          photos={photos.filter(({ zoneId }) => zoneId === page.zoneId)}
        />
      ))}
    </Box>
  );
}
