import { type Sense, type UnitSystem, present } from '@glenfold/agronomy';
import { useCurrency } from './session.tsx';
import { type ReactNode, createContext, useCallback, useContext, useMemo, useState } from 'react';

interface Units {
  readonly system: UnitSystem;
  readonly choose: (system: UnitSystem) => void;
}

const KEY = 'glenfold.units';
const UnitsContext = createContext<Units | null>(null);

/** The person's one switch: metric or US. Kept with the person, and on this device for where nobody is signed in. */
export function UnitsProvider({ children }: { readonly children: ReactNode }) {
  const [system, setSystem] = useState<UnitSystem>(() => (localStorage.getItem(KEY) === 'metric' ? 'metric' : 'us'));
  const choose = useCallback((chosen: UnitSystem) => {
    localStorage.setItem(KEY, chosen);
    setSystem(chosen);
  }, []);
  const value = useMemo(() => ({ system, choose }), [system, choose]);
  return <UnitsContext value={value}>{children}</UnitsContext>;
}

export function useUnits(): Units & { readonly say: (sense: Sense, value: number) => string } {
  const units = useContext(UnitsContext);
  if (!units) throw new Error('UnitsProvider is missing.');
  const currency = useCurrency();
  return {
    ...units,
    say: (sense, value) => present(sense, value, units.system, currency).text.replace('$/', `${currency}/`),
  };
}
