import { correctionRules, defaultSettings, limeDepths, schools } from '@glenfold/agronomy';
import {
  Checkbox,
  FormControl,
  FormControlLabel,
  FormGroup,
  FormHelperText,
  FormLabel,
  TextField,
  Typography,
} from '@mui/material';
import { Fields } from '../../ui/FormDialog.tsx';
import { NumberField } from '../../ui/NumberField.tsx';
import { colours } from '../../ui/theme.ts';
import { Choice, capital } from './Choice.tsx';
import { Decided } from './Decided.tsx';
import type { Scope } from './scope.ts';

interface PartProps {
  readonly scope: Scope;
}

const schoolWords: Readonly<Record<string, string>> = {
  sufficiency: 'Sufficiency: feed what the test shows short',
  'minimum level': 'Minimum level: keep the soil above a floor',
  'cation balance': 'Cation balance: bring Ca, Mg and K to their shares',
};
const correctWords: Readonly<Record<string, string>> = {
  'outside the band': 'Only outside the grass’s band, then to the aim',
  'to the aim': 'Whenever it is 0.2 or more from the aim',
  'leave alone': 'Leave alone a wide middle, and the band',
  'toward neutral': 'Lime whatever is below neutral',
};
const depthWords: Readonly<Record<string, string>> = {
  'sampled slice': 'The slice that was sampled',
  'top 4 in': 'The top 4 in (10 cm) on established turf',
};

/** School of reading, when a pH is corrected, and how deep. */
export function School({ scope }: PartProps) {
  const { leaveAlone, neutralBelow } = defaultSettings;
  return (
    <Decided
      kind="school"
      scope={scope}
      name="School and when to correct"
      general={`Sufficiency; a pH is corrected only outside the grass’s band, then to the aim; lime is reckoned for the slice that was sampled.`}
      start={{ school: 'sufficiency', correct: 'outside the band', limeDepth: 'sampled slice' }}
      tell={({ school, correct, leaveAloneFrom, leaveAloneTo, neutralBelow: neutral, limeDepth, off, reason }) => (
        <>
          <Typography>{schoolWords[school]}.</Typography>
          <Typography>
            {correctWords[correct]}
            {correct === 'leave alone' && `: pH ${leaveAloneFrom ?? leaveAlone[0]}–${leaveAloneTo ?? leaveAlone[1]}`}
            {correct === 'toward neutral' && `: below pH ${neutral ?? neutralBelow}`}.
          </Typography>
          {off && off.length > 0 && <Typography>Not shown beside it: {off.join(', ')}.</Typography>}
          <Typography>Lime is reckoned for: {depthWords[limeDepth]?.toLowerCase()}.</Typography>
          {reason && <Typography sx={{ color: colours.faded }}>Because: {reason}</Typography>}
        </>
      )}
    >
      {({ typed, set, problem }) => (
        <>
          <Choice
            label="School of reading P and K"
            value={typed.school}
            values={schools}
            names={schoolWords}
            help={
              typed.school === 'cation balance'
                ? 'Field trials have not shown yield or quality from ideal ratios (Kopittke & Menzies 2007).'
                : typed.school === 'minimum level'
                  ? 'Made for Mehlich-3 at pH 5.5 and above; elsewhere nothing is said.'
                  : 'What most public laboratories read by.'
            }
            onChange={(school) =>
              set({ school: school as never, off: (typed.off ?? []).filter((one) => one !== school) })
            }
          />
          <FormControl component="fieldset" error={!!problem('off')}>
            <FormLabel component="legend" sx={{ fontSize: '0.9rem' }}>
              Schools shown beside it in Reading
            </FormLabel>
            <FormGroup row>
              {schools
                .filter((school) => school !== typed.school)
                .map((school) => (
                  <FormControlLabel
                    key={school}
                    label={capital(school)}
                    control={
                      <Checkbox
                        size="small"
                        checked={!(typed.off ?? []).includes(school)}
                        onChange={(_, shown) =>
                          set({
                            off: shown
                              ? (typed.off ?? []).filter((one) => one !== school)
                              : [...(typed.off ?? []), school],
                          })
                        }
                      />
                    }
                  />
                ))}
            </FormGroup>
            {problem('off') && <FormHelperText>{problem('off')}</FormHelperText>}
          </FormControl>
          <Choice
            label="When a pH is corrected"
            value={typed.correct}
            values={correctionRules}
            names={correctWords}
            help="An aim says where to, never whether."
            onChange={(correct) => set({ correct: correct as never })}
          />
          {typed.correct === 'leave alone' && (
            <Fields>
              <NumberField
                label="Left alone from pH"
                value={typed.leaveAloneFrom ?? leaveAlone[0]}
                onChange={(leaveAloneFrom) => set({ leaveAloneFrom })}
                problem={problem('leaveAloneFrom')}
              />
              <NumberField
                label="Left alone to pH"
                value={typed.leaveAloneTo ?? leaveAlone[1]}
                onChange={(leaveAloneTo) => set({ leaveAloneTo })}
                problem={problem('leaveAloneTo')}
              />
            </Fields>
          )}
          {typed.correct === 'toward neutral' && (
            <NumberField
              label="Limed below pH"
              value={typed.neutralBelow ?? neutralBelow}
              onChange={(below) => set({ neutralBelow: below })}
              problem={problem('neutralBelow')}
              helperText="Centipede and bahia only below their bands; organic soils by their own rule"
            />
          )}
          <Choice
            label="Lime reckoned for"
            value={typed.limeDepth}
            values={limeDepths}
            names={depthWords}
            help="Surface lime acts in the top first; the depth scales the rate."
            onChange={(limeDepth) => set({ limeDepth: limeDepth as never })}
          />
          {scope.at !== 'practice' && (
            <TextField
              label={`Why ${scope.name} is another case`}
              value={typed.reason ?? ''}
              onChange={(event) => set({ reason: event.target.value })}
              error={!!problem('reason')}
              helperText={problem('reason') ?? 'Stands beside the rate, and on paper'}
            />
          )}
        </>
      )}
    </Decided>
  );
}
