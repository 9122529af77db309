import { sprayNozzles, sprayTank, spreading } from '@glenfold/agronomy';
import { Box, Typography } from '@mui/material';
import { ResultOf } from '../ResultOf.tsx';
import { Cautions } from '../bits.tsx';
import { type Calculated, calculate } from '../calculation.ts';
import { colours } from '../theme.ts';
import { useUnits } from '../units.tsx';
import { Opens } from '../working.tsx';
import { type Trial, TrialFields, TrialWarnings, useTrial } from './TrialFields.tsx';

const trialOf = ({ outcome }: Calculated): Trial | null =>
  outcome ? { rate: { value: outcome.result.output as number, working: outcome.working } } : null;

/** Try a sprayer: what its nozzles give, over the ground that is covered in the same time. */
export function SprayerTrial({ onTrial }: { readonly onTrial: (trial: Trial | null) => void }) {
  const { say } = useUnits();
  const tried = useTrial(sprayNozzles, { caught: [''] }, trialOf, onTrial);
  const { trial } = tried;
  return (
    <Box sx={{ display: 'grid', gap: 2 }}>
      <Typography>
        With clean water: a jug under each nozzle, then the walk over a measured distance at that pace.
      </Typography>
      <TrialFields {...tried} />
      {trial && (
        <Typography component="div" role="status">
          <Opens
            title="Put down in one pass"
            told={say('liquidRate', trial.rate.value)}
            working={trial.rate.working}
            size="1.5rem"
          />{' '}
          of mix in one pass
        </Typography>
      )}
      <TrialWarnings found={tried.found} />
    </Box>
  );
}

/** Share by which a pass may stand off the label’s water. */
const PASS_OFF = 0.1;

interface TankLoadsProps {
  /** m² */
  readonly area: number;
  /** L; nothing where the machine does not say. */
  readonly tank: number | null;
  /** mL/m² of mix in one pass; nothing until it was tried. */
  readonly output: number | null;
  /** mL/m² that the label asks for; nothing where it asks for none. */
  readonly water: number | null;
  /** mL/m² of product. */
  readonly productRate: number;
}

/** What goes into each tank, in which order, and how it is rinsed. */
export function TankLoads({ area, tank, output, water, productRate }: TankLoadsProps) {
  const { system, say } = useUnits();
  // The label’s water rules; what a pass puts down says how often it is gone over.
  const mix = water === null ? output : water + productRate;
  const known = tank !== null && mix !== null;
  const passes = mix !== null && output !== null ? mix / output : null;
  const { outcome, problem }: Calculated = known
    ? calculate(
        sprayTank,
        {
          area: `${area} m2`,
          tank: `${tank} L`,
          output: `${mix / 1000} L/m2`,
          productRate: `${productRate} mL/m2`,
        },
        system,
      )
    : {};
  return (
    <Box component="section" aria-label="Tank loads">
      {!known && (
        <Typography sx={{ color: colours.faded }}>
          {tank === null
            ? 'How many tanks it takes is known once the machine says what its tank holds.'
            : 'How many tanks it takes is known once the sprayer is tried.'}
        </Typography>
      )}
      {water !== null && (
        <Typography>
          The label asks for {say('liquidRate', water)} of water.
          {passes !== null &&
            passes > 1 + PASS_OFF &&
            ` At this pace that is ${Math.ceil(passes - PASS_OFF)} times over, crosswise; or walk slower.`}
          {passes !== null &&
            passes < 1 - PASS_OFF &&
            ' A pass puts down more than that: walk faster, or take a smaller nozzle.'}
        </Typography>
      )}
      {problem && <Cautions texts={[problem.words]} />}
      {outcome && <ResultOf outputs={sprayTank.outputs} result={outcome.result} />}
      <Box component="details" sx={{ mt: 1, '& > summary': { cursor: 'pointer', color: colours.slate } }}>
        <summary>Order of mixing, and the rinse</summary>
        <Typography variant="h3" sx={{ mt: 1 }}>
          Into the tank
        </Typography>
        <Box component="ol" sx={{ m: 0, pl: 2.5 }}>
          {spreading.mixing.map((step) => (
            <li key={step}>{step}.</li>
          ))}
        </Box>
        <Typography variant="h3" sx={{ mt: 1 }}>
          Afterwards
        </Typography>
        <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
          {spreading.rinse.map((step) => (
            <li key={step}>{step}.</li>
          ))}
        </Box>
        <Typography sx={{ color: colours.faded }}>
          The label comes before this order wherever it says another.
        </Typography>
      </Box>
    </Box>
  );
}
