/** A probe that sends what it reads, over whatever it is connected by. */
export interface SoilProbe {
  readonly name: string;
  /** @returns °C, or % by volume; nothing where the reading was lost */
  readonly read: (what: 'temperature' | 'moisture') => Promise<number | null>;
}

/** Two sums of chance make a bell. */
const bell = (): number => Array.from({ length: 6 }, () => Math.random()).reduce((sum, one) => sum + one, 0) - 3;

/**
 * A made-up probe in place of one by Bluetooth: noise, now and then a lost reading, and a value that settles as it is left
 * in the ground.
 */
export function simulatedProbe(truth: { readonly temperature: number; readonly moisture: number }): SoilProbe {
  let left = 0;
  return {
    name: 'Simulated probe',
    read: async (what) => {
      await new Promise((later) => setTimeout(later, 250));
      left += 1;
      if (Math.random() < 0.15) return null;
      const warm = what === 'temperature' ? 6 * Math.exp(-left / 2) : 0;
      const noise = bell() * (what === 'temperature' ? 0.25 : 1.1);
      return Math.round((truth[what] + warm + noise) * 10) / 10;
    },
  };
}
