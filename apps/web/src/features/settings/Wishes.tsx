import { type CapKey, type TargetAnalyte, capKeys, capNames, grasses, targetAnalytes } from '@glenfold/agronomy';
import { Box, TextField, Typography } from '@mui/material';
import { Fields } from '../../ui/FormDialog.tsx';
import { NumberField } from '../../ui/NumberField.tsx';
import { QuantityField } from '../../ui/QuantityField.tsx';
import { Words } from '../../ui/Words.tsx';
import { useUnits } from '../../ui/units.tsx';
import { Choice, capital } from './Choice.tsx';
import { Decided, Rows } from './Decided.tsx';
import type { Scope } from './scope.ts';

interface PartProps {
  readonly scope: Scope;
}

const wanted = {
  organicMatter: {
    name: 'Organic matter',
    unit: '%',
    start: 3.5,
    tell: (value: number) => `${value} % organic matter`,
  },
  soilPh: { name: 'pH to aim at', unit: 'pH', start: 6.5, tell: (value: number) => `pH ${value.toFixed(1)}` },
  cec: { name: 'Exchange capacity', unit: 'meq/100 g', start: 10, tell: (value: number) => `CEC ${value} meq/100 g` },
} as const satisfies Readonly<Record<TargetAnalyte, object>>;

/** What is wanted by name. */
export function Targets({ scope }: PartProps) {
  const grassNames = Object.fromEntries(grasses.map(({ name, label }) => [name, capital(label)]));
  return (
    <Decided
      kind="targets"
      scope={scope}
      name="Targets with a name"
      general="None: each grass’s own aim for pH, and the band for organic matter of its kind of ground."
      start={{ targets: [{ name: '', analyte: 'organicMatter', value: 3.5, grass: null }] }}
      tell={({ targets }) =>
        targets.length === 0 ? (
          <Typography>None here.</Typography>
        ) : (
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {targets.map(({ name, analyte, value, grass }) => (
              <li key={`${name} ${analyte} ${grass ?? ''}`}>
                <strong>{name}</strong>: {wanted[analyte].tell(value)}
                {grass && ` for ${grassNames[grass]?.toLowerCase()}`}
              </li>
            ))}
          </Box>
        )
      }
    >
      {({ typed, set, problem }) => (
        <Rows
          rows={typed.targets}
          onRows={(targets) => set({ targets })}
          fresh={{ name: '', analyte: 'organicMatter', value: 3.5, grass: null }}
          another="Another target"
          columns="2fr 1.3fr 1fr 1.3fr"
          label={({ name }) => name || 'this target'}
        >
          {(row, at, change) => (
            <>
              <TextField
                label="Whose wish, or its name"
                value={row.name}
                onChange={(event) => change({ name: event.target.value })}
                error={!!problem(`targets.${at}.name`)}
                helperText={problem(`targets.${at}.name`)}
              />
              <Choice
                label="Of"
                value={row.analyte}
                values={targetAnalytes}
                names={Object.fromEntries(targetAnalytes.map((key) => [key, wanted[key].name]))}
                onChange={(analyte) =>
                  change({ analyte: analyte as TargetAnalyte, value: wanted[analyte as TargetAnalyte].start })
                }
              />
              <NumberField
                label="Wanted"
                unit={wanted[row.analyte].unit}
                value={row.value}
                onChange={(value) => change({ value: value as number })}
                problem={problem(`targets.${at}.value`)}
              />
              <Choice
                label="For"
                value={row.grass}
                values={grasses.map(({ name }) => name)}
                names={grassNames}
                none="every grass"
                onChange={(grass) => change({ grass })}
              />
            </>
          )}
        </Rows>
      )}
    </Decided>
  );
}

const capSense = (key: CapKey): 'limeRate' | 'nutrientRate' => (key.startsWith('lime') ? 'limeRate' : 'nutrientRate');

/** Caps lower than the general ones. */
export function Caps({ scope }: PartProps) {
  const { say } = useUnits();
  return (
    <Decided
      kind="caps"
      scope={scope}
      name="Caps of one’s own"
      general="None: the general caps of the tables hold, by surface."
      start={{}}
      tell={(caps) => {
        const set = capKeys.filter((key) => typeof caps[key] === 'number');
        return set.length === 0 ? (
          <Typography>None here.</Typography>
        ) : (
          <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
            {set.map((key) => (
              <li key={key}>
                <Words>{capNames[key]}</Words>: at most {say(capSense(key), caps[key]!)}
              </li>
            ))}
          </Box>
        );
      }}
    >
      {({ typed, set, problem }) => (
        <>
          <Typography>
            Own caps may hold lower than the general ones, never higher: a higher one changes nothing. Of two caps the
            lower holds.
          </Typography>
          <Fields columns={3}>
            {capKeys.map((key) => (
              <QuantityField
                key={key}
                label={capNames[key]}
                sense={capSense(key)}
                value={(typed as Readonly<Record<string, number | string | null | undefined>>)[key]}
                onChange={(value) => set({ [key]: value })}
                problem={problem(key)}
              />
            ))}
          </Fields>
        </>
      )}
    </Decided>
  );
}
