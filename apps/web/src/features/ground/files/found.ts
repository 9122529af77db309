import type { FeatureKind, DrawnGeometry } from '@glenfold/agronomy';

/** What an item of a file becomes on the plan. */
export type ItemKind = FeatureKind | 'zone';

/** One item of a foreign file, as it was read and, where that is safe, repaired. */
export interface FoundItem {
  /** Place in the file, from 1. */
  readonly place: number;
  readonly name: string | null;
  /** Nothing for a zone that comes by its area alone. */
  readonly geometry: DrawnGeometry | null;
  /** m², of a zone without an outline. */
  readonly area?: number;
  /** m² to each side, of an outline that was walked. */
  readonly uncertainty?: number;
  readonly kind: ItemKind;
  /** Nothing says what it is: it comes only when a person says so. */
  readonly doubtful?: true;
  /** What else the file says of it; it is kept. */
  readonly properties: Readonly<Record<string, unknown>>;
  /** What was put right, one sentence each. */
  readonly repairs: readonly string[];
  /** Why it cannot come as it is. */
  readonly fault?: string;
}

export interface FoundFile {
  readonly name: string;
  readonly items: readonly FoundItem[];
  /** What holds for the whole file, such as its coordinate system. */
  readonly notes: readonly string[];
}

/** A file that cannot be taken, told with what to do. */
export class FileError extends Error {
  /** The person is to say which coordinate system the numbers are in. */
  readonly needsSystem: boolean;

  constructor(message: string, needsSystem = false) {
    super(message);
    this.name = 'FileError';
    this.needsSystem = needsSystem;
  }
}
