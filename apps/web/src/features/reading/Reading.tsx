import { Box, ToggleButton, ToggleButtonGroup } from '@mui/material';
import { useSessionState } from '../../ui/useSessionState.ts';
import { Empty } from '../../ui/bits.tsx';
import type { StepProps } from '../../ui/stepProps.ts';
import { stepPath } from '../../ui/steps.ts';
import { Beside } from './Beside.tsx';
import { OverTime } from './OverTime.tsx';
import { Schools } from './Schools.tsx';
import { ZoneReading } from './ZoneReading.tsx';

const views = {
  zone: ['This zone', ZoneReading],
  time: ['Over time', OverTime],
  schools: ['Schools', Schools],
  all: ['All zones', Beside],
} as const;
type View = keyof typeof views;

/** What the soil says: of a zone, over the years, by each school, and of all zones side by side. */
export function Reading(props: StepProps) {
  // It stays from zone to zone.
  const [view, setView] = useSessionState<string>('reading view', 'zone');
  const { site, zone } = props;
  if (!zone)
    return (
      <Empty title="No zones yet" to={stepPath(site.id, 'ground')} action="Add a zone">
        Readings belong to zones.
      </Empty>
    );
  const [, Shown] = view in views ? views[view as View] : views.zone;
  return (
    <Box>
      <ToggleButtonGroup
        exclusive
        size="small"
        value={view}
        aria-label="What is read"
        onChange={(_, next: View | null) => next && setView(next)}
        sx={{ mb: 1.5, flexWrap: 'wrap' }}
      >
        {Object.entries(views).map(([key, [words]]) => (
          <ToggleButton key={key} value={key}>
            {words}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Shown {...props} zone={zone} />
    </Box>
  );
}
