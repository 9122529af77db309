import { phosphorusRules, shortageRatings } from '@glenfold/agronomy';
import { TextField, Typography } from '@mui/material';
import { Fields } from '../../ui/FormDialog.tsx';
import { NumberField } from '../../ui/NumberField.tsx';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { useUnits } from '../../ui/units.tsx';
import { Choice } from './Choice.tsx';
import { Decided, Rows } from './Decided.tsx';
import { SourceFields } from './SourceFields.tsx';
import { dayWords } from './days.ts';
import type { Scope } from './scope.ts';

interface PartProps {
  readonly scope: Scope;
}

const phosphorusWords: Readonly<Record<string, string>> = {
  shortage: 'Only on a shown shortage, or while establishing',
  none: 'No rule for phosphorus',
  never: 'Never, whatever the test says',
};
const WHATS = ['nitrogen', 'phosphorus', 'all fertilizer'] as const;

/** What the law of the place says. */
export function PlaceRules({ scope }: PartProps) {
  const { say } = useUnits();
  return (
    <Decided
      kind="rules"
      scope={scope}
      name="Rules of the place"
      general="Not set: phosphorus only on a shown shortage or while establishing, as most local rules have it. Look the rule up, and write it down here."
      start={{ name: '', source: '', phosphorus: 'shortage', blackouts: [] }}
      tell={({
        name,
        source,
        phosphorus,
        shortage,
        establishing,
        proofYears,
        proof,
        nitrogenYear,
        nitrogenPass,
        waterStrip,
        blackouts,
      }) => (
        <>
          <Typography>
            <strong>{name}</strong>; {source}.
          </Typography>
          <Typography>
            Phosphorus: {phosphorusWords[phosphorus]?.toLowerCase()}.
            {phosphorus === 'shortage' &&
              ` A shortage is ${shortage ?? 'low'} or less${establishing === false ? '; a new lawn needs one too' : ''}.`}
          </Typography>
          {(proofYears != null || proof) && (
            <Typography>
              Proof:{' '}
              {[proofYears == null ? '' : `a test not older than ${proofYears} years`, proof ? `keep ${proof}` : '']
                .filter(Boolean)
                .join('; ')}
              .
            </Typography>
          )}
          {nitrogenYear != null && (
            <Typography>Nitrogen: at most {say('nutrientRate', nitrogenYear)} a year.</Typography>
          )}
          {nitrogenPass != null && (
            <Typography>Nitrogen: at most {say('nutrientRate', nitrogenPass)} in one pass.</Typography>
          )}
          {!!waterStrip && <Typography>Stay {say('length', waterStrip)} back from water and drains.</Typography>}
          {blackouts.map(({ from, to, what }) => (
            <Typography key={`${from} ${what}`}>
              No {what} from {dayWords(from)} to {dayWords(to)}.
            </Typography>
          ))}
        </>
      )}
    >
      {({ typed, set, problem }) => (
        <>
          <SourceFields typed={typed} set={set} problem={problem} />
          <Choice
            label="Phosphorus"
            value={typed.phosphorus}
            values={phosphorusRules}
            names={phosphorusWords}
            onChange={(phosphorus) => set({ phosphorus: phosphorus as never })}
          />
          {typed.phosphorus === 'shortage' && (
            <Fields columns={3}>
              <Choice
                label="A shortage is"
                value={typed.shortage ?? 'low'}
                values={shortageRatings}
                names={{ 'very low': 'Very low only', low: 'Low or less', medium: 'Medium or less' }}
                onChange={(shortage) => set({ shortage: shortage as never })}
              />
              <Choice
                label="A new lawn"
                value={typed.establishing === false ? 'no' : 'yes'}
                values={['yes', 'no']}
                names={{ yes: 'May have it without', no: 'Needs a shortage too' }}
                onChange={(answer) => set({ establishing: answer === 'yes' })}
              />
              <NumberField
                label="The test is at most"
                unit="years old"
                value={typed.proofYears}
                onChange={(proofYears) => set({ proofYears })}
                problem={problem('proofYears')}
                helperText="Empty where nothing is said"
              />
            </Fields>
          )}
          {typed.phosphorus === 'shortage' && (
            <TextField
              label="What is to be kept as proof"
              value={typed.proof ?? ''}
              onChange={(event) => set({ proof: event.target.value })}
              error={!!problem('proof')}
              helperText={problem('proof') ?? 'Such as: the report and the spreading record, three years'}
            />
          )}
          <Fields columns={3}>
            <QuantityField
              label="N a year, at most"
              sense="nutrientRate"
              value={typed.nitrogenYear}
              onChange={(nitrogenYear) => set({ nitrogenYear })}
              problem={problem('nitrogenYear')}
              helperText="Empty where there is none"
            />
            <QuantityField
              label="N in one pass, at most"
              sense="nutrientRate"
              value={typed.nitrogenPass}
              onChange={(nitrogenPass) => set({ nitrogenPass })}
              problem={problem('nitrogenPass')}
              helperText="Empty where there is none"
            />
            <QuantityField
              label="Strip by water and drains"
              sense="length"
              value={typed.waterStrip}
              onChange={(waterStrip) => set({ waterStrip })}
              problem={problem('waterStrip')}
            />
          </Fields>
          <Typography variant="h3">Blackouts, every year</Typography>
          <Rows
            rows={typed.blackouts}
            onRows={(blackouts) => set({ blackouts })}
            fresh={{ from: '11-15', to: '03-01', what: 'nitrogen' as const }}
            another="Another blackout"
            columns="1fr 1fr 1.4fr"
            label={(_row, at) => `blackout ${at + 1}`}
          >
            {(row, at, change) => (
              <>
                <TextField
                  label="From, month-day"
                  value={row.from}
                  onChange={(event) => change({ from: event.target.value })}
                  error={!!problem(`blackouts.${at}.from`)}
                  helperText={problem(`blackouts.${at}.from`) ?? dayWords(row.from)}
                />
                <TextField
                  label="To, month-day"
                  value={row.to}
                  onChange={(event) => change({ to: event.target.value })}
                  error={!!problem(`blackouts.${at}.to`)}
                  helperText={problem(`blackouts.${at}.to`) ?? dayWords(row.to)}
                />
                <Choice
                  label="Of"
                  value={row.what}
                  values={WHATS}
                  onChange={(what) => change({ what: what as 'nitrogen' })}
                />
              </>
            )}
          </Rows>
        </>
      )}
    </Decided>
  );
}
