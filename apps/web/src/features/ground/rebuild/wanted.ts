type Typed = number | string | null;

export interface Layer {
  readonly material: string;
  readonly depth: Typed;
  /** $/m³ */
  readonly price: Typed;
}

/** What is to be rebuilt, as it is typed. */
export interface Wanted {
  /** Nothing chosen yet: the zone that is. */
  readonly zones: readonly string[] | null;
  readonly layers: readonly Layer[];
  readonly truck: Typed;
  readonly payload: Typed;
  readonly haul: Typed;
}
