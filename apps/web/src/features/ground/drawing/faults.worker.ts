import { type Fault, type Outline, GeometryError, findFaults } from '@glenfold/agronomy/geometry';
import { expose } from 'comlink';

/** Overlaps and slivers of a plan, looked for beside the page that draws it. */
const work = {
  find(outlines: readonly Outline[]): readonly Fault[] {
    try {
      return findFaults(outlines);
    } catch (error) {
      if (error instanceof GeometryError) return [];
      throw error;
    }
  },
};
export type FaultsWork = typeof work;

expose(work);
