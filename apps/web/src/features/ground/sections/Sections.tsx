import { type Section, type ZoneAnswer, sections } from '@glenfold/contract';
import { Box, TextField, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { colours } from '../../../ui/theme.ts';
import { Trouble } from '../../../ui/bits.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { SectionPlans } from './SectionPlans.tsx';
import { useFacts } from '../facts/useFacts.ts';
import type { ZoneDress } from '../drawing/sheetMap.ts';

const sectionLooks: Readonly<Record<Section | 'none', { readonly label: string; readonly ground: string }>> = {
  now: { label: 'Now', ground: '#E8C79F' },
  next: { label: 'Next', ground: colours.paper },
  later: { label: 'Later', ground: '#B9C6D1' },
  none: { label: 'Not in order yet', ground: colours.sheet },
};

/** Zones dressed by when they are to be improved. */
export function sectionDress(zones: readonly ZoneAnswer[]): ReadonlyMap<string, ZoneDress> {
  return new Map(
    zones.map(({ id, label, facts }) => {
      const look = sectionLooks[facts.section ?? 'none'];
      return [id, { ground: look.ground, label: facts.section ? `${label}: ${look.label.toLowerCase()}` : label }];
    }),
  );
}

/** A large ground in the order in which it is improved. */
export function Sections({ siteId, zones }: { readonly siteId: string; readonly zones: readonly ZoneAnswer[] }) {
  const { say } = useUnits();
  const area = (section: Section | 'none'): number =>
    zones.reduce((sum, zone) => sum + ((zone.facts.section ?? 'none') === section ? zone.area : 0), 0);
  const whole = zones.reduce((sum, zone) => sum + zone.area, 0);
  return (
    <Box component="section" aria-label="Sections over the years">
      <Typography sx={{ mb: 1.5 }}>
        A large ground without watering is improved in sections over seasons. Pick what comes first and say why, so that
        the owner knows what waits, and that it was not forgotten.
      </Typography>
      <Box
        role="img"
        aria-label="Share of the ground by section"
        sx={{ display: 'flex', height: 26, border: `1px solid ${colours.ink}`, mb: 0.5 }}
      >
        {[...sections, 'none' as const].map((section) => {
          const share = whole > 0 ? area(section) / whole : 0;
          return share > 0 ? (
            <Box
              key={section}
              sx={{
                width: `${share * 100}%`,
                background: sectionLooks[section].ground,
                borderRight: `1px solid ${colours.ink}`,
              }}
            />
          ) : null;
        })}
      </Box>
      <Typography sx={{ mb: 1.5, fontSize: '0.92rem' }}>
        {[...sections, 'none' as const]
          .filter((section) => area(section) > 0)
          .map((section) => `${sectionLooks[section].label} ${say('area', area(section))}`)
          .join(', ')}
      </Typography>
      <SectionPlans siteId={siteId} />
      {zones.map((zone) => (
        <SectionRow key={zone.id} zone={zone} />
      ))}
    </Box>
  );
}

function SectionRow({ zone }: { readonly zone: ZoneAnswer }) {
  const { say } = useUnits();
  const { facts, change, saving } = useFacts(zone);
  const words = facts.sectionReason ?? '';
  return (
    <Box sx={{ borderTop: `1px solid ${colours.line}`, py: 1.25, display: 'grid', gap: 0.75 }}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        <Box sx={{ lineHeight: 1.25 }}>
          <strong>{zone.name}</strong>
          <Box sx={{ color: colours.faded, fontSize: '0.92rem' }}>{say('area', zone.area)}</Box>
        </Box>
        <ToggleButtonGroup
          exclusive
          size="small"
          aria-label={`When ${zone.name} is improved`}
          value={facts.section ?? null}
          onChange={(_event, section: Section | null) => change({ section })}
        >
          {sections.map((section) => (
            <ToggleButton key={section} value={section} sx={{ px: 1.5 }}>
              {sectionLooks[section].label}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Box>
      <TextField
        // What somebody else wrote meanwhile takes the place of what stood here.
        key={words}
        size="small"
        label="Why"
        defaultValue={words}
        onBlur={(event) => {
          const reason = event.target.value.trim() || null;
          if (reason !== (facts.sectionReason ?? null)) change({ sectionReason: reason });
        }}
      />
      <Trouble error={saving.error} />
    </Box>
  );
}
