import { type LimitEvidence, limitRule } from '../reading/limitRules.ts';
import type { Degree } from '../reading/degrees.ts';
import { firstThatHolds } from '../rules/engine.ts';

/** How much something that was measured limits a lawn, by the rules that rank what limits it; nothing where it does not. */
export const degreeOf = (key: 'compaction' | 'thatch', evidence: LimitEvidence): Degree | undefined =>
  firstThatHolds(limitRule(key).cases, [], evidence)?.found.degree;
