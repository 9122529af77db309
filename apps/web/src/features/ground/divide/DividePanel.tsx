import { type Division, GeometryError, divisions, spotHeightsOf } from '@glenfold/agronomy/geometry';
import type { DrawingAnswer, ZoneAnswer } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useMemo } from 'react';
import { colours } from '../../../ui/theme.ts';
import { useUnits } from '../../../ui/units.tsx';
import type { Pen } from '../drawing/DrawingEditor.tsx';

type Say = ReturnType<typeof useUnits>['say'];

const titles: Readonly<Record<Division['why'], string>> = {
  canopy: 'Under a canopy',
  'paved edge': 'Beside paving',
  shade: 'In the shade of a wall',
  'slope break': 'Beyond a break of slope',
};

/** Signs that make a paved edge more than a suspicion. */
const SCORCH = ['scorched edge', 'dry patches'];

function reason({ why, measure, area, share }: Division, thing: string, zone: ZoneAnswer, say: Say): string {
  const part = `${say('area', area)}, ${Math.round(share * 100)} % of the zone`;
  switch (why) {
    case 'canopy':
      return `${part}, under ${thing}. Less light, roots that drink first, litter: it wants its own rate, and its own bag.`;
    case 'paved edge': {
      const seen = zone.facts.signs?.some(({ sign }) => SCORCH.includes(sign));
      return `${say('length', measure)} of border along ${thing}. ${seen ? 'You marked scorching here: a strip of its own can be watered and cut by itself.' : 'Stone stores heat: look whether a strip of it browns first, before you part it.'} ${part}.`;
    }
    case 'shade':
      return `${part}, where ${thing} casts ${say('length', measure)} of shade at noon of the equinox. Shade halves the nitrogen, and wants other grass.`;
    case 'slope break':
      return `${part}, where the slope changes by ${Math.round(measure)} points. Steep ground sheds water and what is spread on it.`;
  }
}

interface DividePanelProps {
  readonly zone: ZoneAnswer;
  readonly plan: DrawingAnswer;
  readonly pen: Pen | null;
}

/** Where the zone should be two, and why. */
export function DividePanel({ zone, plan, pen }: DividePanelProps) {
  const { say } = useUnits();
  const found = useMemo((): readonly Division[] => {
    if (!zone.geometry) return [];
    try {
      return divisions(zone.geometry, plan.features, spotHeightsOf(zone.geometry, plan.features));
    } catch (error) {
      if (error instanceof GeometryError) return [];
      throw error;
    }
  }, [zone, plan]);
  if (!zone.geometry) return <Typography>Draw the zone first: what divides it is read from its plan.</Typography>;
  const nameOf = (id: string | undefined): string => {
    const thing = plan.features.find((feature) => feature.id === id);
    return thing?.name ?? (thing ? `the ${thing.kind}` : 'it');
  };
  return (
    <>
      <Typography sx={{ mb: 1 }}>
        {found.length === 0
          ? 'Nothing on the plan divides this zone. Trees with their canopy, paving, walls with their height and spot heights are looked at.'
          : 'One zone is sampled and treated as one. On the plan, this one looks like more:'}
      </Typography>
      {found.map((division) => (
        <Box
          component="section"
          key={`${division.why} ${division.thing ?? ''}`}
          aria-label={titles[division.why]}
          sx={{ borderTop: `1px solid ${colours.line}`, py: 1 }}
        >
          <Typography sx={{ fontWeight: 700 }}>{titles[division.why]}</Typography>
          <Typography sx={{ lineHeight: 1.35 }}>{reason(division, nameOf(division.thing), zone, say)}</Typography>
          {pen && (
            <Button
              size="small"
              variant="outlined"
              sx={{ mt: 0.75 }}
              onClick={() =>
                pen.part(zone, division.parted, `${titles[division.why]}: part it off`, `${zone.name}, ${division.why}`)
              }
            >
              Make it a zone of its own
            </Button>
          )}
        </Box>
      ))}
    </>
  );
}
