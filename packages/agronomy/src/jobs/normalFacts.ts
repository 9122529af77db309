import type { NormalDay } from '../season/normalDays.ts';
import type { Day } from './windowRules.ts';

/** What of a day the normals tell a rule; weather is not among it. */
export const normalFacts = ({ soil, trend, growth, growthDays, daysToFrost }: NormalDay): Day => ({
  ...{ soilTemperature: soil, soilTrend: trend, growth, growthDays, daysToFrost },
});
