import type { Fix } from '@glenfold/agronomy/geometry';

/** Where positions come from: the device, or a stand-in for it. */
export interface PositionSource {
  /** As a person chooses it. */
  readonly name: string;
  /** Whether it makes its positions up. */
  readonly simulated: boolean;
  /**
   * Begin to tell positions.
   * @param onLost told in words why none comes just now; the next fix takes it back
   * @returns what stops it
   */
  watch(onFix: (fix: Fix) => void, onLost: (words: string) => void): () => void;
}
