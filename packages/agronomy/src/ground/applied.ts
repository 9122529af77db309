/** What was put down before, as far as it is known; rate in g/m² of product. */
export interface Applied {
  readonly kind: string;
  /** `2026`, `2026-04` or `2026-04-20`. */
  readonly on: string;
  readonly rate?: number | undefined;
  /** % calcium carbonate equivalent of a lime, its dryness counted. */
  readonly cce?: number | undefined;
  /** % by class of a lime; ordinary ground limestone where it is not told. */
  readonly mesh?: Readonly<Record<'fine' | 'medium' | 'coarse', number>> | undefined;
  /** cm of sand. */
  readonly layer?: number | undefined;
  /** As it is told. */
  readonly words?: string | undefined;
}
