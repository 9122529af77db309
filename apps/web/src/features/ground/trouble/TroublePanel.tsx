import { withReadableDays } from '@glenfold/contract';
import { type LikelyCause, type Testimony, signs as allSigns, troubleCauses } from '@glenfold/agronomy';
import type { DrawingAnswer, LabResultAnswer, SeenSign, ZoneAnswer } from '@glenfold/contract';
import DeleteIcon from '@mui/icons-material/DeleteOutlined';
import { Box, Button, IconButton, Typography } from '@mui/material';
import { useMemo, useState } from 'react';
import { colours } from '../../../ui/theme.ts';
import { Trouble } from '../../../ui/bits.tsx';
import { Opens } from '../../../ui/working.tsx';
import { useFacts } from '../facts/useFacts.ts';
import type { Pen } from '../drawing/DrawingEditor.tsx';
import { SignDrawing } from './SignDrawing.tsx';
import { SignPicker } from './SignPicker.tsx';
import { evidenceOn } from './evidenceOn.ts';
import { useToday } from '../../../ui/today.ts';

const labels = new Map(allSigns.map(({ name, label }) => [name, label]));

interface TroublePanelProps {
  readonly zone: ZoneAnswer;
  readonly result: LabResultAnswer | undefined;
  readonly plan: DrawingAnswer;
  readonly pen: Pen | null;
}

/** Signs of trouble in a zone, and what they point at. */
export function TroublePanel({ zone, result, plan, pen }: TroublePanelProps) {
  const { facts, change, saving } = useFacts(zone);
  const [picking, setPicking] = useState(false);
  const today = useToday(zone.siteId);
  const seen = useMemo(() => facts.signs ?? [], [facts.signs]);
  const { causes, working } = useMemo(() => {
    const names = [...new Set(seen.map(({ sign }) => sign))];
    if (names.length === 0) return { causes: [], working: [] };
    const known = evidenceOn({ ...zone, facts }, result, plan, today);
    const outcome = troubleCauses({ signs: names, facts: known });
    return { causes: outcome.result.causes, working: outcome.working };
  }, [seen, zone, facts, result, plan, today]);
  const add = (entry: SeenSign): void => change({ signs: [...seen, entry] });
  const likely = causes.filter(({ points }) => points > 0);
  return (
    <>
      {seen.length === 0 && (
        <Typography sx={{ mb: 1 }}>
          Nothing is marked. Walk the zone, best at the end of a dry spell, and mark what you see: each sign points at
          causes, and feeding is seldom the cure.
        </Typography>
      )}
      <Box component="ul" aria-label="Signs seen" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {seen.map((entry, index) => (
          <Box
            component="li"
            key={`${entry.sign} ${index}`}
            sx={{ display: 'flex', gap: 1, alignItems: 'center', borderBottom: `1px solid ${colours.line}`, py: 0.5 }}
          >
            <SignDrawing sign={entry.sign} size={44} />
            <Box sx={{ flex: 1, lineHeight: 1.25 }}>
              <strong>{labels.get(entry.sign)}</strong>
              <Box sx={{ fontSize: '0.88rem', color: colours.faded }}>
                {entry.at ? `marked on the plan, ${index + 1}` : 'all over'}
                {entry.on && `, ${withReadableDays(entry.on)}`}
              </Box>
            </Box>
            <IconButton
              size="small"
              aria-label={`Take out: ${labels.get(entry.sign)}`}
              onClick={() => change({ signs: seen.filter((other) => other !== entry) })}
            >
              <DeleteIcon fontSize="small" />
            </IconButton>
          </Box>
        ))}
      </Box>
      <Button variant={seen.length === 0 ? 'contained' : 'outlined'} sx={{ my: 1.5 }} onClick={() => setPicking(true)}>
        Mark what you see
      </Button>
      {likely.length > 0 && (
        <Typography variant="h3" sx={{ mb: 0.5 }}>
          Likely causes, in order
        </Typography>
      )}
      <Box component="ol" aria-label="Likely causes" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {likely.slice(0, 5).map((cause, index) => (
          <Cause key={cause.cause} cause={cause} first={index === 0} working={working} />
        ))}
      </Box>
      {likely.length > 5 && (
        <Typography sx={{ color: colours.faded, fontSize: '0.92rem' }}>
          Less likely:{' '}
          {likely
            .slice(5)
            .map(({ label }) => label.toLowerCase())
            .join(', ')}
          .
        </Typography>
      )}
      <Trouble error={saving.error} />
      {picking && (
        <SignPicker
          zoneName={zone.name}
          seen={new Set(seen.map(({ sign }) => sign))}
          drawn={!!zone.geometry && !!pen}
          onClose={() => setPicking(false)}
          onPick={(sign, where) => {
            setPicking(false);
            if (where === 'all over') add({ sign, on: today });
            else
              pen?.mark(`Click where you see it: ${labels.get(sign)?.toLowerCase()}.`, (at) =>
                add({ sign, at: [...at], on: today }),
              );
          }}
        />
      )}
    </>
  );
}

/** What speaks for a cause, or against it; the weights stand in the working behind "why". */
function Evidence({
  entries,
  against = false,
}: {
  readonly entries: readonly Testimony[];
  readonly against?: boolean;
}) {
  return entries.map(({ words }) => (
    <Box component="li" key={words} sx={{ display: 'flex', gap: 1, lineHeight: 1.3 }}>
      <Box
        component="span"
        aria-label={against ? 'against it' : 'for it'}
        sx={{ width: 14, flex: 'none', fontWeight: 700, color: against ? colours.slate : colours.ochre }}
      >
        {against ? '−' : '+'}
      </Box>
      <span>{words}</span>
    </Box>
  ));
}

interface CauseProps {
  readonly cause: LikelyCause;
  readonly first: boolean;
  readonly working: ReturnType<typeof troubleCauses>['working'];
}

/** A cause with what speaks for it and against it, and what would settle it. */
function Cause({ cause, first, working }: CauseProps) {
  const { label, means, check, unknown } = cause;
  const own = working.filter((entry) => entry.kind !== 'step' || entry.label === label);
  return (
    <Box
      component="li"
      sx={{
        borderTop: `1px solid ${colours.line}`,
        borderLeft: first ? `3px solid ${colours.ochre}` : 0,
        pl: first ? 1.25 : 0,
        py: 1,
      }}
    >
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}>
        <Typography sx={{ fontWeight: 700 }}>{label}</Typography>
        <Opens title={label} told="why" working={own} />
      </Box>
      {first && <Typography sx={{ lineHeight: 1.3, mb: 0.5 }}>{means}</Typography>}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0, fontSize: '0.92rem' }}>
        <Evidence entries={cause.for} />
        <Evidence entries={cause.against} against />
      </Box>
      <Typography sx={{ mt: 0.5, lineHeight: 1.3 }}>
        <strong>To settle it:</strong> {check.what} ({check.effort}). {check.settles}
      </Typography>
      {first && (
        <Typography sx={{ mt: 0.5, lineHeight: 1.3 }}>
          <strong>If so:</strong> {cause.first}
        </Typography>
      )}
      {unknown.length > 0 && (
        <Typography sx={{ fontSize: '0.88rem', color: colours.faded }}>Not known: {unknown.join(', ')}.</Typography>
      )}
    </Box>
  );
}
