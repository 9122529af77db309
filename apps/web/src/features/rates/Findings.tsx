import type { Finding } from '@glenfold/agronomy';
import type { ZoneProgramAnswer } from '@glenfold/contract';
import { Box, Button } from '@mui/material';
import { Words } from '../../ui/Words.tsx';
import { Trouble } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { colours } from '../../ui/theme.ts';
import { keptOf, openedOf, useChangeTreatment } from '../../api/treatments.ts';

/** What works against what, each with the mend. */
export function Findings({ zoneId, answer }: { readonly zoneId: string; readonly answer: ZoneProgramAnswer }) {
  const may = useMay();
  const change = useChangeTreatment(zoneId);
  const mend = ({ mend: offered }: Finding): void => {
    if (!offered) return;
    const { key, remedy, reason, out, months } = offered.change;
    const before = answer.changes.find((one) => one.change.key === key);
    change.mutate({
      seen: { id: key, version: before?.version ?? 0 },
      input: { ...keptOf(before), remedy, ...(months ? { months: [...months] } : {}), out: out ?? null, reason },
      opened: openedOf(before),
    });
  };
  const { findings } = answer.program;
  if (findings.length === 0) return null;
  return (
    <Box
      component="section"
      aria-label="To be minded"
      sx={{ borderLeft: `3px solid ${colours.ochre}`, background: colours.ochreWash, px: 1.5, py: 0.75, mb: 1.5 }}
    >
      {findings.map((finding) => (
        <Box
          key={finding.key}
          sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2, alignItems: 'baseline', py: 0.25 }}
        >
          <Box sx={{ flex: '1 1 320px' }}>
            <Words>{finding.words}</Words>
          </Box>
          {finding.mend && may('work.write') && (
            <Button size="small" variant="outlined" onClick={() => mend(finding)} disabled={change.isPending}>
              {finding.mend.words}
            </Button>
          )}
        </Box>
      ))}
      <Trouble error={change.error} />
    </Box>
  );
}
