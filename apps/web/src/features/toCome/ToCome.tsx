import type { Step } from '@glenfold/contract';
import { Box, Typography } from '@mui/material';
import { stepNames } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';

const plans: Readonly<
  Partial<Record<Step, { readonly what: string; readonly points: readonly string[]; readonly meanwhile: string }>>
> = {
  sampling: {
    what: 'Where to push the probe, how many cores, and where every bag is.',
    points: [
      'Composites proposed from grass, use and trouble',
      'Core positions to walk, with the error each number of cores buys',
      'Bag labels, the laboratory’s form, and the way of each bag',
    ],
    meanwhile: 'Until then, write the zone’s bag label on the bag: results are matched by it on the Lab step.',
  },
  season: {
    what: 'The year’s work in order, inside its windows.',
    points: [
      'Applications spaced as the rates ask',
      'Work cards with what to weigh out',
      'Soil temperature, rain and blackout dates',
    ],
    meanwhile: 'Until then, the printed plan lists the applications and how far apart they belong.',
  },
  logbook: {
    what: 'What was really put down, against the plan.',
    points: [
      'Product, amount, area, who and weather',
      'Running totals of nutrients and lime against caps',
      'What is left over',
    ],
    meanwhile: 'Until then, keep the printed plan and note on it what was done.',
  },
  proof: {
    what: 'The retest that shows whether it worked.',
    points: [
      'pH predicted and measured',
      'Zones that moved less, and what that says of their reserve',
      'A report for the owner',
    ],
    meanwhile:
      'Until then, enter the retest on the Lab step: the newest result is read, and the earlier ones stay on record there.',
  },
};

/** A step that is not built yet says plainly what will stand there. */
export function ToCome({ step }: { readonly step: Step }) {
  const plan = plans[step];
  if (!plan) return null;
  return (
    <Box sx={{ maxWidth: 620, border: `1px dashed ${colours.faded}`, p: 3, mt: 1 }}>
      <Typography sx={{ color: colours.faded }}>Not built yet</Typography>
      <Typography variant="h1" component="h2" gutterBottom>
        {stepNames[step]}
      </Typography>
      <Typography>{plan.what}</Typography>
      <ul>
        {plan.points.map((point) => (
          <li key={point}>{point}</li>
        ))}
      </ul>
      <Typography>{plan.meanwhile}</Typography>
    </Box>
  );
}
