import { Box, Button, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import type { StepProps } from '../../ui/stepProps.ts';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { useMay } from '../../ui/session.tsx';
import { BagList } from './bags/BagList.tsx';
import { DesignPanel } from './design/DesignPanel.tsx';
import { samplingQueries } from './api.ts';

const views = ['Plan', 'Bags'] as const;
type View = (typeof views)[number];

/** Where to push the probe, proof that it was done, and where every bag is. */
export function Sampling(props: StepProps) {
  const { site, zones } = props;
  const may = useMay();
  const { data: bags, error } = useQuery(samplingQueries.bags(site.id));
  const [chosen, setChosen] = useState<View | null>(null);
  const open = bags?.filter(({ state }) => state === 'planned').length ?? 0;
  const view: View = !may('work.write') ? 'Bags' : (chosen ?? ((bags?.length ?? 0) > 0 ? 'Bags' : 'Plan'));
  if (zones.length === 0)
    return (
      <Empty title="Divide the ground first" to={`/sites/${site.id}/ground`} action="To the ground">
        One composite is taken for each zone, so there must be zones.
      </Empty>
    );
  if (!bags) return <Trouble error={error} />;
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', flexWrap: 'wrap', gap: 1.5, mb: 1.5 }}>
        <Typography variant="h1" component="h2">
          {view === 'Plan' ? 'Plan the cores' : 'Bags of this site'}
        </Typography>
        {may('work.write') && (
          <ToggleButtonGroup
            exclusive
            size="small"
            value={view}
            aria-label="What of sampling"
            onChange={(_event, next: View | null) => next && setChosen(next)}
          >
            {views.map((name) => (
              <ToggleButton key={name} value={name} sx={{ px: 1.5, textTransform: 'none' }}>
                {name}
              </ToggleButton>
            ))}
          </ToggleButtonGroup>
        )}
        <Box sx={{ flex: 1 }} />
        {open > 0 && (
          <Button variant="contained" component={Link} to={`/walk/${site.id}`}>
            Walk {open} {open === 1 ? 'bag' : 'bags'}
          </Button>
        )}
        <Button variant="outlined" component={Link} to="/bags">
          All sites’ bags
        </Button>
      </Box>
      {view === 'Plan' ? (
        <DesignPanel {...props} onPlanned={() => setChosen('Bags')} />
      ) : (
        <BagList site={site} zones={zones} bags={bags} onPlan={() => setChosen('Plan')} />
      )}
    </>
  );
}
