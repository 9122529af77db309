import { capital } from '../units/capital.ts';

/** Short names that are no words, as they are written. */
const written: Readonly<Record<string, string>> = {
  ...{ cce: 'CCE', cec: 'CEC', cv: 'CV', ec: 'EC', esp: 'ESP', et0: 'ET₀', id: 'id', ph: 'pH' },
  ...{ n: 'N', p: 'P', k: 'K', s: 'S', ca: 'Ca', mg: 'Mg', na: 'Na', fe: 'Fe', p2o5: 'P₂O₅', k2o: 'K₂O' },
};

/** What a person calls an input or a result: `soilPh` is "Soil pH", `holeDepth` is "Hole depth". */
export function plainLabel(name: string): string {
  const whole = written[name.toLowerCase()];
  if (whole) return whole;
  const words = name
    .replaceAll(/([a-z])([A-Z0-9])/g, '$1 $2')
    .toLowerCase()
    .split(' ')
    .map((word) => written[word] ?? word);
  const text = words.join(' ');
  return capital(text);
}
