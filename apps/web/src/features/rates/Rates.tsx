import { ToggleButton, ToggleButtonGroup } from '@mui/material';
import { useSearchParams } from 'react-router';
import type { StepProps } from '../../ui/stepProps.ts';
import { SiteRates } from './SiteRates.tsx';
import { ZoneRates } from './ZoneRates.tsx';

/** Where the address keeps that the whole property is looked at. */
const WHOLE = 'whole';

/** The program of the chosen zone, or of the whole site. */
export function Rates(props: StepProps) {
  const [search, setSearch] = useSearchParams();
  const whole = search.has(WHOLE);
  return (
    <>
      {props.zones.length > 1 && (
        <ToggleButtonGroup
          exclusive
          size="small"
          value={whole ? 'whole' : 'zone'}
          aria-label="What of the rates"
          onChange={(_event, next: string | null) => next && setSearch(next === 'whole' ? { [WHOLE]: '' } : {})}
          sx={{ mb: 1.5 }}
        >
          <ToggleButton value="zone" sx={{ px: 1.5, textTransform: 'none' }}>
            The zone
          </ToggleButton>
          <ToggleButton value="whole" sx={{ px: 1.5, textTransform: 'none' }}>
            The whole site
          </ToggleButton>
        </ToggleButtonGroup>
      )}
      {whole ? <SiteRates {...props} /> : <ZoneRates {...props} />}
    </>
  );
}
