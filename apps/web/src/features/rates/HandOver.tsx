import type { ZoneAnswer } from '@glenfold/contract';
import { Button, Link as MuiLink, Typography } from '@mui/material';
import { Trouble } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { useHandOver } from './api.ts';

interface HandOverProps {
  readonly siteId: string;
  /** Only this one of them; the whole site without. */
  readonly zone?: Pick<ZoneAnswer, 'id'> | undefined;
  readonly zones: readonly unknown[];
}

/** Freezes what the owner sees, as one program of the site or of a zone of it. */
export function HandOver({ siteId, zone, zones }: HandOverProps) {
  const { system } = useUnits();
  const may = useMay();
  const issue = useHandOver(siteId, system);
  if (!may('work.write')) return null;
  return (
    <>
      <Button
        variant="contained"
        disabled={issue.isPending}
        onClick={() =>
          issue.mutate(zone ? { zoneIds: [zone.id] } : {}, { onSuccess: ({ pdf }) => window.open(pdf, '_blank') })
        }
      >
        {zone && zones.length > 1 ? 'Hand this zone over (PDF)' : 'Hand the program over (PDF)'}
      </Button>
      <Trouble error={issue.error} />
      {issue.data && (
        <Typography
          role="status"
          sx={{
            borderLeft: `3px solid ${colours.lichen}`,
            background: colours.lichenWash,
            px: 1.5,
            py: 0.75,
            flexBasis: '100%',
          }}
        >
          Handed over as it stands now, and kept.{' '}
          <MuiLink href={issue.data.pdf} target="_blank">
            Open the PDF
          </MuiLink>
        </Typography>
      )}
    </>
  );
}
