import type { Figure } from '@glenfold/agronomy';
import { useState } from 'react';
import { FieldOf } from '../FieldOf.tsx';
import { Cautions } from '../bits.tsx';
import { type Calculable, type Calculated, type TypedForm, calculate } from '../calculation.ts';
import { useUnits } from '../units.tsx';

/** What a trial has found, to be kept with the machine. */
export interface Trial {
  /** g/m² of product in one pass; mL/m² of mix for a sprayer. */
  readonly rate: Figure;
  /** m between passes, where it was found too. */
  readonly width?: number;
}

interface TrialFieldsProps {
  readonly calculator: Calculable;
  readonly typed: TypedForm;
  readonly found: Calculated;
  readonly onTyped: (typed: TypedForm) => void;
}

/** A trial that a calculator works out of what is typed. */
export function useTrial(
  calculator: Calculable,
  first: TypedForm,
  trialOf: (found: Calculated) => Trial | null,
  onTrial: (trial: Trial | null) => void,
): TrialFieldsProps & { readonly trial: Trial | null } {
  const { system } = useUnits();
  const [typed, setTyped] = useState(first);
  const found = calculate(calculator, typed, system);
  return {
    ...{ calculator, typed, found, trial: trialOf(found) },
    onTyped: (next) => {
      setTyped(next);
      onTrial(trialOf(calculate(calculator, next, system)));
    },
  };
}

/** What a trial asks for. */
export function TrialFields({ calculator, typed, found, onTyped }: TrialFieldsProps) {
  return Object.entries(calculator.inputs).map(([name, field]) => (
    <FieldOf
      key={name}
      name={name}
      path={name}
      field={field}
      value={typed[name]}
      onChange={(value) => onTyped({ ...typed, [name]: value })}
      problem={found.problem}
    />
  ));
}

/** What the calculator warns of. */
export const TrialWarnings = ({ found: { outcome } }: Pick<TrialFieldsProps, 'found'>) => (
  <Cautions texts={(outcome?.working ?? []).flatMap((entry) => (entry.kind === 'warning' ? [entry.text] : []))} />
);
